package plan

import (
	"strings"
	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/stock"
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
	Reversed bool           `json:"reversed,omitempty"`
	Driven   bool           `json:"driven,omitempty"`         // a switch worked by scenes
	Off      bool           `json:"off,omitempty"`            // a hand switch left off
	In       string         `json:"in,omitempty" ref:"solid"` // the solid it is built into
	Proven   bool           `json:"proven,omitempty"`         // lit on the bench before closing
}

var deviceKind = listed(kind{name: "device", most: 5000, again: func(v any, c *copying) string {
	x := v.(*Device)
	fresh := c.numbered("device", x.ID)
	if x.Name = strings.ReplaceAll(x.Name, x.ID, fresh); x.Name == "" {
		x.Name = fresh
	}
	x.ID, x.Proven = fresh, false
	return fresh
}}, func(p *Plan) *[]Device { return &p.Devices })

func (x *Device) key() string    { return x.ID }
func (x *Device) called() string { return x.Name }

// DeviceKinds are what a device can be.
var DeviceKinds = []string{"supply", "run", "fuse", "switch", "lamp", "converter", "connector", "controller"}

func (x *Device) valid(c checks) error {
	if err := first(named(x.Name), oneOf("kind", x.Kind, DeviceKinds...), within("fedAt", x.FedAt, 0, 300*metre),
		within("dataLead", x.DataLead, 0, 300*metre),
		within("length", x.Length, 1, 300*metre), within("lead", x.Lead, 0, 300*metre), within("need", x.Need, 0, 300*metre),
		within("extension", x.Extension, 0, 300*metre), within("at", x.At, 0, 300*metre),
		within("toAt", x.ToAt, 0, 300*metre), within("back", x.Back, 1, 300*metre)); err != nil {
		return err
	}
	if v := x.Volts.Or(12); v <= 0 || v > 60 {
		return measure.Bad(
			"volts",
			"%s is not extra-low voltage; write 1 V to 60 V. Mains wiring belongs to a licensed electrician and the local code",
			x.Volts,
		)
	}
	if a := x.Amps.Or(1); a <= 0 || a > 200 {
		return measure.Bad("amps", "%s is out of range; write 1 mA to 200 A", x.Amps)
	}
	if a := x.Rating.Or(1); a <= 0 || a > 200 {
		return measure.Bad("rating", "%s is out of range; write such as 3 A, 200 A at most", x.Rating)
	}
	if x.Row < 0 || x.Row > 100 || x.Bright < 0 || x.Bright > 100 {
		return measure.Bad("row", "write 1 to 100")
	}
	switch x.Kind {
	case "supply":
		if x.Cell != "" {
			switch {
			case x.Cells < 0 || x.Cells > 40 || x.Sets < 0 || x.Sets > 40:
				return measure.Bad("cells", "write 1 to 40 cells in a row, and 1 to 40 rows")
			case x.Outlet != "":
				return measure.Bad("outlet", "batteries need none; leave it empty")
			}
			if v, _ := SupplyOf(x, c.lib); v > 60 {
				return measure.Bad(
					"cells",
					"%d of %s give %s; extra-low voltage ends at 60 V",
					x.Cells,
					x.Cell,
					volts(v),
				)
			}
			return inList("cell", x.Cell, circuit.Cells, "aa or 9v")
		}
		if x.Product == "" && (x.Volts.IsZero() || x.Amps.IsZero()) {
			return measure.Bad("volts", "give volts and amps, or choose a supply such as ps12-5")
		}
		if x.Product != "" {
			return inList("product", x.Product, c.lib.Supplies, "ps12-5")
		}
	case "converter":
		if x.Volts.IsZero() || x.Amps.IsZero() {
			return measure.Bad("volts", "give what it puts out, such as 5 V and 3 A")
		}
	case "lamp":
		if err := inList("product", x.Product, c.lib.Lamps, "flicker12 or puck12"); err != nil {
			return err
		}
		if err := possible(lampOf(x, c.lib)); err != nil {
			return err
		}
		if k := c.lib.Lamps[x.Product].Kind; (k == "strip" || k == "pixels") && x.Length.IsZero() {
			return measure.Bad("length", "is empty; a strip needs its length, such as 2 m")
		}
		if r := x.Resistor.Or(1); r <= 0 {
			return measure.Bad("resistor", "must be more than nothing, such as 470 ohm")
		}
		if _, err := ParseFeeds(x.Feeds); err != nil {
			return err
		}
		if x.Pin < 0 || x.Pin > 100 {
			return measure.Bad("pin", "%d; write 1 to 100", x.Pin)
		}
	case "controller":
		if v := x.Logic.Or(3.3); v < 1 || v > 12 {
			return measure.Bad("logic", "%s is no logic level; write 3.3 V or 5 V", x.Logic)
		}
	case "connector":
		if r := x.Resistor.Or(1); r <= 0 || r > 100 {
			return measure.Bad("resistor", "%s a contact; write such as 10 mohm, or leave it empty", x.Resistor)
		}
	case "run":
		if x.Gauge.IsZero() {
			return measure.Bad("gauge", "is empty; write such as 18 AWG")
		}
		if x.Length.IsZero() {
			return measure.Bad("length", "is empty; write such as 12 ft")
		}
		if _, err := ParsePath(x.Path, c.plan.Metric()); err != nil {
			return err
		}
	case "fuse":
		if x.Rating.Value() <= 0 {
			return measure.Bad("rating", "is empty; write such as 3 A")
		}
	}
	return nil
}

// possible refuses a load whose own values cannot be: LEDs that want more than
// the lamp's volts, a motor that takes more running than held.
func possible(l stock.Lamp) error {
	switch l.Kind {
	case "motor", "servo":
		if l.Stall > 0 && l.Amps >= l.Stall {
			return measure.Bad(
				"amps",
				"%s running is not less than the %s it takes held; write what it takes running",
				amps(l.Amps),
				amps(l.Stall),
			)
		}
	case "pixels":
		if l.Amps < l.Idle {
			return measure.Bad(
				"amps",
				"%s at full white is less than the %s a dark pixel takes; write more",
				amps(l.Amps),
				amps(l.Idle),
			)
		}
		if l.Volts < 3 {
			return measure.Bad("volts", "%s runs no pixel; write 5 V or 12 V", volts(l.Volts))
		}
	case "power", "amplifier", "sensor", "resistive", "coil", "led":
	default: // LEDs with a resistor inside
		if l.Volts <= l.Vf {
			return measure.Bad(
				"volts",
				"%s is not more than the %s its LEDs want; write its rated volts",
				volts(l.Volts),
				volts(l.Vf),
			)
		}
	}
	return nil
}
