package web

import "zapbarn/core/form"

// Palette is the solids that can be added by pressing their drawing; their
// sizes are then pulled to what is wanted.
func (p *benchView) Palette() []Add {
	var out []Add
	for _, k := range form.Pressed() {
		line := k.Press.Inches
		if p.Plan.Metric() {
			line = k.Press.Metric
		}
		out = append(out, Add{k.Press.Name, line, k.Press.Outline, k.Press.Lines})
	}
	return out
}
