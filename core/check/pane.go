package check

import (
	"fmt"
	"math"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/work"
)

// paneLeast is how far a pane must reach past its opening on every side, in mm:
// room for a bead of glue or a magnet.
const paneLeast = 6.0

var paneFrom = source.FromTrade("a quarter inch of frame all round, half an inch for magnets")

var _ = rule(
	"pane-short",
	Fix,
	"A pane does not reach past its opening on every side.",
	func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Solids() {
			s := &w.Plan.Solids()[i]
			of, o := w.Plan.Filled(s)
			pane, flat := s.Form.(form.Panel)
			if of == nil || !flat {
				continue
			}
			at := []string{"solid:" + s.ID, "solid:" + of.ID}
			if o == nil {
				say(Snag{
					Level: Mind, Place: "bench", At: at, weight: 1, Title: s.Name + " covers nothing",
					Why:   fmt.Sprintf("%s has no opening of that name any more.", of.Name),
					Mends: []Mend{{Label: "Take it away", Edit: w.Plan.Without("solid", s.ID)}},
				})
				continue
			}
			wide, high := plan.OpeningSize(o)
			across, up := (pane.W.Value()-wide)/2, (pane.H.Value()-high)/2
			if pane.W.IsZero() || pane.H.IsZero() || math.Min(across, up) >= paneLeast-1e-6 {
				continue
			}
			next := *s
			grown := pane
			grown.W = measure.OnTape(math.Max(pane.W.Value(), wide+25.4), w.Plan.Metric())
			grown.H = measure.OnTape(math.Max(pane.H.Value(), high+25.4), w.Plan.Metric())
			next.Form = grown
			m := put(w, "Cut it half an inch larger all round", "solid", s.ID, next)
			if w.Plan.Metric() {
				m.Label = "Cut it 12 mm larger all round"
			}
			m.Effect = fmt.Sprintf("%s x %s", w.Len(grown.W.Value()), w.Len(grown.H.Value()))
			say(Snag{
				Level: Fix, Place: "bench", At: at, weight: paneLeast - math.Min(across, up), From: []source.Source{paneFrom},
				Title: s.Name + does(s.Name, " is", " are") + " too small for its opening",
				Why: fmt.Sprintf(
					"%s of %s is %s x %s; the pane is %s x %s and has nothing to hold on to.",
					o.Name,
					of.Name,
					w.Len(wide),
					w.Len(high),
					w.Len(pane.W.Value()),
					w.Len(pane.H.Value()),
				),
				Mends: []Mend{m},
			})
		}
	},
)
