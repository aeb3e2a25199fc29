package formats

import (
	"fmt"
	"io"
	"net/url"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/stores"
	"zapbarn/core/work"
)

// codeWide is how wide a label's code is, mm.
const codeWide = 17.0

// labels are a print of labels, three across and eight down a page.
type labels struct {
	pdf    *document
	paper  Paper
	lw, lh float64
	n      int
}

const labelCols, labelRows, labelEdge = 3, 8, 8.0

func newLabels(title string, paper Paper) *labels {
	l := &labels{pdf: newPDF(paper, title), paper: paper}
	l.lw, l.lh = (paper.W-2*labelEdge)/labelCols, (paper.H-2*labelEdge)/labelRows
	l.pdf.SetAutoPageBreak(false, 0)
	return l
}

// put prints a label; its code opens an address, "" for none.
func (l *labels) put(number, title, opens string, lines ...string) {
	pdf := l.pdf
	if l.n%(labelCols*labelRows) == 0 {
		pdf.AddPage()
	}
	x, y := labelEdge+float64(l.n%labelCols)*l.lw, labelEdge+float64(l.n/labelCols%labelRows)*l.lh
	l.n++
	pdf.SetDrawColor(94, 81, 65)
	pdf.SetLineWidth(0.15)
	pdf.SetDashPattern([]float64{1.5, 1.5}, 0)
	pdf.Rect(x, y, l.lw, l.lh, "D")
	pdf.SetDashPattern(nil, 0)
	room := l.lw - 5
	if opens != "" {
		pdf.code(x+l.lw-codeWide-.5, y+l.lh-codeWide-.5, codeWide, opens)
	}
	pdf.SetTextColor(35, 28, 21)
	pdf.SetFont(face, "B", 17)
	pdf.Text(x+3, y+8, letters(number))
	in := 5 + pdf.GetStringWidth(letters(number))
	pdf.SetFont(face, "B", 9.5)
	pdf.Text(x+in, y+6, shortened(pdf, title, l.lw-in-2))
	pdf.SetFont(face, "", 8)
	for i, line := range lines {
		wide := room
		if base := y + 13 + float64(i)*4.2; opens != "" && base > y+l.lh-codeWide {
			wide -= codeWide - 2
		}
		pdf.Text(x+3, y+13+float64(i)*4.2, shortened(pdf, line, wide))
	}
}

// shortened is a text cut to a width, its end told by dots.
func shortened(pdf *document, s string, room float64) string {
	s = letters(s)
	if pdf.GetStringWidth(s) <= room {
		return s
	}
	r := []rune(s)
	for len(r) > 1 && pdf.GetStringWidth(string(r)+"...") > room {
		r = r[:len(r)-1]
	}
	return string(r) + "..."
}

// Labels writes a label for every copy of every part of a prop, to be cut apart and stuck
// on the part's inside; then one for every offcut on the shelf. A label says which part it
// is, of how many, its stock and size, and what to hold up; its code opens the part at the
// display's address, or there is none where that is not known.
func Labels(out io.Writer, w *work.Work, prop string, paper Paper) error {
	p := w.Plan.Prop(prop)
	if p == nil {
		return measure.Bad("prop", "there is no prop %q; open one first", prop)
	}
	l := newLabels(p.Name+", labels", paper)
	for _, part := range w.Parts() {
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
			l.put(
				fmt.Sprint(part.No),
				part.Name(),
				w.Plan.Code("part", part.Ref, "bench", url.Values{"prop": {prop}, "sel": {"part:" + part.Ref}, "way": {"parts"}}),
				p.Name+", "+of,
				m.Name,
				size,
				hold,
			)
		}
	}
	for _, o := range w.Plan.Offcuts() {
		l.offcut(w, &o)
	}
	if l.n == 0 {
		return empty("prop", "%s has no parts to label yet", p.Name)
	}
	return l.pdf.Output(out)
}

func (l *labels) offcut(w *work.Work, o *plan.Offcut) {
	opens := w.Plan.Code("offcut", o.ID, "bench", url.Values{"sel": {"offcut:" + o.ID}})
	l.put("OFFCUT", w.Lib.Materials[o.Stock].Name, opens, w.Len(o.W.Value())+" x "+w.Len(o.H.Value()),
		"the second along the grain", o.Label, "use it before a new sheet")
}

// BinLabels writes a label for every bin of the shelf, with what lies in it, for every
// bottle with when it was opened, and for every offcut; their codes open the stores there.
func BinLabels(out io.Writer, w *work.Work, _ string, paper Paper) error {
	l := newLabels(w.Plan.Display().Name+", bins", paper)
	for _, b := range stores.Bins(w) {
		lines := b.Holds
		if len(lines) > 4 {
			lines = append(lines[:3:3], fmt.Sprintf("and %d more", len(lines)-3))
		}
		l.put("BIN", b.Name, w.Plan.Code("bin", b.Name, "stores", url.Values{"bin": {b.Name}}), lines...)
	}
	for i := range w.Plan.Lots() {
		x := &w.Plan.Lots()[i]
		l.put("BOTTLE", w.Lib.Glues[x.Glue].Name,
			w.Plan.Code("lot", x.ID, "bench", url.Values{"sel": {"lot:" + x.ID}}), "opened "+x.Opened)
	}
	for _, o := range w.Plan.Offcuts() {
		l.offcut(w, &o)
	}
	if l.n == 0 {
		return empty("bin", "nothing lies in a bin, no bottle is open, no offcut is on the shelf")
	}
	return l.pdf.Output(out)
}
