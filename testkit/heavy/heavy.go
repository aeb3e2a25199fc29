// Package heavy makes plans that are hard to work out: within every limit of
// a plan, and far from any prop.
package heavy

import (
	"fmt"
	"math"
	"strings"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
)

// Chain is a display of one supply and n runs, each fed by the one before,
// with a lamp at the end of each tenth.
func Chain(n int) *plan.Plan {
	p := plan.New("chain", "Chain", "in", "")
	p.Doc().Props = []plan.Prop{{ID: "p", Name: "P"}}
	p.Doc().Devices = []plan.Device{
		{
			ID:    "S",
			Prop:  "p",
			Kind:  "supply",
			Name:  "S",
			Volts: measure.Must[measure.VoltKind]("12 V"),
			Amps:  measure.Must[measure.AmpKind]("30 A"),
		},
	}
	from := "S"
	for i := range n {
		id := fmt.Sprintf("W%d", i+1)
		p.Doc().Devices = append(
			p.Devices(),
			plan.Device{
				ID:     id,
				Prop:   "p",
				Kind:   "run",
				Name:   id,
				From:   from,
				Gauge:  measure.Must[measure.GaugeKind]("18 AWG"),
				Length: measure.Len("1 in"),
			},
		)
		if from = id; i%10 == 9 {
			l := fmt.Sprintf("L%d", i+1)
			p.Doc().Devices = append(
				p.Devices(),
				plan.Device{ID: l, Prop: "p", Kind: "lamp", Name: l, From: id, Product: "flicker12"},
			)
		}
	}
	return p
}

// Copies is a display of so many panels, each as often as a panel may be.
func Copies(solids, copies int) *plan.Plan {
	p := plan.New("copies", "Copies", "in", "")
	p.Doc().Props = []plan.Prop{{ID: "p", Name: "P"}}
	for i := range solids {
		id := fmt.Sprintf("panel-%d", i)
		p.Doc().Solids = append(
			p.Solids(),
			plan.Solid{
				ID:    id,
				Prop:  "p",
				Name:  id,
				Kind:  "panel",
				Stock: "ply1/4",
				Form:  form.Panel{W: measure.Len(fmt.Sprintf("%d in", 3+i%9)), H: measure.Len("5 in"), Copies: copies},
			},
		)
	}
	return p
}

// Mazes is a display of n silhouettes of as many corners as one may have, each
// of another size: a saw-tooth ring each, dear to lay on sheets.
func Mazes(n int) *plan.Plan {
	p := plan.New("mazes", "Mazes", "in", "")
	p.Doc().Props = []plan.Prop{{ID: "p", Name: "P"}}
	for i := range n {
		var b strings.Builder
		for k := range 2900 {
			a := 2 * math.Pi * float64(k) / 2900
			r := 100 - 60*float64(k%2)
			fmt.Fprintf(&b, "%.2f,%.2f ", r*math.Cos(a), r*math.Sin(a))
		}
		id := fmt.Sprintf("maze-%d", i)
		p.Doc().Solids = append(
			p.Solids(),
			plan.Solid{
				ID:    id,
				Prop:  "p",
				Name:  "Maze",
				Kind:  "outline",
				Stock: "ply1/4",
				Form: form.Outline{
					H:      measure.Len(fmt.Sprintf("%d in", 30+i%10)),
					Path:   strings.TrimSpace(b.String()),
					Copies: 9,
				},
			},
		)
	}
	return p
}

// Sharing is a display of so many buttons, each with a scene that lights a lamp of its own
// and sounds a horn that all share, and a promise about that.
func Sharing(buttons int) *plan.Plan {
	p := plan.New("sharing", "Sharing", "in", "")
	p.Doc().Props = []plan.Prop{{ID: "p", Name: "P"}}
	sec := measure.Must[measure.DurationKind]
	drive := func(id, name string) {
		p.Doc().Devices = append(p.Devices(), plan.Device{ID: id, Prop: "p", Kind: "switch", Name: name, From: "S",
			Driven: true,
			Rating: measure.Must[measure.AmpKind]("5 A")})
	}
	p.Doc().Devices = append(p.Devices(), plan.Device{ID: "S", Prop: "p", Kind: "supply", Name: "S",
		Volts: measure.Must[measure.VoltKind]("12 V"), Amps: measure.Must[measure.AmpKind]("10 A")})
	drive("H", "Horn")
	for i := range buttons {
		n := fmt.Sprint(i + 1)
		drive("K"+n, "Lamp "+n)
		p.Doc().Inputs = append(p.Inputs(), plan.Input{ID: "b" + n, Prop: "p", Name: "Button " + n, Kind: "button",
			MinPulse: sec("30 ms"), HoldOff: sec("0.5 s")})
		p.Doc().Scenes = append(p.Scenes(), plan.Scene{ID: "s" + n, Prop: "p", Name: "Scare " + n, Cues: []plan.Cue{
			{Channel: "K" + n, Length: sec("2 s")},
			{Channel: "H", Start: sec(fmt.Sprintf("%d ms", 500*i)), Length: sec("0.7 s")},
		}})
		p.Doc().Triggers = append(p.Triggers(), plan.Trigger{ID: "t" + n, Input: "b" + n, Scene: "s" + n, Latch: "one-shot",
			Rest: sec("3 s")})
	}
	p.Doc().Promises = []plan.Promise{{ID: "horn", Prop: "p", Says: "horn never longer than 8 s"}}
	return p
}
