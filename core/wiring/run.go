package wiring

import (
	"fmt"
	"math"
	"sort"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/stock"
)

// runKind is a length of wire pair, tapped anywhere along it.
var runKind = &Kind{
	Name: "run", Title: "Runs", Role: Wire, feeds: true,
	Ticket: []Field{
		{"name", "Name", "text"},
		{"from", "Fed by", "feeders"},
		{"at", "At, along it", "text"},
		{"gauge", "Gauge", "text"},
		{"length", "One way", "text"},
		{"fedAt", "Fed along it at", "text"},
		{"to", "Far end to", "feeders"},
		{"toAt", "At, along that", "text"},
		{"back", "By a second pair of", "text"},
		{"path", "Path: right,back,up of each corner", "wide"},
	},
	valid: func(d *Device, s Set) error {
		if d.Gauge.IsZero() {
			return measure.Bad("gauge", "is empty; write such as 18 AWG")
		}
		if d.Length.IsZero() {
			return measure.Bad("length", "is empty; write such as 12 ft")
		}
		_, err := ParsePath(d.Path, s.Metric)
		return err
	},
	build: buildRun,
	read: func(r *Rig, sol *circuit.Solution, d *Device, g *Operating) {
		q := r.at(d.ID).port
		g.Volts = sol.V[q[0]] - sol.V[q[1]]
		for _, e := range r.at(d.ID).series {
			if a := math.Abs(sol.I[e]); a > g.Amps {
				g.Amps = a
			}
		}
	},
	bill: func(d *Device, _ *stock.Library) Bill { return pair(d.Gauge.Value(), d.Length.Value()+d.Back.Value()) },
}

// buildRun is a piece of both wires between each two places where something
// leaves it.
func buildRun(b *builder, d *Device, pos, neg int) {
	r, fed := b.Rig, d.FedAt.Value()
	stops := append([]float64{0, fed, d.Length.Value()}, b.at(d.ID).taps...)
	sort.Float64s(stops) // those with no place given, at +Inf, sit at the end
	ohms := stock.CopperOhmsPerMetre(d.Gauge.Value(), r.temp)
	at := func(x float64) tap {
		if math.Abs(x-fed) < 1e-6 {
			return tap{fed, pos, neg}
		}
		return tap{x, r.Net.Node(fmt.Sprintf("%s+%.0f", d.ID, x)), r.Net.Node(fmt.Sprintf("%s-%.0f", d.ID, x))}
	}
	last := at(0)
	n := b.at(d.ID)
	n.points = append(n.points, last)
	for _, x := range stops {
		if x <= last.at+1e-6 || math.IsInf(x, 1) {
			continue
		}
		next := at(x)
		r.at(d.ID).series = append(r.at(d.ID).series, r.Net.Wire(d.ID, last.pos, next.pos, ohms*(x-last.at)/1000))
		r.Net.Wire(d.ID, last.neg, next.neg, ohms*(x-last.at)/1000)
		n.points = append(n.points, next)
		last = next
	}
	r.at(d.ID).port = [2]int{last.pos, last.neg}
}
