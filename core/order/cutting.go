package order

import (
	"strings"
	"zapbarn/core/plan"
	"zapbarn/core/words"
)

// large is from which length on a part is laid out and cut by two, mm.
const large = 1500

var cutting = kind{
	name: "cut", says: "Lay out and cut a prop's parts and pipe.", by: plan.Cut,
	make: func(b *builder, p *plan.Prop) {
		t := &Task{Key: "cut:" + p.ID, Prop: p.ID, Name: "Lay out and cut " + p.Name, Tool: "saw"}
		parts, metres, pipes := 0, 0.0, 0
		foam, burns := false, false
		for _, part := range b.part[p.ID] {
			n := max(1, part.Panel.Copies)
			parts += n
			metres += float64(n) * around(part.Panel.Outline) / 1000
			for _, h := range part.Panel.Holes {
				metres += float64(n) * around(h) / 1000
			}
			if lo, hi := part.Panel.Bounds(); hi.X-lo.X > large || hi.Y-lo.Y > large {
				t.People = 2
			}
			foam = foam || b.Lib.Materials[part.Solid.Stock].Foam()
			burns = burns || b.Lib.Materials[part.Solid.Stock].Burns
		}
		for _, s := range b.in[p.ID] {
			for _, c := range b.Shapes[s.ID].Cuts {
				pipes += c.Count
			}
		}
		if parts+pipes == 0 {
			return
		}
		t.hands(of("parts laid out", float64(parts), LayOut), of("metres cut", metres, CutMetre),
			of("pipes cut", float64(pipes), PipeCut))
		if parts > 0 {
			t.Steps = append(t.Steps, words.Count(parts, "part")+": mark name, face and up on each before it is cut.")
		}
		t.Steps = append(t.Steps, b.cutTogether(p)...)
		if pipes > 0 {
			t.Steps = append(t.Steps, words.Count(pipes, "piece")+" of pipe: cut, deburr, write the length on it.")
		}
		t.Cautions = []string{"Goggles, dust mask and a cut-proof glove at the saw and the knife."}
		if foam {
			t.Cautions = append(t.Cautions, "Hot wire: open doors and a respirator. Never shape foam with a flame.")
		}
		if t.People > 1 {
			t.Cautions = append(t.Cautions, "Two people carry and feed a large sheet.")
		}
		b.add(t)
	},
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
