package plan

import (
	"slices"

	"zapbarn/core/measure"
	"zapbarn/core/show"
)

// Scene is a timeline of cues.
type Scene struct {
	ID     string           `json:"id"`
	Prop   string           `json:"prop" ref:"prop,needed"`
	Name   string           `json:"name" max:"80" label:"Name"`
	Length measure.Duration `json:"length,omitzero" label:"Length"`
	Cues   []Cue            `json:"cues" max:"500" label:"Cues" wide:"true"`
	// its cues were made up with it; the first that is said takes their place
	Made bool `json:"made,omitempty"`
}

var sceneKind = listed(kind{name: "scene", most: 400, again: func(v any, c *copying) string {
	x := v.(*Scene)
	x.ID = c.fresh("scene", c.prop+"-"+x.Name)
	return x.ID
}}, func(p *Plan) *[]Scene { return &p.doc.Scenes })

func (x *Scene) Key() string    { return x.ID }
func (x *Scene) Called() string { return x.Name }

func (x *Scene) valid(c checks) error {
	if len(x.Cues) > 500 {
		return measure.Bad("cues", "500 at most")
	}
	for _, q := range x.Cues {
		d := c.wires.Device(q.Channel)
		if d == nil || !d.Channel() {
			return measure.Bad("cues", "%s is not a driven switch; cues work switches that scenes drive", q.Channel)
		}
		if q.Length.Value() <= 0 {
			return measure.Bad("cues", "%s: write how long, such as 5 s", q.Channel)
		}
		if !slices.Contains(show.Shapes, show.Shape(q.Shape)) {
			return measure.Bad(
				"cues",
				"%s: %q is no shape; choose fade, ebb, pulse, flicker, blink or strobe",
				q.Channel,
				q.Shape,
			)
		}
		if q.Level < 0 || q.Level > 100 {
			return measure.Bad("cues", "%s: %d %% cannot be; write 1 to 100", q.Channel, q.Level)
		}
		if err := measure.First(seconds("cues", q.Start, 86400), seconds("cues", q.Length, 86400)); err != nil {
			return err
		}
	}
	return measure.First(measure.Named(x.Name), seconds("length", x.Length, 86400))
}

// Cue holds a driven switch on for a time, at a level that may go up and down.
type Cue struct {
	Channel string           `json:"channel" ref:"device"`
	Start   measure.Duration `json:"start"`
	Length  measure.Duration `json:"length"`
	Shape   string           `json:"shape,omitempty"` // how its level goes; steady when not given
	Level   int              `json:"level,omitempty"` // per cent at most; 100 when not given
}
