// Package wiring is the low-voltage wiring: its devices, one kind a file, and what
// they are together: a network that is solved in any state, its demands, its
// faults and how to find them. It takes devices and knows no plan.
package wiring

import (
	"zapbarn/core/measure"
)

// Device is one thing in the low-voltage wiring. All have two conductors; a
// fuse or switch sits in the positive one.
type Device struct {
	ID   string `json:"id"`
	Prop string `json:"prop" ref:"prop,needed"`
	Kind string `json:"kind"` // one of DeviceKinds
	Name string `json:"name" max:"80"`
	From string `json:"from,omitempty" ref:"device"` // what feeds it
	// how far along a run it taps off; at its end when not given
	At   measure.Length `json:"at,omitzero"`
	To   string         `json:"to,omitempty" ref:"device"` // of a run: what its far end joins too
	ToAt measure.Length `json:"toAt,omitzero"`             // how far along that
	// of a run: the second pair from there to its far end; none when that lies there already
	Back measure.Length `json:"back,omitzero"`
	// of a run: how far along itself it is fed; at its start when not given
	FedAt measure.Length `json:"fedAt,omitzero"`
	// of a strip: where along it its supply is joined, such as 0% 50%
	Feeds   string          `json:"feeds,omitempty" max:"200"`
	Product string          `json:"product,omitempty"` // lamp or supply of the shop's list
	Volts   measure.Voltage `json:"volts,omitzero"`
	Amps    measure.Current `json:"amps,omitzero"` // of a supply: its limit; of a lamp: at rated volts
	Gauge   measure.Gauge   `json:"gauge,omitzero"`
	Length  measure.Length  `json:"length,omitzero"` // of a run, one way; of a strip
	// of a run: x,y,z corners in its prop, from its feed on
	Path      string             `json:"path,omitempty" max:"130000"`
	Lead      measure.Length     `json:"lead,omitzero"` // the lead it has, when not the factory one
	Need      measure.Length     `json:"need,omitzero"` // the lead it needs, along its path
	Extension measure.Length     `json:"extension,omitzero"`
	Rating    measure.Current    `json:"rating,omitzero"`               // of a fuse or switch
	Cell      string             `json:"cell,omitempty"`                // a supply of batteries: which
	Cells     int                `json:"cells,omitempty"`               // in a row
	Sets      int                `json:"sets,omitempty"`                // rows side by side
	Outlet    string             `json:"outlet,omitempty" ref:"outlet"` // a supply's mains outlet
	Row       int                `json:"row,omitempty"`                 // bare LEDs in one row
	Resistor  measure.Resistance `json:"resistor,omitzero"`             // of bare LEDs; of a connector, each contact
	Poly      bool               `json:"poly,omitempty"`                // a fuse that resets itself
	Logic     measure.Voltage    `json:"logic,omitzero"`                // of a controller's pins
	// of pixels: the controller, or the pixels before them
	Data     string         `json:"data,omitempty" ref:"device"`
	Pin      int            `json:"pin,omitempty"`     // of that controller
	DataLead measure.Length `json:"dataLead,omitzero"` // from there to the first pixel
	Common   bool           `json:"common,omitempty"`  // a ground wire lies beside the data wire
	Shifter  bool           `json:"shifter,omitempty"` // a level shifter at the data pin
	Damper   bool           `json:"damper,omitempty"`  // a resistor in the data wire at the first pixel
	Bulk     bool           `json:"bulk,omitempty"`    // a capacitor across the strip's feed
	Bright   int            `json:"bright,omitempty"`  // per cent of full white a pixel string is held to
	Picture  string         `json:"picture,omitempty"` // that pixels show; full white when not given
	Colour   string         `json:"colour,omitempty"`  // of that picture; white when not given
	Reversed bool           `json:"reversed,omitempty"`
	Driven   bool           `json:"driven,omitempty"` // a switch worked by scenes
	// of a driven switch: which of two scenes that want it wins: latest, priority; else the highest level
	Wins    string           `json:"wins,omitempty"`
	Never   string           `json:"never,omitempty" ref:"device"` // never on together with this one
	Longest measure.Duration `json:"longest,omitzero"`             // that it may be on at a stretch
	Off     bool             `json:"off,omitempty"`                // a hand switch left off
	In      string           `json:"in,omitempty" ref:"solid"`     // the solid it is built into
	Proven  bool             `json:"proven,omitempty"`             // lit on the bench before closing
}

// Key is the device's ID, and Called its name.
func (d *Device) Key() string { return d.ID }

// Called is what it is called on the screen.
func (d *Device) Called() string { return d.Name }
