package check

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/stock"
	"zapbarn/core/work"
)

// tightest is the least inside radius a solid's sheet is bent to, in mm, and the
// thickness that bends; false where nothing is bent.
func tightest(s *plan.Solid, t float64) (radius, bends float64, ok bool) {
	if b, bent := s.Form.(form.Bent); bent {
		return b.Bends(t)
	}
	return 0, 0, false
}

var _ = rule(
	"bent-tight",
	Stop,
	"A sheet is bent tighter than it bends without breaking.",
	func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Solids() {
			s := &w.Plan.Solids()[i]
			m := w.Lib.Materials[s.Stock]
			if w.Shapes()[s.ID] == nil {
				continue
			}
			r, t, bent := tightest(s, m.Thick.Value())
			b, known := m.Bends()
			if !bent || known && r >= b.Cold*t {
				continue
			}
			snag := Snag{
				Level:  Stop,
				Place:  "bench",
				At:     []string{"solid:" + s.ID},
				weight: b.Cold*t - r,
				From:   []source.Source{stock.BendFrom},
			}
			least := fmt.Sprintf(
				"%s of %s bends cold to a radius of %s inside (%.0f thicknesses)",
				w.Len(t),
				m.Name,
				measure.Run(b.Cold*t, w.Plan.Metric()),
				b.Cold,
			)
			switch {
			case !known:
				snag.Level = Mind
				snag.Title = fmt.Sprintf("%s: how tight %s bends is not known", s.Name, m.Name)
				snag.Why = fmt.Sprintf("It is bent to a radius of %s inside. Bend a scrap first.", w.Len(r))
				say(snag)
				continue
			case b.Warm > 0 && r >= b.Warm*t:
				snag.Level = Mind
				snag.Title = fmt.Sprintf("%s only bends warm", s.Name)
				snag.Why = fmt.Sprintf(
					"It is bent to %s; %s, warmed to %s. Use %s; try a scrap first.",
					w.Len(r),
					least,
					w.Len(b.Warm*t),
					b.How,
				)
			default:
				snag.Title = fmt.Sprintf("%s breaks when it is bent", s.Name)
				snag.Why = fmt.Sprintf("It is bent to %s; %s. Bend a scrap before you cut the sheet.", w.Len(r), least)
			}
			step := measure.Inch / 16
			if w.Plan.Metric() {
				step = 0.5
			}
			tube, wrapped := s.Form.(form.Wrap)
			if skin := math.Floor(tube.W.Value()/2/(b.Cold+1)/step) * step; wrapped && tube.Skin.IsZero() && skin > 0 &&
				skin < m.Thick.Value() {
				next := s.Set("skin", tape(w, skin))
				snag.Mends = append(
					snag.Mends,
					put(w, fmt.Sprintf("Kerf the inside, leaving %s", w.Len(skin)), "solid", s.ID, next),
				)
			}
			for _, o := range flexible(w, m) {
				next := *s
				next.Stock = o.ID
				if wrapped {
					next = next.Set("skin", measure.Length{})
				}
				ob, _ := o.Bends()
				if r, t, _ := tightest(&next, o.Thick.Value()); r >= ob.Cold*t && len(snag.Mends) < 3 {
					if _, err := next.Shape(w.Lib); err == nil {
						snag.Mends = append(snag.Mends, put(w, "Make it of "+o.Name, "solid", s.ID, next))
					}
				}
			}
			say(snag)
		}
	},
)

// flexible lists the sheets that bend easily, those nearest in thickness first.
func flexible(w *work.Work, m stock.Material) []stock.Material {
	var out []stock.Material
	for _, id := range stock.IDs(w.Lib.Materials) {
		if o := w.Lib.Materials[id]; o.Form == "sheet" && o.Flexible && id != m.ID {
			if _, ok := o.Bends(); ok {
				out = append(out, o)
			}
		}
	}
	off := func(o stock.Material) float64 { return math.Abs(o.Thick.Value() - m.Thick.Value()) }
	slices.SortStableFunc(out, func(a, b stock.Material) int { return cmp.Compare(off(a), off(b)) })
	return out
}
