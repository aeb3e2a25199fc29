package check

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/source"
	"zapbarn/core/work"
)

// After is the longest that one who triggered something may have walked past it when it
// begins, m: an arm's length.
const after = 0.5

var _ = rule("past-it", Fix, "Guests are past a prop when what their step started begins.",
	func(w *work.Work, say func(Snag)) {
		for _, x := range w.Passings() {
			in, s := x.Input, x.Stands
			if s == nil || x.Past() <= after {
				continue
			}
			next := *in
			next.Far = tape(w, math.Max(100, (s.Along-(x.Then-in.Far.Value()/1000))*1000))
			say(Snag{Level: Fix, Place: "yard", At: []string{"input:" + in.ID, "plot:" + s.Of.ID}, weight: x.Past(),
				Title: "Guests are past " + s.Prop.Name + " when it begins",
				Why: fmt.Sprintf("%s lies %s along the path; %s later they are %s along it, and the prop is beside them at %s.",
					in.Name, w.Run(in.Far.Value()), measure.Span(x.Wait), w.Run(x.Then*1000), w.Run(s.Along*1000)),
				From:  []source.Source{source.FromMemory("0.6 m/s in the dark, 1.2 by day")},
				Mends: []Mend{put(w, "Move it to "+next.Far.String()+" along the path", "input", in.ID, next)}})
		}
	})
