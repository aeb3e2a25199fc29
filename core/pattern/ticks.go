package pattern

import "math"

// tickLong is how far an alignment tick runs into the part, in mm.
const tickLong = 10

// tick marks the named edges, or every seam when none is named, so that
// neighbours are set right against each other: one tick a third up, two close
// together two thirds up. Edges that meet are equally long, so their ticks meet.
func (p *Panel) tick(names ...string) {
	for i, e := range p.Edges {
		wanted := e.Name == "seam" && names == nil
		for _, n := range names {
			wanted = wanted || e.Name == n
		}
		a, b := p.Outline[i], p.Outline[(i+1)%len(p.Outline)]
		l := math.Hypot(b.X-a.X, b.Y-a.Y)
		if !wanted || l < 60 {
			continue
		}
		ux, uy := (b.X-a.X)/l, (b.Y-a.Y)/l
		up := 1.0 // thirds are counted from the lower or left end, whichever way the edge runs
		if b.Y < a.Y-1e-6 || math.Abs(b.Y-a.Y) <= 1e-6 && b.X < a.X {
			up = -1
		}
		third, two := l/3, 2*l/3
		if up < 0 {
			third, two = two, third
		}
		for _, at := range []float64{third, two - 5, two + 5} {
			q := Point{a.X + ux*at, a.Y + uy*at}
			p.Marks = append(p.Marks, [2]Point{q, {q.X - uy*tickLong, q.Y + ux*tickLong}})
		}
	}
}
