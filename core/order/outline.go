package order

import (
	"math"

	"zapbarn/core/pattern"
)

// around is a closed outline's length.
func around(p []pattern.Point) (sum float64) {
	for i, a := range p {
		b := p[(i+1)%len(p)]
		sum += math.Hypot(b.X-a.X, b.Y-a.Y)
	}
	return sum
}

// box is the least and the most of an outline.
func box(p []pattern.Point) (lo, hi pattern.Point) {
	lo, hi = pattern.Point{X: math.Inf(1), Y: math.Inf(1)}, pattern.Point{X: math.Inf(-1), Y: math.Inf(-1)}
	for _, q := range p {
		lo.X, lo.Y, hi.X, hi.Y = math.Min(lo.X, q.X), math.Min(lo.Y, q.Y), math.Max(hi.X, q.X), math.Max(hi.Y, q.Y)
	}
	return lo, hi
}
