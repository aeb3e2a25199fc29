package draw

import (
	"math"

	"zapbarn/formats"
)

// Board draws a nail board small: what prints at 1:1.
func Board(f *formats.Flat) string {
	k := math.Min(940/f.W, 900/f.H)
	c := New(986, f.H*k+20, false)
	at := func(x, y float64) XY { return XY{20 + x*k, 10 + (f.H-y)*k} }
	a, b := at(0, f.H), at(f.W, 0)
	c.Rect("plywood", a.X, a.Y, b.X-a.X, b.Y-a.Y)
	pen := map[string]string{"cut": "rail", "score": "scribe", "mark": "nailring"}
	for _, s := range f.Lines {
		p := make([]XY, len(s.Points))
		for i, q := range s.Points {
			p[i] = at(q.X, q.Y)
		}
		if s.Closed {
			c.Poly(pen[s.Layer], p)
		} else {
			c.Open(pen[s.Layer], p)
		}
	}
	for _, t := range f.Texts {
		if q := at(t.At.X, t.At.Y); t.High > 8 { // the name of a run, from its start
			c.Text("t lbl", "start", at(60, 0).X, q.Y+4, t.Text)
		} else if k > .5 {
			c.Text("t", "middle", q.X, q.Y+3, t.Text)
		}
	}
	return c.SVG("nails", "Nail board", f.Title+", small; it prints at 1:1.")
}
