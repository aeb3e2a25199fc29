package wiring

import (
	"zapbarn/core/circuit"
	"zapbarn/core/measure"
)

// controllerKind is a board that gives data, and works what scenes drive.
var controllerKind = &Kind{
	Name: "controller", Title: "Controllers", Role: Controller, feeds: true,
	Ticket: []Field{
		{"name", "Name", "text"},
		{"from", "Fed by", "feeders"},
		{"at", "At, along it", "text"},
		{"volts", "Runs on", "text"},
		{"amps", "Takes", "text"},
		{"logic", "Its pins give", "text"},
		{"in", "Built into", "solids"},
	},
	valid: func(d *Device, _ Set) error {
		if v := d.Logic.Or(3.3); v < 1 || v > 12 {
			return measure.Bad("logic", "%s is no logic level; write 3.3 V or 5 V", d.Logic)
		}
		return nil
	},
	build: func(b *builder, d *Device, pos, neg int) {
		r := b.Rig
		r.at(d.ID).load = []int{r.Net.Add(circuit.Element{
			Kind: circuit.Sink, A: pos, B: neg, I: d.Amps.Or(controllerAmps), Vf: .7 * d.Volts.Or(5), Name: d.ID,
		})}
		r.at(d.ID).port = [2]int{pos, neg}
	},
	read: func(r *Rig, sol *circuit.Solution, d *Device, g *Operating) {
		e := r.at(d.ID).load[0]
		g.Volts, g.Amps, g.State = sol.Across(r.Net.Elements[e]), sol.I[e], "ok"
		if g.Volts < controllerLeast*d.Volts.Or(5) {
			g.State = "starved"
		}
	},
	bill: costs(8),
}

// ControllerLogic is what a controller's pins give when not said, in V.
const ControllerLogic = 3.3

// controllerAmps is what a small controller board takes.
const controllerAmps = 0.1

// controllerLeast is the share of its volts a controller still works at.
const controllerLeast = 0.9
