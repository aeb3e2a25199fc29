package order

import (
	"zapbarn/core/plan"
	"zapbarn/core/wiring"
	"zapbarn/core/words"
)

// plain are devices that are put in and led; wire alone is not.
func plain(d *plan.Device) bool { return !d.Is(wiring.Wire) }

var wireUp = kind{
	name: "wire", says: "Put in a prop's lamps, devices and inputs and lead their wires.", trade: "wiring", by: plan.Wired,
	make: func(b *builder, p *plan.Prop) {
		n, mains := 0, false
		for _, d := range b.dev[p.ID] {
			if plain(d) {
				n++
			}
			mains = mains || d.Is(wiring.Origin) && d.Cell == ""
		}
		for i := range b.Plan.Inputs() {
			if x := &b.Plan.Inputs()[i]; x.Prop == p.ID && x.Wired() {
				n++
			}
		}
		if n == 0 {
			return
		}
		t := &Task{Key: "wire:" + p.ID, Prop: p.ID, Name: "Wire " + p.Name}
		t.hands(portionOf("lamps, devices and inputs", float64(n), WireOne))
		t.Steps = []string{
			"By its build sheet: heat-shrink on before the joint, tag each lead, strain relief at each hole.",
		}
		t.Cautions = []string{"Unplugged and cells out while hands are in it."}
		if mains {
			t.Cautions = append(
				t.Cautions,
				"Mains side: listed supplies in closed boxes only; local codes and licensed practice "+
					"come first.",
			)
		}
		b.add(t)
	},
}

var proving = kind{
	name: "prove", says: "Light every lamp on the bench and write down what the meter shows.", trade: "wiring",
	by: plan.Proven,
	make: func(b *builder, p *plan.Prop) {
		n := 0
		for _, d := range b.dev[p.ID] {
			if d.Is(wiring.Load) && !d.Proven {
				n++
			}
		}
		if n == 0 {
			return
		}
		t := &Task{Key: "prove:" + p.ID, Prop: p.ID, Name: "Prove " + p.Name}
		t.hands(portionOf("lamps lit", float64(n), ProveOne))
		t.Steps = []string{
			"Polarity first, then light each: " + words.Count(n, "lamp") + ". Its cards are in the Loom, Prove.",
		}
		b.add(t)
	},
}

var closing = kind{
	name: "close", says: "Close a body over what is in it.", by: plan.Closed,
	make: func(b *builder, p *plan.Prop) {
		for _, s := range b.in[p.ID] {
			n := 0
			for _, d := range b.dev[p.ID] {
				if d.In == s.ID && plain(d) {
					n++
				}
			}
			if !s.Sealed || n == 0 {
				continue
			}
			t := &Task{Key: "close:" + s.ID, Prop: p.ID, Name: "Close " + s.Name, About: []string{"solid:" + s.ID},
				solids: []string{s.ID}}
			t.hands(portionOf("body", 1, CloseOne))
			t.Steps = []string{"Only when all in it is proven: it closes for good."}
			b.add(t)
		}
	},
}

// turns are kinds of lamp that move something.
var turns = map[string]bool{"motor": true, "servo": true, "coil": true}

var mounting = kind{
	name: "mount", says: "Mount a motor or servo with what it moves.", by: plan.Closed,
	make: func(b *builder, p *plan.Prop) {
		for _, d := range b.dev[p.ID] {
			if !d.Is(wiring.Load) || !turns[b.Lib.Lamps[d.Product].Kind] {
				continue
			}
			t := &Task{
				Key:   "mount:" + d.ID,
				Prop:  p.ID,
				Name:  "Mount " + d.Name,
				About: []string{"device:" + d.ID},
				Tool:  "vice",
			}
			t.hands(portionOf("mechanism", 1, Mount))
			t.Steps = []string{"Turn it by hand through its whole travel before it is powered."}
			t.Cautions = []string{"Pinch points: power off and locked out while fingers are in it."}
			b.add(t)
		}
	},
}

var tuning = kind{
	name: "tune", says: "Try what a prop does, and set its times.", by: never,
	make: func(b *builder, p *plan.Prop) {
		n := 0
		for _, s := range b.Plan.Scenes() {
			if s.Prop == p.ID {
				n++
			}
		}
		if n == 0 {
			return
		}
		t := &Task{Key: "tune:" + p.ID, Prop: p.ID, Name: "Tune " + p.Name}
		t.hands(portionOf("scenes", float64(n), Tune))
		t.Steps = []string{
			"Trigger it as a guest would, twenty times; then hold the trigger, and cut the power in the middle.",
		}
		b.add(t)
	},
}
