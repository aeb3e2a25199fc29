package check

import (
	"fmt"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

// thinnest is the least ampacity of the runs a fuse guards: those fed through
// it and no other.
func thinnest(w *work.Work, id string) (limit float64, run *plan.Device) {
	var walk func(string)
	walk = func(id string) {
		for _, d := range w.Kids(id) {
			if d.Is(wiring.Fuse) {
				continue
			}
			if d.Is(wiring.Wire) {
				if a := stock.Ampacity(d.Gauge.Value()); run == nil || a < limit {
					limit, run = a, d
				}
			}
			walk(d.ID)
		}
	}
	if d := w.Device(id); d != nil && d.Is(wiring.Wire) {
		limit, run = stock.Ampacity(d.Gauge.Value()), d
	}
	walk(id)
	return limit, run
}

var _ = rule(
	"no-fuse",
	Stop,
	"A run, or a lamp's own lead, leaves a supply with no fuse in its way; a short then has the supply's whole current.",
	noFuse,
)

func noFuse(w *work.Work, say func(Snag)) {
	for i := range w.Plan.Devices() {
		d := &w.Plan.Devices()[i]
		if !d.Is(wiring.Wire|wiring.Load) || w.Rig().Unfed(d.ID) {
			continue
		}
		top, fused := fusedFrom(w, d)
		if fused {
			continue
		}
		limit, carry := wiring.ShortAmps(top, w.Lib), 0.0
		if d.Is(wiring.Load) { // nothing but its own lead hangs on the supply
			carry = leadCarries(w, d)
		} else {
			carry, _ = thinnest(w, d.ID)
		}
		if limit <= carry {
			continue // it cannot push more into a short than the wire bears: no fuse would ever blow
		}
		snag := Snag{
			Level:  Stop,
			Place:  "loom",
			At:     []string{"device:" + d.ID},
			Title:  d.Name + does(d.Name, " has", " have") + " no fuse",
			weight: 2,
			Why: fmt.Sprintf("%s can push %s into a short; the wire may carry %s bundled and in foam.",
				top.Name, measure.Amps(limit), measure.Amps(carry)),
		}
		if f := circuit.ChooseFuse(w.All().Readings[d.ID].Amps, carry); f > 0 {
			snag.Mends = []Mend{addFuse(w, d, f)}
		}
		say(snag)
	}
}

// fusedFrom is the supply that a device hangs on, and whether a fuse lies between; a run above
// counts as one, since it is spoken of by itself.
func fusedFrom(w *work.Work, d *plan.Device) (top *plan.Device, fused bool) {
	top = d
	for up := d; up != nil; up = w.Device(up.From) {
		fused = fused || up.Is(wiring.Fuse) || up != d && up.Is(wiring.Wire)
		if up.Is(wiring.Origin) {
			top = up
		}
	}
	return top, fused
}

// leadCarries is what a lamp's own lead may carry, in A.
func leadCarries(w *work.Work, d *plan.Device) float64 {
	g := d.Gauge
	if g.IsZero() {
		g = w.Lib.Lamps[d.Product].LeadGauge
	}
	return stock.Ampacity(g.Value())
}

// addFuse puts a fuse of so many amps before a device.
func addFuse(w *work.Work, d *plan.Device, amps float64) Mend {
	id := w.FreshName("F")
	fuse := plan.Device{ID: id, Prop: d.Prop, Kind: "fuse", Name: "Fuse " + id, From: d.From, At: d.At,
		Rating: measure.Of[measure.AmpKind](amps)}
	next := *d
	next.From, next.At = id, measure.Length{}
	label := fmt.Sprintf("Add a %s fuse", measure.Amps(amps))
	return Mend{Label: label, Edit: plan.Edit{
		Label:   label,
		Changes: []plan.Change{w.Plan.Put("device", id, fuse), w.Plan.Put("device", d.ID, next)},
	}}
}

// pulls is how many times its rating trips a self-resetting fuse for certain.
const pulls = 2.0

// PolyFrom is its source.
var PolyFrom = source.FromMemory("self-resetting fuses hold their rating and trip at about twice that, in seconds")

var _ = rule(
	"fuse-size",
	Stop,
	"A fuse is larger than the wire below it may carry (fuse-slow: a self-resetting one), or too small for the running "+
		"current (fuse-blows, fuse-tight).",
	func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Devices() {
			if d := &w.Plan.Devices()[i]; d.Is(wiring.Fuse) {
				fuseSize(w, d, say)
			}
		}
	},
)

func fuseSize(w *work.Work, d *plan.Device, say func(Snag)) {
	carry, run := thinnest(w, d.ID)
	if s := w.Device(w.Rig().Supply(d.ID)); run != nil && s != nil && s.Is(wiring.Origin) &&
		wiring.ShortAmps(s, w.Lib) <= carry {
		run = nil // what feeds it cannot harm the wire
	}
	amps, rating := w.All().Readings[d.ID].Amps, d.Rating.Value()
	switch {
	case run != nil && d.Poly && pulls*rating > carry+1e-9:
		say(fuseSlow(w, d, run, carry))
	case run != nil && rating > carry+1e-9:
		say(fuseLarge(w, d, run, carry))
	case amps > rating:
		say(Snag{
			Code:   "fuse-blows",
			Level:  Stop,
			Place:  "loom",
			At:     []string{"device:" + d.ID},
			Title:  d.Name + " will blow",
			weight: 2,
			Mends:  resized(w, d, run, carry),
			Why:    fmt.Sprintf("%s runs through a %s fuse.", measure.Amps(amps), d.Rating),
		})
	case amps > 0.8*rating:
		say(Snag{
			Code:  "fuse-tight",
			Level: Fix,
			Place: "loom",
			At:    []string{"device:" + d.ID},
			Title: d.Name + does(d.Name, " is", " are") + " tight",
			Mends: resized(w, d, run, carry),
			Why:   fmt.Sprintf("%s runs through a %s fuse; keep it at 80 %% or less.", measure.Amps(amps), d.Rating),
		})
	}
}

// resized is the fuse of the size that its current and the wire behind it ask for; run is nil where
// only leads hang straight on it.
func resized(w *work.Work, d, run *plan.Device, carry float64) []Mend {
	if run == nil {
		carry = leadBelow(w, d.ID)
	}
	f := circuit.ChooseFuse(w.All().Readings[d.ID].Amps, carry)
	if f <= 0 || f == d.Rating.Value() {
		return nil
	}
	next := *d
	next.Rating = measure.Of[measure.AmpKind](f)
	return []Mend{put(w, "Make it "+measure.Amps(f), "device", d.ID, next)}
}

// fuseSlow is of a self-resetting fuse that trips past what a run may carry.
func fuseSlow(w *work.Work, d, run *plan.Device, carry float64) Snag {
	next, label := *d, "A fuse that blows instead"
	if next.Poly = false; d.Rating.Value() > carry+1e-9 {
		f := circuit.ChooseFuse(w.All().Readings[d.ID].Amps, carry)
		next.Rating, label = measure.Of[measure.AmpKind](f), "A fuse of "+measure.Amps(f)+" that blows instead"
	}
	var mends []Mend
	if next.Rating.Value() > 0 {
		mends = []Mend{put(w, label, "device", d.ID, next)}
	}
	return Snag{
		Code:   "fuse-slow",
		Level:  Fix,
		Place:  "loom",
		At:     []string{"device:" + d.ID, "device:" + run.ID},
		Title:  d.Name + " lets too much through",
		weight: 2,
		Mends:  mends,
		From:   []source.Source{PolyFrom, stock.AmpacityFrom},
		Why: fmt.Sprintf("A self-resetting fuse trips only at about twice its %s, and slowly; %s (%s) may carry %s.",
			d.Rating, run.Name, run.Gauge, stock.Carries(run.Gauge.Value())),
	}
}

// fuseLarge is of a fuse that lets through more than a run may carry.
func fuseLarge(w *work.Work, d, run *plan.Device, carry float64) Snag {
	mends := resized(w, d, run, carry)
	if mends == nil {
		if m, ok := ownFuses(w, d); ok {
			mends = []Mend{m}
		}
	}
	level := Stop
	if d.Rating.Value() <= stock.FreeAir(run.Gauge.Value()) { // too much for it only where it cannot cool
		level = Fix
	}
	return Snag{
		Level:  level,
		Place:  "loom",
		At:     []string{"device:" + d.ID, "device:" + run.ID},
		Title:  d.Name + does(d.Name, " does", " do") + " not guard the wire",
		weight: 2,
		Mends:  mends,
		From:   []source.Source{stock.AmpacityFrom, stock.CordAmpacityFrom},
		Why: fmt.Sprintf("It lets %s through; %s (%s) may carry %s.",
			d.Rating, run.Name, run.Gauge, stock.Carries(run.Gauge.Value())),
	}
}

// leadBelow is the least ampacity of the leads of lamps that hang straight on a
// device; of a fuse that nothing hangs on, what the thickest wire bears.
func leadBelow(w *work.Work, id string) float64 {
	least := stock.Ampacity(measure.AWGArea(stock.Gauges[len(stock.Gauges)-1]))
	for _, k := range w.Kids(id) {
		if k.Is(wiring.Load) {
			least = min(least, leadCarries(w, k))
		}
	}
	return least
}

// carries is the least ampacity of a run and of all runs fed through it.
func carries(w *work.Work, run string) float64 {
	least, _ := thinnest(w, run)
	return least
}

// ownFuses gives each run below a fuse that is too thin for it a fuse of its
// own, where the thin wire begins.
func ownFuses(w *work.Work, fuse *plan.Device) (Mend, bool) {
	m := Mend{Label: "A fuse of its own for each thin run"}
	names := map[string]bool{}
	for _, d := range w.Plan.Devices() {
		if !d.Is(wiring.Wire) || stock.Ampacity(d.Gauge.Value()) >= fuse.Rating.Value() {
			continue
		}
		guarded, below := false, false
		for up := w.Device(d.From); up != nil && !below; up = w.Device(up.From) {
			below = up.ID == fuse.ID
			guarded = guarded ||
				!below &&
					(up.Is(wiring.Fuse|wiring.Wire) && stock.Ampacity(up.Gauge.Value()) < fuse.Rating.Value())
		}
		if !below || guarded {
			continue
		}
		f := circuit.ChooseFuse(w.All().Readings[d.ID].Amps, carries(w, d.ID))
		if f == 0 {
			return m, false
		}
		id := w.FreshName("F")
		for n := 2; names[id] || w.Device(id) != nil; n++ {
			id = fmt.Sprintf("F%d", n)
		}
		names[id] = true
		own := plan.Device{
			ID:     id,
			Prop:   d.Prop,
			Kind:   "fuse",
			Name:   "Fuse " + id,
			From:   d.From,
			At:     d.At,
			Rating: measure.Of[measure.AmpKind](f),
		}
		d.From, d.At = id, measure.Length{}
		m.Edit.Changes = append(m.Edit.Changes, w.Plan.Put("device", id, own), w.Plan.Put("device", d.ID, d))
		if len(names) == 1 {
			m.Label = fmt.Sprintf("A %s fuse of its own for %s", measure.Amps(f), d.Name)
		} else {
			m.Label = fmt.Sprintf("Fuses of their own for %d thin runs", len(names))
		}
	}
	m.Edit.Label = m.Label
	return m, len(names) > 0
}

var _ = rule(
	"contact-rating",
	Fix,
	"A switch, relay contact or connector carries more than its rating.",
	func(w *work.Work, say func(Snag)) {
		for _, d := range w.Plan.Devices() {
			if g := w.All().Readings[d.ID]; (d.Is(wiring.Switch | wiring.Connector)) && !d.Rating.IsZero() &&
				g.Amps > d.Rating.Value() {
				say(
					Snag{
						Level: Fix,
						Place: "loom",
						At:    []string{"device:" + d.ID},
						Title: d.Name + " carries too much",
						Why:   fmt.Sprintf("%s through contacts rated %s.", measure.Amps(g.Amps), d.Rating),
					},
				)
			}
		}
	},
)
