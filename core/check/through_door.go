package check

import (
	"fmt"
	"slices"

	"zapbarn/core/plan"
	"zapbarn/core/work"
)

var _ = rule(
	"through-door",
	Fix,
	"A body is larger than the narrowest door on its way out.",
	func(w *work.Work, say func(Snag)) {
		d := w.Plan.Display()
		if d.DoorWide.IsZero() || d.DoorHigh.IsZero() {
			return
		}
		door := []float64{d.DoorWide.Value(), d.DoorHigh.Value()}
		slices.Sort(door)
		for i := range w.Plan.Solids() {
			s := &w.Plan.Solids()[i]
			shape := w.Shapes()[s.ID]
			if shape == nil || plan.StageNamed(w.Plan.Prop(s.Prop).Stage) >= plan.Standing {
				continue
			}
			v := w.Largest(s)
			size := []float64{v.X, v.Y, v.Z}
			slices.Sort(size)
			over := max(size[0]-door[0], size[1]-door[1])
			if over <= 0 {
				continue
			}
			say(Snag{
				Level:  Fix,
				Place:  "bench",
				At:     []string{"solid:" + s.ID},
				weight: over,
				Title:  s.Name + does(s.Name, " does", " do") + " not go through the door",
				Why: fmt.Sprintf(
					"Turned the best way square to it, it is %s x %s, and the door %s x %s: %s too much. Build it "+
						"where it stands, or in two that are joined there.",
					w.Len(size[0]),
					w.Len(size[1]),
					w.Len(door[0]),
					w.Len(door[1]),
					w.Len(over),
				),
			})
		}
	},
)
