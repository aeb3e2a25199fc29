package check

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

// throughPins is what a controller's own power pins pass on when it does not
// say, in A.
const throughPins = 0.5

// ThroughFrom is its source.
var ThroughFrom = source.FromMemory(
	"the power pins and thin traces of a small controller board pass on about half an ampere",
)

var _ = rule(
	"through-controller",
	Stop,
	"What is fed through a controller's pins takes more than they pass on.",
	func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Devices() {
			d := &w.Plan.Devices()[i]
			if !d.Is(wiring.Controller) {
				continue
			}
			most, amps := d.Rating.Or(throughPins), 0.0
			label := "Feed from before " + d.Name
			m := Mend{Label: label, Edit: plan.Edit{Label: label}}
			for _, k := range w.Kids(d.ID) {
				amps += below(w, k.ID)
				next := *k
				next.From, next.At = d.From, d.At
				m.Edit.Changes = append(m.Edit.Changes, w.Plan.Put("device", k.ID, next))
			}
			if amps <= most {
				continue
			}
			s := Snag{
				Level:  Stop,
				Place:  "loom",
				At:     []string{"device:" + d.ID},
				Title:  d.Name + " cannot pass that on",
				weight: amps / most,
				From:   []source.Source{ThroughFrom},
				Why: fmt.Sprintf(
					"%s goes through its pins, which pass on %s: its traces burn. Feed what hangs there beside it, not through it.",
					measure.Amps(amps),
					measure.Amps(most),
				),
			}
			if d.From != "" {
				s.Mends = []Mend{m}
			}
			say(s)
		}
	},
)
