package pattern

import "math"

// AllRound is what a brush meets of one copy that stands free, mm2: both faces, the edges all
// round, those of its holes, and the walls of its pockets.
func (p Panel) AllRound() float64 {
	out, in := p.Area(), p.Area()
	long := p.Around()
	if p.Inside != nil {
		in -= Area(p.Outline) - Area(p.Inside)
		holes := long - around(p.Outline)
		mean := (around(p.Outline) + around(p.Inside)) / 2
		run := 0.0 // how far the inside face stands back, all round
		if mean > 0 {
			run = math.Abs(Area(p.Outline)-Area(p.Inside)) / mean
		}
		return out + in + mean*math.Hypot(p.Thick, run) + holes*p.Thick
	}
	for _, k := range p.Pockets {
		out += around(k.Ring) * k.Deep
	}
	return out + in + long*p.Thick
}

// Painted is what a brush meets of a solid, mm2. Of flat parts that stand free it is both faces
// and all edges, less what they are glued together with; of a body it is its outside, with what
// of its edges can be seen and with those of its openings.
func (s *Shape) Painted(free bool) float64 {
	if !free {
		a := s.Exposed() + s.Rims
		for _, p := range s.Panels {
			for _, h := range p.Holes {
				a += around(h) * p.Thick * float64(p.Copies)
			}
		}
		return a
	}
	a := s.Outside
	for _, p := range s.Panels {
		a += p.AllRound() * float64(p.Copies)
	}
	for _, l := range s.Lines {
		a -= 2 * l.Area()
	}
	return a
}

// rims are the edges of a box's walls and lid that can be seen, mm2: the ends that a butt or a
// rabbet leaves at the corners, the rim of an open one, the lid's edge and what of it stands out.
func (b Box) rims(h, depth float64) float64 {
	a := 0.0
	switch b.Joint {
	case "butt":
		a += 4 * b.T * h
	case "rabbet":
		a += 4 * (b.T - depth) * h
	}
	if !b.Lid {
		return a + b.W*b.D - (b.W-2*b.T)*(b.D-2*b.T)
	}
	w, d := b.W+2*b.Overhang, b.D+2*b.Overhang
	return a + 2*(w+d)*b.T + w*d - b.W*b.D
}
