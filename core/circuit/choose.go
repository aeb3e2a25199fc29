package circuit

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/source"
	"zapbarn/core/stock"
)

// Drop budgets, as shares of the supply's volts.
const (
	DropBudget = 0.03 // plan for
	DropLimit  = 0.10 // never past
	LoadLimit  = 0.80 // of a supply's rating, continuous
)

// BudgetFrom and LoadFrom are their sources.
var (
	BudgetFrom = source.FromTrade("3 % for light runs, 10 % hard limit")
	LoadFrom   = source.FromTrade("plan at most 80 % of a supply, continuous")
)

// LEDResistor chooses the series resistor for n LEDs of forward volts vf at
// amps from a supply of vs volts: R = (vs - n vf)/I, the next E24 value up,
// and a rating of at least twice the power.
func LEDResistor(vs, vf float64, n int, amps float64) (ohms, watts float64, r source.Result, err error) {
	left := vs - float64(n)*vf
	switch {
	case amps <= 0:
		return 0, 0, r, measure.Bad("amps", "must be more than nothing, such as 20 mA")
	case n < 1 || n > 1000:
		return 0, 0, r, measure.Bad("n", "%d LEDs in a row; write 1 or more", n)
	case left <= 0:
		return 0, 0, r, measure.Bad(
			"n",
			"%d x %s is more than the supply's %s; put at most %d in a row",
			n,
			measure.Volts(vf),
			measure.Volts(vs),
			max(0, int((vs-0.5)/vf)),
		)
	}
	exact := left / amps
	ohms = stock.E24Above(exact)
	run := left / ohms
	power := left * run
	stocked := []float64{0.125, 0.25, 0.5, 1, 2, 3, 5, 10, 25, 50}
	chain := 1 // resistors in a row share the power
	if most := stocked[len(stocked)-1]; 2*power > most {
		chain = int(math.Ceil(2 * power / most))
		ohms = float64(chain) * stock.E24Above(exact/float64(chain))
		run = left / ohms
		power = left * run
	}
	for _, w := range stocked {
		if watts = w; w >= 2*power/float64(chain)-1e-9 {
			break
		}
	}
	text := fmt.Sprintf("%s, %s", measure.Ohms(ohms), measure.Watts(watts))
	if chain > 1 {
		text = fmt.Sprintf("%d of %s, %s each, in a row", chain, measure.Ohms(ohms/float64(chain)), measure.Watts(watts))
	}
	r = source.Result{Key: source.What("resistor"), Label: "Series resistor", Value: ohms, Unit: "ohm", Text: text}.
		With("R = (Vs - n Vf) / I", fmt.Sprintf("(%s - %d x %s) / %s", measure.Volts(vs), n, measure.Volts(vf),
			measure.Amps(amps)), measure.Ohms(exact), source.Std("Ohm's law"),
			source.FromMemory("Vf typical at 20 mA: red, amber 2.0 V; green, blue, white 3.0 to 3.3 V")).
		With("next E24 value up", fmt.Sprintf(">= %s", measure.Ohms(exact)), measure.Ohms(ohms), stock.E24From).
		With("P = (Vs - n Vf) I; rating >= 2 P", fmt.Sprintf("%s x %s", measure.Volts(left), measure.Amps(run)),
			fmt.Sprintf("%s, so %s", measure.Watts(power), text), source.FromTrade("run a resistor at half its rating"))
	return ohms, watts, r, nil
}

// WireOhms is the resistance of both conductors of a run, one way mm long.
func WireOhms(mm2, mm, temp float64) float64 {
	return 2 * stock.CopperOhmsPerMetre(mm2, temp) * mm / 1000
}

// ChooseGauge is the thinnest stocked gauge (AWG) that carries amps within its
// ampacity over mm one way and loses no more than share of volts. It returns
// -1 when none does.
func ChooseGauge(mm, amps, volts, share float64) int {
	for _, n := range stock.Gauges {
		a := measure.AWGArea(n)
		if stock.Ampacity(a) >= amps && amps*WireOhms(a, mm, 20) <= share*volts {
			return n
		}
	}
	return -1
}

// ChooseFuse is the smallest stocked fuse of at least 1.25 times the running
// current, when it is not above what the wire carries; 0 when none fits.
func ChooseFuse(amps, ampacity float64) float64 {
	for _, f := range stock.FuseRatings {
		if f >= 1.25*amps {
			if f <= ampacity+1e-9 {
				return f
			}
			return 0
		}
	}
	return 0
}
