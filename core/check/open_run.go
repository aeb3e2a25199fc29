package check

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

// openTail is how far a run may go on past the last thing on it and count as ended there, mm:
// a service loop.
const openTail = 12 * measure.Inch

var _ = rule(
	"open-run",
	Mind,
	"A run leads to nothing, or goes on past the last thing on it.",
	func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Devices() {
			d := &w.Plan.Devices()[i]
			if !d.Is(wiring.Wire) || d.To != "" {
				continue
			}
			kids := w.Kids(d.ID)
			if len(kids) == 0 {
				say(Snag{
					Level: Mind,
					Place: "loom",
					At:    []string{"device:" + d.ID},
					Title: d.Name + does(d.Name, " leads", " lead") + " to nothing",
					Why:   "Nothing hangs on it: its end is open, and its wire is bought for nothing.",
					Mends: []Mend{{Label: "Take it away", Edit: w.Plan.Without("device", d.ID)}},
				})
				continue
			}
			last := lastTap(d, kids)
			if left := d.Length.Value() - last; last > 0 && left > openTail {
				next := *d
				next.Length = tape(w, last)
				say(Snag{
					Level: Note,
					Place: "loom",
					At:    []string{"device:" + d.ID},
					Title: fmt.Sprintf("%s goes on %s past the last thing on it", d.Name, w.Len(left)),
					Why:   "Its end is open there: shorten it, or move something to its end.",
					Mends: []Mend{put(w, "End it there, "+next.Length.String(), "device", d.ID, next)},
				})
			}
		}
	},
)

// lastTap is how far along a run the last thing on it is, mm; 0 where one is at its end.
func lastTap(run *plan.Device, kids []*plan.Device) (far float64) {
	for _, k := range kids {
		if k.At.IsZero() {
			return 0
		}
		far = max(far, k.At.Value())
	}
	return max(far, run.FedAt.Value())
}
