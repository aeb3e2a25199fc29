package wiring

import (
	"math"

	"zapbarn/core/measure"
)

// fuseKind guards what is behind it.
var fuseKind = &Kind{
	Name: "fuse", Title: "Fuses", Role: Fuse, feeds: true,
	Ticket: []Field{
		{"name", "Name", "text"},
		{"from", "Fed by", "feeders"},
		{"at", "At, along it", "text"},
		{"rating", "Rating", "text"},
		{"in", "Built into", "solids"},
		{"poly", "Resets itself", "check"},
	},
	valid: func(d *Device, _ Set) error {
		if d.Rating.Value() <= 0 {
			return measure.Bad("rating", "is empty; write such as 3 A")
		}
		return nil
	},
	build: func(b *builder, d *Device, pos, neg int) { gated(b, d, pos, neg, fuseOhms(d)) },
	read:  readGate,
	bill:  costs(2),
}

// What a fuse drops at its rating, and a self-resetting one, in V.
const (
	FuseVolts = 0.1
	polyVolts = 0.3
)

// fuseOhms is a fuse's resistance.
func fuseOhms(d *Device) float64 {
	v := FuseVolts
	if d.Poly {
		v = polyVolts
	}
	return v / math.Max(d.Rating.Value(), 0.1)
}
