package formats

import (
	"fmt"
	"io"
	"math"
	"slices"
	"strings"

	"zapbarn/core/cutting"
	"zapbarn/core/measure"
	"zapbarn/core/nest"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/work"

	"codeberg.org/go-pdf/fpdf"
)

// Paper is a page size in millimetres.
type Paper struct {
	Name string
	W, H float64
	Roll bool
}

// The papers a cut sheet prints on.
var (
	Letter = Paper{Name: "Letter", W: 215.9, H: 279.4}
	A4     = Paper{Name: "A4", W: 210, H: 297}
	// Plotter rolls: the page is as long as the drawing.
	Roll24 = Paper{Name: "24 in roll", W: 609.6, Roll: true}
	Roll36 = Paper{Name: "36 in roll", W: 914.4, Roll: true}
)

// Papers are all of them, by the name they are asked for with.
var Papers = map[string]Paper{"Letter": Letter, "A4": A4, "roll24": Roll24, "roll36": Roll36}

// scales are the reductions a sheet is drawn at, largest drawing first.
var scales = []float64{1, 2, 4, 5, 8, 10, 16, 20, 24, 32, 48, 64, 96, 128}

// scaleFor is the least reduction at which w x h mm fits into room.
func scaleFor(w, h, roomW, roomH float64) float64 {
	for _, s := range scales {
		if w/s <= roomW && h/s <= roomH {
			return s
		}
	}
	return scales[len(scales)-1]
}

// barLength is a round length whose drawing at the scale is 40 to 120 mm long.
func barLength(scale float64, metric bool) float64 {
	if metric {
		for _, l := range []float64{100, 200, 500, 1000, 2000, 5000, 10000} {
			if l/scale >= 40 {
				return l
			}
		}
	}
	for _, in := range []float64{4, 6, 12, 24, 36, 60, 120, 240, 480} {
		if in*measure.Inch/scale >= 40 {
			return in * measure.Inch
		}
	}
	return 480 * measure.Inch
}

type sheetWriter struct {
	pdf    *document
	tr     func(string) string
	paper  Paper
	w      *work.Work
	metric bool
	prop   plan.Prop
}

const pageMargin = 12.0

// CutSheet writes one prop's cut sheet: a list, the sheets its parts are laid
// on, the pipe list, and each part to scale with its bevels and marks. Every
// drawing states its scale and has a bar to check the print by.
func CutSheet(out io.Writer, w *work.Work, prop string, paper Paper) error {
	p := w.Plan.Prop(prop)
	if p == nil {
		return measure.Bad("prop", "there is no prop %q", prop)
	}
	if cuts := cutRows(w, prop); len(cuts) < 2 {
		return empty("prop", "%s has nothing to cut yet; give it a shape on the Bench first", p.Name)
	}
	pdf := newPDF(paper, w.Plan.Display().Name+", "+p.Name+", cut sheet")
	footed(pdf, paper)
	cutPages(pdf, w, p, paper)
	return pdf.Output(out)
}

// footed prints the usual caution and the page's number under every page.
func footed(pdf *document, paper Paper) {
	pdf.SetFooterFunc(func() {
		style, size := pdf.style, pdf.size
		pdf.footer = true
		pdf.SetFont(face, "", 7.5)
		pdf.SetTextColor(35, 28, 21)
		pdf.SetXY(pageMargin, paper.H-9)
		pdf.CellFormat(
			0,
			4,
			"Print at 100 %, no fit to page. Measure the bar before you cut. Goggles, dust mask; two people "+
				"for a large sheet; no flame on foam.",
			"",
			0,
			"L",
			false,
			0,
			"",
		)
		pdf.SetXY(pageMargin, paper.H-9)
		pdf.CellFormat(paper.W-2*pageMargin, 4, fmt.Sprint(pdf.PageNo()), "", 0, "R", false, 0, "")
		pdf.footer = false
		pdf.style, pdf.size = style, size // the library sets its own again
	})
}

// cutPages are the pages of one prop's cut sheet.
func cutPages(pdf *document, w *work.Work, p *plan.Prop, paper Paper) {
	pdf.SetMargins(pageMargin, pageMargin, pageMargin)
	pdf.SetAutoPageBreak(false, pageMargin)
	s := &sheetWriter{pdf: pdf, tr: letters, paper: paper, w: w, metric: w.Plan.Metric(), prop: *p}
	s.list()
	s.layouts()
	for _, part := range w.Parts() {
		if part.Solid.Prop == p.ID {
			s.part(part)
		}
	}
}

func (s *sheetWriter) font(style string, size float64) {
	s.pdf.SetFont(face, style, size)
	s.pdf.SetTextColor(35, 28, 21)
}

func (s *sheetWriter) heading(title, sub string) {
	s.pdf.AddPage()
	s.font("B", 15)
	s.pdf.SetXY(pageMargin, pageMargin)
	s.pdf.CellFormat(0, 7, s.tr(title), "", 2, "L", false, 0, "")
	s.font("", 9)
	s.pdf.CellFormat(0, 5, s.tr(sub), "", 2, "L", false, 0, "")
	s.pdf.SetLineWidth(0.4)
	s.pdf.SetDrawColor(35, 28, 21)
	s.pdf.Line(pageMargin, pageMargin+13.5, s.paper.W-pageMargin, pageMargin+13.5)
	s.pdf.SetY(pageMargin + 16)
}

// list is the first page: every part, its size, stock and count.
func (s *sheetWriter) list() {
	title := func() { s.heading(s.prop.Name+": cut list", s.w.Plan.Display().Name) }
	title()
	cols := []struct {
		name  string
		width float64
	}{{"No.", 10}, {"Part", 52}, {"Stock", 42}, {"Size", 44}, {"Cut", 10}, {"Mass each", 22}}
	head := func() {
		s.font("B", 9)
		s.pdf.within("TR", func() {
			for _, c := range cols {
				s.pdf.within("TH", func() { s.pdf.CellFormat(c.width, 6, c.name, "B", 0, "L", false, 0, "") })
			}
		})
		s.pdf.Ln(7)
		s.font("", 9)
	}
	head()
	widths := make([]float64, len(cols))
	for i, c := range cols {
		widths[i] = c.width
	}
	row := func(cells ...string) {
		lines, high := wrapped(s.pdf, cells, widths)
		if s.pdf.GetY()+high > s.paper.H-16 {
			title()
			head()
		}
		tableRow(s.pdf, lines, widths, high)
	}
	for _, part := range s.w.Parts() {
		if part.Solid.Prop == s.prop.ID {
			row(
				fmt.Sprint(part.No),
				part.Name(),
				s.w.Lib.Materials[part.Solid.Stock].Name,
				s.w.Results().At("part", part.Ref, "size").Text,
				fmt.Sprint(part.Panel.Copies),
				s.w.Results().At("part", part.Ref, "mass").Text,
			)
		}
	}
	for i := range s.w.Plan.Solids() {
		if sol := &s.w.Plan.Solids()[i]; sol.Prop == s.prop.ID && s.w.Shapes()[sol.ID] != nil {
			for _, c := range s.w.Shapes()[sol.ID].Cuts {
				row("", sol.Name, s.w.Lib.Materials[sol.Stock].Name, s.w.Len(c.Length), fmt.Sprint(c.Count), "")
			}
		}
	}
	s.pipes()
}

// pipes lists how each stock length is cut.
func (s *sheetWriter) pipes() {
	for _, b := range s.w.Bars() {
		mine := false
		for _, sol := range s.w.Plan.Solids() {
			mine = mine || sol.Prop == s.prop.ID && sol.Stock == b.Stock.ID
		}
		if !mine {
			continue
		}
		s.pdf.Ln(3)
		s.font("B", 10)
		s.pdf.CellFormat(
			0,
			6,
			s.tr(
				fmt.Sprintf("%s: %d lengths of %s, kerf counted", b.Stock.Name, len(b.Cutting.Bars), s.w.Stocked(b.Stock)),
			),
			"",
			1,
			"L",
			false,
			0,
			"",
		)
		full := b.Stock.Length.Value()
		wide := s.paper.W - 2*pageMargin - 30
		for i, bar := range b.Cutting.Bars {
			if s.pdf.GetY() > s.paper.H-22 {
				s.heading(s.prop.Name+": pipe", s.w.Plan.Display().Name)
			}
			y, x := s.pdf.GetY(), pageMargin+8
			s.font("", 8)
			s.pdf.SetXY(pageMargin, y)
			s.pdf.CellFormat(8, 5, fmt.Sprint(i+1), "", 0, "L", false, 0, "")
			for _, piece := range bar.Pieces {
				pw := piece / full * wide
				s.pdf.SetXY(x, y)
				s.pdf.CellFormat(pw, 5, s.tr(s.w.Len(piece)), "1", 0, "C", false, 0, "")
				x += pw + s.w.Plan.Kerf()/full*wide
			}
			s.pdf.SetXY(pageMargin+8+wide+2, y)
			s.pdf.CellFormat(20, 5, s.tr(s.w.Len(bar.Left)+" left"), "", 0, "L", false, 0, "")
			s.pdf.SetY(y + 6.5)
		}
	}
}

// bar draws the scale bar: red and white fields, its true length stated.
func (s *sheetWriter) bar(x, y, scale float64) {
	l := barLength(scale, s.metric)
	w := l / scale
	for i := range 4 {
		if i%2 == 0 {
			s.pdf.SetFillColor(140, 47, 27)
		} else {
			s.pdf.SetFillColor(35, 28, 21)
		}
		s.pdf.Rect(x+float64(i)*w/4, y, w/4, 2.2, "F")
	}
	s.font("", 8)
	s.pdf.SetXY(x, y+2.6)
	s.pdf.CellFormat(
		90,
		4,
		s.tr(
			fmt.Sprintf(
				"this bar is %s at 1:%g; it measures %s on paper",
				s.w.Len(l),
				scale,
				paperLength(w, s.metric),
			),
		),
		"",
		0,
		"L",
		false,
		0,
		"",
	)
}

func paperLength(mm float64, metric bool) string {
	if metric {
		return measure.Decimal(mm, 1) + " mm"
	}
	return measure.Decimal(mm/measure.Inch, 3) + " in"
}

// layouts draws each sheet that holds a part of this prop.
func (s *sheetWriter) layouts() {
	for _, sh := range s.w.Sheets() {
		for n, one := range sh.Layout.Sheets {
			mine := func(q nest.Placed) bool { return s.w.Part(sh.Pieces[q.Part].Ref).Solid.Prop == s.prop.ID }
			if slices.ContainsFunc(one.Placed, mine) {
				s.layout(sh, n)
			}
		}
	}
}

// layout draws one sheet; parts of other props are pale.
func (s *sheetWriter) layout(sh *cutting.Sheets, n int) {
	one := sh.Layout.Sheets[n]
	s.heading(
		sh.Stock.Name+", "+s.w.Called(sh, n),
		fmt.Sprintf(
			"%s x %s, kerf %s, margin %s; parts of other props are pale",
			s.w.Len(one.Stock.W),
			s.w.Len(one.Stock.H),
			s.w.Len(s.w.Plan.Kerf()),
			s.w.Len(s.w.Plan.Margin()),
		),
	)
	top, roomW, roomH := 32.0, s.paper.W-2*pageMargin, s.paper.H-32-28
	scale := scaleFor(one.Stock.W, one.Stock.H, roomW, roomH)
	at := func(q pattern.Point) fpdf.PointType {
		return fpdf.PointType{X: pageMargin + q.X/scale, Y: top + (one.Stock.H-q.Y)/scale}
	}
	s.pdf.SetLineWidth(0.5)
	s.pdf.Rect(pageMargin, top, one.Stock.W/scale, one.Stock.H/scale, "D")
	s.pdf.SetLineWidth(0.25)
	for _, q := range one.Placed {
		s.placed(s.w.Part(sh.Pieces[q.Part].Ref), sh.Boxes[q.Part], q, at, scale)
	}
	for _, o := range one.Offcuts {
		a, b := at(pattern.Point{X: o.X, Y: o.Y + o.H}), at(pattern.Point{X: o.X + o.W, Y: o.Y})
		s.pdf.SetDashPattern([]float64{1.5, 1.5}, 0)
		s.pdf.Rect(a.X, a.Y, b.X-a.X, b.Y-a.Y, "D")
		s.pdf.SetDashPattern(nil, 0)
		s.font("", 7)
		s.pdf.SetXY(a.X, (a.Y+b.Y)/2-2)
		keep := s.tr(fmt.Sprintf("keep %s x %s", s.w.Len(o.W), s.w.Len(o.H)))
		s.pdf.CellFormat(b.X-a.X, 4, keep, "", 0, "C", false, 0, "")
	}
	s.bar(pageMargin, s.paper.H-24, scale)
}

// placed draws a part where it lies on a sheet, and its number.
func (s *sheetWriter) placed(
	part *work.Part,
	box nest.Part,
	q nest.Placed,
	at func(pattern.Point) fpdf.PointType,
	scale float64,
) {
	rings, centre := OnSheet(part.Panel, box.W, box.H, q.X, q.Y, q.Turned, q.Flip)
	mine := part.Solid.Prop == s.prop.ID
	s.pdf.SetFillColor(217, 199, 201)
	if !mine {
		s.pdf.SetFillColor(246, 240, 226)
	}
	for k, ring := range rings {
		pts := make([]fpdf.PointType, len(ring))
		for i := range ring {
			pts[i] = at(ring[i])
		}
		if k > 0 {
			s.pdf.SetFillColor(255, 255, 255)
		}
		s.pdf.Polygon(pts, "DF")
	}
	if !mine {
		return
	}
	c := at(centre)
	if part.Panel.Bore > 0 {
		s.pdf.Circle(c.X, c.Y, part.Panel.Bore/2/scale, "D")
		c.Y -= (part.Panel.Round + part.Panel.Bore) / 4 / scale
	}
	s.font("", 7)
	s.pdf.SetXY(c.X-10, c.Y-2)
	s.pdf.CellFormat(20, 4, fmt.Sprint(part.No), "", 0, "C", false, 0, "")
}

// OnSheet is a panel's outside outline where it lies on a sheet, and where its label goes.
func OnSheet(
	p pattern.Panel,
	boxW, boxH, x, y float64,
	turned, flip bool,
) (rings [][]pattern.Point, mid pattern.Point) {
	lo, _ := p.Bounds()
	for _, r := range append([][]pattern.Point{p.Outline}, p.Holes...) {
		out := make([]pattern.Point, len(r))
		for i, q := range r {
			q.X, q.Y = q.X-lo.X, q.Y-lo.Y
			if flip {
				q.X, q.Y = boxW-q.X, boxH-q.Y
			}
			if turned {
				q.X, q.Y = q.Y, boxW-q.X
			}
			out[i] = pattern.Point{X: x + q.X, Y: y + q.Y}
		}
		rings = append(rings, out)
	}
	return rings, pattern.LabelAt(rings)
}

// part draws one part to scale.
func (s *sheetWriter) part(part *work.Part) {
	p := part.Panel
	m := s.w.Lib.Materials[part.Solid.Stock]
	s.heading(
		fmt.Sprintf("%d. %s", part.No, part.Name()),
		fmt.Sprintf("%s, cut %d, no. %d of %d", m.Name, p.Copies, part.No, part.Of),
	)
	lo, hi := p.Bounds()
	roomW, roomH := s.paper.W-2*pageMargin-24, s.paper.H-pageMargin-20-92
	scale := scaleFor(hi.X-lo.X, hi.Y-lo.Y, roomW, roomH)
	x0 := pageMargin + 4 + (roomW-(hi.X-lo.X)/scale)/2
	y0 := 36.0
	at := func(q pattern.Point) fpdf.PointType {
		return fpdf.PointType{X: x0 + (q.X-lo.X)/scale, Y: y0 + (hi.Y-q.Y)/scale}
	}
	s.outlines(p, at)
	s.dimensions(at(lo), at(hi), s.w.Len(hi.X-lo.X), s.w.Len(hi.Y-lo.Y))
	s.faced(part, at(pattern.Point{X: (lo.X + hi.X) / 2, Y: (lo.Y + hi.Y) / 2}))
	s.pdf.SetXY(pageMargin, math.Max(at(lo).Y+16, s.paper.H-86))
	s.font("B", 9)
	s.pdf.CellFormat(0, 5, "Saw", "", 1, "L", false, 0, "")
	s.font("", 9)
	for _, line := range SawLines(p, s.metric) {
		s.pdf.CellFormat(0, 4.6, s.tr(line), "", 1, "L", false, 0, "")
	}
	if p.Inside != nil {
		s.pdf.CellFormat(0, 4.6, s.tr("Dashed: the inside face, seen through."), "", 1, "L", false, 0, "")
	}
	s.bar(pageMargin, s.paper.H-24, scale)
}

// outlines draws a panel: outline, holes, pockets, the inside face, marks, rabbets.
func (s *sheetWriter) outlines(p pattern.Panel, at func(pattern.Point) fpdf.PointType) {
	draw := func(poly []pattern.Point, style string) {
		pts := make([]fpdf.PointType, len(poly))
		for i := range poly {
			pts[i] = at(poly[i])
		}
		s.pdf.Polygon(pts, style)
	}
	dashed := func(dashes []float64, poly []pattern.Point) {
		s.pdf.SetLineWidth(0.2)
		s.pdf.SetDashPattern(dashes, 0)
		draw(poly, "D")
		s.pdf.SetDashPattern(nil, 0)
	}
	s.pdf.SetFillColor(240, 232, 233)
	s.pdf.SetLineWidth(0.55)
	draw(p.Outline, "DF")
	s.pdf.SetFillColor(255, 255, 255)
	for _, h := range p.Holes {
		draw(h, "DF")
	}
	s.pdf.SetFillColor(226, 214, 217)
	for _, k := range p.Pockets {
		s.pdf.SetLineWidth(0.25)
		draw(k.Ring, "DF")
	}
	s.pdf.SetLineWidth(0.55)
	s.pdf.SetFillColor(255, 255, 255)
	if p.Bore > 0 {
		draw(pattern.Circle(p.Round/2, p.Round/2, p.Bore), "DF")
	}
	if p.Inside != nil {
		dashed([]float64{2, 1.2}, p.Inside)
	}
	s.pdf.SetLineWidth(0.2)
	for _, m := range p.Marks {
		q, r := at(m[0]), at(m[1])
		s.pdf.Line(q.X, q.Y, r.X, r.Y)
	}
	for i, e := range p.Edges { // rabbets, in the inside face
		if e.Depth > 0 {
			q, r := p.Inward(i, e.Width)
			dashed([]float64{3, 1, 0.6, 1}, []pattern.Point{q, r})
		}
	}
}

// dimensions are the overall width, below, and the height, at the right, of what lies
// between two corners on the paper.
func (s *sheetWriter) dimensions(a, b fpdf.PointType, wide, high string) {
	s.pdf.SetLineWidth(0.2)
	s.pdf.Line(a.X, a.Y+6, b.X, a.Y+6)
	s.pdf.Line(a.X, a.Y+2, a.X, a.Y+8)
	s.pdf.Line(b.X, a.Y+2, b.X, a.Y+8)
	s.font("", 9)
	s.pdf.SetXY(a.X, a.Y+6.6)
	s.pdf.CellFormat(b.X-a.X, 4.5, s.tr(wide), "", 0, "C", false, 0, "")
	s.pdf.Line(b.X+6, a.Y, b.X+6, b.Y)
	s.pdf.Line(b.X+2, a.Y, b.X+8, a.Y)
	s.pdf.Line(b.X+2, b.Y, b.X+8, b.Y)
	s.pdf.TransformBegin()
	s.pdf.TransformRotate(90, b.X+10, (a.Y+b.Y)/2)
	s.pdf.SetXY(b.X-10, (a.Y+b.Y)/2-2)
	s.pdf.CellFormat(40, 4.5, s.tr(high), "", 0, "C", false, 0, "")
	s.pdf.TransformEnd()
}

// faced says in a part's middle which face is drawn, and where its upper edge points.
func (s *sheetWriter) faced(part *work.Part, mid fpdf.PointType) {
	s.font("B", 10)
	s.pdf.SetXY(mid.X-20, mid.Y-8)
	face, up := part.Face()
	s.pdf.CellFormat(40, 5, face, "", 0, "C", false, 0, "")
	s.pdf.SetLineWidth(0.5)
	s.pdf.Line(mid.X, mid.Y+6, mid.X, mid.Y-1)
	s.pdf.Line(mid.X, mid.Y-1, mid.X-1.6, mid.Y+1.6)
	s.pdf.Line(mid.X, mid.Y-1, mid.X+1.6, mid.Y+1.6)
	s.font("", 8)
	s.pdf.SetXY(mid.X+2, mid.Y+1)
	s.pdf.CellFormat(10, 4, up, "", 0, "L", false, 0, "")
}

// SawLines says in words how a part's edges are cut.
func SawLines(p pattern.Panel, metric bool) []string {
	out := append([]string(nil), p.Notes...)
	if p.Round > 0 {
		l := fmt.Sprintf("Circle of %s", measure.Tape(p.Round, metric))
		if p.Bore > 0 {
			l += fmt.Sprintf(", hole of %s; keep the plug", measure.Tape(p.Bore, metric))
		}
		return append(out, l+"; string or trammel at the radius.")
	}
	if p.CutAngle > 0.05 {
		out = append(out, "Sides: cut angle on the face "+measure.Degrees(p.CutAngle)+" from square.")
	}
	groups := map[string][]string{}
	var order []string
	for _, e := range p.Edges {
		text := "square"
		switch {
		case e.Joint == "rabbet":
			text = fmt.Sprintf(
				"rabbet %s wide, %s deep, in the inside face",
				measure.Tape(e.Width, metric),
				measure.Tape(e.Depth, metric),
			)
		case math.Abs(e.Tilt) > 0.05:
			way := "inside face smaller"
			if e.Tilt < 0 {
				way = "inside face longer"
			}
			text = fmt.Sprintf("blade tilt %s, %s", measure.Degrees(math.Abs(e.Tilt)), way)
		}
		if e.Reason != "" {
			text += " (" + e.Reason + ")"
		}
		if groups[text] == nil {
			order = append(order, text)
		}
		groups[text] = append(groups[text], e.Name)
	}
	for _, text := range order {
		names := strings.Join(groups[text], ", ")
		if names != "" {
			out = append(out, measure.Capital(names)+": "+text+".")
		}
	}
	return out
}
