package plan

import (
	"zapbarn/core/measure"
	"zapbarn/core/photo"
)

// Picture is a reference picture of a prop and how it is measured: by one known
// line from A to B, or squared up by the corners of a known rectangle.
type Picture struct {
	ID      string         `json:"id"`
	Prop    string         `json:"prop" ref:"prop,needed"`
	Photo   string         `json:"photo" ref:"photo,needed"`
	Name    string         `json:"name" max:"80" label:"Name"`
	Wide    int            `json:"wide"` // pixels
	Tall    int            `json:"tall"`
	Known   measure.Length `json:"known,omitzero" label:"A to B is"` // from A to B
	Upright bool           `json:"upright,omitempty" label:"A to B stands upright"`
	A       Spot           `json:"a"`
	B       Spot           `json:"b"`
	// lower left, lower right, upper right, upper left
	Corners []Spot         `json:"corners,omitempty" max:"4"`
	SqW     measure.Length `json:"sqw,omitzero" label:"Rectangle, wide"` // of that rectangle
	SqH     measure.Length `json:"sqh,omitzero" label:"Rectangle, high"`
	// where the prop's middle stands, from the plane's origin
	X measure.Length `json:"x,omitzero" label:"Prop, right by"`
	Z measure.Length `json:"z,omitzero" label:"Prop, up by"`
}

var pictureKind = listed(kind{name: "picture", most: 400}, func(p *Plan) *[]Picture { return &p.doc.Pictures })

func (x *Picture) Key() string    { return x.ID }
func (x *Picture) Called() string { return x.Name }

func (x *Picture) valid(c checks) error {
	if x.Wide < 1 || x.Tall < 1 || x.Wide > 10_000 || x.Tall > 10_000 {
		return measure.Bad("wide", "%d x %d pixels cannot be", x.Wide, x.Tall)
	}
	if n := len(x.Corners); n != 0 && n != 4 {
		return measure.Bad("corners", "are %d; a rectangle has four", n)
	}
	for _, s := range append([]Spot{x.A, x.B}, x.Corners...) {
		if s.X < -10_000 || s.Y < -10_000 || s.X > 20_000 || s.Y > 20_000 {
			return measure.Bad("corners", "lie far outside the picture")
		}
	}
	return measure.First(
		measure.Named(x.Name),
		measure.Within("known", x.Known, 1, 100*metre),
		measure.Within("sqw", x.SqW, 1, 100*metre),
		measure.Within("sqh", x.SqH, 1, 100*metre),
		measure.Within("x", x.X, -100*metre, 100*metre),
		measure.Within("z", x.Z, -100*metre, 100*metre),
	)
}

// Spot is a place in a picture, in pixels from its upper left.
type Spot struct {
	X int `json:"x"`
	Y int `json:"y"`
}

// Shows is whether a field counts for how the picture is measured: by a known
// line, or by a rectangle's corners.
func (x *Picture) Shows(field string) bool {
	switch field {
	case "known", "upright":
		return len(x.Corners) != 4
	case "sqw", "sqh":
		return len(x.Corners) == 4
	}
	return true
}

// Plane is how the picture measures; the error says what is still missing.
func (x *Picture) Plane() (photo.Plane, error) {
	spot := func(s Spot) photo.Spot { return photo.Spot{X: float64(s.X), Y: float64(s.Y)} }
	if len(x.Corners) == 4 {
		return photo.BySquare(
			[4]photo.Spot{spot(x.Corners[0]), spot(x.Corners[1]), spot(x.Corners[2]), spot(x.Corners[3])},
			x.SqW.Value(),
			x.SqH.Value(),
		)
	}
	return photo.ByLine(spot(x.A), spot(x.B), x.Known.Value(), x.Upright)
}
