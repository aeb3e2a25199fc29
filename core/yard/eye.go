package yard

import "math"

// Eye is where one looks from, and which way.
type Eye struct {
	Spot
	Look float64 // on the plan, from right, clockwise
	Wide float64 // the picture's whole angle from left to right
}

// Seen is where a place comes to lie in a picture that is two wide, -1 to 1, and as high
// in the same measure, up positive; deep is how far before the eye it is. ok is false for
// what is behind it.
func (e Eye) Seen(at Spot) (x, y, deep float64, ok bool) {
	s, c := math.Sincos(e.Look)
	d := at.Sub(e.Pt)
	deep = d.X*c + d.Y*s
	if deep < 0.05 {
		return 0, 0, deep, false
	}
	k := 1 / (deep * math.Tan(e.Wide/2))
	return (d.Y*c - d.X*s) * k, (at.Z - e.Z) * k, deep, true
}
