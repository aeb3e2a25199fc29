package yard

import "math"

// G is standard gravity, m/s2 (exact).
const G = 9.80665

// Safe is the factor that what holds a prop is made stronger by (the handbook's 1.5).
const Safe = 1.5

// Pressure is the wind's, Pa: 0.613 V2, V in m/s (ASCE 7, velocity pressure of still
// standard air).
func Pressure(v float64) float64 { return 0.613 * v * v }

// Standing is a prop as the wind and guests find it.
type Standing struct {
	Mass    float64 // kg, with what lies on its foot
	Foot    float64 // m, from where it would tip to the weight's line, the shorter way
	Face    float64 // m2 that the wind meets
	Middle  float64 // m, how high the middle of that is
	Drag    float64
	Rub     float64 // between its foot and the ground
	Ballast float64 // kg, low on its foot, counted in besides Mass
}

func (s Standing) weight() float64 { return (s.Mass + s.Ballast) * G }

// Tips is the wind, m/s, that lifts its far edge: force times height against weight times
// half its foot.
func (s Standing) Tips() float64 {
	return math.Sqrt(s.weight() * s.Foot / (0.613 * s.Face * s.Drag * s.Middle))
}

// Slides is the wind, m/s, that pushes it along.
func (s Standing) Slides() float64 {
	return math.Sqrt(s.weight() * s.Rub / (0.613 * s.Face * s.Drag))
}

// Goes is the wind at which it moves first.
func (s Standing) Goes() float64 { return math.Min(s.Tips(), s.Slides()) }

// Needs is how many kg of ballast, low on its foot, it needs for a wind, with the factor.
func (s Standing) Needs(v float64) float64 {
	f := Safe * Pressure(v) * s.Face * s.Drag
	return math.Max(0, math.Max(f*s.Middle/s.Foot, f/s.Rub)/G-s.Mass)
}

// Guy is the pull, N, in one guy at 45 degrees from a height, that holds it in a wind with
// the factor and none of its own weight.
func (s Standing) Guy(v, high float64) float64 {
	return Safe * Pressure(v) * s.Face * s.Drag * s.Middle / high * math.Sqrt2
}

// A guest who leans on something or bumps it: 200 N at 1 m (from memory).
const (
	Push     = 200.0
	PushHigh = 1.0
)

// Stands is whether a guest's push leaves it standing: lower ones are pushed at their top.
func (s Standing) Stands(high float64) bool {
	return Push*math.Min(PushHigh, high) <= s.weight()*s.Foot
}
