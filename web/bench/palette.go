package bench

import (
	"zapbarn/core/form"
	"zapbarn/web/shell"
)

// Palette is the solids that can be added by pressing their drawing; their
// sizes are then pulled to what is wanted.
func (p *view) Palette() []shell.Add {
	var out []shell.Add
	for _, k := range form.Pressed() {
		line := k.Press.Inches
		if p.Plan.Metric() {
			line = k.Press.Metric
		}
		out = append(out, shell.Press(k.Press.Name, line, k.Press.Outline, k.Press.Lines))
	}
	return out
}
