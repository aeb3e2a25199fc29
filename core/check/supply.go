package check

import (
	"fmt"
	"math"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/source"
)

var _ = rule("supply-load", Stop, "A supply is overloaded, or has no headroom (80 % continuous).", func(w *plan.Work, say func(Snag)) {
	for i := range w.Plan.Devices {
		d := &w.Plan.Devices[i]
		if d.Kind != "supply" && d.Kind != "converter" || d.Cell != "" { // batteries have a rule of their own
			continue
		}
		v, limit := plan.SupplyOf(d, w.Lib)
		need := w.Demand(d.ID)
		if need <= circuit.LoadLimit*limit {
			continue
		}
		s := Snag{Level: Fix, Place: "loom", At: []string{"device:" + d.ID}, Title: d.Name + " has no headroom", weight: need / limit, From: []source.Source{circuit.LoadFrom},
			Why: fmt.Sprintf("Everything on asks %s of its %s, %.0f %%; plan at most 80 %%.", measure.Amps(need), measure.Amps(limit), 100*need/limit)}
		if need > limit {
			s.Level, s.Title = Stop, d.Name+" is overloaded"
		}
		add := func(m Mend) {
			m.gives = func(w *plan.Work) string { return fmt.Sprintf("%.0f %% of it", 100*w.Load(w.Device(d.ID))) }
			s.Mends = append(s.Mends, m)
		}
		if d.Kind == "converter" {
			next := *d
			next.Amps = measure.Of[measure.AmpKind](math.Ceil(need / circuit.LoadLimit))
			add(put(w, "One of "+next.Amps.String(), "device", d.ID, next))
		} else if id := smallest(w, v, need); id != "" {
			next := *d
			next.Product, next.Volts, next.Amps = id, measure.Voltage{}, measure.Current{}
			add(put(w, "Use the "+w.Lib.Supplies[id].Name, "device", d.ID, next))
		}
		for _, m := range shared(w, d, v, limit) {
			add(m)
		}
		if m := capped(w, d, circuit.LoadLimit*limit); m != nil {
			add(*m)
		}
		say(s)
	}
})

// shared gives the branch of a supply that unburdens it to a new supply.
func shared(w *plan.Work, d *plan.Device, volts, limit float64) []Mend {
	kids := w.Kids(d.ID)
	total, best, most := 0.0, -1, 0.0
	asks := make([]float64, len(kids))
	for i, k := range kids {
		asks[i] = below(w, k.ID)
		total += asks[i]
	}
	for i, a := range asks {
		if total-a <= circuit.LoadLimit*limit && (best < 0 || a < most) && smallest(w, volts, a) != "" {
			best, most = i, a
		}
	}
	if len(kids) < 2 || best < 0 || d.Kind != "supply" || d.Cell != "" {
		return nil
	}
	id := w.FreshName("S")
	next := *kids[best]
	next.From = id
	extra := plan.Device{ID: id, Prop: d.Prop, Kind: "supply", Name: "Supply " + id, Product: smallest(w, volts, most), Outlet: d.Outlet}
	label := "A supply of its own for " + next.Name
	return []Mend{{Label: label, Edit: plan.Edit{Label: label, Changes: []plan.Change{w.Plan.Put("device", id, extra), w.Plan.Put("device", next.ID, next)}}}}
}

// below is what the lamps fed through a device are rated for.
func below(w *plan.Work, id string) float64 {
	var rated func(*plan.Device) float64
	rated = func(d *plan.Device) (amps float64) {
		if d.Kind == "lamp" && !d.Reversed {
			return plan.RatedAmps(d, w.Lib)
		}
		for _, k := range w.Kids(d.ID) {
			amps += rated(k)
		}
		return amps
	}
	d := w.Device(id)
	if d == nil {
		return 0
	}
	return max(rated(d), w.All.Readings[id].Amps)
}

var _ = rule("starved", Stop, "A converter or a controller sees less than it needs to run.", func(w *plan.Work, say func(Snag)) {
	for i := range w.Plan.Devices {
		d := &w.Plan.Devices[i]
		g := w.All.Readings[d.ID]
		if g.State != "starved" {
			continue
		}
		if d.Kind == "controller" {
			say(Snag{Level: Stop, Place: "loom", At: []string{"device:" + d.ID}, Title: d.Name + " is starved", weight: 3,
				Why: fmt.Sprintf("It sees %s of its %s and resets or runs wild below nine tenths. Feed it before the long wire, or from a supply of its own.", measure.Volts(g.Volts), measure.Volts(d.Volts.Or(5)))})
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
		if w.Device(s.Worst) != nil {
			at = "device:" + s.Worst
		}
		say(Snag{Level: Stop, Place: "loom", At: []string{at}, Title: "The wiring will not settle", Why: fmt.Sprintf("No steady currents found after %d steps; look at %s.", s.Iterations, s.Worst)})
	}
})
