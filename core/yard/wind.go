package yard

import "math"

// G is standard gravity, m/s2 (exact).
const G = 9.80665

// Safe is the factor that what holds a prop is made stronger by (1.5, common practice, no source).
const Safe = 1.5

// Pressure is the wind's, Pa: 0.613 V2, V in m/s (ASCE 7, velocity pressure of still
// standard air).
func Pressure(v float64) float64 { return 0.613 * v * v }

// Standing is a prop as the wind finds it that blows one way.
type Standing struct {
	From    string  // where the wind comes from: the front, the back, the left, the right
	Mass    float64 // kg, with what lies on its foot
	Foot    float64 // m, from the edge it would tip over to the weight's line
	Half    float64 // m, from that edge to the middle of its foot, where ballast lies
	Face    float64 // m2 that the wind meets
	Middle  float64 // m, how high the middle of that is
	Drag    float64
	Rub     float64 // between its foot and the ground
	Ballast float64 // kg, low in the middle of its foot, counted in besides Mass
}

func (s Standing) weight() float64 { return (s.Mass + s.Ballast) * G }

// holds is the moment, N m, with which its weight keeps it down.
func (s Standing) holds() float64 { return (s.Mass*s.Foot + s.Ballast*s.Half) * G }

// Tips is the wind, m/s, that lifts its far edge: force times height against each weight times
// how far it lies from the edge it tips over.
func (s Standing) Tips() float64 {
	return math.Sqrt(s.holds() / (0.613 * s.Face * s.Drag * s.Middle))
}

// Slides is the wind, m/s, that pushes it along.
func (s Standing) Slides() float64 {
	return math.Sqrt(s.weight() * s.Rub / (0.613 * s.Face * s.Drag))
}

// Goes is the wind at which it moves first.
func (s Standing) Goes() float64 { return math.Min(s.Tips(), s.Slides()) }

// Needs is how many kg of ballast, low in the middle of its foot, it needs for a wind, with the
// factor.
func (s Standing) Needs(v float64) float64 {
	f := Safe * Pressure(v) * s.Face * s.Drag
	return math.Max(0, math.Max((f*s.Middle/G-s.Mass*s.Foot)/s.Half, f/s.Rub/G-s.Mass))
}

// Guy is the pull, N, in one guy at 45 degrees from a height, that holds it in a wind with
// the factor and none of its own weight.
func (s Standing) Guy(v, high float64) float64 {
	return Safe * Pressure(v) * s.Face * s.Drag * s.Middle / high * math.Sqrt2
}

// Pushed is the weight, kg, that ballast in the middle of its foot needs for a guest's push to
// leave it standing: lower ones are pushed at their top.
func (s Standing) Pushed(high float64) float64 {
	return math.Max(0, (Push*math.Min(PushHigh, high)/G-s.Mass*s.Foot)/s.Half)
}

// Sides are a prop as the wind finds it from each side.
type Sides []Standing

// worst is the side of the largest of something; the first of those that are alike.
func (s Sides) worst(of func(Standing) float64) Standing {
	best := s[0]
	for _, x := range s[1:] {
		if of(x) > of(best) {
			best = x
		}
	}
	return best
}

// Tips is the side from which the least wind tips it.
func (s Sides) Tips() Standing { return s.worst(func(x Standing) float64 { return -x.Tips() }) }

// Slides is the side from which the least wind pushes it along.
func (s Sides) Slides() Standing { return s.worst(func(x Standing) float64 { return -x.Slides() }) }

// Goes is the wind at which it moves first, whichever way that blows.
func (s Sides) Goes() float64 { return math.Min(s.Tips().Tips(), s.Slides().Slides()) }

// Needs is the side that asks for most ballast in a wind.
func (s Sides) Needs(v float64) Standing {
	return s.worst(func(x Standing) float64 { return x.Needs(v) })
}

// Guys is the side whose guy takes most in a wind.
func (s Sides) Guys(v, high float64) Standing {
	return s.worst(func(x Standing) float64 { return x.Guy(v, high) })
}

// Pushed is the side to which a guest pushes it over most easily.
func (s Sides) Pushed(high float64) Standing {
	return s.worst(func(x Standing) float64 { return x.Pushed(high) })
}

// A guest who leans on something or bumps it: 200 N at 1 m (from memory).
const (
	Push     = 200.0
	PushHigh = 1.0
)

// Stands is whether a guest's push leaves it standing: lower ones are pushed at their top.
func (s Standing) Stands(high float64) bool {
	return Push*math.Min(PushHigh, high) <= s.holds()
}
