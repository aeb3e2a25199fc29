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
