package wiring

import (
	"math"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
)

// connectorKind parts a way where a prop comes apart: a contact in each wire.
var connectorKind = &Kind{
	Name: "connector", Title: "Connectors", Role: Connector, feeds: true,
	Ticket: []Field{
		{"name", "Name", "text"},
		{"from", "Fed by", "feeders"},
		{"at", "At, along it", "text"},
		{"rating", "Contacts", "text"},
		{"resistor", "Each contact", "text"},
		{"in", "Built into", "solids"},
	},
	valid: func(d *Device, _ Set) error {
		if r := d.Resistor.Or(1); r <= 0 || r > 100 {
			return measure.Bad("resistor", "%s a contact; write such as 10 mohm, or leave it empty", d.Resistor)
		}
		return nil
	},
	build: func(b *builder, d *Device, pos, neg int) {
		r, ohms := b.Rig, d.Resistor.Or(contactOhms)
		out, back := r.Net.Node(d.ID+" out+"), r.Net.Node(d.ID+" out-")
		r.at(d.ID).gate = r.Net.Wire(d.ID, pos, out, ohms)
		r.Net.Wire(d.ID, neg, back, ohms)
		r.at(d.ID).port = [2]int{out, back}
	},
	read: readGate,
	bill: costs(1),
}

// readGate is what passes a contact or a fuse.
func readGate(r *Rig, sol *circuit.Solution, d *Device, g *Operating) {
	q := r.at(d.ID).port
	g.Volts, g.Amps = sol.V[q[0]]-sol.V[q[1]], math.Abs(sol.I[r.at(d.ID).gate])
}

// gated puts a resistance into the positive wire.
func gated(b *builder, d *Device, pos, neg int, ohms float64) {
	out := b.Net.Node(d.ID + " out+")
	b.at(d.ID).gate = b.Net.Wire(d.ID, pos, out, ohms)
	b.at(d.ID).port = [2]int{out, neg}
}
