package plan

import (
	"slices"
	"strings"

	"zapbarn/core/measure"
)

// Input is what starts something: a contact that a guest or the crew works, a limit
// switch that a mechanism works, or what the controller knows by itself.
type Input struct {
	ID       string           `json:"id"`
	Prop     string           `json:"prop" ref:"prop,needed"`
	Name     string           `json:"name" max:"80" label:"Name"`
	Kind     string           `json:"kind" label:"Kind" choose:"button|mat|beam|motion|switch|remote|sound|knob|timer|scene begins|scene ends|power"`
	Closed   bool             `json:"closed,omitempty" label:"Normally closed"`
	MinPulse measure.Duration `json:"minPulse,omitzero" label:"Least pulse"`
	HoldOff  measure.Duration `json:"holdOff,omitzero" label:"Hold-off"`
	// of the contact itself
	Bounce  measure.Duration `json:"bounce,omitzero" label:"Contact bounces"`
	Hold    measure.Duration `json:"hold,omitzero" label:"Sensor stays on"`
	WarmUp  measure.Duration `json:"warmUp,omitzero" label:"Warm-up"`
	Latency measure.Duration `json:"latency,omitzero" label:"Latency"`
	Far     measure.Length   `json:"far,omitzero" label:"Along the path"`
	Pin     int              `json:"pin,omitempty" label:"Pin"`
	// of a limit switch
	Mover string `json:"mover,omitempty" ref:"mechanism" label:"Worked by" choose:"mechanisms"`
	Place int    `json:"place,omitempty" label:"At, % of travel"`
	Below bool   `json:"below,omitempty" label:"From there down"`
	// of what the controller knows by itself
	Every measure.Duration `json:"every,omitzero" label:"Every, or after"`
	State string           `json:"state,omitempty" max:"40" label:"In state"`
	Scene string           `json:"scene,omitempty" ref:"scene" label:"Scene" choose:"anyscene"`
}

// InputKinds are what an input may be; the last four are no contacts.
var InputKinds = []string{"button", "mat", "beam", "motion", "switch", "remote", "sound", "knob",
	"timer", "scene begins", "scene ends", "power"}

var inputKind = listed(kind{name: "input", most: 400, again: func(v any, c *copying) string {
	x := v.(*Input)
	x.ID = c.fresh("input", c.prop+"-"+x.Name)
	return x.ID
}}, func(p *Plan) *[]Input { return &p.doc.Inputs })

func (x *Input) Key() string    { return x.ID }
func (x *Input) Called() string { return x.Name }

// Wired is whether it is a contact on a pin, not what the controller knows by itself.
func (x *Input) Wired() bool {
	return slices.Index(InputKinds, x.Kind) < slices.Index(InputKinds, "timer")
}

// ByGuests is whether guests work it as they come by.
func (x *Input) ByGuests() bool {
	return x.Mover == "" && (x.Kind == "mat" || x.Kind == "beam" || x.Kind == "motion")
}

// Shows is whether a field means something for its kind.
func (x *Input) Shows(field string) bool {
	switch field {
	case "minPulse", "holdOff", "closed", "bounce", "pin":
		return x.Wired()
	case "hold", "warmUp":
		return x.Kind == "motion" || x.Kind == "sound"
	case "latency":
		return x.Kind == "remote" || x.Kind == "sound" || x.Kind == "motion"
	case "far":
		return x.ByGuests()
	case "mover":
		return x.Kind == "switch"
	case "place", "below":
		return x.Mover != ""
	case "every":
		return x.Kind == "timer"
	case "state":
		return x.Kind == "timer"
	case "scene":
		return strings.HasPrefix(x.Kind, "scene")
	}
	return true
}

func (x *Input) valid(c checks) error {
	if strings.HasPrefix(x.Kind, "scene") && x.Scene == "" {
		return measure.Bad("scene", "is empty; say which scene begins or ends")
	}
	if x.Kind == "timer" && x.Every.Value() < 0.02 {
		return measure.Bad("every", "is empty; write how long, such as 30 s")
	}
	if x.Place < 0 || x.Place > 100 {
		return measure.Bad("place", "%d %%; write 0 to 100", x.Place)
	}
	if x.Pin < 0 || x.Pin > 100 {
		return measure.Bad("pin", "%d; write 1 to 100", x.Pin)
	}
	return measure.First(
		measure.Named(x.Name),
		measure.OneOf("kind", x.Kind, InputKinds...),
		seconds("minPulse", x.MinPulse, 60),
		seconds("holdOff", x.HoldOff, 86400),
		seconds("bounce", x.Bounce, 1),
		seconds("hold", x.Hold, 3600),
		seconds("warmUp", x.WarmUp, 3600),
		seconds("latency", x.Latency, 60),
		seconds("every", x.Every, 86400),
		measure.Within("far", x.Far, 0, 1000*metre),
	)
}
