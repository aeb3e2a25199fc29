package check

import (
	"zapbarn/core/work"
)

var _ = rule("card-failed", Fix, "A card of the commissioning was not as expected, and stands so.",
	func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Trials() {
			x := &w.Plan.Trials()[i]
			if x.Passed {
				continue
			}
			t, there := w.Trial(x.At, x.What)
			if !there {
				continue // of something that is not planned so any more
			}
			say(Snag{Level: Fix, Place: "walkdown", At: []string{x.At}, key: x.At + "/" + x.What,
				Title: x.What + " is not as expected",
				Why: x.By + " noted “" + x.Measured + "”; expected is " + t.Expect + ". Mend it, then try it again in Walkdown, " +
					"Commission."})
		}
	})
