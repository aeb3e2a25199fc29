package wiring

import (
	"math"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/source"
	"zapbarn/core/stock"
)

// converterKind steps volts down for what it feeds.
var converterKind = &Kind{
	Name: "converter", Title: "Converters", Role: Converter, feeds: true,
	Ticket: []Field{
		{"name", "Name", "text"},
		{"from", "Fed by", "feeders"},
		{"at", "At, along it", "text"},
		{"volts", "Gives", "text"},
		{"amps", "at most", "text"},
		{"in", "Built into", "solids"},
	},
	valid: func(d *Device, _ Set) error {
		if d.Volts.IsZero() || d.Amps.IsZero() {
			return measure.Bad("volts", "give what it puts out, such as 5 V and 3 A")
		}
		return nil
	},
	build: func(b *builder, d *Device, pos, neg int) {
		r := b.Rig
		v, a := SupplyOf(d, r.lib)
		out := r.Net.Node(d.ID + " out+")
		// it runs from a volt above what it gives; what it draws is found in solve
		r.at(d.ID).input = r.Net.Add(circuit.Element{
			Kind: circuit.Sink, A: pos, B: neg, Vf: v + dropout, I: 1e-6, Name: d.ID,
		})
		r.at(d.ID).source = r.Net.Add(circuit.Element{
			Kind: circuit.Supply, A: out, B: neg, E: v, R: stock.SupplyResistance(v, a), Limit: overloadFactor * a, Name: d.ID,
		})
		r.at(d.ID).port = [2]int{out, neg}
		r.at(d.ID).supply = d.ID // what it feeds is judged by its volts
	},
	read: readSource,
	bill: func(d *Device, _ *stock.Library) Bill { return Bill{Money: 3 + math.Ceil(d.Amps.Value())} },
}

// ConverterEfficiency is what a step-down converter makes of what it draws.
const ConverterEfficiency = 0.88

// ConverterFrom is its source.
var ConverterFrom = source.FromMemory("small step-down converters, 85 to 92 %")

// dropout is how many volts a step-down converter wants above what it gives.
const dropout = 1.0
