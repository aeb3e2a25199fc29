package plan

import "zapbarn/core/measure"

// Sketch is a drawing or a photo of the yard from above that the plan is laid over, scaled by
// one known dimension: how wide it is.
type Sketch struct {
	ID     string         `json:"id"`
	Name   string         `json:"name" max:"80" label:"Name"`
	Photo  string         `json:"photo" ref:"photo,needed"`
	Wide   int            `json:"wide"` // pixels
	Tall   int            `json:"tall"`
	Across measure.Length `json:"across,omitzero" label:"It is across"` // its left edge to its right, in the yard
	X      measure.Length `json:"x,omitzero" label:"Its corner, right by"`
	Y      measure.Length `json:"y,omitzero" label:"and down by"`
	Hidden bool           `json:"hidden,omitempty" label:"Not shown"`
}

var sketchKind = listed(kind{name: "sketch", most: 20}, func(p *Plan) *[]Sketch { return &p.doc.Sketches })

func (x *Sketch) Key() string    { return x.ID }
func (x *Sketch) Called() string { return x.Name }

func (x *Sketch) valid(checks) error {
	if x.Wide < 1 || x.Tall < 1 || x.Wide > 10_000 || x.Tall > 10_000 {
		return measure.Bad("wide", "%d x %d pixels cannot be", x.Wide, x.Tall)
	}
	return measure.First(measure.Named(x.Name), measure.Within("across", x.Across, 500, yardMost), inYard("x", x.X),
		inYard("y", x.Y))
}
