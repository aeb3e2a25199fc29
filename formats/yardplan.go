package formats

import (
	"fmt"
	"io"
	"math"

	"zapbarn/core/pattern"
	"zapbarn/core/work"
	"zapbarn/core/yard"
)

// YardLayers are those of a yard's plan.
var YardLayers = []string{"text", "paths", "cords", "walls", "props", "lamps"}

// FlatYard is the yard in plan at 1:1, in millimetres, up the page away from the street.
func FlatYard(w *work.Work) (*Flat, error) {
	y := w.Yard()
	f := &Flat{Title: w.Plan.Display().Name + ", yard", Of: YardLayers}
	lo, hi := yard.Pt{X: math.Inf(1), Y: math.Inf(1)}, yard.Pt{X: math.Inf(-1), Y: math.Inf(-1)}
	var lines []Stroke
	add := func(layer string, closed bool, pts ...yard.Pt) {
		s := Stroke{Layer: layer, Closed: closed}
		for _, q := range pts {
			lo.X, lo.Y = math.Min(lo.X, q.X), math.Min(lo.Y, q.Y)
			hi.X, hi.Y = math.Max(hi.X, q.X), math.Max(hi.Y, q.Y)
			s.Points = append(s.Points, pattern.Point{X: q.X * 1000, Y: -q.Y * 1000})
		}
		lines = append(lines, s)
	}
	say := func(at yard.Pt, text string) {
		f.Texts = append(f.Texts, Label{pattern.Point{X: at.X * 1000, Y: -at.Y * 1000}, 180, text})
	}
	for i := range y.Walls {
		x := &w.Plan.Walls()[i]
		add("walls", false, y.Walls[i].A, y.Walls[i].B)
		say(y.Walls[i].A.Plus(y.Walls[i].B).Times(.5), x.Name+", "+w.Run(y.Walls[i].High*1000))
	}
	for _, x := range y.Paths {
		for _, k := range []float64{-1, 1} {
			add("paths", false, beside(x.Path, k*x.Wide/2)...)
		}
		at, _ := x.At(x.Long() / 2)
		say(at, x.Of.Name)
	}
	for _, s := range y.Placed {
		c := s.Box.Corners()
		if s.Known {
			add("props", true, c[:]...)
		}
		say(s.Box.At, s.Prop.Name)
	}
	for i, l := range y.Lamps {
		var ring []yard.Pt
		for k := range 24 {
			s, c := math.Sincos(2 * math.Pi * float64(k) / 24)
			ring = append(ring, l.Plus(yard.Pt{X: .12 * c, Y: .12 * s}))
		}
		add("lamps", true, ring...)
		say(l.Plus(yard.Pt{Y: -.2}), y.Lit[i].Name)
	}
	for _, c := range y.Cords {
		if len(c.Route) > 1 {
			add("cords", false, c.Route...)
		}
	}
	if len(lines) == 0 {
		return nil, empty("yard", "is empty; set something out first")
	}
	f.Lines = lines
	f.shifted(-lo.X*1000, hi.Y*1000)
	f.W, f.H = (hi.X-lo.X)*1000, (hi.Y-lo.Y)*1000
	return f, nil
}

// beside is a line along a path, so far to its side: mitred at its corners.
func beside(p yard.Path, off float64) (out []yard.Pt) {
	n := len(p.Through)
	side := func(a, b yard.Pt) yard.Pt {
		d := b.Sub(a)
		if d.Len() == 0 {
			return yard.Pt{}
		}
		return yard.Pt{X: -d.Y, Y: d.X}.Times(1 / d.Len())
	}
	for i, q := range p.Through {
		var s yard.Pt
		switch {
		case n < 2:
		case i == 0:
			s = side(q, p.Through[1])
		case i == n-1:
			s = side(p.Through[i-1], q)
		default:
			a, b := side(p.Through[i-1], q), side(q, p.Through[i+1])
			if s = a.Plus(b); s.Len() > 0.3 {
				s = s.Times(2 / (s.Len() * s.Len()))
			}
		}
		out = append(out, q.Plus(s.Times(off)))
	}
	return out
}

// YardScales are those that a yard is printed to: 1 to so many.
var YardScales = []float64{20, 25, 48, 50, 96, 100, 192, 200, 500, 1000}

// YardPDF prints the yard to scale on one sheet, at the largest scale that fits.
func YardPDF(out io.Writer, w *work.Work, _ string, paper Paper) error {
	f, err := FlatYard(w)
	if err != nil {
		return err
	}
	if f.W > f.H { // along the page
		paper.W, paper.H = paper.H, paper.W
	}
	const edge = 12.0
	scale := 0.0
	for _, k := range YardScales {
		if scale = k; f.W/k <= paper.W-2*edge && f.H/k <= paper.H-2*edge-14 {
			break
		}
	}
	pdf := newPDF(paper, f.Title)
	pdf.SetAutoPageBreak(false, 0)
	pdf.AddPage()
	pdf.SetFont(face, "B", 13)
	pdf.Text(edge, 16, letters(fmt.Sprintf("%s, 1 : %g", f.Title, scale)))
	at := func(p pattern.Point) (x, y float64) { return edge + p.X/scale, 22 + (f.H-p.Y)/scale }
	for _, s := range f.Lines {
		pen := map[string]float64{"walls": .9, "props": .5, "paths": .2, "cords": .3, "lamps": .3}[s.Layer]
		pdf.SetLineWidth(pen)
		pdf.SetDashPattern(map[string][]float64{"paths": {2, 1}, "cords": {3, 1}}[s.Layer], 0)
		n := len(s.Points)
		for i := range n {
			if i == n-1 && !s.Closed {
				break
			}
			x1, y1 := at(s.Points[i])
			x2, y2 := at(s.Points[(i+1)%n])
			pdf.Line(x1, y1, x2, y2)
		}
	}
	pdf.SetFont(face, "", 7)
	for _, t := range f.Texts {
		x, y := at(t.At)
		text := letters(t.Text)
		wide := pdf.GetStringWidth(text)
		pdf.Text(math.Max(edge, math.Min(paper.W-edge-wide, x-wide/2)), y, text)
	}
	pdf.SetDashPattern(nil, 0)
	y := paper.H - 10
	pdf.SetLineWidth(.4)
	bar, text := 5*304.8/scale, "5 ft"
	if w.Plan.Metric() {
		bar, text = 2000/scale, "2 m"
	}
	pdf.Line(edge, y, edge+bar, y)
	pdf.Line(edge, y-1.5, edge, y+1.5)
	pdf.Line(edge+bar, y-1.5, edge+bar, y+1.5)
	pdf.Text(edge+bar+2, y+1, text)
	return pdf.Output(out)
}

// shifted moves all that is on it.
func (f *Flat) shifted(dx, dy float64) {
	for i := range f.Lines {
		for k := range f.Lines[i].Points {
			p := &f.Lines[i].Points[k]
			p.X, p.Y = p.X+dx, p.Y+dy
		}
	}
	for i := range f.Texts {
		f.Texts[i].At.X, f.Texts[i].At.Y = f.Texts[i].At.X+dx, f.Texts[i].At.Y+dy
	}
}
