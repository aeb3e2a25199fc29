package form

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/words"
)

// Wheel is a disc with teeth, spokes and holes on a circle: a gear, a
// cartwheel, a flange.
type Wheel struct {
	W          measure.Length `json:"w,omitzero" label:"Across" grip:"across"`
	Bore       measure.Length `json:"bore,omitzero" label:"Hole in the middle"`
	Copies     int            `json:"copies,omitempty" label:"Copies"`
	Lying      bool           `json:"lying,omitempty" label:"Lying flat"`
	Pitch      measure.Length `json:"pitch,omitzero" label:"Pitch"`
	Teeth      int            `json:"teeth,omitempty" label:"Teeth"`
	Depth      measure.Length `json:"depth,omitzero" label:"Teeth, deep"`
	Spokes     int            `json:"spokes,omitempty" label:"Spokes"`
	Spoke      measure.Length `json:"spoke,omitzero" label:"Spokes, wide"`
	Rim        measure.Length `json:"rim,omitzero" label:"Rim, wide"`
	Hub        measure.Length `json:"hub,omitzero" label:"Hub, across"`
	Holes      int            `json:"holes,omitempty" label:"Holes"`
	HoleD      measure.Length `json:"holeD,omitzero" label:"Holes, across"`
	HoleCircle measure.Length `json:"holeCircle,omitzero" label:"On a circle of"`
}

var _ = register(
	Kind{
		Name:    "wheel",
		Title:   "Gear or wheel",
		Form:    "sheet",
		Stock:   "ply1/4",
		Splits:  true,
		Flat:    true,
		Blank:   Wheel{},
		Read:    readWheel,
		Example: "wheel 30 in 12 teeth 2 in deep 6 spokes ply1/4 bore 1",
		Press: Press{
			6,
			"gear",
			"wheel 24 in 12 teeth 5 spokes ply1/4 bore 1 in",
			"wheel 600 12 teeth 5 spokes ply1/4 bore 25 mm",
			"M13 2H17L18 5L22 4L24 7L22 10L26 12V15L22 17L24 20L22 23L18 22L17 25H13L12 22L8 23L6 20L8 17L4 15V12L8 10L6 7L8 " +
				"4L12 5Z",
			"M11.500 13.500a3.500 3.500 0 1 0 7 0a3.500 3.500 0 1 0 -7 0",
		},
	},
)

// Lay lays out the wheel. Spokes with no sizes get a twelfth of the wheel for
// their width and the rim, and a quarter for the hub.
func (x Wheel) Lay(on On) (*pattern.Shape, error) {
	if err := need("w", x.W); err != nil {
		return nil, err
	}
	d := x.W.Value()
	rings, err := pattern.Wheel{
		D:          d,
		Bore:       x.Bore.Value(),
		Teeth:      x.Teeth,
		Depth:      x.Depth.Or(d / 15),
		Spokes:     x.Spokes,
		Spoke:      x.Spoke.Or(d / 12),
		Rim:        x.Rim.Or(d / 12),
		Hub:        x.Hub.Or(max(d/4, x.Bore.Value()+d/8)),
		Holes:      x.Holes,
		HoleD:      x.HoleD.Or(d / 20),
		HoleCircle: x.HoleCircle.Or(d * 2 / 3),
	}.Rings()
	if err != nil {
		return nil, named(err, "diameter", "w")
	}
	left, right := math.Inf(1), math.Inf(-1) // odd teeth are not as wide as they are round
	for _, q := range rings[0] {
		left, right = math.Min(left, q.X), math.Max(right, q.X)
	}
	return laid(
		pattern.Outline{
			Rings:  rings,
			W:      right - left,
			T:      on.Thick(),
			Copies: max(1, x.Copies),
			Lying:  x.Lying,
			Pitch:  x.Pitch.Value(),
		},
		"width",
		"w",
		"height",
		"w",
	)
}

// Order cuts from the inside out.
func (x Wheel) Order(Parts) []string {
	return []string{
		"Strike all circles from one centre, and step the teeth and spokes off with dividers.",
		"Holes and windows first, the edge last, while it can still be clamped.",
	}
}

// Lies is true when it lies flat.
func (x Wheel) Lies() bool { return x.Lying }

// Raised is false: it is as wide as it is high.
func (x Wheel) Raised() bool { return false }

func readWheel(w *words.Words) (Form, string, error) {
	x := Wheel{
		Pitch:      w.After("pitch"),
		Copies:     w.Copies(),
		Lying:      w.Take("lying", "flat"),
		Bore:       w.After("bore"),
		Depth:      w.Before("deep"),
		Rim:        w.After("rim"),
		Hub:        w.After("hub"),
		HoleCircle: w.After("circle"),
	}
	var err error
	if x.Teeth, err = w.Count(0, "teeth"); err != nil {
		return nil, "", err
	}
	if x.Spokes, err = w.Count(0, "spokes"); err != nil {
		return nil, "", err
	}
	if x.Holes, err = w.Count(0, "holes"); err != nil {
		return nil, "", err
	}
	dims, err := w.Exactly(1, "a wheel takes one diameter")
	if err != nil {
		return nil, "", err
	}
	x.W = dims[0]
	text := words.Count(max(1, x.Copies), "wheel") + ", " + w.Say(x.W) + " across"
	for _, k := range []struct {
		n    int
		name string
	}{{x.Teeth, "teeth"}, {x.Spokes, "spokes"}, {x.Holes, "holes"}} {
		if k.n > 0 {
			text += fmt.Sprintf(", %d %s", k.n, k.name)
		}
	}
	return x, text, nil
}

// Free is true: nothing covers its faces or its edges.
func (Wheel) Free() bool { return true }
