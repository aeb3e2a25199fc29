package motion

import "math"

// FourBar is a crank on the motor, a pull arm, and a load that turns about the hinge:
// a lid or a jaw. The hinge is the origin, the motor's shaft at Pivot.
type FourBar struct {
	Pivot   Pt
	Crank   float64 // m, shaft to the pull arm
	Link    float64 // m, the pull arm
	Arm     float64 // m, hinge to where the pull arm takes hold
	Crossed bool    // the pull arm passes the line from shaft to hinge the other way
}

// Turns: the load turns.
func (FourBar) Turns() bool { return true }

// Bars are crank, pull arm and arm.
func (FourBar) Bars() [][2]int { return [][2]int{{0, 1}, {1, 2}, {2, 3}} }

// Place finds the arm where the circle of the pull arm about the crank's pin meets that
// of the arm about the hinge.
func (f FourBar) Place(q float64) (Place, bool) {
	pin := polar(f.Pivot, f.Crank, q)
	d := math.Hypot(pin.X, pin.Y)
	if d == 0 || d > f.Link+f.Arm || d < math.Abs(f.Link-f.Arm) {
		return Place{}, false
	}
	along := (d*d + f.Arm*f.Arm - f.Link*f.Link) / (2 * d)
	aside := math.Sqrt(math.Max(0, f.Arm*f.Arm-along*along))
	if f.Crossed {
		aside = -aside
	}
	ux, uy := pin.X/d, pin.Y/d
	hold := Pt{along*ux - aside*uy, along*uy + aside*ux}
	return Place{Joints: []Pt{f.Pivot, pin, hold, {}}, Angle: math.Atan2(hold.Y, hold.X)}, true
}

// Grashof reports whether the shortest bar can go all the way round: shortest and
// longest together are no longer than the other two (Grashof's condition).
func (f FourBar) Grashof() bool {
	ground := math.Hypot(f.Pivot.X, f.Pivot.Y)
	bars := []float64{f.Crank, f.Link, f.Arm, ground}
	short, long, sum := bars[0], bars[0], 0.0
	for _, b := range bars {
		short, long, sum = math.Min(short, b), math.Max(long, b), sum+b
	}
	return short+long <= sum-short-long
}

// FullTurn reports whether the crank itself can go all the way round.
func (f FourBar) FullTurn() bool {
	ground := math.Hypot(f.Pivot.X, f.Pivot.Y)
	return f.Grashof() && (f.Crank <= f.Link && f.Crank <= f.Arm || ground <= f.Link && ground <= f.Arm) &&
		math.Min(f.Crank, ground) <= math.Min(f.Link, f.Arm)
}
