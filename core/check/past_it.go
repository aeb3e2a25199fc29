package check

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/source"
	"zapbarn/core/work"
	"zapbarn/core/yard"
)

// After is the longest that one who triggered something may have walked past it when it
// begins, m: an arm's length.
const after = 0.5

var _ = rule("past-it", Fix, "Guests are past a prop when what their step started begins.",
	func(w *work.Work, say func(Snag)) {
		if len(w.Plan.Walkways) == 0 || len(w.Plan.Plots) == 0 {
			return
		}
		y := w.Yard()
		p := y.Path()
		if p == nil {
			return
		}
		for i := range w.Plan.Inputs {
			in := &w.Plan.Inputs[i]
			s := y.Of(in.Prop)
			if !in.ByGuests() || in.Far.IsZero() || s == nil {
				continue
			}
			wait := in.Latency.Value() + firstCue(w, in.ID)
			then := yard.Then(in.Far.Value()/1000, p.Speed, wait)
			if then <= s.Along+after {
				continue
			}
			next := *in
			next.Far = tape(w, math.Max(100, (s.Along-p.Speed*wait)*1000))
			say(Snag{Level: Fix, Place: "yard", At: []string{"input:" + in.ID, "plot:" + s.Of.ID}, weight: then - s.Along,
				Title: "Guests are past " + s.Prop.Name + " when it begins",
				Why: fmt.Sprintf("%s lies %s along the path; %s later they are %s along it, and the prop is beside them at %s.",
					in.Name, w.Run(in.Far.Value()), measure.Span(wait), w.Run(then*1000), w.Run(s.Along*1000)),
				From:  []source.Source{source.FromMemory("0.6 m/s in the dark, 1.2 by day")},
				Mends: []Mend{put(w, "Move it to "+next.Far.String()+" along the path", "input", in.ID, next)}})
		}
	})

// firstCue is how long after an input's scene starts its first cue does, s.
func firstCue(w *work.Work, input string) float64 {
	first := math.Inf(1)
	for _, t := range w.Plan.Triggers {
		if s := w.Plan.Scene(t.Scene); t.Input == input && s != nil {
			for _, q := range s.Cues {
				first = math.Min(first, q.Start.Value())
			}
		}
	}
	if math.IsInf(first, 1) {
		return 0
	}
	return first
}
