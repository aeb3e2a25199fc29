package pattern

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/source"
)

// Pipes is pipe cut to lengths; in space the pieces stand in a row.
type Pipes struct {
	Cuts []Cut
	OD   float64
	Row  int     // so many a row, they lie as a honeycomb that faces front; 0 does not
	Bore float64 // drawn in a honeycomb
}

// Lay works the list out.
func (p Pipes) Lay() (*Shape, error) {
	if len(p.Cuts) == 0 {
		return nil, measure.Bad("lengths", "is empty; write such as 6@44in 4@60in")
	}
	s := &Shape{}
	total, x, n := 0.0, 0.0, 0
	for _, c := range p.Cuts {
		if err := positive("lengths", c.Length); err != nil {
			return nil, err
		}
		if n += c.Count; c.Count < 1 || n > 2000 {
			return nil, measure.Bad("lengths", "%d pieces cannot be cut; write 1 to 2000", c.Count)
		}
		s.Cuts = append(s.Cuts, c)
		total += c.Length * float64(c.Count)
		if p.Row > 0 {
			continue
		}
		for range min(c.Count, 40) {
			for _, b := range ringBody("pipe", n, p.OD, 0, 0, c.Length) {
				b.moved(func(p Vec) Vec { p.X += x; return p })
				b.Explode = Vec{1, 0, 0}
				s.Bodies = append(s.Bodies, b)
			}
			x += p.OD * 2
		}
		s.Size.Z = math.Max(s.Size.Z, c.Length)
	}
	if p.Row > 0 {
		p.comb(s)
		s.Results = append(
			s.Results,
			result("total", "Pipe in all, kerfs not counted", total, "mm", measure.MarkedRun(total)).
				With("sum of count x length", fmt.Sprintf("%d pieces", n), measure.MarkedRun(total), source.Exact("sum")),
			result("comb", "The comb", s.Size.X, "mm", measure.MarkedTape(s.Size.X)+" x "+measure.MarkedTape(s.Size.Z)).
				With("rows set in by half a pipe, sqrt(3)/2 of a pipe apart", fmt.Sprintf("%d a row, %s across each", p.Row,
					inches(p.OD)), measure.MarkedTape(s.Size.X)+" x "+measure.MarkedTape(s.Size.Z),
					source.Exact("densest packing of equal circles")),
		)
		return s, nil
	}
	half := (x - 2*p.OD) / 2
	for i := range s.Bodies { // centre the row
		s.Bodies[i].moved(func(p Vec) Vec { p.X -= half; return p })
	}
	s.Size.X, s.Size.Y = x-p.OD, p.OD
	s.Results = append(
		s.Results,
		result("total", "Pipe in all, kerfs not counted", total, "mm", measure.MarkedRun(total)).
			With("sum of count x length", fmt.Sprintf("%d pieces", n), measure.MarkedRun(total), source.Exact("sum")),
	)
	return s, nil
}

// comb lays the pieces as a honeycomb: every other row is set in by half a
// pipe, and so holds one less.
func (p Pipes) comb(s *Shape) {
	row, k := 0, 0
	width := float64(p.Row) * p.OD
	ring := func(x, z, y, d float64) []Vec {
		out := make([]Vec, 12)
		for i := range out {
			sn, cs := math.Sincos(math.Pi / 6 * float64(i))
			out[i] = Vec{x + d/2*cs, y, z + d/2*sn}
		}
		return out
	}
	for _, c := range s.Cuts {
		for range c.Count {
			if k >= p.Row-row%2 && p.Row > 1 {
				row, k = row+1, 0
			}
			x := float64(k)*p.OD + p.OD/2 - width/2 + float64(row%2)*p.OD/2
			z := p.OD/2 + float64(row)*p.OD*math.Sqrt(3)/2
			k++
			b := prism("pipe", 0, ring(x, z, -c.Length/2, p.OD), ring(x, z, c.Length/2, p.OD), Vec{0, -1, 0})
			if p.Bore > 0 {
				b.Faces[0].Holes = [][]Vec{ring(x, z, -c.Length/2, p.Bore)}
			}
			for i := 2; i < len(b.Faces); i++ {
				b.Faces[i].Curved = true
			}
			s.Bodies = append(s.Bodies, b)
		}
	}
	s.Size = extent(s.Bodies)
}

// Flat is plain rectangles: shelves, backs, bases. In space it stands up, or
// lies when Lying.
type Flat struct {
	W, H, T float64
	Copies  int
	Lying   bool
	Pitch   float64 // height from one copy to the next when lying
}

// Lay works the rectangles out.
func (f Flat) Lay() (*Shape, error) {
	if err := sizes("width", f.W, "height", f.H, "thickness", f.T); err != nil {
		return nil, err
	}
	if err := copies(f.Copies); err != nil {
		return nil, err
	}
	p := Panel{ID: "panel", Name: "Panel", Copies: f.Copies, Thick: f.T, Outline: Rect(f.W, f.H), Grain: "up",
		Edges: []Edge{{Name: "bottom"}, {Name: "right"}, {Name: "top"}, {Name: "left"}}}
	s := &Shape{Panels: []Panel{p}}
	pitch := f.Pitch
	if pitch <= 0 {
		pitch = f.T * 4
	}
	for i := range min(f.Copies, 40) {
		var outer, inner []Vec
		for _, q := range p.Outline {
			x, k := q.X-f.W/2, float64(i)
			if f.Lying {
				outer = append(outer, Vec{x, q.Y - f.H/2, k*pitch + f.T})
				inner = append(inner, Vec{x, q.Y - f.H/2, k * pitch})
			} else {
				outer = append(outer, Vec{x, k*pitch - f.T/2, q.Y})
				inner = append(inner, Vec{x, k*pitch + f.T/2, q.Y})
			}
		}
		ex := Vec{0, 1, 0}
		if f.Lying {
			ex = Vec{0, 0, 1}
		}
		b := prism("panel", i, outer, inner, ex)
		s.Bodies = append(s.Bodies, b)
	}
	s.Size = extent(s.Bodies)
	return s, nil
}
