package order

import (
	"fmt"
	"math"
	"strings"

	"zapbarn/core/bond"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/core/words"
)

// ends are the solids that a joint holds together: one, or two.
func ends(j *plan.Joint) (out []string) {
	for _, ref := range []string{j.A, j.B} {
		id, _, _ := strings.Cut(ref, "/")
		if !strings.HasPrefix(ref, "=") && (len(out) == 0 || out[0] != id) {
			out = append(out, id)
		}
	}
	return out
}

// seams are the joints of a solid's own parts.
func (b *builder) seams(solid string) []*plan.Joint { return b.seam[solid] }

// glued is what a glue job takes: seams, metres, the longest wait, its steps.
func (b *builder) glued(t *Task, list []*plan.Joint) {
	metres, wait := 0.0, 0.0
	seen := map[string]bool{}
	glues := map[string]bool{}
	for _, j := range list {
		length, _, _ := b.GlueRun(j)
		metres += length / 1000
		a := b.Joints()[j.ID]
		g := b.Lib.Glues[j.Glue]
		wait = math.Max(wait, a.Handling)
		b.dries(t, a.Handling/60, func(temp, rh float64) float64 {
			return bond.WaitFactor(g.Cure, g.Carrier, temp, rh)
		})
		t.Whole = t.Whole || g.Cure == "twopart" || g.Contact
		if !glues[j.Glue] {
			glues[j.Glue] = true
			how := g.Name
			if open := g.Open.Value(); open > 0 {
				how += ", open " + measure.Span(open)
			}
			t.Steps = append(t.Steps, how+".")
			t.Timers = append(t.Timers, timers(g)...)
			for _, p := range a.Prep {
				t.Steps = append(t.Steps, measure.Capital(p)+".")
			}
		}
		for _, c := range a.Cautions {
			if !seen[c] {
				seen[c] = true
				t.Cautions = append(t.Cautions, measure.Capital(c)+".")
			}
		}
		t.About = append(t.About, "joint:"+j.ID)
	}
	t.Steps = append(t.Steps, b.batches(list)...)
	t.hands(portionOf("seams placed and held", float64(len(list)), GlueSeam),
		portionOf("metres of glue line", metres, GlueMetre))
	t.Steps = append(t.Steps, fmt.Sprintf("Then leave it %s before it is handled.", measure.Span(wait)))
}

// batches says how a glue that sets in its pot is mixed: as much at a time as is laid while
// it can be used, by the rates of laying.
func (b *builder) batches(list []*plan.Joint) (out []string) {
	type mix struct{ minutes, millilitres float64 }
	of := map[string]*mix{}
	var ids []string
	for _, j := range list {
		if b.Lib.Glues[j.Glue].Cure != "twopart" {
			continue
		}
		if of[j.Glue] == nil {
			of[j.Glue] = &mix{}
			ids = append(ids, j.Glue)
		}
		length, _, _ := b.GlueRun(j)
		of[j.Glue].minutes += GlueSeam + GlueMetre*length/1000
		of[j.Glue].millilitres += b.Takes(j.ID).Value
	}
	for _, id := range ids {
		pot := b.Lib.Glues[id].Open.Value() / 60
		if n := Batches(of[id].minutes, pot); n > 1 {
			out = append(out, fmt.Sprintf("%s: %d mixes of about %s mL, each used up in %s.", b.Lib.Glues[id].Name, n,
				measure.Decimal(math.Ceil(of[id].millilitres/float64(n)), 0), measure.Span(pot*60)))
		}
	}
	return out
}

// Batches is how many mixes it takes to lay for so many minutes with a glue that can be
// used for pot minutes.
func Batches(laying, pot float64) int {
	if pot <= 0 || laying <= 0 {
		return 1
	}
	return int(math.Ceil(laying/pot - 1e-9))
}

// timers are the windows of a glue: contact cement is laid together once it has tacked, a
// mix is used up while it can be, others are together within their open time; then it is
// held.
func timers(g stock.Glue) (out []Timer) {
	open, clamp := int(g.Open.Value()), int(g.Clamp.Value())
	if g.Cure == "mechanical" || g.Cure == "tape" {
		return nil
	}
	switch {
	case open > 0 && g.Contact:
		out = append(out, Timer{"tacks, then press together", open})
	case open > 0 && g.Cure == "twopart":
		out = append(out, Timer{"the mix can be used", open})
	case open > 0:
		out = append(out, Timer{"together within", open})
	}
	if clamp > 0 && clamp <= 2*3600 {
		out = append(out, Timer{"hold or clamp", clamp})
	}
	return out
}

var fitting = kind{
	name: "fit", says: "Hold a body's parts together dry, and mark what meets what.", by: plan.Glued,
	make: func(b *builder, p *plan.Prop) {
		for _, s := range b.in[p.ID] {
			n := len(b.seams(s.ID))
			if n == 0 {
				continue
			}
			t := &Task{Key: "fit:" + s.ID, Prop: p.ID, Name: "Dry fit " + s.Name, About: []string{"solid:" + s.ID},
				solids: []string{
					s.ID,
				}, Steps: []string{"Tape it together, check the square and one known dimension, mark " +
					"across each seam.",
					"Write up, front, left and right inside each part while it stands: once apart, no two look different."}}
			t.hands(portionOf("seams held dry", float64(n), FitSeam))
			b.add(t)
		}
	},
}

var gluing = kind{
	name: "glue", says: "Glue a body's own seams, then leave it.", by: plan.Glued,
	make: func(b *builder, p *plan.Prop) {
		for _, s := range b.in[p.ID] {
			list := b.seams(s.ID)
			if len(list) == 0 {
				continue
			}
			t := &Task{Key: "glue:" + s.ID, Prop: p.ID, Name: "Glue " + s.Name, solids: []string{s.ID}}
			t.About = []string{"solid:" + s.ID}
			b.glued(t, list)
			b.add(t)
		}
	},
}

var joining = kind{
	name: "join", says: "Glue one body to another, or a bought thing to it.", by: plan.Glued,
	make: func(b *builder, p *plan.Prop) {
		for _, j := range b.joins[p.ID] {
			e := ends(j)
			t := &Task{Key: "join:" + j.ID, Prop: p.ID, solids: e}
			t.Name = "Join " + b.side(j.A) + " to " + b.side(j.B)
			b.glued(t, []*plan.Joint{j})
			t.About = append(t.About, "solid:"+e[0])
			t.joins = b.MaterialAt(j.A).Foam() || b.MaterialAt(j.B).Foam()
			b.add(t)
		}
	},
}

// side is what a joint's side is called.
func (b *builder) side(ref string) string {
	if m, bought := strings.CutPrefix(ref, "="); bought {
		return b.Lib.Materials[m].Name
	}
	id, panel, _ := strings.Cut(ref, "/")
	s := b.Solid(id)
	if s == nil {
		return ref
	}
	if part := b.Part(ref); part != nil && panel != "" {
		return part.Name()
	}
	return s.Name
}

var filling = kind{
	name: "fill", says: "Fill the seams and sand them, where coats come over them.", by: plan.Glued,
	make: func(b *builder, p *plan.Prop) {
		for _, s := range b.in[p.ID] {
			list := b.seams(s.ID)
			f := b.stack(s.ID)
			if len(list) == 0 || f == nil || len(f.Layers) == 0 {
				continue
			}
			metres := 0.0
			for _, j := range list {
				length, _ := b.GlueLine(j)
				metres += length / 1000
			}
			t := &Task{Key: "fill:" + s.ID, Prop: p.ID, Name: "Fill and sand the seams of " + s.Name,
				About: []string{"solid:" + s.ID}, solids: []string{s.ID},
				Steps: []string{
					"Paintable filler into each seam; when it is dry, sand it flush and hold a light along it.",
				},
				Cautions: []string{"Dust mask at the sanding."}}
			b.dries(t, FillerDries*bond.DryFactor(b.Plan.Air(p.ID)), bond.DryFactor)
			t.hands(portionOf("metres filled and sanded", metres, FillMetre))
			t.Steps = append(t.Steps, words.Count(len(list), "seam")+" in all.")
			if far, fine, ok := b.FarOff(p.ID); ok && fine >= unseen {
				t.Steps = append(
					t.Steps,
					fmt.Sprintf("Guests come no nearer than %s and make out nothing finer than %s mm: what "+
						"is finer can be left out, with that as the reason.", b.Run(far*1000), measure.Decimal(fine, 1)),
				)
			}
			b.add(t)
		}
	},
}

// unseen is how coarse detail must be that guests make out, mm, before a seam may stay as it
// came from the knife (common practice, no source).
const unseen = 1.0

// stack is the coats of a solid, or nil.
func (b *builder) stack(solid string) *plan.Finish { return b.coat[solid] }
