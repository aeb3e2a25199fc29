package check

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"zapbarn/core/measure"
	"zapbarn/core/motion"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/stock"
	"zapbarn/core/work"
)

// fragile is what families of stock do when they are jolted again and again.
var fragile = map[string]string{
	"glass": "shatters", "acrylic": "cracks from its holes and corners", "pla": "splits along its layers",
	"paper": "cracks", "filler": "cracks and falls off",
}

// stopsIn is within how far what moves is stopped at the end of its travel, mm: a stop with
// a pad of rubber (common practice, no source).
const stopsIn = 5.0

var _ = mover("fragile-rides", Mind, "A fragile part rides on what moves.",
	func(w *work.Work, m *work.Moved, say func(Snag)) {
		for _, s := range riding(w.Plan, m.Of.Carries) {
			of := w.Lib.Materials[s.Stock]
			breaks := fragile[of.Family]
			if breaks == "" {
				continue
			}
			jolt, from := "", []source.Source{source.FromTrade("a fragile part does not ride on the mover")}
			if end := math.Max(m.Up.End, m.Down.End); m.Motor != nil && !m.Up.Stalled && end > 0 {
				g := end * end / (2 * stopsIn / 1000) / motion.Gravity
				jolt = fmt.Sprintf(
					" It arrives at %s m/s: stopped within %s that is a jolt of %s times its weight, each time.",
					measure.Decimal(end, 2),
					w.Len(stopsIn),
					measure.Decimal(g, 1),
				)
				from = append(from, source.Exact("v2 / 2 s, over 9.80665 m/s2"),
					source.FromTrade("stopped within 5 mm, by a padded stop"))
			}
			say(Snag{
				At: []string{"solid:" + s.ID}, key: "mechanism:" + m.Of.ID + "/" + s.ID,
				Title: s.Name + does(s.Name, " rides", " ride") + " on " + measure.Uncapital(m.Of.Name),
				Why: fmt.Sprintf("%s %s.%s Let it stand still beside what moves, or make it of something that gives.",
					of.Name, breaks, jolt),
				From: from, Mends: tougher(w, s),
			})
		}
	})

// riding are a solid and all that stands on it or hangs from it.
func riding(p *plan.Plan, id string) (out []*plan.Solid) {
	if s := p.Solid(id); s != nil {
		out = append(out, s)
	}
	for k := 0; k < len(out); k++ {
		for i := range p.Solids() {
			if s := &p.Solids()[i]; s.By == out[k].ID && !slices.Contains(out, s) {
				out = append(out, s)
			}
		}
	}
	return out
}

// tougher are mends that make a solid of stock that gives, nearest to it in thickness.
func tougher(w *work.Work, s *plan.Solid) (out []Mend) {
	of := w.Lib.Materials[s.Stock]
	ids := slices.DeleteFunc(stock.IDs(w.Lib.Materials), func(id string) bool {
		m := w.Lib.Materials[id]
		return m.Form != of.Form || fragile[m.Family] != "" || m.Family == "cloth"
	})
	slices.SortStableFunc(ids, func(a, b string) int {
		far := func(id string) float64 { return math.Abs(w.Lib.Materials[id].Thick.Value() - of.Thick.Value()) }
		return cmp.Compare(far(a), far(b))
	})
	for _, id := range ids {
		next := *s
		next.Stock = id
		if _, err := next.Shape(w.Lib); err == nil && len(out) < 2 {
			out = append(out, put(w, "Make it of "+w.Lib.Materials[id].Name, "solid", s.ID, next))
		}
	}
	return out
}
