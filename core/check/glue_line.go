package check

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/work"
)

// lineOff is the share by which a written glue line may be shorter than the
// form's: what is left is a dab here and there.
const lineOff = 0.1

var _ = rule(
	"glue-line",
	Mind,
	"A joint's glue line was written shorter than the seam it closes; too little glue is bought.",
	func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Joints() {
			j := &w.Plan.Joints()[i]
			l, ok := w.FormLine(j)
			if !ok || j.Length.IsZero() || j.Length.Value() >= l.Length*(1-lineOff) {
				continue
			}
			next := *j
			next.Length = measure.Length{}
			say(
				Snag{
					Level:  Mind,
					Place:  "bench",
					At:     []string{"joint:" + j.ID},
					Title:  "More seam than glue",
					weight: l.Length / j.Length.Value(),
					Why: fmt.Sprintf(
						"The glue line of %s to %s is written as %s; the seam is %s long in all. Dabs are for dry fits.",
						j.A,
						j.B,
						j.Length,
						measure.Run(l.Length, w.Plan.Metric()),
					),
					Mends: []Mend{put(w, "Follow the form", "joint", j.ID, next)},
				},
			)
		}
	},
)
