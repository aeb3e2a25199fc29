package check

import (
	"fmt"
	"math"

	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/work"
)

// rim is how much of a stock's least width must stay between an opening and the edge:
// a strip by a hole is short, so half of what a long neck wants.
const rim = 0.5

var _ = rule(
	"edge-thin",
	Mind,
	"An opening leaves a strip at the edge that breaks out.",
	func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Solids() {
			s := &w.Plan.Solids()[i]
			m := w.Lib.Materials[s.Stock]
			shape := w.Shapes()[s.ID]
			if shape == nil || len(s.Openings) == 0 || m.Neck.IsZero() {
				continue
			}
			panel, width, at := narrowest(shape)
			least := rim * m.Neck.Value()
			if panel == nil || width >= least-0.01 {
				continue
			}
			lo, _ := panel.Bounds()
			snag := Snag{
				Level:  Mind,
				Place:  "bench",
				At:     []string{"part:" + s.ID + "/" + panel.ID, "solid:" + s.ID},
				weight: least - width,
				From:   []source.Source{source.FromTrade("half of what the stock wants across a neck")},
				Title:  fmt.Sprintf("Only %s left beside a hole in %s", w.Len(width), partName(w, s.ID+"/"+panel.ID)),
				Why: fmt.Sprintf(
					"%s from the left and %s up; %s wants %s there, or the strip breaks out. Move the opening "+
						"in, or make it smaller.",
					w.Len(at.X-lo.X),
					w.Len(at.Y-lo.Y),
					m.Name,
					w.Len(least),
				),
			}
			if mend, ok := movedIn(w, s, least); ok {
				snag.Mends = append(snag.Mends, mend)
			}
			say(snag)
		}
	},
)

// narrowest is where the least is left between a hole and its panel's edge.
func narrowest(s *pattern.Shape) (panel *pattern.Panel, width float64, at pattern.Point) {
	width = math.Inf(1)
	for i := range s.Panels {
		p := &s.Panels[i]
		for _, h := range p.Holes {
			if d, q := pattern.Strip(p.Outline, h); d < width {
				panel, width, at = p, d, q
			}
		}
	}
	return panel, width, at
}

// movedIn moves one opening away from the edge by as much as it lacks, where that
// leaves enough on all sides.
func movedIn(w *work.Work, s *plan.Solid, least float64) (Mend, bool) {
	_, width, _ := narrowest(w.Shapes()[s.ID])
	by := math.Ceil(least-width) + 1
	for k := range s.Openings {
		for _, way := range [4][2]float64{{0, 1}, {0, -1}, {1, 0}, {-1, 0}} {
			next := *s
			next.Openings = append([]plan.Opening(nil), s.Openings...)
			o := &next.Openings[k]
			o.X, o.Y = tape(w, o.X.Value()+way[0]*by), tape(w, o.Y.Value()+way[1]*by)
			shape, err := next.Shape(w.Lib)
			if err != nil {
				continue
			}
			if _, got, _ := narrowest(shape); got >= least {
				name := o.Name
				if name == "" {
					name = "the opening"
				}
				return put(w, "Move "+name+" in by "+w.Len(by), "solid", s.ID, next), true
			}
		}
	}
	return Mend{}, false
}
