package check

import (
	"fmt"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
	"zapbarn/core/words"
	"zapbarn/core/work"
)

// licensed is said wherever mains appears.
const licensed = " Plugs and cords only: fixed wiring, and anything in a wall or a panel, belongs to a licensed " +
	"electrician and the local code."

// eachOutlet calls a rule for every outlet with what hangs on it.
func eachOutlet(w *work.Work, f func(o *plan.Outlet, loads []work.MainsLoad, amps float64)) {
	for i := range w.Plan.Outlets() {
		o := &w.Plan.Outlets()[i]
		loads, watts := w.OnOutlet(o.ID), 0.0
		for _, l := range loads {
			watts += l.Watts
		}
		f(o, loads, watts/o.Volts.Value())
	}
}

// toOutlet is a mend that moves a load to another outlet.
func toOutlet(w *work.Work, l work.MainsLoad, to *plan.Outlet) Mend {
	label := "Plug " + l.Name + " into " + to.Name
	if l.Kind == "plug" {
		for _, p := range w.Plan.Plugs() {
			if p.ID == l.ID {
				p.Outlet = to.ID
				return put(w, label, "plug", p.ID, p)
			}
		}
	}
	d := *w.Device(l.ID)
	d.Outlet = to.ID
	return put(w, label, "device", d.ID, d)
}

var _ = rule(
	"mains-load",
	Stop,
	"An outlet's circuit carries more than it may (80 % of its breaker for three hours or more).",
	func(w *work.Work, say func(Snag)) {
		eachOutlet(w, func(o *plan.Outlet, loads []work.MainsLoad, amps float64) {
			limit := w.OutletLimit(o)
			if amps <= limit {
				return
			}
			_, hours, _ := w.Plan.Season()
			s := Snag{
				Level:  Stop,
				Place:  "loom",
				At:     []string{"outlet:" + o.ID},
				Title:  o.Name + " carries too much",
				weight: amps / limit,
				Why: fmt.Sprintf(
					"Everything on takes %s; for %g h a night its %s breaker may carry %s.%s",
					measure.Amps(amps),
					hours,
					o.Breaker,
					measure.Amps(limit),
					licensed,
				),
			}
			eachOutlet(w, func(q *plan.Outlet, _ []work.MainsLoad, other float64) {
				if q.ID == o.ID || len(s.Mends) == 2 {
					return
				}
				for _, l := range loads { // one move that is enough
					a := l.Watts / q.Volts.Value()
					if amps-l.Watts/o.Volts.Value() <= limit && other+a <= w.OutletLimit(q) {
						s.Mends = append(s.Mends, toOutlet(w, l, q))
						return
					}
				}
			})
			say(s)
		})
	},
)

var _ = rule(
	"mains-heater",
	Fix,
	"A heater (fog) shares its circuit with other loads.",
	func(w *work.Work, say func(Snag)) {
		eachOutlet(w, func(o *plan.Outlet, loads []work.MainsLoad, _ float64) {
			for _, l := range loads {
				if !l.Heater || len(loads) < 2 {
					continue
				}
				s := Snag{
					Level:  Fix,
					Place:  "loom",
					At:     []string{l.Kind + ":" + l.ID},
					Title:  l.Name + " shares its circuit",
					weight: l.Watts,
					Why: fmt.Sprintf(
						"Its heater of %s switches on %s with %s, which flicker or trip with it; give it a circuit of its own.%s",
						measure.Watts(l.Watts),
						o.Name,
						words.Count(len(loads)-1, "other load"),
						licensed,
					),
				}
				for i := range w.Plan.Outlets() {
					if q := &w.Plan.Outlets()[i]; len(w.OnOutlet(q.ID)) == 0 &&
						l.Watts/q.Volts.Value() <= w.OutletLimit(q) {
						s.Mends = append(s.Mends, toOutlet(w, l, q))
						break
					}
				}
				say(s)
			}
		})
	},
)

var _ = rule(
	"mains-guard",
	Stop,
	"An outlet outdoors has no ground-fault protection.",
	func(w *work.Work, say func(Snag)) {
		if !w.Plan.Display().Outdoors {
			return
		}
		eachOutlet(w, func(o *plan.Outlet, loads []work.MainsLoad, _ float64) {
			if o.Guard || len(loads) == 0 {
				return
			}
			next := *o
			next.Guard = true
			say(
				Snag{
					Level: Stop,
					Place: "loom",
					At:    []string{"outlet:" + o.ID},
					Title: o.Name + does(o.Name, " has", " have") + " no ground-fault protection",
					Why: fmt.Sprintf(
						"The display stands outdoors, and on it hangs %s; wet hands and wet grass kill.%s",
						words.Count(len(loads), "load"),
						licensed,
					),
					Mends: []Mend{put(w, "It is protected", "outlet", o.ID, next)},
				},
			)
		})
	},
)

var _ = rule(
	"mains-cord",
	Fix,
	"An extension cord is too thin or too long for what it carries.",
	func(w *work.Work, say func(Snag)) {
		eachOutlet(w, func(o *plan.Outlet, _ []work.MainsLoad, amps float64) {
			if o.Gauge.IsZero() {
				return
			}
			fits := func(awg int) bool {
				q := *o
				q.Gauge = measure.Of[measure.GaugeKind](measure.AWGArea(awg))
				return stock.CordAmpacity(awg) >= amps && amps*q.CordOhms() <= .05*o.Volts.Value()
			}
			carries := 0.0
			for _, n := range []int{18, 16, 14, 12, 10} {
				if measure.AWGArea(n) <= o.Gauge.Value()*1.001 {
					carries = stock.CordAmpacity(n)
				}
			}
			drop := amps * o.CordOhms()
			if carries >= amps && drop <= .05*o.Volts.Value() {
				return
			}
			s := Snag{
				Level:  Fix,
				Place:  "loom",
				At:     []string{"outlet:" + o.ID},
				Title:  "The cord to " + o.Name + " is too thin",
				weight: amps,
				From:   []source.Source{stock.CordAmpacityFrom},
				Why: fmt.Sprintf(
					"%s runs through %s of %s, which may carry %s and loses %s, %.1f %%; plan at most 5 %%.%s",
					measure.Amps(amps),
					w.Len(o.Cord.Value()),
					o.Gauge,
					measure.Amps(carries),
					measure.Volts(drop),
					100*drop/o.Volts.Value(),
					licensed,
				),
			}
			if carries < amps {
				s.Level = Stop
			}
			for _, n := range []int{16, 14, 12, 10} {
				if measure.AWGArea(n) > o.Gauge.Value() && fits(n) {
					next := *o
					next.Gauge = measure.Of[measure.GaugeKind](measure.AWGArea(n))
					s.Mends = append(s.Mends, put(w, "A cord of "+next.Gauge.String(), "outlet", o.ID, next))
					break
				}
			}
			say(s)
		})
	},
)

// roomy are the outlets that can take so many watts more, no heater on them.
func roomy(w *work.Work, watts float64) (out []*plan.Outlet) {
	eachOutlet(w, func(o *plan.Outlet, loads []work.MainsLoad, amps float64) {
		heater := false
		for _, l := range loads {
			heater = heater || l.Heater
		}
		if !heater && amps+watts/o.Volts.Value() <= w.OutletLimit(o) {
			out = append(out, o)
		}
	})
	return out
}

// plugged is a new supply on an outlet that has room for what it gives, if there is one.
func plugged(w *work.Work, s plan.Device, amps float64) plan.Device {
	volts, _ := wiring.SupplyOf(&s, w.Lib)
	for _, o := range roomy(w, volts*amps/.85) {
		s.Outlet = o.ID
		break
	}
	return s
}

var _ = rule(
	"unplugged",
	Mind,
	"A supply is plugged in nowhere, though there are outlets.",
	func(w *work.Work, say func(Snag)) {
		if len(w.Plan.Outlets()) == 0 {
			return
		}
		for i := range w.Plan.Devices() {
			d := &w.Plan.Devices()[i]
			if !d.Is(wiring.Origin) || d.Cell != "" || d.Outlet != "" {
				continue
			}
			s := Snag{
				Level: Mind,
				Place: "loom",
				At:    []string{"device:" + d.ID},
				Title: d.Name + does(d.Name, " is", " are") + " plugged in nowhere",
				Why:   "Say which outlet it hangs on, so that the circuit's load is right.",
			}
			watts := w.All().Readings[d.ID].Volts * w.All().Readings[d.ID].Amps / .85
			for _, o := range roomy(w, watts) {
				if len(s.Mends) < 2 {
					s.Mends = append(s.Mends, toOutlet(w, work.MainsLoad{Kind: "device", ID: d.ID, Name: d.Name}, o))
				}
			}
			say(s)
		}
	},
)

var _ = rule(
	"battery",
	Stop,
	"A set of batteries does not last the night, gives too little, or switches itself off.",
	func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Devices() {
			d := &w.Plan.Devices()[i]
			c, ok := circuit.Cells[d.Cell]
			if !d.Is(wiring.Origin) || !ok {
				continue
			}
			peak := w.Demand(d.ID)
			if peak/float64(max(1, d.Sets)) > c.Most {
				say(batteryWeak(w, d, c, peak))
			}
			if c.Least > 0 {
				bank(w, d, c, peak, say)
			}
			batteryNight(w, d, say)
		}
	},
)

// moreSets puts more sets of cells side by side.
func moreSets(w *work.Work, d *plan.Device, n int) Mend {
	next := *d
	next.Sets = n
	return put(w, fmt.Sprintf("%d sets side by side", n), "device", d.ID, next)
}

// batteryWeak is of cells that are asked for more than they give.
func batteryWeak(w *work.Work, d *plan.Device, c circuit.Cell, peak float64) Snag {
	sets := max(1, d.Sets)
	each, n := peak/float64(sets), sets
	for n < 40 && peak/float64(n) > c.Most {
		n++
	}
	s := Snag{
		Level:  Stop,
		Place:  "loom",
		At:     []string{"device:" + d.ID},
		Title:  d.Name + " cannot give that",
		weight: each / c.Most,
		Why: fmt.Sprintf("Everything on asks %s of each %s, which gives about %s before it sags; hold pixels lower or "+
			"put sets side by side.", measure.Amps(each), c.Name, measure.Amps(c.Most)),
	}
	if peak/float64(n) <= c.Most && n <= 12 {
		s.Mends = append(s.Mends, moreSets(w, d, n))
	}
	if b := capped(w, d, c.Most*float64(sets)); b != nil {
		s.Mends = append(s.Mends, *b)
	}
	return s
}

// batteryNight tells of cells that do not last the night: more sets, or larger cells, may.
func batteryNight(w *work.Work, d *plan.Device, say func(Snag)) {
	nights, hours, _ := w.Plan.Season()
	h := w.At("device", d.ID, "hours")
	if h.Text == "" || h.Value >= hours {
		return
	}
	s := Snag{
		Level:  Fix,
		Place:  "loom",
		At:     []string{"device:" + d.ID},
		Code:   "battery-night",
		Title:  d.Name + does(d.Name, " does", " do") + " not last the night",
		weight: hours / h.Value,
		Why:    fmt.Sprintf("A set gives %s; a night takes %g h, on %d nights.", h.Text, hours, nights),
	}
	sets := max(1, d.Sets)
	lasts := func(cell string, sets int) bool {
		rs, err := circuit.Runtime(cell, w.Night(d.ID), sets, w.Plan.Temperature() < 5, hours, nights)
		return err == nil && rs[0].Value >= hours
	}
	for n := sets + 1; n <= 12; n++ {
		if lasts(d.Cell, n) {
			s.Mends = append(s.Mends, moreSets(w, d, n))
			break
		}
	}
	for _, size := range [][2]string{{"aaa", "aa"}, {"aa", "c"}, {"aa", "d"}, {"c", "d"}} {
		if size[0] == d.Cell && len(s.Mends) < 2 && lasts(size[1], sets) {
			next := *d
			next.Cell = size[1]
			s.Mends = append(s.Mends, put(w, circuit.Cells[size[1]].Name+" instead", "device", d.ID, next))
		}
	}
	say(s)
}

// bank says where a bank would switch itself off: each by itself, at the least it is asked for.
func bank(w *work.Work, d *plan.Device, c circuit.Cell, peak float64, say func(Snag)) {
	sets := max(1, d.Sets)
	least, when := w.Least(d.ID)
	each := least / float64(sets)
	if each >= c.Least {
		return
	}
	of := "It gives"
	if sets > 1 {
		of = "Each gives"
	}
	s := Snag{
		Level: Fix,
		Place: "loom",
		At:    []string{"device:" + d.ID},
		Code:  "battery-bank",
		Title: d.Name + " will switch itself off",
		Why: fmt.Sprintf("%s %s %s; a self-switching bank turns off below about %s, and what hangs on it stays dark until "+
			"somebody presses its button. Use cells, or add a load.", of, measure.Amps(each), when, measure.Amps(c.Least)),
		From: []source.Source{circuit.CellsFrom},
	}
	for n := sets - 1; n >= 1; n-- {
		if least/float64(n) >= c.Least && peak/float64(n) <= c.Most {
			next := *d
			next.Sets = n
			label := "One bank alone"
			if n > 1 {
				label = fmt.Sprintf("%d banks side by side", n)
			}
			s.Mends = append(s.Mends, put(w, label, "device", d.ID, next))
			break
		}
	}
	say(s)
}

// capped holds the pixels on a supply to what it can give beside the rest: the
// brightest, in whole per cent, at which all it is asked for stays within
// limit, each tried by solving; nil when that leaves them next to nothing.
func capped(w *work.Work, supply *plan.Device, limit float64) *Mend {
	if w.Plain {
		return nil
	}
	var on []plan.Device
	most := 0
	for i := range w.Plan.Devices() {
		d := w.Plan.Devices()[i]
		if d.Is(wiring.Load) && w.Rig().Supply(d.ID) == supply.ID && !d.Reversed &&
			w.Lib.Lamps[d.Product].Kind == "pixels" {
			if d.Bright == 0 {
				d.Bright = 100
			}
			on, most = append(on, d), max(most, d.Bright)
		}
	}
	var caps []Mend
	for b := most - 1; b >= 5; b-- { // dimmer and dimmer
		m := Mend{Label: fmt.Sprintf("Hold the pixels to %d %%", b)}
		for _, d := range on {
			if d.Bright > b {
				d.Bright = b
				m.Edit.Changes = append(m.Edit.Changes, w.Plan.Put("device", d.ID, d))
			}
		}
		m.Edit.Label = m.Label
		caps = append(caps, m)
	}
	m, ok := least(caps, func(m Mend) bool {
		p := with(w, supply.ID, m)
		return p != nil && plan.NewRig(p, w.Lib).Demand()[supply.ID] <= limit
	})
	if !ok {
		return nil
	}
	return &m
}
