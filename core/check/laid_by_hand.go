package check

import (
	"fmt"

	"zapbarn/core/work"
)

var _ = rule(
	"laid-by-hand",
	Fix,
	"A part laid by hand, or cut already, no longer fits where it lies.",
	func(w *work.Work, say func(Snag)) {
		for _, s := range w.Sheets() {
			told := map[string]bool{}
			for _, pc := range s.Dropped {
				if told[pc.Ref] {
					continue
				}
				told[pc.Ref] = true
				part := w.Part(pc.Ref)
				pins := s.Keep(s.Layout)
				pins.Pins = nil
				cut := false
				for _, l := range w.Plan.Layouts() {
					if l.ID != s.Stock.ID {
						continue
					}
					for _, q := range l.Pins {
						if q.Part != pc.Ref {
							pins.Pins = append(pins.Pins, q)
						} else {
							cut = cut || q.Cut
						}
					}
				}
				snag := Snag{
					Level: Fix,
					Place: "bench",
					At:    []string{"part:" + pc.Ref},
					Title: part.Name() + " no longer fits where it was laid",
					Why: fmt.Sprintf(
						"It was laid by hand on %s, and has been laid afresh now that it or the sheet changed.",
						s.Stock.Name,
					),
					Mends: []Mend{put(w, "Forget where it was", "layout", pins.ID, pins)},
				}
				if cut {
					snag.Title, snag.Why = part.Name()+" was changed after it was cut", fmt.Sprintf(
						"It lies on a sheet of %s that is marked as cut, at another size. Undo the change, or cut it again from new "+
							"stock.",
						s.Stock.Name,
					)
					snag.Mends[0].Label = "Cut it again"
				}
				say(snag)
			}
		}
	},
)
