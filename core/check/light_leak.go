package check

import (
	"fmt"

	"zapbarn/core/wiring"
	"zapbarn/core/words"
	"zapbarn/core/work"
)

// glows are the kinds of lamp that give light.
var glows = map[string]bool{"prewired": true, "led": true, "resistive": true, "strip": true, "pixels": true}

var _ = rule(
	"light-leak",
	Mind,
	"A lit body's seams, or the edges of its openings, let light out where none is meant.",
	func(w *work.Work, say func(Snag)) {
		lamps := map[string]int{}
		for i := range w.Plan.Devices() {
			if d := &w.Plan.Devices()[i]; d.Is(wiring.Load) && d.In != "" && glows[w.Lib.Lamps[d.Product].Kind] {
				lamps[d.In]++
			}
		}
		for i := range w.Plan.Solids() {
			s := &w.Plan.Solids()[i]
			shape := w.Shapes()[s.ID]
			if lamps[s.ID] == 0 || !s.Sealed || s.Lit || s.Blacked || shape == nil ||
				w.Lib.Materials[s.Stock].Clear || len(shape.Lines)+len(s.Openings) == 0 {
				continue
			}
			where := words.Count(len(shape.Lines), "seam")
			if n := len(s.Openings); n > 0 {
				where += " and the edges of " + words.Count(n, "opening")
			}
			next := *s
			next.Blacked = true
			say(Snag{
				Level:  Mind,
				Place:  "bench",
				At:     []string{"solid:" + s.ID},
				weight: float64(len(shape.Lines)),
				Title:  s.Name + " leaks light at its seams",
				Why: fmt.Sprintf("%s in it, and %s: in the dark each shows as a line of light. Black them out from the "+
					"inside before it is wired, and look at it lit.", words.Count(lamps[s.ID], "lamp"), where),
				Mends: []Mend{put(w, "Black it out inside", "solid", s.ID, next)},
			})
		}
	},
)
