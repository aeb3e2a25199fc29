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
		g := w.All.Readings[d.ID]
		v, limit := plan.SupplyOf(d, w.Lib)
		need := wanted(w, d, g.Amps)
		if need <= circuit.LoadLimit*limit {
			continue
		}
		s := Snag{Level: Fix, Place: "loom", At: []string{"device:" + d.ID}, Title: d.Name + " has no headroom", weight: need / limit, From: []source.Source{circuit.LoadFrom},
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
			m := put(w, "Use the "+w.Lib.Supplies[id].Name, "device", d.ID, next)
			m.Effect = fmt.Sprintf("%.0f %% of it, then %.0f %%", 100*need/limit, 100*need/w.Lib.Supplies[id].Amps)
			s.Mends = []Mend{m}
		}
		if m, ok := shared(w, d, v, limit); ok {
			s.Mends = append(s.Mends, m)
		}
		if m := capped(w, d, circuit.LoadLimit*limit); m != nil {
			s.Mends = append(s.Mends, *m)
		}
		say(s)
	}
})

// shared gives the branch of a supply that unburdens it to a new supply.
func shared(w *plan.Work, d *plan.Device, volts, limit float64) (Mend, bool) {
	var kids []plan.Device
	total := 0.0
	for _, k := range w.Kids(d.ID) {
		kids, total = append(kids, *k), total+below(w, k.ID)
	}
	best, most := -1, 0.0
	for i, k := range kids {
		a := below(w, k.ID)
		if total-a <= circuit.LoadLimit*limit && (best < 0 || a < most) && smallest(w, volts, a) != "" {
			best, most = i, a
		}
	}
	if len(kids) < 2 || best < 0 || d.Kind != "supply" || d.Cell != "" {
		return Mend{}, false
	}
	id := w.Plan.FreshName("S")
	next := kids[best]
	next.From = id
	extra := plan.Device{ID: id, Prop: d.Prop, Kind: "supply", Name: "Supply " + id, Product: smallest(w, volts, most), Outlet: d.Outlet}
	label := "A supply of its own for " + next.Name
	return Mend{Label: label, Effect: fmt.Sprintf("%.0f %% of it, then %.0f %%", 100*total/limit, 100*(total-most)/limit),
		Edit: plan.Edit{Label: label, Changes: []plan.Change{w.Plan.Put("device", id, extra), w.Plan.Put("device", next.ID, next)}}}, true
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
