package pattern

import "math"

// Line is where two of a solid's own parts meet: a glue line's length in all
// and its width, mm. A and B name panels; both are empty where layer lies on
// layer.
type Line struct {
	A, B          string
	Length, Width float64
}

// Area is the glued area, mm2.
func (l Line) Area() float64 { return l.Length * l.Width }

// ringLines is one glue line for a pile of round layers, from the bottom up: each
// pair meets in the ring that both have, as long as the ring's middle.
func ringLines(layers []Panel) []Line {
	length, area := 0.0, 0.0
	var below Panel
	first := true
	for _, p := range layers {
		for range p.Copies {
			out, in := math.Min(below.Round, p.Round), math.Max(below.Bore, p.Bore)
			if !first && out > in {
				length += math.Pi * (out + in) / 2
				area += math.Pi / 4 * (out*out - in*in)
			}
			below, first = p, false
		}
	}
	if length == 0 {
		return nil
	}
	return []Line{{"", "", length, area / length}}
}

// pile takes the panels as round layers on one another.
func (s *Shape) pile() {
	s.Lines = ringLines(s.Panels)
	for _, p := range s.Panels {
		for range p.Copies {
			s.layers = append(s.layers, []Panel{p})
		}
	}
}

// meshLines is the glue line between layers of any outline: the smaller of two
// neighbours is taken to lie on the larger whole; as long as its outline.
func meshLines(layers [][]Panel) []Line {
	length, area := 0.0, 0.0
	of := func(l []Panel) (a, round float64) {
		for _, p := range l {
			a += p.Area()
			for k, q := range p.Outline {
				n := p.Outline[(k+1)%len(p.Outline)]
				round += math.Hypot(n.X-q.X, n.Y-q.Y)
			}
		}
		return
	}
	for i := 1; i < len(layers); i++ {
		a, ra := of(layers[i-1])
		b, rb := of(layers[i])
		area, length = area+math.Min(a, b), length+math.Min(ra, rb)
	}
	if length == 0 {
		return nil
	}
	return []Line{{"", "", length, area / length}}
}

// Exposed is the outside that a coat meets, mm2: the outside faces, and of a
// pile its edges, its steps and its top; what is glued shut takes none.
func (s *Shape) Exposed() float64 {
	a := s.Outside
	if len(s.layers) == 0 {
		for _, p := range s.Panels {
			a += p.Area() * float64(p.Copies)
		}
		return a
	}
	below := 0.0
	for i, l := range s.layers { // outsides only: a hollow is closed
		area, round := 0.0, 0.0
		for _, p := range l {
			if p.Round > 0 {
				area, round = area+math.Pi/4*p.Round*p.Round, round+math.Pi*p.Round
				continue
			}
			area += Area(p.Outline)
			for k, q := range p.Outline {
				n := p.Outline[(k+1)%len(p.Outline)]
				round += math.Hypot(n.X-q.X, n.Y-q.Y)
			}
		}
		a += round * l[0].Thick
		if i > 0 {
			a += math.Abs(area - below)
		}
		below = area
	}
	for _, p := range s.layers[len(s.layers)-1] {
		a += p.Area() // the top, less its hole
	}
	return a
}
