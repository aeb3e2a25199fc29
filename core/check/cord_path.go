package check

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/work"
)

var _ = rule("cord-on-path", Fix, "A cord lies where people walk, with nothing over it.",
	func(w *work.Work, say func(Snag)) {
		cords(w, func(c *work.Laid) {
			if c.Path == nil || c.Of.Over != "" {
				return
			}
			covered, over := *c.Of, *c.Of
			covered.Over, over.Over = "covered", "overhead"
			over.Drops = tape(w, c.Of.Drops.Or(6*304.8)+2*8*304.8) // up over heads and down again
			say(Snag{Level: Fix, Place: "yard", At: []string{"cord:" + c.Of.ID, "walkway:" + c.Path.Of.ID},
				Title: c.Of.Name + " lies across " + theWay(c.Path.Of),
				Why: fmt.Sprintf("People walk over it %s along, and trip in the dark. Lead it round, cover it with a ramp, or "+
					"over their heads, 8 ft up.", w.Run(c.Over[0].From*1000)),
				From: []source.Source{source.FromTrade("a ramp over it, or 8 ft of headroom")},
				Mends: []Mend{put(w, "A ramp covers it", "cord", c.Of.ID, covered),
					put(w, "It goes overhead", "cord", c.Of.ID, over)}})
		})
	})

// cords are those of which the way is known.
func cords(w *work.Work, do func(c *work.Laid)) {
	if len(w.Plan.Cords()) == 0 {
		return
	}
	y := w.Yard()
	for i := range y.Cords {
		if y.Cords[i].Needs > 0 {
			do(&y.Cords[i])
		}
	}
}

// sold are the lengths cords are sold in, m: 25, 50, 100 ft, or 10, 15, 25, 50 m (common
// practice, no source).
func sold(metric bool) []float64 {
	if metric {
		return []float64{5, 10, 15, 25, 50}
	}
	return []float64{15 * 0.3048, 25 * 0.3048, 50 * 0.3048, 100 * 0.3048}
}

var _ = rule("cord-short", Fix, "A cord does not reach from its outlet to its prop.",
	func(w *work.Work, say func(Snag)) {
		cords(w, func(c *work.Laid) {
			long := c.Of.Long.Value() / 1000
			if v, _ := w.Plan.Get("outlet", c.Of.Outlet); long == 0 && v != nil {
				long = v.(*plan.Outlet).Cord.Value() / 1000
			}
			if long == 0 || long >= c.Needs-0.005 {
				return
			}
			s := Snag{Level: Fix, Place: "yard", At: []string{"cord:" + c.Of.ID}, weight: c.Needs - long,
				Title: c.Of.Name + " is too short",
				Why: fmt.Sprintf("It is %s and takes %s with its way up and down and a tenth that never lies straight. Two "+
					"cords in a row lie in the wet where they meet.", w.Run(long*1000), w.Run(c.Needs*1000))}
			for _, l := range sold(w.Plan.Metric()) {
				if l >= c.Needs {
					next := *c.Of
					next.Long = tape(w, l*1000)
					if !w.Plan.Metric() {
						next.Long = measure.Len(measure.Decimal(math.Round(l/0.3048), 0) + " ft")
					}
					s.Mends = append(s.Mends, put(w, "A cord of "+next.Long.String(), "cord", c.Of.ID, next))
					break
				}
			}
			say(s)
		})
	})
