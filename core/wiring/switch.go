package wiring

// switchKind is worked by hand, or driven by scenes.
var switchKind = &Kind{
	Name: "switch", Title: "Switches", feeds: true,
	Ticket: []Field{
		{"name", "Name", "text"},
		{"from", "Fed by", "feeders"},
		{"at", "At, along it", "text"},
		{"rating", "Contacts", "text"},
		{"in", "Built into", "solids"},
		{"driven", "Driven by scenes", "check"},
		{"off", "Left off", "check"},
	},
	build: func(b *builder, d *Device, pos, neg int) { gated(b, d, pos, neg, contactOhms) },
	read:  readGate,
	bill:  costs(3),
}

// closed is whether a switch passes: one left off by hand does not, one that is
// driven when on says so; nil is everything on.
func (d *Device) closed(on map[string]bool) bool {
	if d.Driven && on != nil {
		return on[d.ID]
	}
	return !d.Off || d.Driven
}
