package motion

// Direct is a load right on the shaft: a servo's horn, an arm.
type Direct struct{}

// Turns: the load turns.
func (Direct) Turns() bool { return true }

// Bars: none besides the load.
func (Direct) Bars() [][2]int { return nil }

// Place is the shaft's own angle.
func (Direct) Place(q float64) (Place, bool) { return Place{Joints: []Pt{{}}, Angle: q}, true }
