// Package plan is the document everything hangs on: a display's props, parts,
// joints, coats, wiring and behaviour; its edits and its JSON form. Package work
// works it out.
//
// A plan is never finished before the work begins: it may be half known, so a
// missing size is allowed and reported, while an impossible one is refused.
package plan

import (
	"strings"

	"zapbarn/core/stock"
)

// Format names the JSON form's version; upgrade.go brings earlier ones to it.
const Format = formatName + "2"

// Document is what a plan holds, list by list, as its file has it.
type Document struct {
	Format     string      `json:"format"`
	Display    Display     `json:"display"`
	Props      []Prop      `json:"props"`
	Solids     []Solid     `json:"solids"`
	Joints     []Joint     `json:"joints"`
	Finishes   []Finish    `json:"finishes"`
	Devices    []Device    `json:"devices"`
	Inputs     []Input     `json:"inputs"`
	Scenes     []Scene     `json:"scenes"`
	Triggers   []Trigger   `json:"triggers"`
	Mechanisms []Mechanism `json:"mechanisms"`
	Promises   []Promise   `json:"promises"`
	Clips      []Clip      `json:"clips"`
	Lots       []Lot       `json:"lots"`
	Waivers    []Waiver    `json:"waivers"`
	Readings   []Reading   `json:"readings"`
	Offcuts    []Offcut    `json:"offcuts"`
	Layouts    []Layout    `json:"layouts"`
	Photos     []Photo     `json:"photos"`
	Pictures   []Picture   `json:"pictures"`
	Outlets    []Outlet    `json:"outlets"`
	Plugs      []Plug      `json:"plugs"`
	Notes      []Note      `json:"notes"`
	Goods      []Good      `json:"goods"`

	People     []Person   `json:"people"`
	Jobs       []Job      `json:"jobs"`
	Deliveries []Delivery `json:"deliveries"`
	Shelf      []Stocked  `json:"shelf"`

	Plots      []Plot      `json:"plots"`
	Walls      []Wall      `json:"walls"`
	Walkways   []Walkway   `json:"walkways"`
	Fixtures   []Fixture   `json:"fixtures"`
	Cords      []Cord      `json:"cords"`
	Viewpoints []Viewpoint `json:"viewpoints"`
	Forecasts  []Forecast  `json:"forecasts"`
	Sketches   []Sketch    `json:"sketches"`

	Trials    []Tried    `json:"trials"`
	NightBook []Night    `json:"nightBook"`
	Incidents []Incident `json:"incidents"`
	Ticks     []Ticked   `json:"ticks"`
}

// Plan is a display. What is read of it goes through its methods, so that what is worked out
// of it knows what it read.
type Plan struct {
	doc    Document
	lib    *stock.Library // the shop it is in; nil for the list as it ships
	reads  *Reads         // records what is read of it; nil records nothing
	broken []Broken       // stored elements that cannot stand as they are
}

// Temperature and Humidity are those of the workshop.
func (p *Plan) Temperature() float64 { return p.Display().Temp.Or(21) }

// Humidity is the workshop's, in per cent.
func (p *Plan) Humidity() float64 {
	if p.Display().RH == 0 {
		return 50
	}
	return float64(p.Display().RH)
}

// Air is the temperature, Celsius, and the humidity, per cent, that a prop is glued and
// painted in: its own place's, or else the workshop's.
func (p *Plan) Air(prop string) (temp, rh float64) {
	temp, rh = p.Temperature(), p.Humidity()
	if x := p.Prop(prop); x != nil {
		temp = x.Temp.Or(temp)
		if x.RH > 0 {
			rh = float64(x.RH)
		}
	}
	return temp, rh
}

// Season is how many nights the display runs, hours a night, and which share of
// the night its scenes run.
func (p *Plan) Season() (nights int, hours, duty float64) {
	nights, hours, duty = 18, p.Display().Night.Or(4*3600)/3600, .25
	if p.Display().Nights > 0 {
		nights = p.Display().Nights
	}
	if p.Display().Duty > 0 {
		duty = float64(p.Display().Duty) / 100
	}
	return
}

// Metric reports whether bare numbers are millimetres.
func (p *Plan) Metric() bool { return p.Display().Units == "mm" }

// Count is how many elements the plan holds.
func (p *Plan) Count() (n int) {
	for _, k := range kinds {
		n += k.count(p)
	}
	return n
}

// New is an empty display.
func New(id, name, units, opens string) *Plan {
	return &Plan{doc: Document{Format: Format, Display: Display{ID: id, Name: name, Units: units, Opens: opens}}}
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
func (p *Plan) Prop(id string) *Prop {
	return find(p.Props(), id, func(x *Prop) string { return x.ID })
}

// Solid returns the solid with that ID, or nil.
func (p *Plan) Solid(id string) *Solid {
	return find(p.Solids(), id, func(x *Solid) string { return x.ID })
}

// Device returns the device with that ID, or nil.
func (p *Plan) Device(id string) *Device {
	return find(p.Devices(), id, func(x *Device) string { return x.ID })
}

// Input returns the input with that ID, or nil.
func (p *Plan) Input(id string) *Input {
	return find(p.Inputs(), id, func(x *Input) string { return x.ID })
}

// OutletNamed returns the outlet with that ID, or nil.
func (p *Plan) OutletNamed(id string) *Outlet {
	return find(p.Outlets(), id, func(x *Outlet) string { return x.ID })
}

// OffcutNamed returns the offcut with that ID, or nil.
func (p *Plan) OffcutNamed(id string) *Offcut {
	return find(p.Offcuts(), id, func(x *Offcut) string { return x.ID })
}

// LayoutOf returns the layout kept of a stock, or nil.
func (p *Plan) LayoutOf(stock string) *Layout {
	return find(p.Layouts(), stock, func(x *Layout) string { return x.ID })
}

// Scene returns the scene with that ID, or nil.
func (p *Plan) Scene(id string) *Scene {
	return find(p.Scenes(), id, func(x *Scene) string { return x.ID })
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
