package check

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/words"
	"zapbarn/core/work"
)

var _ = rule(
	"neck",
	Fix,
	"A silhouette is narrower somewhere than its stock bears.",
	func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Solids() {
			s := &w.Plan.Solids()[i]
			m := w.Lib.Materials[s.Stock]
			if s.Kind != "outline" || w.Shapes()[s.ID] == nil || m.Neck.IsZero() {
				continue
			}
			safe := m.Neck.Value()
			for _, p := range s.Necks(w.Lib) {
				if len(p.Necks) == 0 || p.Panel.Hand == "right" { // its mirror image has the same
					continue
				}
				n := p.Necks[0]
				ref := s.ID + "/" + p.Panel.ID
				part := w.Part(ref)
				snag := Snag{Level: Fix, Place: "bench", At: []string{"part:" + ref}, weight: safe - n.Width}
				more := ""
				if k := len(p.Necks) - 1; k > 0 {
					more = fmt.Sprintf(" %s more.", words.Count(k, "place"))
				}
				at := fmt.Sprintf("%s from the left and %s up", w.Len(n.At.X), w.Len(n.At.Y))
				if n.Limb {
					snag.Level = Mind
					snag.Title = fmt.Sprintf("%s has a limb only %s wide", part.Name(), w.Len(n.Width))
					snag.Why = fmt.Sprintf(
						"At %s it sticks out %s; %s wants %s. Glue a rod behind it, or make it wider.%s",
						at,
						w.Len(n.Reach),
						m.Name,
						m.Neck,
						more,
					)
				} else {
					snag.Title = fmt.Sprintf("%s has a neck only %s wide", part.Name(), w.Len(n.Width))
					snag.Why = fmt.Sprintf("At %s; %s wants %s, or it breaks there when it is carried. Back it with a strip, or "+
						"make it wider.%s", at, m.Name, m.Neck, more)
				}
				if f := safe / n.Width; f < 1.6 {
					next := *s
					for _, field := range []string{"w", "h"} {
						if l := s.Length(field); !l.IsZero() {
							next = next.Set(field, tape(w, math.Ceil(l.Value()*f/measure.Inch)*measure.Inch))
						}
					}
					snag.Mends = append(snag.Mends, put(w, fmt.Sprintf("Make it x %.2g as large", f), "solid", s.ID, next))
				}
				for _, id := range []string{"ply1/4", "ply1/2"} {
					if o := w.Lib.Materials[id]; o.Neck.Value() <= n.Width && id != s.Stock {
						next := *s
						next.Stock = id
						snag.Mends = append(snag.Mends, put(w, "Cut it from "+o.Name, "solid", s.ID, next))
						break
					}
				}
				say(snag)
			}
		}
	},
)
