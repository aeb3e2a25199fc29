package plan

import "zapbarn/core/measure"

// Wall is what stands in the yard and hides what is behind it: a house wall, a screen, a
// fence, a hedge.
type Wall struct {
	ID    string         `json:"id"`
	Name  string         `json:"name" max:"80" label:"Name"`
	Kind  string         `json:"kind" label:"Is a" choose:"wall|screen|fence|hedge"`
	X     measure.Length `json:"x,omitzero" label:"From, right by"`
	Y     measure.Length `json:"y,omitzero" label:"from, down by"`
	ToX   measure.Length `json:"toX,omitzero" label:"To, right by"`
	ToY   measure.Length `json:"toY,omitzero" label:"to, down by"`
	High  measure.Length `json:"high,omitzero" label:"Height"` // 6 ft when not given
	Group string         `json:"group,omitempty" max:"40" label:"Group it moves with"`
	Fixed bool           `json:"fixed,omitempty" label:"Locked in place"`
}

// WallKinds are what a wall can be.
var WallKinds = []string{"wall", "screen", "fence", "hedge"}

var wallKind = listed(kind{name: "wall", most: 400}, func(p *Plan) *[]Wall { return &p.doc.Walls })

func (x *Wall) Key() string    { return x.ID }
func (x *Wall) Called() string { return x.Name }

func (x *Wall) valid(checks) error {
	if x.X.Value() == x.ToX.Value() && x.Y.Value() == x.ToY.Value() {
		return measure.Bad("toX", "it begins and ends at one place; write where it ends")
	}
	return measure.First(measure.Named(x.Name), measure.OneOf("kind", x.Kind, WallKinds...), inYard("x", x.X),
		inYard("y", x.Y), inYard("toX", x.ToX), inYard("toY", x.ToY), measure.Within("high", x.High, 100, 30*metre))
}
