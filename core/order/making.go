package order

import (
	"strings"

	"zapbarn/core/bond"
	"zapbarn/core/form"
	"zapbarn/core/plan"
	"zapbarn/core/work"
)

// MakingOf is what a solid's form declares of how it comes to be; false where it is only cut.
func MakingOf(w *work.Work, s *plan.Solid) (form.Making, bool) {
	return form.MadeOf(s.Form, form.On{Stock: w.Lib.Materials[s.Stock]}, w.Shapes()[s.ID])
}

// MakingKey is the key of a job that a solid's form declares.
func MakingKey(s *plan.Solid, j form.Job) string { return "make:" + s.ID + ":" + j.ID }

// making is what a form declares that is done before it can be worked on: modelled, washed,
// printed.
var making = kind{
	name: "make", says: "Model, print or make ready what is not cut.", by: plan.Cut,
	make: func(b *builder, p *plan.Prop) {
		for _, s := range b.in[p.ID] {
			m, ok := MakingOf(b.Work, s)
			if !ok {
				continue
			}
			for n, j := range m.Jobs {
				b.add(b.oneJob(p, s, j, n+1))
			}
		}
	},
}

// oneJob is a task of a job, the n-th of its solid.
func (b *builder) oneJob(p *plan.Prop, s *plan.Solid, j form.Job, n int) *Task {
	t := &Task{Key: MakingKey(s, j), Prop: p.ID, Name: strings.Replace(j.Name, "%s", s.Name, 1), Tool: j.Tool,
		About: []string{"solid:" + s.ID}, solids: []string{s.ID}, n: n, Whole: j.Whole, Steps: j.Steps,
		Cautions: j.Cautions}
	var parts []portion
	for _, x := range j.Takes {
		parts = append(parts, portionOf(x.What, x.N, x.Each))
	}
	t.hands(parts...)
	if j.Wait <= 0 {
		return t
	}
	slow := func(_, _ float64) float64 { return 1 }
	if j.Carrier != "" {
		slow = func(temp, rh float64) float64 { return bond.WaitFactor("", j.Carrier, temp, rh) }
	}
	b.dries(t, j.Wait*slow(b.Plan.Air(p.ID)), slow)
	return t
}
