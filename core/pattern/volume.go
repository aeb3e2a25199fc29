package pattern

import "math"

// Filled is a body's volume with its holes filled, in mm3, by the divergence theorem
// over its outer faces.
func (b Body) Filled() float64 {
	six := 0.0
	for _, f := range b.Faces {
		for i := 2; i < len(f.Points); i++ {
			p, q, r := f.Points[0], f.Points[i-1], f.Points[i]
			six += p.X*(q.Y*r.Z-q.Z*r.Y) + p.Y*(q.Z*r.X-q.X*r.Z) + p.Z*(q.X*r.Y-q.Y*r.X)
		}
	}
	return math.Abs(six) / 6
}
