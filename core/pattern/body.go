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

// Bounds are the corners of the box round a body.
func (b Body) Bounds() (lo, hi Vec) {
	lo, hi = Vec{math.Inf(1), math.Inf(1), math.Inf(1)}, Vec{math.Inf(-1), math.Inf(-1), math.Inf(-1)}
	for _, f := range b.Faces {
		for _, p := range f.Points {
			lo, hi = lower(lo, p), higher(hi, p)
		}
	}
	return lo, hi
}

// extent is the size of the box round the bodies.
func extent(bodies []Body) Vec {
	lo, hi := Body{}.Bounds()
	for _, b := range bodies {
		l, h := b.Bounds()
		lo, hi = lower(lo, l), higher(hi, h)
	}
	return sub(hi, lo)
}

func lower(a, b Vec) Vec  { return Vec{math.Min(a.X, b.X), math.Min(a.Y, b.Y), math.Min(a.Z, b.Z)} }
func higher(a, b Vec) Vec { return Vec{math.Max(a.X, b.X), math.Max(a.Y, b.Y), math.Max(a.Z, b.Z)} }
