package check

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/work"
)

// Extent is how far a prop's solids reach: width, depth and height.
func Extent(w *work.Work, prop string) (size pattern.Vec, ok bool) {
	return plan.ExtentOf(w.Plan.Solids(), prop, func(s *plan.Solid) *pattern.Shape { return w.Shapes()[s.ID] })
}

var _ = rule(
	"known-size",
	Fix,
	"The parts do not add up to the prop's one known dimension.",
	func(w *work.Work, say func(Snag)) {
		for _, p := range w.Plan.Props() {
			size, ok := Extent(w, p.ID)
			if !ok || p.Known.IsZero() {
				continue
			}
			got, what := size.Z, "tall"
			switch p.Of {
			case "width":
				got, what = size.X, "wide"
			case "depth":
				got, what = size.Y, "deep"
			}
			f := p.Known.Value() / got
			if got <= 0 || math.Abs(f-1) < 0.02 {
				continue
			}
			level, title := Fix, fmt.Sprintf("%s%s not as %s as known", p.Name, does(p.Name, " is", " are"), what)
			if f > 1 && w.StageOf(&p) < plan.Cut { // still growing
				level, title = Mind, fmt.Sprintf(
					"%s%s %s %s so far, of %s",
					p.Name,
					does(p.Name, " is", " are"),
					w.Len(got),
					what,
					p.Known,
				)
			}
			next := p
			next.Known = measure.Of[measure.LengthKind](math.Round(got*100) / 100)
			if w.Plan.Metric() {
				next.Known, _ = measure.Parse[measure.LengthKind](measure.Tape(got, true))
			}
			say(
				Snag{
					Level: level,
					Place: "bench",
					At:    []string{"prop:" + p.ID},
					Title: title,
					Why: fmt.Sprintf(
						"Its parts stand %s %s; the known dimension is %s: off by %.0f %%.",
						w.Len(got),
						what,
						p.Known,
						100*math.Abs(1-1/f),
					),
					Mends: []Mend{scale(p, f), put(w, "The parts are right", "prop", p.ID, next)},
				},
			)
		}
	},
)

// scale makes every size of the prop's solids f times as large.
func scale(p plan.Prop, f float64) Mend {
	label := fmt.Sprintf("Scale the parts x %.3g", f)
	return Mend{Label: label, make: func(w *work.Work) plan.Edit {
		e := w.Plan.Scaled(p.ID, f)
		e.Label = label
		return e
	}}
}
