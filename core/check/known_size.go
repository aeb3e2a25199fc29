package check

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
)

// Extent is how far a prop's solids reach: width, depth and height.
func Extent(w *plan.Work, prop string) (size pattern.Vec, ok bool) {
	lo, hi := pattern.Vec{X: math.Inf(1), Y: math.Inf(1), Z: math.Inf(1)}, pattern.Vec{X: math.Inf(-1), Y: math.Inf(-1), Z: math.Inf(-1)}
	for _, s := range w.Plan.Solids {
		shape := w.Shapes[s.ID]
		if s.Prop != prop || shape == nil {
			continue
		}
		ok = true
		x, y, z := s.X.Value(), s.Y.Value(), s.Z.Value()
		lo = pattern.Vec{X: math.Min(lo.X, x-shape.Size.X/2), Y: math.Min(lo.Y, y-shape.Size.Y/2), Z: math.Min(lo.Z, z)}
		hi = pattern.Vec{X: math.Max(hi.X, x+shape.Size.X/2), Y: math.Max(hi.Y, y+shape.Size.Y/2), Z: math.Max(hi.Z, z+shape.Size.Z)}
	}
	return pattern.Vec{X: hi.X - lo.X, Y: hi.Y - lo.Y, Z: hi.Z - lo.Z}, ok
}

var _ = rule("known-size", Fix, "The parts do not add up to the prop's one known dimension.", func(w *plan.Work, say func(Snag)) {
	for _, p := range w.Plan.Props {
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
		next := p
		next.Known = measure.Of[measure.LengthKind](math.Round(got*100) / 100)
		if w.Plan.Metric() {
			next.Known, _ = measure.Parse[measure.LengthKind](measure.Tape(got, true))
		}
		say(Snag{Level: Fix, Place: "bench", At: []string{"prop:" + p.ID}, Title: fmt.Sprintf("%s is not as %s as known", p.Name, what),
			Why:   fmt.Sprintf("Its parts stand %s %s; the known dimension is %s: off by %.0f %%.", w.Len(got), what, p.Known, 100*math.Abs(1-1/f)),
			Mends: []Mend{scale(w, p, f), put(w, "The parts are right", "prop", p.ID, next)}})
	}
})

// scale makes every size of the prop's solids f times as large.
func scale(w *plan.Work, p plan.Prop, f float64) Mend {
	m := Mend{Label: fmt.Sprintf("Scale the parts x %.3g", f)}
	m.Edit.Label = m.Label
	for _, s := range w.Plan.Solids {
		if s.Prop != p.ID || s.Kind == "pipe" {
			continue
		}
		for _, l := range []*measure.Length{&s.W, &s.D, &s.H, &s.Low, &s.High, &s.Bore, &s.Pitch, &s.X, &s.Y, &s.Z} {
			if !l.IsZero() {
				*l, _ = measure.Parse[measure.LengthKind](measure.Tape(l.Value()*f, w.Plan.Metric()))
			}
		}
		m.Edit.Changes = append(m.Edit.Changes, w.Plan.Put("solid", s.ID, s))
	}
	return m
}
