package check

import (
	"fmt"
	"math"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
)

var _ = rule("supply-load", Stop, "A supply is overloaded, or has no headroom (80 % continuous).", func(w *plan.Work, say func(Snag)) {
	for i := range w.Plan.Devices {
		d := &w.Plan.Devices[i]
		if d.Kind != "supply" && d.Kind != "converter" || d.Cell != "" { // batteries have a rule of their own
			continue
		}
		g := w.All.Readings[d.ID]
		v, limit := plan.SupplyOf(d, w.Lib)
		need := wanted(w, d, g.Amps)
		if need <= circuit.LoadLimit*limit {
			continue
		}
		s := Snag{Level: Fix, Place: "loom", At: []string{"device:" + d.ID}, Title: d.Name + " has no headroom", weight: need / limit,
			Why: fmt.Sprintf("Everything on takes %s of its %s, %.0f %%; plan at most 80 %%.", measure.Amps(need), measure.Amps(limit), 100*need/limit)}
		if need > limit {
			s.Level, s.Title = Stop, d.Name+" is overloaded"
		}
		if d.Kind == "converter" {
			next := *d
			next.Amps = measure.Of[measure.AmpKind](math.Ceil(need / circuit.LoadLimit))
			s.Mends = []Mend{put(w, "One of "+next.Amps.String(), "device", d.ID, next)}
		} else if id := smallest(w, v, need); id != "" {
			next := *d
			next.Product, next.Volts, next.Amps = id, measure.Voltage{}, measure.Current{}
			s.Mends = []Mend{put(w, "Use the "+w.Lib.Supplies[id].Name, "device", d.ID, next)}
		}
		say(s)
	}
})

// wanted is what a supply's lamps would take: what they are rated for, since
// an overloaded supply gives in, up to half as much again as it gives.
func wanted(w *plan.Work, d *plan.Device, gives float64) float64 {
	sum := 0.0
	for k := range w.Plan.Devices {
		if l := &w.Plan.Devices[k]; l.Kind == "lamp" && w.Rig.Supply(l.ID) == d.ID && !l.Reversed {
			sum += plan.RatedAmps(l, w.Lib)
		}
	}
	return max(gives, min(sum, 1.5*gives))
}

var _ = rule("starved", Stop, "A converter sees less than it needs to run.", func(w *plan.Work, say func(Snag)) {
	for i := range w.Plan.Devices {
		d := &w.Plan.Devices[i]
		g := w.All.Readings[d.ID]
		if d.Kind != "converter" || g.State != "starved" {
			continue
		}
		v, _ := plan.SupplyOf(d, w.Lib)
		say(Snag{Level: Stop, Place: "loom", At: []string{"device:" + d.ID}, Title: d.Name + " is starved", weight: 3,
			Why: fmt.Sprintf("A step-down converter to %s wants at least %s at its input. Feed it from a higher rail, through thicker wire.", measure.Volts(v), measure.Volts(v+1))})
	}
})

var _ = rule("not-settled", Stop, "The wiring has no steady state, and what will not settle.", func(w *plan.Work, say func(Snag)) {
	if s := w.All.Solution; !s.Settled {
		at := "display:" + w.Plan.Display.ID
		if w.Plan.Device(s.Worst) != nil {
			at = "device:" + s.Worst
		}
		say(Snag{Level: Stop, Place: "loom", At: []string{at}, Title: "The wiring will not settle", Why: fmt.Sprintf("No steady currents found after %d steps; look at %s.", s.Iterations, s.Worst)})
	}
})
