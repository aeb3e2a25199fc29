package check

import (
	"fmt"
	"math"
	"slices"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

var _ = rule(
	"supply-load",
	Stop,
	"A supply is overloaded, or has no headroom (80 % continuous).",
	func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Devices() {
			d := &w.Plan.Devices()[i]
			if !d.Is(wiring.Source) || d.Cell != "" { // batteries have a rule of their own
				continue
			}
			v, limit := wiring.SupplyOf(d, w.Lib)
			need := w.Demand(d.ID)
			if need <= circuit.LoadLimit*limit {
				continue
			}
			s := Snag{
				Level:  Fix,
				Place:  "loom",
				At:     []string{"device:" + d.ID},
				Title:  d.Name + does(d.Name, " has", " have") + " no headroom",
				weight: need / limit,
				From:   []source.Source{circuit.LoadFrom},
				Why: fmt.Sprintf(
					"Everything on asks %s of its %s, %.0f %%; plan at most 80 %%.",
					measure.Amps(need),
					measure.Amps(limit),
					100*need/limit,
				),
			}
			if need > limit {
				s.Level, s.Title = Stop, d.Name+" is overloaded"
			}
			add := func(m Mend) {
				m.gives = func(w *work.Work) string { return fmt.Sprintf("%.0f %% of it", 100*w.Load(w.Device(d.ID))) }
				s.Mends = append(s.Mends, m)
			}
			if d.Is(wiring.Converter) {
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
	},
)

// shared gives the branch of a supply that unburdens it to a new supply.
func shared(w *work.Work, d *plan.Device, volts, limit float64) []Mend {
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
	if len(kids) < 2 || best < 0 || !d.Is(wiring.Origin) || d.Cell != "" {
		return nil
	}
	id := w.FreshName("S")
	next := *kids[best]
	next.From = id
	extra := plan.Device{
		ID:      id,
		Prop:    d.Prop,
		Kind:    "supply",
		Name:    "Supply " + id,
		Product: smallest(w, volts, most),
		Outlet:  d.Outlet,
	}
	label := "A supply of its own for " + next.Name
	return []Mend{
		{
			Label: label,
			Edit: plan.Edit{
				Label:   label,
				Changes: []plan.Change{w.Plan.Put("device", id, extra), w.Plan.Put("device", next.ID, next)},
			},
		},
	}
}

// below is what the lamps fed through a device are rated for.
func below(w *work.Work, id string) float64 {
	var rated func(*plan.Device) float64
	rated = func(d *plan.Device) (amps float64) {
		if d.Is(wiring.Load) && !d.Reversed {
			return wiring.RatedAmps(d, w.Lib)
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
	return max(rated(d), w.All().Readings[id].Amps)
}

var _ = rule(
	"starved",
	Stop,
	"A converter or a controller sees less than it needs to run.",
	func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Devices() {
			d := &w.Plan.Devices()[i]
			g := w.All().Readings[d.ID]
			if g.State != "starved" {
				continue
			}
			feeds := func(st *wiring.State) bool {
				return st.Readings[d.ID].State == "ok" || st.Readings[d.ID].State == "heavy"
			}
			if d.Is(wiring.Controller) {
				say(
					Snag{
						Code:   "controller-starved",
						Level:  Stop,
						Place:  "loom",
						At:     []string{"device:" + d.ID},
						Title:  d.Name + does(d.Name, " is", " are") + " starved",
						weight: 3,
						Mends:  fedBetter(w, d, d.Volts.Or(5), feeds),
						Why: fmt.Sprintf(
							"It sees %s of its %s and resets or runs wild below nine tenths. Feed it before the long wire, or from a "+
								"supply of its own.",
							measure.Volts(g.Volts),
							measure.Volts(d.Volts.Or(5)),
						),
					},
				)
				continue
			}
			v, _ := wiring.SupplyOf(d, w.Lib)
			say(
				Snag{
					Level:  Stop,
					Place:  "loom",
					At:     []string{"device:" + d.ID},
					Title:  d.Name + does(d.Name, " is", " are") + " starved",
					weight: 3,
					Mends:  fedBetter(w, d, 2*v, feeds),
					Why: fmt.Sprintf(
						"A step-down converter to %s wants at least %s at its input. Feed it from a higher rail, through thicker wire.",
						measure.Volts(v),
						measure.Volts(v+1),
					),
				},
			)
		}
	},
)

// fedBetter is how a device that sees too little can be fed: by thicker wire on
// the way, by more cells in its pack, by a supply of its own.
func fedBetter(w *work.Work, d *plan.Device, volts float64, does func(*wiring.State) bool) (out []Mend) {
	if w.Plain {
		return nil
	}
	try := func(m Mend) bool {
		st := resolve(w, d.ID, m)
		return st != nil && does(st)
	}
	if run := runAbove(w, d.From); run != nil {
		var thicker []Mend
		for _, n := range stock.Gauges {
			if a := measure.AWGArea(n); a > run.Gauge.Value()+1e-9 {
				next := *run
				next.Gauge = measure.Of[measure.GaugeKind](a)
				thicker = append(thicker, put(w, next.Gauge.String()+" for "+run.Name, "device", run.ID, next))
			}
		}
		if m, ok := least(thicker, try); ok {
			out = append(out, m)
		}
	}
	if s := w.Device(w.Rig().Supply(d.From)); s != nil && s.Cell != "" {
		var more []Mend
		for n := max(1, s.Cells) + 1; n <= max(1, s.Cells)+8; n++ {
			next := *s
			next.Cells = n
			more = append(more, put(w, fmt.Sprintf("%d cells in a row", n), "device", s.ID, next))
		}
		for _, m := range more { // more volts may harm the rest: the fewest that do
			if try(m) {
				out = append(out, m)
				break
			}
		}
	}
	asks := max(w.All().Readings[d.ID].Amps, d.Amps.Or(.1))
	for _, v := range []float64{volts, 12, 24} {
		if id := smallest(w, v, asks); id != "" && v >= volts {
			s := plan.Device{ID: w.FreshName("S"), Prop: d.Prop, Kind: "supply", Product: id}
			s.Name = "Supply " + s.ID
			m := fused(w, "A supply of its own", *d, s.ID)
			m.Edit.Changes = append([]plan.Change{w.Plan.Put("device", s.ID, plugged(w, s, asks))}, m.Edit.Changes...)
			out = append(out, m)
			break
		}
	}
	return out
}

var _ = rule(
	"not-settled",
	Stop,
	"The wiring has no steady state, and what will not settle.",
	func(w *work.Work, say func(Snag)) {
		if s := w.All().Solution; !s.Settled {
			at := "display:" + w.Plan.Display().ID
			if w.Device(s.Worst) != nil {
				at = "device:" + s.Worst
			}
			say(
				Snag{
					Level: Stop,
					Place: "loom",
					At:    []string{at},
					Title: "The wiring will not settle",
					Why: fmt.Sprintf(
						"No steady currents found after %d steps; look at %s.",
						slices.Max(s.Steps),
						s.Worst,
					),
				},
			)
		}
	},
)
