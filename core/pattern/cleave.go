package pattern

import (
	"cmp"
	"slices"
)

// Cleft parts a region at the upright line x: what lies left of it, and what lies
// right. The region is rings by the even-odd rule; so are its parts. A line
// through a corner is taken a hair to its right.
func Cleft(rings [][]Point, x float64) (left, right [][]Point) {
	for clear := false; !clear; {
		clear = true
		for _, r := range rings {
			for _, p := range r {
				if p.X == x {
					x, clear = x+1e-7, false
				}
			}
		}
	}
	return side(rings, x, func(p Point) bool { return p.X < x }), side(rings, x, func(p Point) bool { return p.X > x })
}

// chain is a run of a ring on one side of a line: it comes in at one height and
// goes out at another.
type chain struct {
	points  []Point
	in, out float64
}

// side is the part of a region on one side of a line that no corner lies on. Where
// the line is inside the region lies between each odd crossing of it and the next.
func side(rings [][]Point, x float64, keeps func(Point) bool) (out [][]Point) {
	var chains []chain
	var heights []float64
	for _, r := range rings {
		start := slices.IndexFunc(r, func(p Point) bool { return !keeps(p) })
		if start < 0 {
			out = append(out, slices.Clone(r))
			continue
		}
		var now *chain
		for i := range r {
			a, b := r[(start+i)%len(r)], r[(start+i+1)%len(r)]
			if keeps(a) == keeps(b) {
				if now != nil {
					now.points = append(now.points, b)
				}
				continue
			}
			at := Point{x, a.Y + (b.Y-a.Y)*(x-a.X)/(b.X-a.X)}
			heights = append(heights, at.Y)
			if keeps(b) {
				now = &chain{points: []Point{at, b}, in: at.Y}
				continue
			}
			now.points, now.out = append(now.points, at), at.Y
			chains, now = append(chains, *now), nil
		}
	}
	slices.SortFunc(heights, cmp.Compare[float64])
	mate := func(y float64) float64 { return heights[slices.Index(heights, y)^1] }
	for len(chains) > 0 { // each goes on, along the line, with the one that comes in next to where it went out
		ring := chains[0]
		chains = chains[1:]
		for mate(ring.out) != ring.in {
			k := slices.IndexFunc(chains, func(c chain) bool { return c.in == mate(ring.out) })
			if k < 0 {
				break // two crossings at one height: closed as it is
			}
			ring.points, ring.out = append(ring.points, chains[k].points...), chains[k].out
			chains = slices.Delete(chains, k, k+1)
		}
		out = append(out, ring.points)
	}
	return out
}
