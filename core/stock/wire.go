package stock

import (
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/source"
)

// Copper at 20 C.
const (
	CopperResistivity = 1.7241e-8 // ohm metre
	CopperTempCoeff   = 0.00393   // per kelvin
)

// CopperFrom is the source of both.
var CopperFrom = source.Std("IEC 60028: copper 1.7241e-8 ohm m at 20 C, 0.00393/K")

// GaugeFrom is the source of AWG sizes.
var GaugeFrom = source.Std("ASTM B258: d = 0.127 mm * 92^((36-n)/39)")

// CopperOhmsPerMetre is the resistance of one metre of one copper conductor
// of the given area (mm2) at temp Celsius, in ohms.
func CopperOhmsPerMetre(mm2, temp float64) float64 {
	return CopperResistivity / (mm2 * 1e-6) * (1 + CopperTempCoeff*(temp-20))
}

// Ampacity of builders' wire.
type ampRow struct {
	awg        int
	cord, foam float64 // A; zero is not listed
}

var ampRows = []ampRow{
	{10, 30, 15},
	{12, 25, 12},
	{14, 18, 9},
	{16, 13, 6.5},
	{18, 10, 5},
	{20, 0, 4},
	{22, 0, 3},
	{24, 0, 2},
	{26, 0, 1.3},
	{28, 0, 0.8},
}

// AmpacityFrom is the source of Ampacity's limits.
var AmpacityFrom = source.FromMemory(
	"bundled hook-up wire in foam: 22 AWG 3 A, 24: 2 A, 26: 1.3 A; larger sizes half of NEC table 400.5(A)(1) column B",
)

// CordAmpacityFrom is the source of CordAmpacity.
var CordAmpacityFrom = source.Std("NEC table 400.5(A)(1) column B, two-conductor flexible cord")

// Ampacity is the current in amperes a wire of the given copper area may
// carry bundled and in foam: the limit of the next smaller listed gauge, so
// never more than is listed; zero below 28 AWG.
func Ampacity(mm2 float64) float64 {
	for _, r := range ampRows {
		if measure.AWGArea(r.awg) <= mm2*(1+1e-9) {
			return r.foam
		}
	}
	return 0
}

// Carries says what a wire may carry, with what that stands on: bundled and in foam, and by
// itself in free air where the table has it.
func Carries(mm2 float64) string {
	text := measure.Amps(Ampacity(mm2)) + " bundled and in foam"
	if a := FreeAir(mm2); a > 0 {
		text += ", " + measure.Amps(a) + " by itself in free air"
	}
	return text
}

// FreeAir is the current in amperes that a two-conductor cord of some copper area may carry in
// free air, by the next smaller listed gauge; zero where the table has none.
func FreeAir(mm2 float64) float64 {
	for _, r := range ampRows {
		if measure.AWGArea(r.awg) <= mm2*(1+1e-9) {
			return r.cord
		}
	}
	return 0
}

// CordAmpacity is the current in amperes a two-conductor cord in free air may
// carry; zero where the table has none.
func CordAmpacity(awg int) float64 {
	for _, r := range ampRows {
		if r.awg == awg {
			return r.cord
		}
	}
	return 0
}

// Gauges lists the wire sizes the shop stocks, thin to thick (AWG numbers).
var Gauges = []int{28, 26, 24, 22, 20, 18, 16, 14, 12, 10}

// Thicker is the copper area in mm2 of the next thicker stocked wire; 0 when
// there is none.
func Thicker(mm2 float64) float64 {
	for _, a := range areas {
		if a > mm2+1e-9 {
			return a
		}
	}
	return 0
}

// areas are the copper areas of Gauges in mm2.
var areas = func() (out []float64) {
	for _, n := range Gauges {
		out = append(out, measure.AWGArea(n))
	}
	return out
}()

// Thinner is that of the next thinner one; 0 when there is none.
func Thinner(mm2 float64) (a float64) {
	for _, n := range Gauges {
		if x := measure.AWGArea(n); x < mm2-1e-9 {
			a = x
		}
	}
	return a
}

// FuseRatings are the blade and glass fuse sizes the shop stocks, in amperes.
var FuseRatings = []float64{0.5, 1, 2, 3, 5, 7.5, 10, 15, 20, 30}

// FuseFrom is the source of the sizes and of the fit rule.
var FuseFrom = source.FromTrade("fuse at least 1.25 times the running current, at most the wire's limit")

// e24 is the two-digit series. Source: IEC 60063.
var e24 = []float64{10, 11, 12, 13, 15, 16, 18, 20, 22, 24, 27, 30, 33, 36, 39, 43, 47, 51, 56, 62, 68, 75, 82, 91}

// E24From is the source of the resistor series.
var E24From = source.Std("IEC 60063, series E24")

// E24Above is the smallest E24 resistance not below r ohms.
func E24Above(r float64) float64 {
	if r <= 0 {
		return 0
	}
	scale := math.Pow(10, math.Floor(math.Log10(r))-1)
	for _, v := range e24 {
		if v*scale >= r*(1-1e-9) {
			return v * scale
		}
	}
	return 100 * scale
}
