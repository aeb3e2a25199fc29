package plan

import "zapbarn/core/measure"

// Input is what a guest or the crew works.
type Input struct {
	ID       string           `json:"id"`
	Prop     string           `json:"prop" ref:"prop,needed"`
	Name     string           `json:"name" max:"80" label:"Name"`
	Kind     string           `json:"kind" label:"Kind" choose:"button|mat|beam|switch"` // button, mat, beam or switch
	Closed   bool             `json:"closed,omitempty" label:"Normally closed"`
	MinPulse measure.Duration `json:"minPulse,omitzero" label:"Least pulse"`
	HoldOff  measure.Duration `json:"holdOff,omitzero" label:"Hold-off"`
}

var inputKind = listed(kind{name: "input", most: 400, again: func(v any, c *copying) string {
	x := v.(*Input)
	x.ID = c.fresh("input", c.prop+"-"+x.Name)
	return x.ID
}}, func(p *Plan) *[]Input { return &p.Inputs })

func (x *Input) Key() string    { return x.ID }
func (x *Input) Called() string { return x.Name }

func (x *Input) valid(c checks) error {
	return measure.First(
		measure.Named(x.Name),
		measure.OneOf("kind", x.Kind, "button", "mat", "beam", "switch"),
		seconds("minPulse", x.MinPulse, 60),
		seconds("holdOff", x.HoldOff, 86400),
	)
}
