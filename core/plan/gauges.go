package plan

import (
	"math"

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
func Gauges(p *Plan, lib *stock.Library, prop string, budget float64) (q *Plan, worst float64, ok bool) {
	q = p.Clone()
	var runs []int
	for i := range q.Devices {
		if d := &q.Devices[i]; d.Kind == "run" && d.Prop == prop {
			runs = append(runs, i)
			d.Gauge = gaugeAt(0)
		}
	}
	// excess is how far the worst lamp is past the budget, and which run is past its limit
	excess := func() (over float64, lamp string, hot int, st *State, r *Rig) {
		r = NewRig(q, lib)
		st = r.Solve(lib, nil)
		over, hot = math.Inf(-1), -1
		for i := range q.Devices {
			d := &q.Devices[i]
			if d.Prop != prop {
				continue
			}
			s := q.Device(r.supply[d.ID])
			if d.Kind == "lamp" && s != nil && !d.Reversed {
				v, _ := SupplyOf(s, lib)
				if x := st.Readings[d.ID].Drop/v - budget; x > over {
					over, lamp = x, d.ID
				}
			}
			if d.Kind == "run" && st.Readings[d.ID].Amps > stock.Ampacity(d.Gauge.Value()) && thicker(d.Gauge) > 0 {
				hot = i
			}
		}
		return
	}
	over, lamp, hot, st, _ := excess()
	for over > 0 || hot >= 0 {
		best, gain := hot, 0.0
		if hot < 0 {
			on := map[string]bool{}
			for d := q.Device(lamp); d != nil; d = q.Device(d.From) {
				on[d.ID] = true
			}
			for _, i := range runs {
				d := &q.Devices[i]
				a := thicker(d.Gauge)
				if !on[d.ID] || a == 0 {
					continue
				}
				volts := st.Readings[d.ID].Amps * (circuit.WireOhms(d.Gauge.Value(), d.Length.Value(), p.Temperature()) - circuit.WireOhms(a, d.Length.Value(), p.Temperature()))
				if g := volts / ((a - d.Gauge.Value()) * d.Length.Value()); g > gain {
					best, gain = i, g
				}
			}
		}
		if best < 0 {
			return q, over + budget, false
		}
		q.Devices[best].Gauge = measure.Of[measure.GaugeKind](thicker(q.Devices[best].Gauge))
		over, lamp, hot, st, _ = excess()
	}
	for _, i := range runs { // what was thickened early may be more than is needed now
		for {
			was := q.Devices[i].Gauge
			a := 0.0
			for _, n := range stock.Gauges {
				if x := measure.AWGArea(n); x < was.Value()-1e-9 {
					a = x
				}
			}
			if a == 0 {
				break
			}
			q.Devices[i].Gauge = measure.Of[measure.GaugeKind](a)
			if o, _, h, _, _ := excess(); o > 0 || h >= 0 {
				q.Devices[i].Gauge = was
				break
			} else {
				over = o
			}
		}
	}
	return q, over + budget, true
}

func gaugeAt(k int) measure.Gauge {
	return measure.Of[measure.GaugeKind](measure.AWGArea(stock.Gauges[k]))
}

// thicker is the next thicker stocked wire in mm2, or 0.
func thicker(g measure.Gauge) float64 {
	for _, n := range stock.Gauges {
		if a := measure.AWGArea(n); a > g.Value()+1e-9 {
			return a
		}
	}
	return 0
}
