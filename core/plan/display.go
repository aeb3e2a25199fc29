package plan

import (
	"encoding/json"
	"reflect"

	"zapbarn/core/measure"
)

// Display is the display itself.
type Display struct {
	ID       string          `json:"id"`
	Name     string          `json:"name" max:"80" label:"Name"`
	Units    string          `json:"units" label:"Units" choose:"in|mm"`         // in or mm: what a bare number means
	Opens    string          `json:"opens,omitempty" label:"Opens"`              // date, 2026-10-09
	Outdoors bool            `json:"outdoors,omitempty" label:"Outdoors"`        // stands in the weather
	Temp     measure.Celsius `json:"temp,omitzero" label:"Workshop temperature"` // of the workshop; 21 C when not given
	RH       int             `json:"rh,omitempty" label:"Humidity, %"`           // per cent; 50 when not given
	Kerf     measure.Length  `json:"kerf,omitzero" label:"Saw kerf"`             // of the saw; 1/8 in when not given
	// kept off each sheet's edge; 1/4 in when not given
	Margin measure.Length   `json:"margin,omitzero" label:"Sheet margin"`
	Nights int              `json:"nights,omitempty" label:"Nights"`      // of the season; 18 when not given
	Night  measure.Duration `json:"night,omitzero" label:"Hours a night"` // how long it runs a night; 4 h when not given
	// per cent of the night that scenes run; 25 when not given
	Duty int `json:"duty,omitempty" label:"Scenes run, %"`
	// the narrowest door between the workshop and where it stands
	DoorWide measure.Length `json:"doorWide,omitzero" label:"Narrowest door, wide"`
	DoorHigh measure.Length `json:"doorHigh,omitzero" label:"and high"`
	Airy     bool           `json:"airy,omitempty" label:"Workshop has the day's air"` // as forecast, where that is known
	// where it is built
	RoomLong  measure.Length `json:"roomLong,omitzero" label:"Room, long"`
	RoomWide  measure.Length `json:"roomWide,omitzero" label:"wide"`
	RoomHigh  measure.Length `json:"roomHigh,omitzero" label:"high"`
	BenchLong measure.Length `json:"benchLong,omitzero" label:"Bench, long"`
	Shipping  int            `json:"shipping,omitempty" label:"Shipping of an order, $"`
	// what it is driven in, and the shelf it is kept on till next year
	CarLong   measure.Length `json:"carLong,omitzero" label:"Car, long inside"`
	CarWide   measure.Length `json:"carWide,omitzero" label:"wide inside"`
	CarHigh   measure.Length `json:"carHigh,omitzero" label:"high inside"`
	ShelfDeep measure.Length `json:"shelfDeep,omitzero" label:"Shelf, deep"`
	ShelfHigh measure.Length `json:"shelfHigh,omitzero" label:"shelf, high"`
	// where a phone opens it, for the codes on labels: this program, or the page file as it is
	// put up somewhere
	Reach string `json:"reach,omitempty" max:"200" label:"Phones open it at"`
	// the order of its tasks that a search found: their keys
	Turns string `json:"turns,omitempty" max:"40000"`
	// that the show begins in when power comes on; none when not given
	Begins string `json:"begins,omitempty" max:"40" label:"Power-up state"`
}

var displayKind = kind{
	name: "display", most: 1, typ: reflect.TypeFor[Display](),
	make:  func() any { return new(Display) },
	every: func(p *Plan) []Element { return []Element{{"display", p.Display().ID, &p.doc.Display}} },
	find: func(p *Plan, id string) (any, int) {
		if id != p.Display().ID {
			return nil, -1
		}
		return &p.doc.Display, 0
	},
	put:  func(p *Plan, _ int, raw json.RawMessage) error { return decodeFields(raw, &p.doc.Display) },
	add:  func(p *Plan, raw json.RawMessage) error { return decodeFields(raw, &p.doc.Display) },
	drop: func(*Plan, string) {},
}

func (x *Display) Key() string    { return x.ID }
func (x *Display) Called() string { return x.Name }

func (x *Display) valid(c checks) error {
	if Slug(x.ID) != x.ID {
		return measure.Bad(
			"id",
			"%q must be small letters, digits and dashes, at most 40, such as %s",
			x.ID,
			Slug(x.ID),
		)
	}
	if x.RH < 0 || x.RH > 100 {
		return measure.Bad("rh", "%d %% cannot be; write 1 to 100", x.RH)
	}
	if t := x.Temp.Or(21); t < -30 || t > 60 {
		return measure.Bad("temp", "%s is no workshop; write -30 C to 60 C", x.Temp)
	}
	if x.Shipping < 0 || x.Shipping > 10_000 {
		return measure.Bad("shipping", "%d is no price in whole dollars; write such as 12", x.Shipping)
	}
	if x.Nights < 0 || x.Nights > 366 || x.Duty < 0 || x.Duty > 100 {
		return measure.Bad("nights", "write 1 to 366 nights, and a duty of 1 to 100 %%")
	}
	if n := x.Night.Or(3600); n <= 0 || n > 86400 {
		return measure.Bad("night", "%s is no night; write such as 4 h", x.Night)
	}
	return measure.First(
		measure.Named(x.Name),
		reachable("reach", x.Reach),
		measure.OneOf("units", x.Units, "in", "mm"),
		date("opens", x.Opens),
		measure.Within("kerf", x.Kerf, 0, 25),
		measure.Within("margin", x.Margin, 0, 200),
		measure.Within("doorWide", x.DoorWide, 100, 20*metre),
		measure.Within("doorHigh", x.DoorHigh, 100, 20*metre),
		measure.Within(
			"roomLong",
			x.RoomLong,
			100,
			100*metre,
		),
		measure.Within("roomWide", x.RoomWide, 100, 100*metre),
		measure.Within(
			"roomHigh",
			x.RoomHigh,
			100,
			100*metre,
		),
		measure.Within("benchLong", x.BenchLong, 100, 20*metre),
		measure.Within("carLong", x.CarLong, 100, 20*metre),
		measure.Within("carWide", x.CarWide, 100, 20*metre),
		measure.Within("carHigh", x.CarHigh, 100, 20*metre),
		measure.Within("shelfDeep", x.ShelfDeep, 100, 20*metre),
		measure.Within("shelfHigh", x.ShelfHigh, 100, 20*metre),
	)
}

// Kerf is the saw's kerf in mm, as given or by default.
func (p *Plan) Kerf() float64 { return p.Display().Kerf.Or(measure.Inch / 8) }

// Margin is the strip kept off each sheet's edge, in mm.
func (p *Plan) Margin() float64 { return p.Display().Margin.Or(measure.Inch / 4) }
