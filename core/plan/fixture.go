package plan

import (
	"zapbarn/core/measure"
	"zapbarn/core/wiring"
)

// Fixture is a light in the yard: one that guests are to see, a practical, or one that only
// lights the scene, fill.
type Fixture struct {
	ID     string         `json:"id"`
	Name   string         `json:"name" max:"80" label:"Name"`
	Prop   string         `json:"prop,omitempty" ref:"prop" label:"On" choose:"props"` // it moves with it
	Use    string         `json:"use" label:"Is" choose:"fill|practical"`
	X      measure.Length `json:"x,omitzero" label:"Right by"` // from its prop's middle, or from the plan's corner
	Y      measure.Length `json:"y,omitzero" label:"Down by"`
	High   measure.Length `json:"high,omitzero" label:"Up by"`
	Lumens int            `json:"lumens,omitempty" label:"Lumens"`
	Beam   measure.Angle  `json:"beam,omitzero" label:"Beam"` // the whole angle; all round when not given
	Aim    measure.Angle  `json:"aim,omitzero" label:"Aimed"` // clockwise from right, on the plan
	Tilt   measure.Angle  `json:"tilt,omitzero" label:"tilted down by"`
	Device string         `json:"device,omitempty" ref:"device" label:"Lit by" choose:"lamps"`
	Group  string         `json:"group,omitempty" max:"40" label:"Group it moves with"`
	Fixed  bool           `json:"fixed,omitempty" label:"Locked in place"`
}

var fixtureKind = listed(kind{name: "fixture", most: 2000, again: func(v any, c *copying) string {
	x := v.(*Fixture)
	if x.Prop == "" {
		return ""
	}
	x.ID = c.fresh("fixture", x.Name)
	return x.ID
}}, func(p *Plan) *[]Fixture { return &p.doc.Fixtures })

func (x *Fixture) Key() string    { return x.ID }
func (x *Fixture) Called() string { return x.Name }

func (x *Fixture) valid(c checks) error {
	if x.Lumens < 0 || x.Lumens > 1_000_000 {
		return measure.Bad("lumens", "%d is out of range; write such as 60", x.Lumens)
	}
	if b := x.Beam.Or(360); b < 1 || b > 360 {
		return measure.Bad("beam", "%s is no beam; write 1 to 360 degrees", x.Beam)
	}
	for _, f := range []struct {
		field string
		a     measure.Angle
	}{{"aim", x.Aim}, {"tilt", x.Tilt}} {
		if v := f.a.Value(); v < -360 || v > 360 {
			return measure.Bad(f.field, "%s is out of range; write -360 to 360 degrees", f.a)
		}
	}
	if d := c.wires.Device(x.Device); x.Device != "" && (d == nil || !d.Is(wiring.Load)) {
		return measure.Bad("device", "%s is no lamp", x.Device)
	}
	return measure.First(measure.Named(x.Name), measure.OneOf("use", x.Use, "fill", "practical"), inYard("x", x.X),
		inYard("y", x.Y), measure.Within("high", x.High, 0, 30*metre))
}
