package plan

import "zapbarn/core/measure"

// Viewpoint is where somebody stands to look: kept for the dark test.
type Viewpoint struct {
	ID    string         `json:"id"`
	Name  string         `json:"name" max:"80" label:"Name"`
	X     measure.Length `json:"x,omitzero" label:"Right by"`
	Y     measure.Length `json:"y,omitzero" label:"Down by"`
	Look  measure.Angle  `json:"look,omitzero" label:"Looks"` // clockwise from right, on the plan
	Eye   measure.Length `json:"eye,omitzero" label:"Eye at"` // 1.6 m, an adult, when not given
	Group string         `json:"group,omitempty" max:"40" label:"Group it moves with"`
	Fixed bool           `json:"fixed,omitempty" label:"Locked in place"`
}

var viewpointKind = listed(kind{name: "viewpoint", most: 100}, func(p *Plan) *[]Viewpoint { return &p.doc.Viewpoints })

func (x *Viewpoint) Key() string    { return x.ID }
func (x *Viewpoint) Called() string { return x.Name }

func (x *Viewpoint) valid(checks) error {
	if v := x.Look.Value(); v < -360 || v > 360 {
		return measure.Bad("look", "%s is out of range; write -360 to 360 degrees", x.Look)
	}
	return measure.First(measure.Named(x.Name), inYard("x", x.X), inYard("y", x.Y),
		measure.Within("eye", x.Eye, 300, 3*metre))
}
