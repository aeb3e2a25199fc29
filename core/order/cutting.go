package order

import (
	"strings"

	"zapbarn/core/plan"
	"zapbarn/core/words"
	"zapbarn/core/work"
)

// large is from which length on a part is laid out and cut by two, mm.
const large = 1500

var cutting = kind{
	name: "cut", says: "Lay out and cut a prop's parts and pipe.", by: plan.Cut,
	make: func(b *builder, p *plan.Prop) {
		t := &Task{Key: "cut:" + p.ID, Prop: p.ID, Name: "Lay out and cut " + p.Name, Tool: "saw"}
		c := cutOf(b.Work)[p.ID]
		if c.parts+c.pipes == 0 {
			return
		}
		if c.large {
			t.People = 2
		}
		t.hands(portionOf("parts laid out", float64(c.parts), LayOut), portionOf("metres cut", c.metres, CutMetre),
			portionOf("pipes cut", float64(c.pipes), PipeCut))
		if c.parts > 0 {
			t.Steps = append(
				t.Steps,
				words.Count(c.parts, "part")+": mark name, face and up on each before it is cut.",
			)
		}
		t.Steps = append(t.Steps, b.cutTogether(p)...)
		if c.pipes > 0 {
			t.Steps = append(t.Steps, words.Count(c.pipes, "piece")+" of pipe: cut, deburr, write the length on it.")
		}
		t.Cautions = []string{"Goggles, dust mask and a cut-proof glove at the saw and the knife."}
		if c.foam {
			t.Cautions = append(t.Cautions, "Hot wire: open doors and a respirator. Never shape foam with a flame.")
		}
		if t.People > 1 {
			t.Cautions = append(t.Cautions, "Two people carry and feed a large sheet.")
		}
		b.add(t)
	},
}

// cuts are what is cut of a prop.
type cuts struct {
	parts, pipes int
	metres       float64
	large, foam  bool
}

// cutOf is what is cut of each prop, by its ID.
func cutOf(w *work.Work) map[string]*cuts {
	return work.Derive(w, "cut of each prop", func(w *work.Work) map[string]*cuts {
		all := map[string]*cuts{}
		for i := range w.Plan.Props() {
			all[w.Plan.Props()[i].ID] = &cuts{}
		}
		for _, part := range w.Parts() {
			c, n := all[part.Solid.Prop], max(1, part.Panel.Copies)
			c.parts += n
			c.metres += float64(n) * part.Edges / 1000
			c.large = c.large || part.Wide > large || part.High > large
			c.foam = c.foam || w.Lib.Materials[part.Solid.Stock].Foam()
		}
		for i := range w.Plan.Solids() {
			if s := &w.Plan.Solids()[i]; w.Shapes()[s.ID] != nil {
				for _, c := range w.Shapes()[s.ID].Cuts {
					all[s.Prop].pipes += c.Count
				}
			}
		}
		return all
	})
}

// cutTogether says which parts are stacked and cut in one, since their edges must line up,
// and what is done to pipe that is lit.
func (b *builder) cutTogether(p *plan.Prop) (out []string) {
	var stacked []string
	seen := map[string]bool{}
	for _, part := range b.part[p.ID] {
		if name := part.Solid.Name; (part.Panel.Copies > 1 || part.Panel.Hand != "") && !seen[name] {
			seen[name] = true
			stacked = append(stacked, name)
		}
	}
	if len(stacked) > 0 {
		out = append(
			out,
			"Pin equal parts of "+strings.Join(stacked, ", ")+" on each other and cut them in one: edges that "+
				"must line up then do. Where they are joined, an eighth of an inch (3 mm) too wide, and trimmed when it holds.",
		)
	}
	for _, s := range b.in[p.ID] {
		if m := b.Lib.Materials[s.Stock]; s.Lit && m.Form == "pipe" {
			out = append(out, "Sand the print off the pipe of "+s.Name+": lit, it reads.")
		}
	}
	return out
}
