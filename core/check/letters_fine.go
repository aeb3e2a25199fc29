package check

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/work"
)

var _ = rule(
	"letters-fine",
	Fix,
	"Letters to be cut have strokes narrower than the blade.",
	func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Solids() {
			s := &w.Plan.Solids()[i]
			for k, o := range s.Openings {
				stroke := pattern.LetterStroke(o.H.Value())
				if o.Kind != "text" || w.Shapes()[s.ID] == nil || stroke >= w.Plan.Kerf() {
					continue
				}
				tall := o.H.Value() * w.Plan.Kerf() / stroke
				snag := Snag{
					Level:  Fix,
					Place:  "bench",
					At:     []string{"solid:" + s.ID},
					key:    s.ID + "/" + o.Name,
					weight: w.Plan.Kerf() - stroke,
					From:   []source.Source{source.Exact("strokes as wide as the font's own H has legs")},
					Title:  fmt.Sprintf("%s is too fine to cut", o.Text),
					Why: fmt.Sprintf("Letters %s high have strokes of %s; the blade alone takes %s. %s is the least.",
						w.Len(o.H.Value()), w.Len(stroke), w.Len(w.Plan.Kerf()), measure.TapeUp(tall, w.Plan.Metric())),
				}
				next := *s
				next.Openings = append([]plan.Opening(nil), s.Openings...)
				step := measure.Inch / 4
				if w.Plan.Metric() {
					step = 5
				}
				next.Openings[k].H = tape(w, math.Ceil(tall/step-1e-9)*step)
				if _, err := next.Shape(w.Lib); err == nil { // they still have room
					m := put(w, fmt.Sprintf("Letters %s high", w.Len(next.Openings[k].H.Value())), "solid", s.ID, next)
					snag.Mends = append(snag.Mends, m)
				}
				say(snag)
			}
		}
	},
)
