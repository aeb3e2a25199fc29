package check

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/work"
)

// bowed is how thin a wall is that expanding foam bows, mm (from memory: half an inch of
// board gives, an inch does not).
const bowed = 0.6 * measure.Inch

var _ = rule(
	"foam-bows",
	Mind,
	"Expanding foam is put on or in what it bows or flakes off: thin walls, flexible stock.",
	func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Solids() {
			foam := &w.Plan.Solids()[i]
			on := w.Solid(foam.By)
			if w.Lib.Materials[foam.Stock].Family != "pufoam" || on == nil {
				continue
			}
			m := w.Lib.Materials[on.Stock]
			thin := m.Form == "sheet" && m.Thick.Value() < bowed
			if !thin && !m.Flexible {
				continue
			}
			s := Snag{
				Level: Mind,
				Place: "bench",
				At:    []string{"solid:" + foam.ID, "solid:" + on.ID},
				Title: foam.Name + " bows " + on.Name,
				Why: fmt.Sprintf(
					"It swells as it cures, and %s is %s: it pushes it out of shape. Little at a time, the wall "+
						"braced until it is through, or thicker stock.",
					m.Name,
					w.Len(m.Thick.Value()),
				),
			}
			if m.Flexible {
				s.Title = foam.Name + " flakes off " + on.Name
				s.Why = fmt.Sprintf(
					"%s flexes and the foam does not: it comes off in flakes. Stiffen it with cloth and PVA first, "+
						"or take stock that stays stiff.",
					m.Name,
				)
			}
			best := ""
			for id, x := range w.Lib.Materials { // the least that holds, of its own kind or the stiff board
				if x.Form != m.Form || x.Flexible || x.Thick.Value() < bowed || x.Family != m.Family && !m.Flexible ||
					m.Flexible && x.Family != "xps" {
					continue
				}
				if b := w.Lib.Materials[best]; best == "" || x.Thick.Value() < b.Thick.Value() ||
					x.Thick.Value() == b.Thick.Value() && id < best {
					best = id
				}
			}
			if best != "" {
				next := *on
				next.Stock = best
				s.Mends = []Mend{put(w, on.Name+" of "+measure.Uncapital(w.Lib.Materials[best].Name), "solid", on.ID, next)}
			}
			say(s)
		}
	},
)
