package wiring

import (
	"zapbarn/core/measure"
	"zapbarn/core/stock"
)

// switchKind is worked by hand, or driven by scenes.
var switchKind = &Kind{
	Name: "switch", Title: "Switches", Role: Switch, feeds: true,
	more: func(d *Device, _ *stock.Library) []Field {
		if !d.Driven {
			return switchTicket
		}
		return append(switchTicket[:len(switchTicket):len(switchTicket)],
			Field{"pin", "Pin", "text"},
			Field{"longest", "On at most", "text"},
			Field{"never", "Never with", "drivenor"},
			Field{"wins", "Two scenes: wins", "|latest|priority"})
	},
	valid: func(d *Device, _ Set) error {
		if v := d.Longest.Value(); v < 0 || v > 86400 {
			return measure.Bad("longest", "%s is out of range; write up to 24 h", d.Longest)
		}
		if d.Never == d.ID {
			return measure.Bad("never", "is itself; name another switch")
		}
		return measure.OneOf("wins", d.Wins, "", "latest", "priority")
	},
	build: func(b *builder, d *Device, pos, neg int) { gated(b, d, pos, neg, contactOhms) },
	read:  readGate,
	bill:  costs(3),
}

var switchTicket = []Field{
	{"name", "Name", "text"},
	{"from", "Fed by", "feeders"},
	{"at", "At, along it", "text"},
	{"rating", "Contacts", "text"},
	{"in", "Built into", "solids"},
	{"driven", "Driven by scenes", "check"},
	{"off", "Left off", "check"},
}

// closed is whether a switch passes: one left off by hand does not, one that is
// driven when on says so; nil is everything on.
func (d *Device) closed(on map[string]bool) bool {
	if d.Driven && on != nil {
		return on[d.ID]
	}
	return !d.Off || d.Driven
}
