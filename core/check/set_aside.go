package check

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
)

var _ = rule(
	"set-aside",
	Stop,
	"A stored element cannot stand as it is, by a rule newer than it; it is set aside and kept as it was.",
	func(w *work.Work, say func(Snag)) {
		for _, b := range w.Plan.Broken() {
			label := "Take it away"
			say(
				Snag{
					Level:  Stop,
					Place:  "walkdown",
					At:     []string{b.Kind + ":" + b.ID},
					Title:  measure.Capital(b.Kind) + " " + b.ID + " is set aside",
					weight: 9,
					Why: fmt.Sprintf(
						"It was stored when this was allowed: %s. Export the plan, mend it there and import it, or take it away; "+
							"nothing else is touched.",
						measure.ErrorIn(b.Err, w.Plan.Metric()),
					),
					Mends: []Mend{
						{
							Label: label,
							Edit: plan.Edit{
								Label:   "take away " + b.Kind + " " + b.ID,
								Changes: []plan.Change{{Kind: b.Kind, ID: b.ID, At: -1, Before: b.Raw}},
							},
						},
					},
				},
			)
		}
	},
)
