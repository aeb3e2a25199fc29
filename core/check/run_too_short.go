package check

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

var _ = rule(
	"run-too-short",
	Fix,
	"A run is shorter than its path through the prop, with slack.",
	func(w *work.Work, say func(Snag)) {
		for _, d := range w.Plan.Devices() {
			need := 0.0
			if d.Is(wiring.Wire) {
				need = d.PathNeeds(w.Plan.Metric())
			}
			if d.Length.Value() >= need-.5 {
				continue
			}
			next := d
			next.Length = tape(w, ceilTo(need, measure.Inch))
			if w.Plan.Metric() {
				next.Length, _ = measure.Parse[measure.LengthKind](fmt.Sprintf("%.0f mm", ceilTo(need, 10)))
			}
			say(
				Snag{
					Level:  Fix,
					Place:  "loom",
					At:     []string{"device:" + d.ID},
					Title:  d.Name + does(d.Name, " is", " are") + " too short for its path",
					weight: need / d.Length.Value(),
					Why: fmt.Sprintf(
						"Its path is %s; with 5 %% slack it wants %s, and it is %s.",
						w.Len(need/(1+wiring.PathSlack)),
						w.Len(need),
						d.Length,
					),
					Mends: []Mend{put(w, "Make it "+next.Length.String(), "device", d.ID, next)},
				},
			)
		}
	},
)
