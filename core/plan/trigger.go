package plan

import "zapbarn/core/measure"

// Trigger ties an input to a scene.
type Trigger struct {
	ID    string `json:"id"`
	Input string `json:"input" label:"Input" choose:"inputs" ref:"input,needed"`
	Scene string `json:"scene" label:"Scene" choose:"scenes" ref:"scene,needed"`
	// how presses start and stop it
	Latch string           `json:"latch" label:"How" choose:"one-shot|retrigger|momentary|toggle|set|reset"`
	Rest  measure.Duration `json:"rest,omitzero" label:"Rest after"`
	While string           `json:"while,omitempty" max:"40" label:"Only in state"`
	Then  string           `json:"then,omitempty" max:"40" label:"Then in state"`
}

var triggerKind = listed(kind{name: "trigger", most: 1000, again: func(v any, c *copying) string {
	x := v.(*Trigger)
	input, scene := c.to("input", x.Input), c.to("scene", x.Scene)
	if input == x.Input || scene == x.Scene {
		return "" // its scene is another prop's
	}
	x.ID = c.fresh("trigger", input+"-"+scene)
	return x.ID
}}, func(p *Plan) *[]Trigger { return &p.doc.Triggers })

func (x *Trigger) Key() string    { return x.ID }
func (x *Trigger) Called() string { return x.Input + " to " + x.Scene }

func (x *Trigger) valid(c checks) error {
	return measure.First(
		measure.OneOf("latch", x.Latch, "one-shot", "retrigger", "momentary", "toggle", "set", "reset"),
		seconds("rest", x.Rest, 86400),
	)
}
