package order

import (
	"zapbarn/core/calendar"
	"zapbarn/core/plan"
)

// heavy is from which mass on two carry a prop, kg; tall from which size, mm. Common practice,
// no source.
const heavy, tall = 20, 1500

var installing = kind{
	name: "install", says: "Carry a prop to where it stands and fix it there.", by: plan.Standing,
	make: func(b *builder, p *plan.Prop) {
		if len(b.in[p.ID])+len(b.dev[p.ID]) == 0 {
			return
		}
		t := &Task{Key: "install:" + p.ID, Prop: p.ID, Name: "Set up " + p.Name}
		big := b.Mass(p.ID) > heavy
		for _, s := range b.in[p.ID] {
			size := b.Largest(s)
			big = big || size.X > tall || size.Y > tall || size.Z > tall
		}
		if big {
			t.People = 2
			t.Cautions = []string{"Two people carry it."}
		}
		t.hands(portionOf("prop", 1, Install))
		t.Steps = []string{"Stake, weigh down or tie it before it is let go of."}
		b.add(t)
	},
}

var darkTest = kind{
	name: "dark test", says: "All of it in the dark, from the guests' path.", by: never,
	whole: func(b *builder) {
		if len(b.o.Tasks) == 0 {
			return
		}
		t := &Task{Key: "dark:" + b.Plan.Display().ID, Name: "Dark test of everything",
			About: []string{"display:" + b.Plan.Display().ID}, Whole: true}
		t.hands(portionOf("walk", 1, DarkTest))
		t.Steps = []string{"Walk the path as a guest, a child's eyes too; note what is seen that should not be."}
		b.add(t)
	},
}

var arriving = kind{
	name: "arrive", says: "What is on its way comes.", by: never,
	whole: func(b *builder) {
		for i := range b.Plan.Deliveries() {
			d := &b.Plan.Deliveries()[i]
			t := b.add(&Task{Key: "arrive:" + d.ID, Prop: b.Plan.PropOf(d.For), Name: d.Name + " arrives",
				About: []string{"delivery:" + d.ID, d.For}, From: b.o.minute(d.Arrives, noon)})
			t.Done = d.In
		}
	},
}

// noon is by when the post has come.
const noon = calendar.Day / 2

var own = kind{
	name: "own", says: "A task of your own.", by: never,
	whole: func(b *builder) {
		for i := range b.Plan.Jobs() {
			j := &b.Plan.Jobs()[i]
			if j.Task != "" {
				continue
			}
			t := &Task{Key: "own:" + j.ID, Prop: j.Prop, Name: j.Name, About: []string{"job:" + j.ID}, Trade: j.Trade}
			t.Hands, t.Wait = int(j.Hands.Value()/60+.5), int(j.Wait.Value()/60+.5)
			b.add(t)
		}
	},
}
