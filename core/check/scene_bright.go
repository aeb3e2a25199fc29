package check

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/source"
	"zapbarn/core/work"
	"zapbarn/core/yard"
)

// sceneLux is what fills may put on a prop's front before it looks like a shop window, lx,
// and what a mend leaves (from memory: a street lamp gives 10, a living room 50).
const sceneLux, sceneLeft = 20.0, 8.0

var _ = yardRule("scene-bright", Mind, "Fill light makes a prop as bright as a room: nothing of it glows any more.",
	func(w *work.Work, say func(Snag)) {
		y := w.Yard()
		for _, s := range y.Placed {
			if !s.Known {
				continue
			}
			at, front := y.FaceOf(s)
			total, most, which := 0.0, 0.0, -1
			for i, l := range y.Lamps {
				if !l.Fill {
					continue
				}
				lux := yard.Upright([]yard.Lamp{l}, at, front, y.Hides)
				if total += lux; lux > most {
					most, which = lux, i
				}
			}
			if total <= sceneLux {
				continue
			}
			snag := Snag{
				Level:  Mind,
				Place:  "yard",
				At:     []string{"plot:" + s.Of.ID, "fixture:" + y.Lit[which].ID},
				weight: total,
				Title:  "A prop is lit as bright as a room",
				Why: fmt.Sprintf(
					"Fills put %s lx on its front; past some %g a scene looks like a shop window, and its own lamps "+
						"are not seen. Most of it, %s lx, is from %s.",
					measure.Decimal(total, 0),
					sceneLux,
					measure.Decimal(most, 0),
					y.Lit[which].Name,
				),
				From: []source.Source{source.FromMemory("a street lamp gives 10 lx, a living room 50")},
			}
			if rest := total - most; rest < sceneLeft && y.Lit[which].Lumens > 0 {
				next := *y.Lit[which]
				next.Lumens = max(1, int(math.Floor(float64(next.Lumens)*(sceneLeft-rest)/most)))
				snag.Mends = []Mend{
					put(w, fmt.Sprintf("%s of %d lm", next.Name, next.Lumens), "fixture", next.ID, next),
				}
			}
			say(snag)
		}
	})
