package check

import (
	"fmt"
	"slices"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/wiring"
	"zapbarn/core/words"
	"zapbarn/core/work"
)

var _ = rule(
	"supplies-merge",
	Note,
	"One supply could carry what two of a prop carry.",
	func(w *work.Work, say func(Snag)) {
		var supplies []*plan.Device
		for i := range w.Plan.Devices() {
			if d := &w.Plan.Devices()[i]; d.Is(wiring.Origin) && d.Cell == "" {
				supplies = append(supplies, d)
			}
		}
		told := map[string]bool{} // each supply that another could carry, once
		for i, a := range supplies {
			for k, b := range supplies {
				if told[b.ID] || a.Prop != b.Prop || i == k {
					continue
				}
				va, la := wiring.SupplyOf(a, w.Lib)
				vb, lb := wiring.SupplyOf(b, w.Lib)
				if va != vb || la < lb || la == lb && i > k {
					continue
				}
				sum := w.All().Readings[a.ID].Amps + w.All().Readings[b.ID].Amps
				if sum > circuit.LoadLimit*la {
					continue
				}
				m := Mend{Label: "Hang it all on " + a.Name, make: func(w *work.Work) plan.Edit { return mergedInto(w, a, b) }}
				say(
					Snag{
						Level: Note,
						Place: "loom",
						At:    []string{"device:" + b.ID, "device:" + a.ID},
						Title: a.Name + " could carry " + b.Name + " too",
						Why: fmt.Sprintf(
							"Together they take %s, %.0f %% of %s %s: one supply less to plug in, to feed and to fail.",
							measure.Amps(sum),
							100*sum/la,
							words.Whose(a.Name),
							measure.Amps(la),
						),
						Mends: []Mend{m},
					},
				)
				told[b.ID] = true
			}
		}
	},
)

// mergedInto hangs on one supply all that hangs on another, and takes that away.
func mergedInto(w *work.Work, a, b *plan.Device) plan.Edit {
	e := plan.Edit{Label: "Hang it all on " + a.Name}
	q := w.Plan.OfDevices(slices.Clone(w.Plan.Devices())) // as it is then; it is judged when the mend is tried
	for i := range q.Devices() {
		if d := &q.Devices()[i]; d.From == b.ID {
			d.From = a.ID
			e.Changes = append(e.Changes, w.Plan.Put("device", d.ID, *d))
		}
	}
	e.Changes = append(e.Changes, q.Without("device", b.ID).Changes...)
	return e
}
