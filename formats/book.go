package formats

import (
	"bytes"
	"fmt"
	"io"
	"math"
	"sort"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/wiring"
	"zapbarn/core/work"

	"codeberg.org/go-pdf/fpdf"
)

// Chapter is a prop in a book, and the page it begins on.
type Chapter struct {
	Name string
	Page int
	Note string // what is still open in it
}

// Book prints the whole display: contents, then for each prop its drawing, joints, coats
// and prove cards, its cut list, sheets and parts, and its harness. Open says of a prop
// what is still to mend; it may be nil. The chapters and the number of pages are returned.
func Book(
	out io.Writer,
	w *work.Work,
	open func(prop string) string,
	paper Paper,
) (list []Chapter, pages int, err error) {
	for i := range w.Plan.Props() {
		c := Chapter{Name: w.Plan.Props()[i].Name}
		if open != nil {
			c.Note = open(w.Plan.Props()[i].ID)
		}
		list = append(list, c)
	}
	if _, err = bound(w, list, paper); err != nil { // to know the pages
		return nil, 0, err
	}
	pdf, err := bound(w, list, paper)
	if err != nil {
		return nil, 0, err
	}
	return list, pdf.PageCount(), pdf.Output(out)
}

// Pages is how many pages the book has.
func Pages(w *work.Work, paper Paper) (int, error) {
	pdf, err := bound(w, make([]Chapter, len(w.Plan.Props())), paper)
	if err != nil {
		return 0, err
	}
	return pdf.PageCount(), nil
}

// bound prints all of it with the chapters' pages as they are known, and puts them right.
func bound(w *work.Work, list []Chapter, paper Paper) (*document, error) {
	pdf := newPDF(paper, w.Plan.Display().Name+", all of it")
	footed(pdf, paper)
	b := &binder{sheetWriter{pdf: pdf, tr: letters, paper: paper, w: w, metric: w.Plan.Metric()}}
	b.contents(list)
	for i := range w.Plan.Props() {
		p := &w.Plan.Props()[i]
		b.prop = *p
		b.overview()
		list[i].Page = pdf.PageNo()
		pdf.Bookmark(letters(p.Name), 0, 0)
		b.joints()
		b.coats()
		b.prove()
		if b.has(p.ID) {
			cutPages(pdf, w, p, paper)
		}
		if h := w.Harness(p.ID); len(h.Wires) > 0 {
			harnessPages(pdf, w, p, h, paper)
		}
	}
	return pdf, pdf.Error()
}

// binder writes the pages a book has beside the cut sheets and harnesses.
type binder struct{ sheetWriter }

func (b *binder) has(prop string) bool {
	for i := range b.w.Plan.Solids() {
		if b.w.Plan.Solids()[i].Prop == prop {
			return true
		}
	}
	return false
}

// page begins a page of the book's own.
func (b *binder) page(title, sub string) {
	b.pdf.SetMargins(pageMargin, pageMargin, pageMargin)
	b.pdf.SetAutoPageBreak(false, pageMargin)
	b.heading(title, sub)
}

func (b *binder) contents(list []Chapter) {
	d := b.w.Plan.Display()
	opens := ""
	if d.Opens != "" {
		opens = "Opens " + d.Opens + ". "
	}
	title := func() { b.page(d.Name, opens+"Everything in one print.") }
	title()
	widths := []float64{84, 84, 20}
	b.font("", 11)
	for _, c := range list {
		lines, high := wrapped(b.pdf, []string{c.Name, c.Note, fmt.Sprint(c.Page)}, widths)
		if b.pdf.GetY()+high > b.paper.H-16 {
			title()
			b.font("", 11)
		}
		tableRow(b.pdf, lines, widths, high+1.4)
	}
}

// overview is a prop's first page: its front to scale, and its numbers.
func (b *binder) overview() {
	size, ok := plan.ExtentOf(
		b.w.Plan.Solids(),
		b.prop.ID,
		func(s *plan.Solid) *pattern.Shape { return b.w.Shapes()[s.ID] },
	)
	b.page(b.prop.Name, b.prop.Note)
	if !ok {
		b.font("", 10)
		b.pdf.CellFormat(0, 6, "No parts with sizes yet.", "", 1, "L", false, 0, "")
		return
	}
	top := b.pdf.GetY() + 2
	scale := scaleFor(size.X, size.Z, b.paper.W-2*pageMargin-20, 120)
	b.front(scale, size, top)
	b.pdf.SetXY(pageMargin, top+size.Z/scale+4)
	b.font("", 10)
	b.pdf.CellFormat(
		0,
		6,
		b.tr(fmt.Sprintf("%s wide, %s deep, %s tall; the front at 1:%g.", b.w.Len(size.X), b.w.Len(size.Y),
			b.w.Len(size.Z), scale)),
		"",
		1,
		"L",
		false,
		0,
		"",
	)
	for _, r := range b.w.Results().Of("prop", b.prop.ID) {
		b.pdf.CellFormat(70, 5.4, b.tr(r.Label), "", 0, "L", false, 0, "")
		b.pdf.CellFormat(0, 5.4, b.tr(r.Text), "", 1, "L", false, 0, "")
	}
}

// front draws what is seen of the prop from the front, far faces first.
func (b *binder) front(scale float64, size pattern.Vec, top float64) {
	type seen struct {
		points []fpdf.PointType
		depth  float64
	}
	var faces []seen
	left := math.Inf(1)
	each := func(do func(s *plan.Solid, f pattern.Face)) {
		for i := range b.w.Plan.Solids() {
			s := &b.w.Plan.Solids()[i]
			if shape := b.w.Shapes()[s.ID]; s.Prop == b.prop.ID && shape != nil {
				for _, body := range shape.Bodies {
					for _, f := range body.Faces {
						do(s, f)
					}
				}
			}
		}
	}
	floor := math.Inf(1)
	each(func(s *plan.Solid, f pattern.Face) {
		for _, p := range f.Points {
			left, floor = math.Min(left, p.X+s.X.Value()), math.Min(floor, p.Z+s.Z.Value())
		}
	})
	x0 := pageMargin + 10
	each(func(s *plan.Solid, f pattern.Face) {
		if len(f.Points) < 3 || facing(f) >= -1e-9 {
			return
		}
		v := seen{}
		for _, p := range f.Points {
			v.points = append(v.points, fpdf.PointType{
				X: x0 + (p.X+s.X.Value()-left)/scale,
				Y: top + (size.Z-(p.Z+s.Z.Value()-floor))/scale,
			})
			v.depth += (p.Y + s.Y.Value()) / float64(len(f.Points))
		}
		faces = append(faces, v)
	})
	sort.SliceStable(faces, func(i, j int) bool { return faces[i].depth > faces[j].depth })
	b.pdf.SetLineWidth(0.15)
	b.pdf.SetDrawColor(35, 28, 21)
	b.pdf.SetFillColor(255, 255, 255)
	for _, v := range faces {
		b.pdf.Polygon(v.points, "FD")
	}
}

// facing is the depth part of a face's normal: less than nothing towards the front.
func facing(f pattern.Face) float64 {
	n := 0.0
	for i, p := range f.Points {
		q := f.Points[(i+1)%len(f.Points)]
		n += (p.Z - q.Z) * (p.X + q.X)
	}
	return n
}

// table is a list of the book's with its heading; nothing when it has no rows.
func (b *binder) table(title string, names []string, widths []float64, rows [][]string) {
	if len(rows) == 0 {
		return
	}
	head := func() {
		b.font("B", 11)
		b.pdf.CellFormat(0, 8, title, "", 1, "L", false, 0, "")
		b.font("B", 9)
		b.pdf.within("TR", func() {
			for i, n := range names {
				b.pdf.within("TH", func() { b.pdf.CellFormat(widths[i], 6, n, "B", 0, "L", false, 0, "") })
			}
		})
		b.pdf.Ln(7)
		b.font("", 9)
	}
	if b.pdf.GetY() > b.paper.H-40 {
		b.page(b.prop.Name, "")
	}
	b.pdf.Ln(2)
	head()
	for _, r := range rows {
		lines, high := wrapped(b.pdf, r, widths)
		if b.pdf.GetY()+high > b.paper.H-16 {
			b.page(b.prop.Name, "")
			head()
		}
		tableRow(b.pdf, lines, widths, high)
	}
}

func (b *binder) joints() {
	var rows [][]string
	for i := range b.w.Plan.Joints() {
		j := &b.w.Plan.Joints()[i]
		if j.Prop != b.prop.ID {
			continue
		}
		a := b.w.Joints()[j.ID]
		rows = append(rows, []string{
			b.w.Plan.Name(j), b.w.Lib.Glues[j.Glue].Name,
			measure.Span(a.Open), measure.Span(a.Clamp), measure.Span(a.Full), a.Verdict.String(),
		})
	}
	b.table("Joints", []string{"Joint", "Glue", "Open", "Clamp", "Full", "Verdict"},
		[]float64{62, 52, 18, 18, 18, 18}, rows)
}

func (b *binder) coats() {
	var rows [][]string
	for _, f := range b.w.Plan.Finishes() {
		s := b.w.Solid(f.Solid)
		if s == nil || s.Prop != b.prop.ID {
			continue
		}
		for k, l := range f.Layers {
			wait := ""
			if x := b.w.Finishes()[f.ID].Waits; k < len(x) {
				wait = measure.Span(x[k])
			}
			rows = append(
				rows,
				[]string{s.Name, fmt.Sprint(k + 1), b.w.Lib.Coats[l.Coat].Name, fmt.Sprint(l.Coats), wait},
			)
		}
	}
	b.table("Coats", []string{"On", "No.", "Coat", "Times", "Then wait"}, []float64{52, 12, 76, 16, 28}, rows)
}

// prove is a card for each thing that is to be lit on the bench: what it should read, and
// room for what it does.
func (b *binder) prove() {
	var rows [][]string
	for i := range b.w.Plan.Devices() {
		d := &b.w.Plan.Devices()[i]
		r, ok := b.w.All().Readings[d.ID]
		if d.Prop != b.prop.ID || !d.Is(wiring.Load) || !ok {
			continue
		}
		rows = append(
			rows,
			[]string{d.Name, measure.Volts(r.Volts), measure.Amps(r.Amps), "________", "________", "[   ]"},
		)
	}
	b.table(
		"Prove on the bench, everything on",
		[]string{"What", "Volts", "Amperes", "Measured V", "Measured A", "Lit"},
		[]float64{70, 22, 24, 26, 26, 14},
		rows,
	)
}

// BookBytes is the book as a file.
func BookBytes(w *work.Work, open func(prop string) string, paper Paper) ([]byte, error) {
	var b bytes.Buffer
	_, _, err := Book(&b, w, open, paper)
	return b.Bytes(), err
}
