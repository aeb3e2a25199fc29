package wiring

import (
	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/stock"
)

// Kind is one kind of device as the program knows it: each in a file of its own.
// Adding one is that file and its name in kindOrder: role, ticket, files, network, bill, states
// and netlist come from here.
type Kind struct {
	Name   string
	Title  string // over its kind in a list
	Role   Role
	Ticket []Field

	feeds bool                                                         // hands on what it is fed
	valid func(d *Device, s Set) error                                 // beyond what holds of every device; nil is nothing
	build func(b *builder, d *Device, pos, neg int)                    // its elements, between what feeds it
	read  func(r *Rig, sol *circuit.Solution, d *Device, g *Operating) // what it does in a solved state
	bill  func(d *Device, lib *stock.Library) Bill
	more  func(d *Device, lib *stock.Library) []Field // a ticket that depends on more than the kind; nil is Ticket
}

// Role is what devices of a kind are for, whatever else they are: what others ask for in place of
// a kind's name.
type Role uint

// The roles.
const (
	Origin     Role = 1 << iota // wiring begins at it: a plug-in supply, cells
	Converter                   // gives other volts than it is fed
	Load                        // what the current is for
	Wire                        // a length of wire pair
	Switch                      // opens and closes what is behind it
	Fuse                        // opens when too much flows
	Controller                  // gives data, and works what scenes drive
	Connector                   // where a prop comes apart
	Source     = Origin | Converter
)

// Is reports whether a device has any of some roles.
func (d *Device) Is(any Role) bool {
	k := kinds[d.Kind]
	return k != nil && k.Role&any != 0
}

// Channel reports a switch that scenes drive.
func (d *Device) Channel() bool { return d.Driven && d.Is(Switch) }

// Field is a field of a ticket: its name in files, its label, and text, wide,
// check, or what it is chosen from.
type Field struct{ Name, Label, Choose string }

// kindOrder is the order kinds are listed in.
var kindOrder = []string{"supply", "converter", "fuse", "switch", "run", "connector", "controller", "lamp"}

var kinds = map[string]*Kind{
	"supply": supplyKind, "converter": converterKind, "fuse": fuseKind, "switch": switchKind, "run": runKind,
	"connector": connectorKind, "controller": controllerKind, "lamp": lampKind,
}

// Names are the kinds a device can be of.
func Names() []string { return kindOrder }

// KindOf is the kind of a name; nil where there is none.
func KindOf(name string) *Kind { return kinds[name] }

// Fields are a device's own on its ticket.
func (d *Device) Fields(lib *stock.Library) []Field {
	k := kinds[d.Kind]
	if k == nil {
		return nil
	}
	if k.more != nil {
		return k.more(d, lib)
	}
	return k.Ticket
}

// Set is wiring to be worked out: the devices, the shop they are of, and where
// they are.
type Set struct {
	Devices []Device
	Lib     *stock.Library
	Temp    float64 // Celsius
	Metric  bool    // what a bare number of a path is
}

// Device is the device with that ID, or nil.
func (s Set) Device(id string) *Device {
	for i := range s.Devices {
		if s.Devices[i].ID == id {
			return &s.Devices[i]
		}
	}
	return nil
}

const metre = 1000.0

// Valid checks a device for itself; what it refers to is checked where that is
// known.
func (d *Device) Valid(s Set) error {
	if err := measure.First(measure.Named(d.Name), measure.OneOf("kind", d.Kind, kindOrder...),
		measure.Within("fedAt", d.FedAt, 0, 300*metre), measure.Within("dataLead", d.DataLead, 0, 300*metre),
		measure.Within("length", d.Length, 1, 300*metre), measure.Within("lead", d.Lead, 0, 300*metre),
		measure.Within("need", d.Need, 0, 300*metre), measure.Within("extension", d.Extension, 0, 300*metre),
		measure.Within("at", d.At, 0, 300*metre), measure.Within("toAt", d.ToAt, 0, 300*metre),
		measure.Within("back", d.Back, 1, 300*metre)); err != nil {
		return err
	}
	if v := d.Volts.Or(12); v <= 0 || v > 60 {
		return measure.Bad(
			"volts",
			"%s is not extra-low voltage; write 1 V to 60 V. Mains wiring belongs to a licensed "+
				"electrician and the local code",
			d.Volts,
		)
	}
	if a := d.Amps.Or(1); a <= 0 || a > 200 {
		return measure.Bad("amps", "%s is out of range; write 1 mA to 200 A", d.Amps)
	}
	if a := d.Rating.Or(1); a <= 0 || a > 200 {
		return measure.Bad("rating", "%s is out of range; write such as 3 A, 200 A at most", d.Rating)
	}
	if d.Row < 0 || d.Row > 100 || d.Bright < 0 || d.Bright > 100 {
		return measure.Bad("row", "write 1 to 100")
	}
	if k := kinds[d.Kind]; k.valid != nil {
		return k.valid(d, s)
	}
	return nil
}

// BillOf is what a device takes beyond itself when it is a lamp: the wire of its
// extension and of its feeds, and the parts at its data pin.
func BillOf(d *Device, lib *stock.Library) Bill {
	if k := kinds[d.Kind]; k != nil {
		return k.bill(d, lib)
	}
	return Bill{}
}

// costs is the bill of a part at one price.
func costs(price float64) func(*Device, *stock.Library) Bill {
	return func(*Device, *stock.Library) Bill { return Bill{Money: price} }
}
