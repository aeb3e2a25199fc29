package check

import (
	"zapbarn/core/work"
)

var _ = rule("card-failed", Fix, "A card of the commissioning was not as expected, and stands so.",
	func(w *work.Work, say func(Snag)) {
		if len(w.Plan.Trials) == 0 {
			return
		}
		expect := map[string]string{}
		for _, t := range append(w.Trials(""), ofProps(w)...) {
			expect[t.At+"/"+t.What] = t.Expect
		}
		for i := range w.Plan.Trials {
			x := &w.Plan.Trials[i]
			want, there := expect[x.At+"/"+x.What]
			if x.Passed || !there {
				continue // of something that is not planned so any more
			}
			say(Snag{Level: Fix, Place: "walkdown", At: []string{x.At}, key: x.At + "/" + x.What,
				Title: x.What + " is not as expected",
				Why: x.By + " noted “" + x.Measured + "”; expected is " + want + ". Mend it, then try it again in Walkdown, " +
					"Commission."})
		}
	})

// ofProps are the cards of each prop by itself.
func ofProps(w *work.Work) (out []work.Trial) {
	for _, p := range w.Plan.Props {
		out = append(out, w.Trials(p.ID)...)
	}
	return out
}
