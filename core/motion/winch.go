package motion

import "math"

// Winch is a cord on a drum that lifts a load straight up.
type Winch struct{ Drum float64 } // m, its diameter to the cord's middle

// Turns: the load slides.
func (Winch) Turns() bool { return false }

// Bars is the cord.
func (Winch) Bars() [][2]int { return [][2]int{{0, 1}} }

// Place is half the drum's diameter for each radian.
func (w Winch) Place(q float64) (Place, bool) {
	rise := w.Drum / 2 * q
	return Place{Joints: []Pt{{w.Drum / 2, math.Max(1, rise*1.2)}, {0, rise}}, Rise: rise}, true
}
