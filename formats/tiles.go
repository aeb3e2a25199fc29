package formats

import (
	"fmt"
	"io"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/work"

	"codeberg.org/go-pdf/fpdf"
)

// Tile overlap and margin on paper, in mm.
const (
	tileMargin  = 10.0
	tileOverlap = 12.0
)

// tiling is how many pages a drawing takes and how far apart they lie.
func tiling(f *Flat, p Paper) (cols, rows int, stepX, stepY float64) {
	stepX, stepY = p.W-2*tileMargin-tileOverlap, p.H-2*tileMargin-tileOverlap
	cols = max(1, int(math.Ceil((f.W-tileOverlap)/stepX)))
	rows = max(1, int(math.Ceil((f.H-tileOverlap)/stepY)))
	return
}

// turned is the drawing a quarter round.
func (f *Flat) turned() *Flat {
	g := &Flat{Title: f.Title, W: f.H, H: f.W}
	at := func(p pattern.Point) pattern.Point { return pattern.Point{X: f.H - p.Y, Y: p.X} }
	for _, s := range f.Lines {
		t := Stroke{Layer: s.Layer, Closed: s.Closed}
		for _, p := range s.Points {
			t.Points = append(t.Points, at(p))
		}
		g.Lines = append(g.Lines, t)
	}
	for _, t := range f.Texts {
		t.At = at(t.At)
		g.Texts = append(g.Texts, t)
	}
	return g
}

// FlatMockup is a prop's outline from the front, full size, to be cut from card
// and stood up before any foam is.
func FlatMockup(w *work.Work, prop string) (*Flat, error) {
	p := w.Plan.Prop(prop)
	if p == nil {
		return nil, measure.Bad("prop", "there is no prop %q; open one first", prop)
	}
	var bodies []pattern.Body
	for i := range w.Plan.Solids() {
		s := &w.Plan.Solids()[i]
		shape := w.Shapes()[s.ID]
		if s.Prop != prop || shape == nil {
			continue
		}
		for _, b := range shape.Bodies {
			bodies = append(bodies, b.At(pattern.Vec{X: s.X.Value(), Y: s.Y.Value(), Z: s.Z.Value()}))
		}
	}
	rings := pattern.Silhouette(bodies)
	if rings == nil {
		return nil, empty("prop", "%s has no parts to draw yet", p.Name)
	}
	lo, hi := pattern.Panel{Outline: rings[0]}.Bounds()
	for _, r := range rings[1:] {
		a, b := pattern.Panel{Outline: r}.Bounds()
		lo, hi = pattern.Point{X: math.Min(lo.X, a.X), Y: math.Min(lo.Y, a.Y)}, pattern.Point{
			X: math.Max(hi.X, b.X),
			Y: math.Max(hi.Y, b.Y),
		}
	}
	f := &Flat{Title: p.Name + ", card mock-up", W: hi.X - lo.X, H: hi.Y - lo.Y}
	for _, r := range rings {
		s := Stroke{Layer: "cut", Closed: true}
		for _, q := range r {
			s.Points = append(s.Points, pattern.Point{X: q.X - lo.X, Y: q.Y - lo.Y})
		}
		f.Lines = append(f.Lines, s)
	}
	f.Texts = append(f.Texts, Label{pattern.Point{X: f.W / 2, Y: f.H / 2}, 20, p.Name + " from the front"})
	return f, nil
}

// Tiles writes the drawing at 1:1 over as many pages as it takes: pages overlap
// by 12 mm, corner marks meet when they are taped right, a page map comes
// first, and every page has a scale bar.
func (f *Flat) Tiles(out io.Writer, paper Paper, metric bool) error {
	if paper.Roll { // as long as it takes, the drawing's longer side along it
		if f.W > paper.W-2*tileMargin && f.H < f.W {
			f = f.turned()
		}
		paper.H = f.H + 2*tileMargin + 16
	}
	cols, rows, stepX, stepY := tiling(f, paper)
	if cols*rows > 400 {
		return measure.Bad("paper", "takes %d pages; print it on a roll, or the sheet drawing instead", cols*rows)
	}
	t := &tiler{newPDF(paper, f.Title+" at 1:1"), f, paper, metric, cols, rows, stepX, stepY}
	t.pdf.SetAutoPageBreak(false, 0)
	t.overview()
	for r := range rows {
		for c := range cols {
			t.page(c, r)
		}
	}
	return t.pdf.Output(out)
}

// tiler prints a drawing over pages.
type tiler struct {
	pdf          *document
	f            *Flat
	paper        Paper
	metric       bool
	cols, rows   int
	stepX, stepY float64
}

func (t *tiler) text(size, x, y float64, s string) {
	t.pdf.SetFont(face, "", size)
	t.pdf.SetTextColor(35, 28, 21)
	t.pdf.Text(x, y, letters(s))
}

// bar is what is measured before anything is cut.
func (t *tiler) bar(x, y float64) {
	l, say := 4*measure.Inch, "4 in"
	if t.metric {
		l, say = 100, "100 mm"
	}
	for i := range 4 {
		if i%2 == 0 {
			t.pdf.SetFillColor(140, 47, 27)
		} else {
			t.pdf.SetFillColor(35, 28, 21)
		}
		t.pdf.Rect(x+float64(i)*l/4, y, l/4, 2, "F")
	}
	t.text(7, x, y-1, "this bar is "+say+": measure it, then cut")
}

// tileName is what a page is called on the map: A1 at the lower left.
func tileName(c, r int) string { return fmt.Sprintf("%c%d", 'A'+r%26, c+1) }

// pen takes the pen of a layer in hand.
func (t *tiler) pen(layer string) {
	switch layer {
	case "cut":
		t.pdf.SetDrawColor(35, 28, 21)
		t.pdf.SetLineWidth(0.35)
		t.pdf.SetDashPattern(nil, 0)
	case "pocket":
		t.pdf.SetDrawColor(59, 76, 140)
		t.pdf.SetLineWidth(0.25)
		t.pdf.SetDashPattern([]float64{3, 1}, 0)
	case "score":
		t.pdf.SetDrawColor(140, 47, 27)
		t.pdf.SetLineWidth(0.25)
		t.pdf.SetDashPattern([]float64{4, 2}, 0)
	default:
		t.pdf.SetDrawColor(28, 102, 83)
		t.pdf.SetLineWidth(0.2)
		t.pdf.SetDashPattern([]float64{1, 1}, 0)
	}
}

// draw draws all lines, layer by layer.
func (t *tiler) draw(at func(pattern.Point) fpdf.PointType) {
	for _, layer := range Layers {
		t.pen(layer)
		for _, s := range t.f.Lines {
			if s.Layer != layer {
				continue
			}
			pts := make([]fpdf.PointType, len(s.Points))
			for i, p := range s.Points {
				pts[i] = at(p)
			}
			if s.Closed {
				t.pdf.Polygon(pts, "D")
				continue
			}
			for i := 1; i < len(pts); i++ {
				t.pdf.Line(pts[i-1].X, pts[i-1].Y, pts[i].X, pts[i].Y)
			}
		}
	}
	t.pdf.SetDashPattern(nil, 0)
}

// overview is the first page: the drawing small, with its pages and their names.
func (t *tiler) overview() {
	f := t.f
	t.pdf.AddPage()
	t.text(15, tileMargin, 18, f.Title)
	t.text(9, tileMargin, 25, fmt.Sprintf(
		"1:1 on %d pages of %s, %d across and %d up, overlapping %s. Print at 100 %%, no fit to page.",
		t.cols*t.rows, t.paper.Name, t.cols, t.rows, measure.Tape(tileOverlap, t.metric)))
	t.text(9, tileMargin, 30, "Tape row by row from A1 at the lower left; the corner crosses lie on each other.")
	k := math.Min((t.paper.W-2*tileMargin)/f.W, (t.paper.H-90)/f.H)
	const top = 40.0
	t.draw(func(p pattern.Point) fpdf.PointType {
		return fpdf.PointType{X: tileMargin + p.X*k, Y: top + (f.H-p.Y)*k}
	})
	t.pdf.SetDrawColor(94, 81, 65)
	t.pdf.SetLineWidth(0.2)
	for r := range t.rows {
		for c := range t.cols {
			x, y := float64(c)*t.stepX, float64(r)*t.stepY
			pw, ph := math.Min(t.stepX+tileOverlap, f.W-x), math.Min(t.stepY+tileOverlap, f.H-y)
			t.pdf.Rect(tileMargin+x*k, top+(f.H-y-ph)*k, pw*k, ph*k, "D")
			t.text(9, tileMargin+x*k+1.5, top+(f.H-y)*k-1.5, tileName(c, r))
		}
	}
	t.bar(tileMargin, t.paper.H-16)
}

// page is one page of the drawing at 1:1, with its crosses and its bar.
func (t *tiler) page(c, r int) {
	pdf := t.pdf
	pdf.AddPage()
	x0, y0 := float64(c)*t.stepX, float64(r)*t.stepY
	at := func(p pattern.Point) fpdf.PointType {
		return fpdf.PointType{X: tileMargin + p.X - x0, Y: t.paper.H - tileMargin - (p.Y - y0)}
	}
	pdf.ClipRect(tileMargin, tileMargin, t.paper.W-2*tileMargin, t.paper.H-2*tileMargin, false)
	t.draw(at)
	for _, x := range t.f.Texts {
		p := at(x.At)
		pdf.SetFont(face, "", x.High*72/25.4*0.8)
		pdf.SetTextColor(94, 81, 65)
		pdf.Text(p.X-pdf.GetStringWidth(letters(x.Text))/2, p.Y, letters(x.Text))
	}
	pdf.ClipEnd()
	pdf.SetDrawColor(35, 28, 21)
	pdf.SetLineWidth(0.2)
	for _, cx := range []float64{x0 + tileOverlap/2, x0 + t.stepX + tileOverlap/2} {
		for _, cy := range []float64{y0 + tileOverlap/2, y0 + t.stepY + tileOverlap/2} {
			p := at(pattern.Point{X: cx, Y: cy})
			pdf.Line(p.X-4, p.Y, p.X+4, p.Y)
			pdf.Line(p.X, p.Y-4, p.X, p.Y+4)
		}
	}
	t.text(10, tileMargin+14, t.paper.H-4, fmt.Sprintf("%s   %s", tileName(c, r), t.f.Title))
	t.bar(t.paper.W-tileMargin-4*measure.Inch-2, t.paper.H-6)
}
