package check

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

// inputSlack is how far above its volts a controller may be fed.
const inputSlack = 1.1

// InputFrom is its source.
var InputFrom = source.FromMemory(
	"small controllers take a tenth more than their volts; beyond it their regulator or chip is lost",
)

var _ = rule("over-input", Stop, "A controller is fed more volts than it takes.", func(w *work.Work, say func(Snag)) {
	for i := range w.Plan.Devices() {
		d := &w.Plan.Devices()[i]
		g, rated := w.All().Readings[d.ID], d.Volts.Or(5)
		if !d.Is(wiring.Controller) || g.Volts <= inputSlack*rated {
			continue
		}
		s := Snag{
			Level:  Stop,
			Place:  "loom",
			At:     []string{"device:" + d.ID},
			Title:  d.Name + does(d.Name, " is", " are") + " fed too many volts",
			weight: 4,
			From:   []source.Source{InputFrom},
			Why: fmt.Sprintf(
				"It sees %s and runs on %s: it is lost the moment it is switched on.",
				measure.Volts(g.Volts),
				measure.Volts(rated),
			),
		}
		if feeder := w.Device(d.From); feeder != nil && g.Volts > rated+1 {
			id := w.FreshName("C")
			conv := plan.Device{
				ID:    id,
				Prop:  d.Prop,
				Kind:  "converter",
				Name:  "Converter " + id,
				From:  d.From,
				At:    d.At,
				Volts: measure.Of[measure.VoltKind](rated),
				Amps:  measure.Must[measure.AmpKind]("1 A"),
			}
			next := *d
			next.From, next.At = id, measure.Length{}
			label := fmt.Sprintf("Step it down with a %s 1 A converter", measure.Volts(rated))
			s.Mends = []Mend{
				{
					Label: label,
					Edit: plan.Edit{
						Label:   label,
						Changes: []plan.Change{w.Plan.Put("device", id, conv), w.Plan.Put("device", d.ID, next)},
					},
				},
			}
		}
		say(s)
	}
})
