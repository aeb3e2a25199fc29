package motion

import "math"

// Slide is a slider-crank that lifts a load straight up: the crank's pin and the load
// are joined by the link; Aside is how far the shaft stands beside the slide.
type Slide struct {
	Crank, Link, Aside float64 // m
}

// Turns: the load slides.
func (Slide) Turns() bool { return false }

// Bars are the crank and the link.
func (Slide) Bars() [][2]int { return [][2]int{{0, 1}, {1, 2}} }

// Place is the load's height over the shaft: r sin q + sqrt(l2 - (r cos q + aside)2).
func (s Slide) Place(q float64) (Place, bool) {
	x := s.Crank*math.Cos(q) + s.Aside
	if math.Abs(x) > s.Link {
		return Place{}, false
	}
	rise := s.Crank*math.Sin(q) + math.Sqrt(s.Link*s.Link-x*x)
	shaft := Pt{s.Aside, 0}
	return Place{Joints: []Pt{shaft, polar(shaft, s.Crank, q), {0, rise}}, Rise: rise}, true
}
