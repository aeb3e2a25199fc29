package check

import (
	"fmt"
	"math"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

var _ = rule(
	"reversed-lamp",
	Stop,
	"A lamp is wired the wrong way round and will not light.",
	func(w *work.Work, say func(Snag)) {
		for _, d := range w.Plan.Devices() {
			kind := w.Lib.Lamps[d.Product].Kind
			if !d.Is(wiring.Load) || !d.Reversed || kind == "resistive" || kind == "coil" {
				continue
			}
			next := d
			next.Reversed = false
			if kind == "motor" {
				say(
					Snag{
						Level: Mind,
						Place: "loom",
						At:    []string{"device:" + d.ID},
						Title: d.Name + " turns backwards",
						Why:   "Its leads are swapped: a motor on direct current then turns the other way.",
						Mends: []Mend{put(w, "Swap leads", "device", d.ID, next)},
					},
				)
				continue
			}
			why := fmt.Sprintf(
				"It reads %s across its leads and will not light.",
				measure.Volts(w.All().Readings[d.ID].Volts),
			)
			if s := w.Solid(d.In); s != nil && s.Sealed && !d.Proven {
				why += fmt.Sprintf(" %s closes over it: prove it first.", s.Name)
			}
			say(
				Snag{
					Level:  Stop,
					Place:  "loom",
					At:     []string{"device:" + d.ID},
					Title:  d.Name + does(d.Name, " is", " are") + " reversed",
					Why:    why,
					Mends:  []Mend{put(w, "Swap leads", "device", d.ID, next)},
					weight: 5,
				},
			)
		}
	},
)

var _ = rule(
	"wrong-rail",
	Stop,
	"A lamp hangs on a supply of the wrong voltage.",
	wrongRail,
)

func wrongRail(w *work.Work, say func(Snag)) {
	for _, d := range w.Plan.Devices() {
		s := w.Device(w.Rig().Supply(d.ID))
		if !d.Is(wiring.Load) || s == nil || w.Lib.Lamps[d.Product].Kind == "led" {
			continue
		}
		have, _ := wiring.SupplyOf(s, w.Lib)
		rated := wiring.RatedVolts(&d, w.Lib)
		bears := max(1.1*rated, w.Lib.Lamps[d.Product].Max)
		if have <= bears && have >= 0.8*rated {
			continue
		}
		what := "it bears " + measure.Volts(bears) + ", and what is more burns it out"
		if have < rated {
			what = "so little leaves it dark or dim"
		}
		snag := Snag{
			Level:  Stop,
			Place:  "loom",
			At:     []string{"device:" + d.ID},
			Title:  d.Name + does(d.Name, " is", " are") + " on the wrong rail",
			weight: 4,
			From: []source.Source{source.FromMemory("a tenth over its rated volts; standard servos 4.8 to " +
				"6 V, strong ones 6 to 7.4; its data sheet comes first")},
			Why: fmt.Sprintf("%s gives %s; it wants %s: %s.", s.Name, measure.Volts(have), measure.Volts(rated), what),
		}
		for _, o := range w.Plan.Devices() {
			if v, _ := wiring.SupplyOf(&o, w.Lib); o.Is(wiring.Origin) && v <= 1.1*rated && v >= 0.95*rated {
				snag.Mends = append(snag.Mends, fused(w, "Feed from "+o.Name, d, o.ID))
				break
			}
		}
		if w.Device(d.From) != nil && have > rated+1 {
			snag.Mends = append(snag.Mends, stepDown(w, d, rated))
		}
		if len(snag.Mends) == 0 {
			snag.Mends = railOfOwn(w, d, rated)
		}
		say(snag)
	}
}

// stepDown feeds a lamp through a converter that gives the volts it wants.
func stepDown(w *work.Work, d plan.Device, volts float64) Mend {
	id := w.FreshName("C")
	conv := plan.Device{ID: id, Prop: d.Prop, Kind: "converter", Name: "Converter " + id, From: d.From, At: d.At,
		Volts: measure.Of[measure.VoltKind](volts),
		Amps:  measure.Of[measure.AmpKind](math.Ceil(wiring.RatedAmps(&d, w.Lib) / .8))}
	next := d
	next.From, next.At = id, measure.Length{}
	label := fmt.Sprintf("Step it down with a %s %s converter", measure.Volts(volts), conv.Amps)
	return Mend{Label: label, Edit: plan.Edit{
		Label:   label,
		Changes: []plan.Change{w.Plan.Put("device", id, conv), w.Plan.Put("device", d.ID, next)},
	}}
}

// railOfOwn gives a lamp a supply of its own of the volts it wants, if the shop has one.
func railOfOwn(w *work.Work, d plan.Device, volts float64) []Mend {
	amps := wiring.RatedAmps(&d, w.Lib)
	product := smallest(w, volts, amps)
	if product == "" {
		return nil
	}
	id := w.FreshName("S")
	s := plan.Device{ID: id, Prop: d.Prop, Kind: "supply", Name: "Supply " + id, Product: product}
	m := fused(w, fmt.Sprintf("Add a %s supply", measure.Volts(volts)), d, id)
	m.Edit.Changes = append([]plan.Change{w.Plan.Put("device", id, plugged(w, s, amps))}, m.Edit.Changes...)
	return []Mend{m}
}

// smallest is the smallest supply of the shop's list that carries amps within
// 80 %, or "".
func smallest(w *work.Work, volts, amps float64) string {
	best := ""
	for id, s := range w.Lib.Supplies {
		if s.Volts == volts && circuit.LoadLimit*s.Amps >= amps &&
			(best == "" || s.Amps < w.Lib.Supplies[best].Amps) {
			best = id
		}
	}
	return best
}

var _ = rule(
	"no-resistor",
	Stop,
	"A bare LED has no resistor or one that lets too much through.",
	func(w *work.Work, say func(Snag)) {
		for _, d := range w.Plan.Devices() {
			l := w.Lib.Lamps[d.Product]
			s := w.Device(w.Rig().Supply(d.ID))
			if !d.Is(wiring.Load) || l.Kind != "led" || s == nil || d.Reversed {
				continue
			}
			g := w.All().Readings[d.ID]
			if !d.Resistor.IsZero() && g.Lit <= 1.15 {
				continue
			}
			v, _ := wiring.SupplyOf(s, w.Lib)
			snag := Snag{
				Level:  Stop,
				Place:  "loom",
				At:     []string{"device:" + d.ID},
				Title:  d.Name + does(d.Name, " has", " have") + " no fit resistor",
				weight: 3,
				Why:    fmt.Sprintf("It would draw %s; it is rated %s.", measure.Amps(g.Amps), measure.Amps(l.Amps)),
			}
			row := max(1, d.Row)
			if ohms, _, _, err := circuit.LEDResistor(v, l.Vf, row, l.Amps); err == nil {
				next := d
				next.Row, next.Resistor = row, measure.Of[measure.OhmKind](ohms)
				snag.Mends = []Mend{put(w, "Add "+measure.Ohms(ohms), "device", d.ID, next)}
			} else {
				snag.Why += " " + err.Error() + "."
				if m, ok := inRows(w, d, v, l); ok {
					snag.Mends = []Mend{m}
				}
			}
			say(snag)
		}
	},
)

// inRows lays a row of bare LEDs that is too long for its supply out in rows
// that fit, side by side, each with its own resistor.
func inRows(w *work.Work, d plan.Device, volts float64, l stock.Lamp) (Mend, bool) {
	rows, _, err := circuit.Groups(volts, l.Vf, max(1, d.Row), l.Amps)
	if err != nil {
		return Mend{}, false
	}
	m := Mend{}
	n, text := 0, ""
	for _, r := range rows {
		text += fmt.Sprintf(", %d of %d with %s", r.Count, r.LEDs, measure.Ohms(r.Ohms))
		for range r.Count {
			next := d
			if n++; n > 1 {
				next.ID, next.Name = w.FreshID(
					"device",
					fmt.Sprintf("%s-%d", d.ID, n),
				), fmt.Sprintf(
					"%s, row %d",
					d.Name,
					n,
				)
			}
			next.Row, next.Resistor, next.Proven = r.LEDs, measure.Of[measure.OhmKind](r.Ohms), false
			m.Edit.Changes = append(m.Edit.Changes, w.Plan.Put("device", next.ID, next))
		}
	}
	m.Label = fmt.Sprintf("In %d rows: %s", n, text[2:])
	m.Edit.Label = m.Label
	return m, true
}

// fused feeds a device from a supply through a fuse of its own, when one that
// suits it is stocked and it has none on its way.
func fused(w *work.Work, label string, d plan.Device, supply string) Mend {
	next := d
	next.From, next.At = supply, measure.Length{}
	carry, run := thinnest(w, d.ID)
	if run == nil && d.Is(wiring.Load) {
		g := d.Gauge
		if g.IsZero() {
			g = w.Lib.Lamps[d.Product].LeadGauge
		}
		carry = stock.Ampacity(g.Value())
	}
	asks := below(w, d.ID)
	if d.Is(wiring.Load) {
		asks = wiring.RatedAmps(&d, w.Lib)
	}
	rating := circuit.ChooseFuse(asks, carry)
	var changes []plan.Change
	if !d.Is(wiring.Fuse) && rating > 0 {
		f := plan.Device{
			ID:     w.FreshName("F"),
			Prop:   d.Prop,
			Kind:   "fuse",
			From:   supply,
			Rating: measure.Of[measure.AmpKind](rating),
		}
		f.Name = "Fuse " + f.ID
		next.From = f.ID
		label += fmt.Sprintf(" through a %s fuse", measure.Amps(rating))
		changes = append(changes, w.Plan.Put("device", f.ID, f))
	}
	if hangs(&d) && speaks(w, "no-wire", d.Prop) { // its own lead does not reach there
		led := firstRun(w, d.Prop, next.From, asks)
		next.From = led.ID
		label += fmt.Sprintf(" on %s of %s", led.Length, led.Gauge)
		changes = append(changes, w.Plan.Put("device", led.ID, led))
	}
	return Mend{Label: label, Edit: plan.Edit{Label: label, Changes: append(changes, w.Plan.Put("device", d.ID, next))}}
}

var _ = rule("unfed", Mind, "A lamp or run is fed by nothing.", func(w *work.Work, say func(Snag)) {
	for _, d := range w.Plan.Devices() {
		if !w.Rig().Unfed(d.ID) || d.Is(wiring.Origin) {
			continue
		}
		snag := Snag{
			Level: Mind,
			Place: "loom",
			At:    []string{"device:" + d.ID},
			Title: d.Name + does(d.Name, " is", " are") + " fed by nothing",
			Why:   "No supply leads to it.",
		}
		if d.From == "" {
			for _, s := range w.Plan.Devices() {
				if s.Is(wiring.Origin) && len(snag.Mends) < 2 {
					snag.Mends = append(snag.Mends, fused(w, "Feed from "+s.Name, d, s.ID))
				}
			}
		}
		say(snag)
	}
})
