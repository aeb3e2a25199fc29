package work

import (
	"fmt"

	"zapbarn/core/plan"
	"zapbarn/core/wiring"
	"zapbarn/core/words"
)

// Box is a box that goes along when the display is taken down.
type Box struct {
	Prop   *plan.Prop
	Letter string // A, B: of one prop's boxes
	Holds  []string
	Mass   float64 // kg
}

// Name is what is written on it.
func (b *Box) Name() string { return b.Prop.Name + " " + b.Letter }

// What a box takes, and up to which size a piece goes into one.
const (
	boxMost = 15.0  // kg, that one person carries (from memory)
	boxLong = 500.0 // mm, the longest side of what goes in
)

// What small things weigh where nobody said (from memory): a lamp or a supply, kg, and a
// metre of two-core wire, kg.
const deviceMass, wireMass = 0.2, 0.04

// Boxed puts into boxes, prop by prop in the order of loading, the pieces that are too small
// to be carried by themselves, and then what is wired; a new box where the last is full. The
// second answer is the box of each piece that has one.
func (w *Work) Boxed(pieces []*Piece) (boxes []*Box, of map[*Piece]*Box) {
	of = map[*Piece]*Box{}
	for i := range w.Plan.Props() {
		p := &w.Plan.Props()[i]
		var now *Box
		letters := 0
		last, many := "", 0
		put := func(name string, kg float64) *Box {
			if now == nil || now.Mass+kg > boxMost {
				now = &Box{Prop: p, Letter: string(rune('A' + letters%26))}
				letters++
				boxes = append(boxes, now)
			}
			now.Mass += kg
			if n := len(now.Holds); n > 0 && last == name {
				many++
				now.Holds[n-1] = fmt.Sprintf("%s, %d of them", name, many)
				return now
			}
			last, many = name, 1
			now.Holds = append(now.Holds, name)
			return now
		}
		for _, x := range pieces {
			if x.Prop == p && x.Size[0] <= boxLong && x.Mass/float64(x.Copies) <= boxMost {
				for range x.Copies {
					b := put(x.Solids[0].Name, x.Mass/float64(x.Copies))
					if of[x] == nil {
						of[x] = b
					}
				}
				last = "" // another may be called the same
			}
		}
		small, wires, metres := 0, 0, 0.0
		for k := range w.Plan.Devices() {
			switch d := &w.Plan.Devices()[k]; {
			case d.Prop != p.ID:
			case d.Is(wiring.Wire):
				wires++
				metres += d.Length.Value() / 1000
			default:
				small++
			}
		}
		if small > 0 {
			put(fmt.Sprintf("%d small things that are wired", small), deviceMass*float64(small))
		}
		if wires > 0 {
			put(fmt.Sprintf("%s of wire, %s", words.Count(wires, "run"), w.Run(metres*1000)), wireMass*metres)
		}
	}
	return boxes, of
}
