// Package plan is the document everything hangs on: a display's props, parts,
// joints, coats, wiring and behaviour; its edits; its JSON form; and Work,
// which works the whole document out the way a compiler reads a program.
//
// A plan is never finished before the work begins: it may be half known, so a
// missing size is allowed and reported, while an impossible one is refused.
package plan

import (
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/photo"
)

// Format names the JSON form's version; upgrade.go brings earlier ones to it.
const Format = formatName + "2"

// Plan is a display.
type Plan struct {
	Format   string    `json:"format"`
	Display  Display   `json:"display"`
	Props    []Prop    `json:"props"`
	Solids   []Solid   `json:"solids"`
	Joints   []Joint   `json:"joints"`
	Finishes []Finish  `json:"finishes"`
	Devices  []Device  `json:"devices"`
	Inputs   []Input   `json:"inputs"`
	Scenes   []Scene   `json:"scenes"`
	Triggers []Trigger `json:"triggers"`
	Lots     []Lot     `json:"lots"`
	Waivers  []Waiver  `json:"waivers"`
	Readings []Reading `json:"readings"`
	Offcuts  []Offcut  `json:"offcuts"`
	Layouts  []Layout  `json:"layouts"`
	Photos   []Photo   `json:"photos"`
	Pictures []Picture `json:"pictures"`
	Outlets  []Outlet  `json:"outlets"`
	Plugs    []Plug    `json:"plugs"`
	Goods    []Good    `json:"goods"`
	broken   []Broken  // stored elements that cannot stand as they are
}

// Display is the display itself.
type Display struct {
	ID       string           `json:"id"`
	Name     string           `json:"name" max:"80"`
	Units    string           `json:"units"`              // in or mm: what a bare number means
	Opens    string           `json:"opens,omitempty"`    // date, 2026-10-09
	Outdoors bool             `json:"outdoors,omitempty"` // stands in the weather
	Temp     measure.Celsius  `json:"temp,omitzero"`      // of the workshop; 21 C when not given
	RH       int              `json:"rh,omitempty"`       // per cent; 50 when not given
	Kerf     measure.Length   `json:"kerf,omitzero"`      // of the saw; 1/8 in when not given
	Margin   measure.Length   `json:"margin,omitzero"`    // kept off each sheet's edge; 1/4 in when not given
	Nights   int              `json:"nights,omitempty"`   // of the season; 18 when not given
	Night    measure.Duration `json:"night,omitzero"`     // how long it runs a night; 4 h when not given
	Duty     int              `json:"duty,omitempty"`     // per cent of the night that scenes run; 25 when not given
}

// Prop is one piece of the display.
type Prop struct {
	ID    string         `json:"id"`
	Name  string         `json:"name" max:"80"`
	Known measure.Length `json:"known,omitzero"` // the one known dimension
	Of    string         `json:"of,omitempty"`   // what it measures: height, width or depth
	Note  string         `json:"note,omitempty" max:"2000"`
}

// Joint is where one part meets another. A and B are solid/panel, or =material
// for a bought thing.
type Joint struct {
	ID     string         `json:"id"`
	Prop   string         `json:"prop"`
	A      string         `json:"a" max:"260"`
	B      string         `json:"b" max:"260"`
	Glue   string         `json:"glue"`
	Length measure.Length `json:"length,omitzero"` // of the glue line
	Strain bool           `json:"strain,omitempty"`
}

// Finish is the coat stack of a solid, from the surface up.
type Finish struct {
	ID     string  `json:"id"`
	Solid  string  `json:"solid"`
	Layers []Layer `json:"layers" max:"30"`
}

// Layer is one product and its number of coats.
type Layer struct {
	Coat  string `json:"coat"`
	Coats int    `json:"coats"`
}

// Device is one thing in the low-voltage wiring. All have two conductors; a
// fuse or switch sits in the positive one.
type Device struct {
	ID        string             `json:"id"`
	Prop      string             `json:"prop"`
	Kind      string             `json:"kind"` // one of DeviceKinds
	Name      string             `json:"name" max:"80"`
	From      string             `json:"from,omitempty"`            // what feeds it
	At        measure.Length     `json:"at,omitzero"`               // how far along a run it taps off; at its end when not given
	To        string             `json:"to,omitempty"`              // of a run: what its far end joins too
	ToAt      measure.Length     `json:"toAt,omitzero"`             // how far along that
	Back      measure.Length     `json:"back,omitzero"`             // of a run: the second pair from there to its far end; none when that lies there already
	FedAt     measure.Length     `json:"fedAt,omitzero"`            // of a run: how far along itself it is fed; at its start when not given
	Feeds     string             `json:"feeds,omitempty" max:"200"` // of a strip: where along it its supply is joined, such as 0% 50%
	Product   string             `json:"product,omitempty"`         // lamp or supply of the shop's list
	Volts     measure.Voltage    `json:"volts,omitzero"`
	Amps      measure.Current    `json:"amps,omitzero"` // of a supply: its limit; of a lamp: at rated volts
	Gauge     measure.Gauge      `json:"gauge,omitzero"`
	Length    measure.Length     `json:"length,omitzero"`             // of a run, one way; of a strip
	Path      string             `json:"path,omitempty" max:"130000"` // of a run: x,y,z corners in its prop, from its feed on
	Lead      measure.Length     `json:"lead,omitzero"`               // the lead it has, when not the factory one
	Need      measure.Length     `json:"need,omitzero"`               // the lead it needs, along its path
	Extension measure.Length     `json:"extension,omitzero"`
	Rating    measure.Current    `json:"rating,omitzero"`   // of a fuse or switch
	Cell      string             `json:"cell,omitempty"`    // a supply of batteries: which
	Cells     int                `json:"cells,omitempty"`   // in a row
	Sets      int                `json:"sets,omitempty"`    // rows side by side
	Outlet    string             `json:"outlet,omitempty"`  // a supply's mains outlet
	Row       int                `json:"row,omitempty"`     // bare LEDs in one row
	Resistor  measure.Resistance `json:"resistor,omitzero"` // of bare LEDs; of a connector, each contact
	Poly      bool               `json:"poly,omitempty"`    // a fuse that resets itself
	Logic     measure.Voltage    `json:"logic,omitzero"`    // of a controller's pins
	Data      string             `json:"data,omitempty"`    // of pixels: the controller, or the pixels before them
	Pin       int                `json:"pin,omitempty"`     // of that controller
	DataLead  measure.Length     `json:"dataLead,omitzero"` // from there to the first pixel
	Common    bool               `json:"common,omitempty"`  // a ground wire lies beside the data wire
	Shifter   bool               `json:"shifter,omitempty"` // a level shifter at the data pin
	Damper    bool               `json:"damper,omitempty"`  // a resistor in the data wire at the first pixel
	Bulk      bool               `json:"bulk,omitempty"`    // a capacitor across the strip's feed
	Bright    int                `json:"bright,omitempty"`  // per cent of full white a pixel string is held to
	Reversed  bool               `json:"reversed,omitempty"`
	Driven    bool               `json:"driven,omitempty"` // a switch worked by scenes
	Off       bool               `json:"off,omitempty"`    // a hand switch left off
	In        string             `json:"in,omitempty"`     // the solid it is built into
	Proven    bool               `json:"proven,omitempty"` // lit on the bench before closing
}

// DeviceKinds are what a device can be.
var DeviceKinds = []string{"supply", "run", "fuse", "switch", "lamp", "converter", "connector", "controller"}

// Input is what a guest or the crew works.
type Input struct {
	ID       string           `json:"id"`
	Prop     string           `json:"prop"`
	Name     string           `json:"name" max:"80"`
	Kind     string           `json:"kind"` // button, mat, beam or switch
	Closed   bool             `json:"closed,omitempty"`
	MinPulse measure.Duration `json:"minPulse,omitzero"`
	HoldOff  measure.Duration `json:"holdOff,omitzero"`
}

// Scene is a timeline of cues.
type Scene struct {
	ID     string           `json:"id"`
	Prop   string           `json:"prop"`
	Name   string           `json:"name" max:"80"`
	Length measure.Duration `json:"length,omitzero"`
	Cues   []Cue            `json:"cues" max:"500"`
	Made   bool             `json:"made,omitempty"` // its cues were made up with it; the first that is said takes their place
}

// Cue holds a driven switch on for a time.
type Cue struct {
	Channel string           `json:"channel"`
	Start   measure.Duration `json:"start"`
	Length  measure.Duration `json:"length"`
}

// Trigger ties an input to a scene.
type Trigger struct {
	ID    string           `json:"id"`
	Input string           `json:"input"`
	Scene string           `json:"scene"`
	Latch string           `json:"latch"` // one-shot, retrigger, momentary or toggle
	Rest  measure.Duration `json:"rest,omitzero"`
}

// Lot is an opened bottle on the shelf.
type Lot struct {
	ID     string `json:"id"`
	Glue   string `json:"glue"`
	Opened string `json:"opened"` // date
}

// Waiver lets one snag stand, with a reason and a name.
type Waiver struct {
	ID     string `json:"id" max:"120"`    // code@where of the snag
	Level  string `json:"level,omitempty"` // up to which it may stand: what gets worse comes back
	Reason string `json:"reason" max:"500"`
	By     string `json:"by" max:"40"`
}

// Reading is what a meter or an eye said of a device: one of volts, amperes,
// ohms and light.
type Reading struct {
	ID     string             `json:"id"`
	Device string             `json:"device"`
	Volts  measure.Voltage    `json:"volts,omitzero"`  // across its own terminals; of a lamp, red on its plus
	Far    bool               `json:"far,omitempty"`   // of a strip: at its far end
	Amps   measure.Current    `json:"amps,omitzero"`   // through it
	Ohms   measure.Resistance `json:"ohms,omitzero"`   // from its plus to ground, power off
	Light  string             `json:"light,omitempty"` // lit or dark, as seen
	By     string             `json:"by,omitempty" max:"40"`
	On     string             `json:"on,omitempty"` // date
}

// Offcut is a piece of sheet on the shelf, used before a new one is opened.
type Offcut struct {
	ID    string         `json:"id"`
	Stock string         `json:"stock"`
	W     measure.Length `json:"w"`
	H     measure.Length `json:"h"` // along the grain or flutes
	Label string         `json:"label,omitempty" max:"80"`
}

// Layout is how the parts of one stock lie on its sheets, as kept or as moved
// by hand. Its ID is the stock's.
type Layout struct {
	ID   string `json:"id"`
	Pins []Pin  `json:"pins" max:"20000"`
}

// Pin is where one copy of a part lies: its box's lower left corner.
type Pin struct {
	Part   string         `json:"part" max:"260"` // solid/panel
	Copy   int            `json:"copy"`
	Offcut string         `json:"offcut,omitempty"` // which offcut of the shelf, or else
	Sheet  int            `json:"sheet"`            // which new sheet, from 0
	X      measure.Length `json:"x"`
	Y      measure.Length `json:"y"`
	Turned bool           `json:"turned,omitempty"` // by a quarter
	Flip   bool           `json:"flip,omitempty"`   // head to foot, before the turn
	Locked bool           `json:"locked,omitempty"` // laid by hand: the rest is laid round it
	Cut    bool           `json:"cut,omitempty"`    // its sheet is cut: nothing more is laid there
}

// Photo is a picture's own data: a JPEG, in base64.
type Photo struct {
	ID   string `json:"id"`
	Data string `json:"data" max:"614400"`
}

// Picture is a reference picture of a prop and how it is measured: by one known
// line from A to B, or squared up by the corners of a known rectangle.
type Picture struct {
	ID      string         `json:"id"`
	Prop    string         `json:"prop"`
	Photo   string         `json:"photo"`
	Name    string         `json:"name" max:"80"`
	Wide    int            `json:"wide"` // pixels
	Tall    int            `json:"tall"`
	Known   measure.Length `json:"known,omitzero"` // from A to B
	Upright bool           `json:"upright,omitempty"`
	A       Spot           `json:"a"`
	B       Spot           `json:"b"`
	Corners []Spot         `json:"corners,omitempty" max:"4"` // lower left, lower right, upper right, upper left
	SqW     measure.Length `json:"sqw,omitzero"`              // of that rectangle
	SqH     measure.Length `json:"sqh,omitzero"`
	X       measure.Length `json:"x,omitzero"` // where the prop's middle stands, from the plane's origin
	Z       measure.Length `json:"z,omitzero"`
}

// Spot is a place in a picture, in pixels from its upper left.
type Spot struct {
	X int `json:"x"`
	Y int `json:"y"`
}

// Plane is how the picture measures; the error says what is still missing.
func (x *Picture) Plane() (photo.Plane, error) {
	spot := func(s Spot) photo.Spot { return photo.Spot{X: float64(s.X), Y: float64(s.Y)} }
	if len(x.Corners) == 4 {
		return photo.BySquare([4]photo.Spot{spot(x.Corners[0]), spot(x.Corners[1]), spot(x.Corners[2]), spot(x.Corners[3])}, x.SqW.Value(), x.SqH.Value())
	}
	return photo.ByLine(spot(x.A), spot(x.B), x.Known.Value(), x.Upright)
}

// Outlet is a mains outlet with its circuit: plugs and cords only.
type Outlet struct {
	ID      string          `json:"id"`
	Name    string          `json:"name" max:"80"`
	Volts   measure.Voltage `json:"volts"`           // 120 V or 230 V
	Breaker measure.Current `json:"breaker"`         // of its circuit
	Guard   bool            `json:"guard,omitempty"` // ground-fault protection
	Gauge   measure.Gauge   `json:"gauge,omitzero"`  // of the extension cord to it
	Cord    measure.Length  `json:"cord,omitzero"`   // its length
}

// Plug is what else is plugged in: a fog machine, a screen, an amplifier.
type Plug struct {
	ID     string        `json:"id"`
	Name   string        `json:"name" max:"80"`
	Outlet string        `json:"outlet"`
	Watts  measure.Power `json:"watts"`
	Heater bool          `json:"heater,omitempty"` // alone on its circuit
	Duty   int           `json:"duty,omitempty"`   // per cent of the night it draws: a thermostat's; 100 when not given
}

// Temperature and Humidity are those of the workshop.
func (p *Plan) Temperature() float64 { return p.Display.Temp.Or(21) }

// Humidity is the workshop's, in per cent.
func (p *Plan) Humidity() float64 {
	if p.Display.RH == 0 {
		return 50
	}
	return float64(p.Display.RH)
}

// Season is how many nights the display runs, hours a night, and which share of
// the night its scenes run.
func (p *Plan) Season() (nights int, hours, duty float64) {
	nights, hours, duty = 18, p.Display.Night.Or(4*3600)/3600, .25
	if p.Display.Nights > 0 {
		nights = p.Display.Nights
	}
	if p.Display.Duty > 0 {
		duty = float64(p.Display.Duty) / 100
	}
	return
}

// Metric reports whether bare numbers are millimetres.
func (p *Plan) Metric() bool { return p.Display.Units == "mm" }

// Count is how many elements the plan holds.
func (p *Plan) Count() (n int) {
	for _, k := range kinds {
		n += k.count(p)
	}
	return n
}

// New is an empty display.
func New(id, name, units, opens string) *Plan {
	return &Plan{Format: Format, Display: Display{ID: id, Name: name, Units: units, Opens: opens}}
}

// find returns the element with an ID.
func find[T any](list []T, id string, key func(*T) string) *T {
	for i := range list {
		if key(&list[i]) == id {
			return &list[i]
		}
	}
	return nil
}

// Prop, Solid and Device return the element with that ID, or nil.
func (p *Plan) Prop(id string) *Prop { return find(p.Props, id, func(x *Prop) string { return x.ID }) }

// Solid returns the solid with that ID, or nil.
func (p *Plan) Solid(id string) *Solid {
	return find(p.Solids, id, func(x *Solid) string { return x.ID })
}

// Device returns the device with that ID, or nil.
func (p *Plan) Device(id string) *Device {
	return find(p.Devices, id, func(x *Device) string { return x.ID })
}

// Input returns the input with that ID, or nil.
func (p *Plan) Input(id string) *Input {
	return find(p.Inputs, id, func(x *Input) string { return x.ID })
}

// OutletNamed returns the outlet with that ID, or nil.
func (p *Plan) OutletNamed(id string) *Outlet {
	return find(p.Outlets, id, func(x *Outlet) string { return x.ID })
}

// Scene returns the scene with that ID, or nil.
func (p *Plan) Scene(id string) *Scene {
	return find(p.Scenes, id, func(x *Scene) string { return x.ID })
}

// PropOf is the prop an element belongs to, by its key kind:id (or
// part:solid/panel); "" when it belongs to none.
func (p *Plan) PropOf(key string) string {
	kind, id, _ := strings.Cut(key, ":")
	if kind == "part" {
		id, _, _ = strings.Cut(id, "/")
		kind = "solid"
	}
	v, _ := p.Get(kind, id)
	return p.Belongs(v)
}

// Belongs is the prop that an element at hand belongs to; "" when it belongs to
// none.
func (p *Plan) Belongs(element any) string {
	switch x := element.(type) {
	case *Prop:
		return x.ID
	case *Solid:
		return x.Prop
	case *Joint:
		return x.Prop
	case *Device:
		return x.Prop
	case *Input:
		return x.Prop
	case *Scene:
		return x.Prop
	case *Finish:
		return p.PropOf("solid:" + x.Solid)
	case *Picture:
		return x.Prop
	case *Trigger:
		return p.PropOf("input:" + x.Input)
	case *Reading:
		return p.PropOf("device:" + x.Device)
	}
	return ""
}
