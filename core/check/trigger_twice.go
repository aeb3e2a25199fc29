package check

import (
	"fmt"

	"zapbarn/core/plan"
	"zapbarn/core/work"
)

var _ = rule(
	"trigger-twice",
	Fix,
	"Two triggers are the same: one press works a scene twice.",
	func(w *work.Work, say func(Snag)) {
		first := map[plan.Trigger]string{}
		for i := range w.Plan.Triggers() {
			t := w.Plan.Triggers()[i]
			same := t
			same.ID = ""
			was, again := first[same]
			if !again {
				first[same] = t.ID
				continue
			}
			in, scene := w.Plan.Input(t.Input), w.Plan.Scene(t.Scene)
			if in == nil || scene == nil {
				continue
			}
			why := "It starts it, and starts it again at once."
			if t.Latch == "toggle" {
				why = "It toggles it twice: on, and off again."
			}
			say(Snag{
				Level: Fix,
				Place: "rehearsal",
				At:    []string{"trigger:" + t.ID, "trigger:" + was},
				Title: fmt.Sprintf("%s works “%s” twice", in.Name, scene.Name),
				Why:   why + " The second is the same as the first: one of them is enough.",
				Mends: []Mend{{Label: "Take the second away", Edit: w.Plan.Without("trigger", t.ID)}},
			})
		}
	},
)
