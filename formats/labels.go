package formats

import (
	"fmt"
	"io"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/work"
)

// Labels writes a label for every copy of every part of a prop, three across
// and eight down a page, to be cut apart and stuck on the part's inside; then
// one for every offcut on the shelf. A label says which part it is, of how
// many, its stock and size, and what to hold up.
func Labels(out io.Writer, w *work.Work, prop string, paper Paper) error {
	p := w.Plan.Prop(prop)
	if p == nil {
		return measure.Bad("prop", "there is no prop %q; open one first", prop)
	}
	const cols, rows, edge = 3, 8, 8.0
	lw, lh := (paper.W-2*edge)/cols, (paper.H-2*edge)/rows
	pdf := newPDF(paper, p.Name+", labels")
	pdf.SetAutoPageBreak(false, 0)
	tr := letters
	n := 0
	label := func(number, title string, lines ...string) {
		if n%(cols*rows) == 0 {
			pdf.AddPage()
		}
		x, y := edge+float64(n%cols)*lw, edge+float64(n/cols%rows)*lh
		n++
		pdf.SetDrawColor(94, 81, 65)
		pdf.SetLineWidth(0.15)
		pdf.SetDashPattern([]float64{1.5, 1.5}, 0)
		pdf.Rect(x, y, lw, lh, "D")
		pdf.SetDashPattern(nil, 0)
		pdf.SetTextColor(35, 28, 21)
		pdf.SetFont(face, "B", 17)
		pdf.Text(x+3, y+8, tr(number))
		in := 5 + pdf.GetStringWidth(tr(number))
		pdf.SetFont(face, "B", 9.5)
		fit := func(s string, room float64) string {
			for len(s) > 4 && pdf.GetStringWidth(tr(s)) > room {
				s = strings.TrimSuffix(s, "...")
				r := []rune(s)
				s = string(r[:len(r)-1]) + "..."
			}
			return s
		}
		pdf.Text(x+in, y+6, tr(fit(title, lw-in-2)))
		pdf.SetFont(face, "", 8)
		for i, l := range lines {
			pdf.Text(x+3, y+13+float64(i)*4.2, tr(fit(l, lw-5)))
		}
	}
	for _, part := range w.Parts {
		if part.Solid.Prop != prop {
			continue
		}
		m := w.Lib.Materials[part.Solid.Stock]
		face, up := part.Face()
		hold := "stick inside; outside away;  ^ " + up
		if face == "TOP" {
			hold = "stick underneath; top up;  ^ " + up
		}
		if part.Panel.Hand != "" {
			hold = strings.ToUpper(part.Panel.Hand) + " of a pair;  " + hold
		}
		lo, hi := part.Panel.Bounds()
		size := w.Len(hi.X-lo.X) + " x " + w.Len(hi.Y-lo.Y)
		if m.Grain != "" && part.Panel.Grain == "up" {
			size += ", " + map[string]string{"wood": "grain", "flutes": "flutes"}[m.Grain] + " run up"
		}
		for c := range part.Panel.Copies {
			of := fmt.Sprintf("no. %d of %d", part.No, part.Of)
			if part.Panel.Copies > 1 {
				of += fmt.Sprintf(", copy %d of %d", c+1, part.Panel.Copies)
			}
			label(fmt.Sprint(part.No), part.Name(), p.Name+", "+of, m.Name+", "+size, hold)
		}
	}
	for _, o := range w.Plan.Offcuts {
		label(
			"OFFCUT",
			w.Lib.Materials[o.Stock].Name,
			w.Len(o.W.Value())+" x "+w.Len(o.H.Value())+", the second along the grain",
			o.Label,
			"use it before a new sheet",
		)
	}
	if n == 0 {
		return measure.Bad("prop", "%s has no parts to label yet", p.Name)
	}
	return pdf.Output(out)
}
