package motion

// Turntable turns about an upright shaft: nothing is lifted, only friction, wind and its
// own inertia are overcome. Seen from above.
type Turntable struct{}

// Turns: the load turns.
func (Turntable) Turns() bool { return true }

// Bars: none.
func (Turntable) Bars() [][2]int { return nil }

// Place is the shaft's own angle.
func (Turntable) Place(q float64) (Place, bool) { return Place{Joints: []Pt{{}}, Angle: q}, true }

// Level: nothing is lifted.
func (Turntable) Level() bool { return true }
