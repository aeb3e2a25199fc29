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
			snag := bentTight(w, s, m, r, t)
			if known {
				snag.Mends = kerfed(w, s, m, b)
				snag.Mends = append(snag.Mends, bendier(w, s, m, 3-len(snag.Mends))...)
			}
			say(snag)
		}
	},
)

// bentTight is of a solid whose sheet, of which t mm bend, is bent to a radius of r mm inside.
func bentTight(w *work.Work, s *plan.Solid, m stock.Material, r, t float64) Snag {
	b, known := m.Bends()
	snag := Snag{
		Level:  Stop,
		Place:  "bench",
		At:     []string{"solid:" + s.ID},
		weight: b.Cold*t - r,
		From:   []source.Source{stock.BendFrom},
	}
	least := fmt.Sprintf("%s of %s bends cold to a radius of %s inside (%.0f thicknesses)",
		w.Len(t), m.Name, measure.Run(b.Cold*t, w.Plan.Metric()), b.Cold)
	switch {
	case !known:
		snag.Level = Mind
		snag.Title = fmt.Sprintf("%s: how tight %s bends is not known", s.Name, m.Name)
		snag.Why = fmt.Sprintf("It is bent to a radius of %s inside. Bend a scrap first.", w.Len(r))
	case b.Warm > 0 && r >= b.Warm*t:
		snag.Level = Mind
		snag.Title = fmt.Sprintf("%s only bends warm", s.Name)
		snag.Why = fmt.Sprintf("It is bent to %s; %s, warmed to %s. Use %s; try a scrap first.",
			w.Len(r), least, w.Len(b.Warm*t), b.How)
	default:
		snag.Title = fmt.Sprintf("%s breaks when it is bent", s.Name)
		snag.Why = fmt.Sprintf("It is bent to %s; %s. Bend a scrap before you cut the sheet.", w.Len(r), least)
	}
	return snag
}

// kerfed bends a tube over cuts in its inside, which leave a thinner skin.
func kerfed(w *work.Work, s *plan.Solid, m stock.Material, b stock.Bend) []Mend {
	tube, wrapped := s.Form.(form.Wrap)
	step := measure.Inch / 16
	if w.Plan.Metric() {
		step = 0.5
	}
	skin := math.Floor(tube.W.Value()/2/(b.Cold+1)/step) * step
	if !wrapped || !tube.Skin.IsZero() || skin <= 0 || skin >= m.Thick.Value() {
		return nil
	}
	label := fmt.Sprintf("Kerf the inside, leaving %s", w.Len(skin))
	return []Mend{put(w, label, "solid", s.ID, s.Set("skin", tape(w, skin)))}
}

// bendier makes a solid of a sheet that bends so far: so many, those nearest in thickness.
func bendier(w *work.Work, s *plan.Solid, m stock.Material, most int) (mends []Mend) {
	for _, o := range flexible(w, m) {
		next := *s
		next.Stock = o.ID
		if _, wrapped := s.Form.(form.Wrap); wrapped {
			next = next.Set("skin", measure.Length{})
		}
		b, _ := o.Bends()
		if r, t, _ := tightest(&next, o.Thick.Value()); r >= b.Cold*t && len(mends) < most {
			if _, err := next.Shape(w.Lib); err == nil {
				mends = append(mends, put(w, "Make it of "+o.Name, "solid", s.ID, next))
			}
		}
	}
	return mends
}

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
