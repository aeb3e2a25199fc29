package pattern

import "math"

// Strip is how much is left between a hole and the edge of its part, mm, and where:
// the least distance between the two rings, which must not cross. Cost is the product
// of their corners.
func Strip(outline, hole []Point) (width float64, at Point) {
	width = math.Inf(1)
	near := func(corners, ring []Point) {
		for _, q := range corners {
			for i := range ring {
				if d := FromSegment(q, ring[i], ring[(i+1)%len(ring)]); d < width {
					width, at = d, q
				}
			}
		}
	}
	near(hole, outline)
	near(outline, hole)
	return width, at
}

// FromSegment is a point's distance from a segment.
func FromSegment(q, a, b Point) float64 {
	dx, dy := b.X-a.X, b.Y-a.Y
	t := 0.0
	if l := dx*dx + dy*dy; l > 0 {
		t = math.Max(0, math.Min(1, ((q.X-a.X)*dx+(q.Y-a.Y)*dy)/l))
	}
	return math.Hypot(q.X-a.X-t*dx, q.Y-a.Y-t*dy)
}
