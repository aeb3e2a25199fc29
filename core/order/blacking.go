package order

import (
	"zapbarn/core/bond"
	"zapbarn/core/plan"
	"zapbarn/core/words"
)

// What blacking out takes, minutes (common practice, no source).
const (
	BlackSeam  = 3.0  // a seam or the edge of an opening, with a brush, from the inside
	BlackDries = 60.0 // at 21 C and 50 %
)

var blacking = kind{
	name: "black out", says: "Paint a lit body's seams and edges black from the inside.", by: plan.Wired,
	make: func(b *builder, p *plan.Prop) {
		for _, s := range b.in[p.ID] {
			if !s.Blacked {
				continue
			}
			n := max(1, len(b.Shapes()[s.ID].Lines)+len(s.Openings))
			t := &Task{
				Key:    "black:" + s.ID,
				Prop:   p.ID,
				Name:   "Black out " + s.Name + " inside",
				About:  []string{"solid:" + s.ID},
				solids: []string{s.ID},
			}
			b.dries(t, BlackDries*bond.DryFactor(b.Plan.Air(p.ID)), bond.DryFactor)
			t.hands(portionOf("seams and edges", float64(n), BlackSeam))
			t.Steps = []string{
				words.Count(
					n,
					"line",
				) + " where light comes out: seams and cut edges. Two thin coats of black, nothing over lenses.",
				"A lamp inside, the room dark: whatever shines through gets another.",
			}
			b.add(t)
		}
	},
}
