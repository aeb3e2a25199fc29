package order

import (
	"zapbarn/core/bond"
	"zapbarn/core/form"
	"zapbarn/core/plan"
	"zapbarn/core/words"
)

// How long what is laid up waits at 21 C, minutes (from memory; the product's sheet comes first).
const (
	MouldDries = 90.0      // sealer, three waxes and release film together
	GelTacks   = 45.0      // until it is tacky and leaves no colour on a finger
	GelKeeps   = 6 * 60.0  // then, until the plies no longer take to it
	LaidCures  = 24 * 60.0 // until it is taken out
	MouldSqm   = 60.0      // a square metre sealed, waxed and buffed three times
	PlySqm     = 25.0      // a square metre of one ply wetted out and rolled
)

const resin = "Organic-vapour respirator, gloves, goggles for the hardener; no flame, moving air."

// laminates are a prop's shells that are laid up in a mould, with their area.
func (b *builder) laminates(prop string, do func(s *plan.Solid, l form.Laminate, sqm float64)) {
	for _, s := range b.in[prop] {
		if l, ok := s.Form.(form.Laminate); ok {
			do(s, l, b.Shapes()[s.ID].Outside/1e6)
		}
	}
}

var moulding = kind{
	name: "mould", says: "Seal a mould, wax it, and lay down the release.", by: plan.Cut,
	make: func(b *builder, p *plan.Prop) {
		b.laminates(p.ID, func(s *plan.Solid, _ form.Laminate, sqm float64) {
			t := &Task{Key: "mould:" + s.ID, Prop: p.ID, Name: "Mould of " + s.Name + ": seal, wax, release",
				About: []string{"solid:" + s.ID}, solids: []string{s.ID},
				Steps: []string{
					"Seal the mould until it shines; wax and buff three times; then release film. Let each dry.",
					"Run a fingernail along the rim: what catches there does not let go.",
				},
				Cautions: []string{"Gloves; open windows for the sealer."}}
			b.dries(t, MouldDries*bond.DryFactor(b.Plan.Air(p.ID)), bond.DryFactor)
			t.hands(portionOf("square metres sealed and waxed", sqm, MouldSqm))
			b.add(t)
		})
	},
}

var gelling = kind{
	name: "gel coat", says: "Brush the gel coat into a mould.", by: plan.Cut,
	make: func(b *builder, p *plan.Prop) {
		b.laminates(p.ID, func(s *plan.Solid, l form.Laminate, sqm float64) {
			if !l.Gel {
				return
			}
			t := &Task{
				Key:    "gel:" + s.ID,
				Prop:   p.ID,
				Name:   "Gel coat of " + s.Name,
				About:  []string{"solid:" + s.ID},
				solids: []string{s.ID},
				Whole:  true,
				Wait:   int(GelTacks),
				keeps:  int(GelKeeps),
				Steps: []string{
					"Brush it even; lay up when it is tacky and leaves no colour on a finger, the same day.",
				},
				Cautions: []string{resin},
			}
			t.hands(portionOf("square metres", sqm, CoatSqm))
			b.add(t)
		})
	},
}

var layingUp = kind{
	name: "lay up", says: "Mat or cloth and resin, ply by ply, into a mould.", by: plan.Cut,
	make: func(b *builder, p *plan.Prop) {
		b.laminates(p.ID, func(s *plan.Solid, l form.Laminate, sqm float64) {
			t := &Task{Key: "lay:" + s.ID, Prop: p.ID, Name: "Lay up " + s.Name + ", " + words.Count(l.Plies, "ply"),
				About: []string{"solid:" + s.ID}, solids: []string{s.ID}, Whole: true,
				Steps: []string{
					"Tear mat, cut cloth; strips overlap by an inch or two. Wet out from below, roll the air out.",
					"Mix no more than is used before it gels; a cup that warms is set outside, and never goes on.",
				},
				Cautions: []string{resin}}
			cures := func(temp, rh float64) float64 { return bond.WaitFactor("twopart", "", temp, rh) }
			b.dries(t, LaidCures*cures(b.Plan.Air(p.ID)), cures) // resin cures in damp air as in dry
			t.hands(portionOf("square metres of a ply", sqm*float64(max(1, l.Plies)), PlySqm))
			t.Steps = append(t.Steps, "Trim at the rubbery stage with a knife, or cured with a saw and a dust mask.",
				"Then wedge it out, never pry.")
			b.add(t)
		})
	},
}
