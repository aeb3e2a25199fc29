package formats

import (
	"io"

	"zapbarn/core/measure"
	"zapbarn/core/work"
)

// CommissionPDF are the trials of a prop, or of all, as cards to be worked off: how, what
// is expected, and room for what was measured, by whom and when.
func CommissionPDF(out io.Writer, w *work.Work, prop string, paper Paper) error {
	trials := w.Trials(prop)
	if len(trials) == 0 {
		return empty(
			"prop",
			"there is nothing to commission yet: no contact, no driven switch, nothing that moves",
		)
	}
	title := w.Plan.Display().Name
	if p := w.Plan.Prop(prop); p != nil {
		title = p.Name
	}
	pdf := newPDF(paper, title+", commissioning")
	pdf.SetAutoPageBreak(false, 0)
	const edge, high = 14.0, 33.0
	y := paper.H
	for n, t := range trials {
		if y+high > paper.H-16 {
			pdf.AddPage()
			footed(pdf, paper)
			pdf.SetTextColor(35, 28, 21)
			pdf.SetFont(face, "B", 15)
			pdf.Text(edge, 18, letters(title+", before the first guest"))
			y = 24
		}
		wide := paper.W - 2*edge
		pdf.SetDrawColor(94, 81, 65)
		pdf.SetLineWidth(0.3)
		pdf.Rect(edge, y, wide, high-3, "D")
		pdf.SetFont(face, "B", 11)
		pdf.Text(edge+3, y+6, letters(measure.Decimal(float64(n+1), 0)+"  "+t.What))
		pdf.SetFont(face, "", 9)
		pdf.SetXY(edge+2, y+7.5)
		text := t.How + " Expected: " + t.Expect + "."
		if t.Danger != "" {
			text += " " + t.Danger
		}
		pdf.MultiCell(wide-4, 4, letters(text), "", "L", false)
		line := y + high - 6
		for i, what := range []string{"measured", "passed", "by", "on"} {
			x := edge + 3 + float64(i)*wide/4
			pdf.SetFont(face, "", 8)
			pdf.Text(x, line, letters(what))
			pdf.Line(x+14, line+.5, x+wide/4-4, line+.5)
		}
		y += high
	}
	return pdf.Output(out)
}
