package motion

import (
	"math"

	"zapbarn/core/source"
)

// Metal is what a bar or a sheet of it springs back by: its stiffness and the stress at
// which it yields, both in MPa.
type Metal struct {
	Name         string
	Stiff, Yield float64
}

// MetalsFrom says where the metals' numbers are from.
var MetalsFrom = source.FromMemory("typical: mild steel 210 GPa and 250 MPa, half-hard aluminium sheet 70 and 170, " +
	"half-hard brass 105 and 300, spring steel 205 and 1100; yours may differ by a third: bend a scrap first")

// Metals are those that builders bend cold, by the word one says.
var Metals = map[string]Metal{
	"steel":        {"mild steel", 210_000, 250},
	"aluminium":    {"half-hard aluminium", 70_000, 170},
	"brass":        {"half-hard brass", 105_000, 300},
	"spring-steel": {"spring steel", 205_000, 1100},
}

// Springback is how far metal must be bent to come back to an angle: the angle, degrees,
// and the inside radius, mm, while it is held, for the angle wanted, and the radius it is
// bent round. thick is across the bend, mm. It is far when the metal springs back wholly.
//
// The radius opens by Ri/Rf = 4 (Ri Y / E T)^3 - 3 (Ri Y / E T) + 1, and the middle of the
// metal stays as long as it was: (Ri + T/2) a = (Rf + T/2) b.
func Springback(m Metal, thick, radius, angle float64) (bendTo, opens float64, far bool) {
	x := radius * m.Yield / (m.Stiff * thick)
	if x >= 0.5 { // the bend is elastic through and through
		return 0, math.Inf(1), true
	}
	opens = radius / (4*x*x*x - 3*x + 1)
	return angle * (opens + thick/2) / (radius + thick/2), opens, false
}

// SpringbackFrom is where that is from.
var SpringbackFrom = source.Std("elastic recovery of a bent rectangular section, elastic and perfectly plastic; in " +
	"manufacturing texts as Ri/Rf = 4(RiY/ET)^3 - 3(RiY/ET) + 1")
