package wiring

import (
	"math"
	"slices"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/stock"
)

// Gauges chooses the wire of every run of a prop: the least copper with which
// each lamp keeps within the drop budget (a share of its supply's volts) and
// each run within what it may carry. It starts thin, thickens the run that
// gains most for its copper until all is well, and then tries each run a size
// thinner again. ok is false when the thickest wire does not do it; the plan
// is then as far as it goes. All is judged by solving the wiring.
func Gauges(s Set, prop string, budget float64) (q Set, worst float64, ok bool) {
	q = s
	q.Devices = slices.Clone(s.Devices)
	var runs []int
	for i := range q.Devices {
		if d := &q.Devices[i]; d.Is(Wire) && d.Prop == prop {
			runs = append(runs, i)
			d.Gauge = measure.Of[measure.GaugeKind](measure.AWGArea(stock.Gauges[0]))
		}
	}
	excess := func() (over float64, lamp string, hot int, st *State) { return past(q, prop, budget) }
	over, lamp, hot, st := excess()
	for over > 0 || hot >= 0 {
		best, gain := hot, 0.0
		if hot < 0 {
			on := map[string]bool{}
			for d := q.Device(lamp); d != nil; d = q.Device(d.From) {
				on[d.ID] = true
			}
			for _, i := range runs {
				d := &q.Devices[i]
				a := stock.Thicker(d.Gauge.Value())
				if !on[d.ID] || a == 0 {
					continue
				}
				volts := st.Readings[d.ID].Amps * (circuit.WireOhms(d.Gauge.Value(), d.Length.Value(),
					s.Temp) - circuit.WireOhms(a, d.Length.Value(), s.Temp))
				if g := volts / ((a - d.Gauge.Value()) * d.Length.Value()); g > gain {
					best, gain = i, g
				}
			}
		}
		if best < 0 {
			return q, over + budget, false
		}
		q.Devices[best].Gauge = measure.Of[measure.GaugeKind](stock.Thicker(q.Devices[best].Gauge.Value()))
		over, lamp, hot, st = excess()
	}
	for _, i := range runs { // what was thickened early may be more than is needed now
		for {
			was := q.Devices[i].Gauge
			a := stock.Thinner(was.Value())
			if a == 0 {
				break
			}
			q.Devices[i].Gauge = measure.Of[measure.GaugeKind](a)
			if o, _, h, _ := excess(); o > 0 || h >= 0 {
				q.Devices[i].Gauge = was
				break
			} else {
				over = o
			}
		}
	}
	return q, over + budget, true
}

// past is how far the worst lamp of a prop is past the budget, which that is, and which run
// is past its limit, -1 for none.
func past(q Set, prop string, budget float64) (over float64, lamp string, hot int, st *State) {
	r := NewRig(q)
	st = r.Solve(nil)
	over, hot = math.Inf(-1), -1
	for i := range q.Devices {
		d := &q.Devices[i]
		if d.Prop != prop {
			continue
		}
		by := q.Device(r.at(d.ID).supply)
		if d.Is(Load) && by != nil && !d.Reversed {
			v, _ := SupplyOf(by, q.Lib)
			if x := st.Readings[d.ID].Drop/v - budget; x > over {
				over, lamp = x, d.ID
			}
		}
		if d.Is(Wire) && st.Readings[d.ID].Amps > stock.Ampacity(d.Gauge.Value()) &&
			stock.Thicker(d.Gauge.Value()) > 0 {
			hot = i
		}
	}
	return over, lamp, hot, st
}
