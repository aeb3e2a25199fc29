package order

import (
	"fmt"
	"math"

	"zapbarn/core/bond"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
)

// wetEdge is how long the edge of a coat stays wet enough to go on from, minutes at 21 C and
// 50 %, by its carrier (from memory; the can comes first).
var wetEdge = map[string]float64{"water": 10, "solvent": 4}

var coating = kind{
	name: "coat", says: "One coat, then its wait.", by: plan.Closed,
	make: func(b *builder, p *plan.Prop) {
		for _, s := range b.in[p.ID] {
			f := b.stack(s.ID)
			if f == nil {
				continue
			}
			n := 0
			for i, l := range f.Layers {
				for k := range l.Coats {
					n++
					b.add(b.oneCoat(p, s, f, i, k, n))
				}
			}
		}
	},
}

// oneCoat is the task of coat k of layer i of a stack, the n-th of all.
func (b *builder) oneCoat(p *plan.Prop, s *plan.Solid, f *plan.Finish, i, k, n int) *Task {
	l, judged := f.Layers[i], b.Finishes()[f.ID]
	c := b.Lib.Coats[l.Coat]
	t := &Task{
		Key:    fmt.Sprintf("coat:%s:%d:%d", f.ID, i+1, k+1),
		Prop:   p.ID,
		solids: []string{s.ID},
		n:      n,
		About:  []string{"finish:" + f.ID, "solid:" + s.ID},
		heat:   c.Heat > 0,
		Whole:  true,
	}
	t.Name = fmt.Sprintf("%s on %s", c.Name, s.Name)
	if l.Coats > 1 {
		t.Name = fmt.Sprintf("%s on %s, coat %d of %d", c.Name, s.Name, k+1, l.Coats)
	}
	wait := judged.Between[i]
	if k == l.Coats-1 {
		wait = judged.Waits[i]
	}
	b.dries(t, wait/60, func(temp, rh float64) float64 { return bond.WaitFactor("", c.Carrier, temp, rh) })
	if c.Window.Value() > 0 { // as its can says, from when it is on
		t.coat, t.keeps = c.ID, max(1, int(c.Window.Value()/60)-t.Wait)
		t.again = int(c.Again.Value() / 60)
	}
	t.hands(portionOf("square metres", b.StackOf(f, false).Area, CoatSqm))
	t.Whole = t.Hands <= 120 // a large face is done in sections
	b.wet(p, t, c)
	step := func(format string, a ...any) { t.Steps = append(t.Steps, fmt.Sprintf(format, a...)) }
	if litres := judged.Litres[i] / float64(l.Coats); litres > 0 {
		step("About %s L.", measure.Decimal(litres, 2))
	}
	if n == 1 {
		step("Clean and dry first; a light along the seams shows what was missed.")
	}
	step("Then it dries %s.", measure.Span(wait))
	if c.Window.Value() > 0 && k < l.Coats-1 {
		step("The next coat within %s of this one, or not before %s: between the two it wrinkles (as cans say; from "+
			"memory, read yours).", c.Window, c.Again)
	}
	for _, w := range c.Cautions {
		t.Cautions = append(t.Cautions, measure.Capital(w)+".")
	}
	return t
}

// wet sets the timer of a coat's wet edge, and says in which sections a large face is done.
func (b *builder) wet(p *plan.Prop, t *Task, c stock.Coat) {
	wet := wetEdge[c.Carrier]
	if wet <= 0 {
		return
	}
	keeps := wet * b.wetter(p, c.Carrier)
	t.Timers = append(t.Timers, Timer{"keep a wet edge", int(keeps * 60)})
	if t.Hands > int(keeps) {
		t.Steps = append(t.Steps, fmt.Sprintf("In sections of %s, from one edge to the next: wet meets wet.",
			measure.Span(math.Floor(keeps)*60)))
	}
}

// wetter is how many times longer a carrier stays wet in a prop's air than at 21 C and 50 %.
func (b *builder) wetter(p *plan.Prop, carrier string) float64 {
	temp, rh := b.Plan.Air(p.ID)
	return bond.WaitFactor("", carrier, temp, rh)
}
