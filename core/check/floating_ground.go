package check

import (
	"fmt"

	"zapbarn/core/work"
)

var _ = rule(
	"floating-ground",
	Stop,
	"Pixels get data from a controller whose ground is not joined to theirs.",
	func(w *work.Work, say func(Snag)) {
		for _, d := range w.Plan.Devices() {
			by := w.Device(d.Data)
			if by == nil || w.Rig().Unfed(d.ID) || w.Rig().Unfed(by.ID) || w.Rig().Joined(by.ID, d.ID) {
				continue
			}
			next := d
			next.Common = true
			say(
				Snag{
					Level:  Stop,
					Place:  "loom",
					At:     []string{"device:" + d.ID, "device:" + by.ID},
					Title:  d.Name + does(d.Name, " has", " have") + " a floating ground",
					weight: 3,
					Why: fmt.Sprintf(
						"%s hangs on %s and %s on %s, with no wire between their minus sides: the data has no way back, and pixels "+
							"flicker or stay dark.",
						by.Name,
						w.Rig().Supply(by.ID),
						d.Name,
						w.Rig().Supply(d.ID),
					),
					Mends: []Mend{put(w, "Lay a ground beside the data wire", "device", d.ID, next)},
				},
			)
		}
	},
)
