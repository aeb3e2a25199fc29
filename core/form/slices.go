package form

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/words"
)

// Slices is a round body in layers of the stock's thickness.
type Slices struct {
	W       measure.Length `json:"w,omitzero" label:"Widest" grip:"across"`
	H       measure.Length `json:"h,omitzero" label:"Height" grip:"up"`
	Wall    measure.Length `json:"wall,omitzero" label:"Wall" scale:"no"`
	Profile string         `json:"profile,omitempty" max:"4000" label:"Profile"` // a name, or radius,height points
	Allow   measure.Length `json:"allow,omitzero" label:"Carve allowance" scale:"no"`
	Dowels  int            `json:"dowels,omitempty" label:"Dowels"`
	Dowel   measure.Length `json:"dowel,omitzero" label:"Dowel, thick" scale:"no"`
}

var _ = register(
	Kind{
		Name:    "slices",
		Title:   "Slices",
		Form:    "sheet",
		Stock:   "xps2",
		Piles:   true,
		Splits:  true,
		Layered: true,
		Blank:   Slices{Profile: "dome"},
		Read:    readSlices,
		Example: "slices 46 x 54 dome wall 3 xps2",
		Press: Press{
			10,
			"hive",
			"slices 24 x 24 dome wall 3 xps2",
			"slices 600 x 600 dome wall 75 xps2",
			"M4 24V17Q5 4 15 3Q25 4 26 17V24Z",
			"M4 19H26M5 14H25M7 9H23",
		},
	},
)

// Lay lays out the layers.
func (s Slices) Lay(on On) (*pattern.Shape, error) {
	p, err := profiled(s.Profile, s.W, s.H)
	if err != nil {
		return nil, err
	}
	return laid(
		pattern.Slices{
			Profile: p,
			T:       on.Thick(),
			Wall:    s.Wall.Value(),
			Allow:   s.Allow.Value(),
			Dowels:  s.Dowels,
			Dowel:   s.Dowel.Or(measure.Inch / 2),
		},
		"width",
		"w",
		"height",
		"h",
	)
}

// Order is from slice 1 upwards.
func (s Slices) Order(p Parts) []string { return stacked(p) }

func stacked(p Parts) []string {
	return []string{
		fmt.Sprintf("Glue the %d slices from 1 upwards, pins and middle marks over each other.", p.N),
		"Weigh it down and wait, then carve; what was left for carving only goes away.",
	}
}

// Lies is true: each slice is drawn from above.
func (s Slices) Lies() bool { return true }

func (s Slices) stretched(_ func(measure.Length) measure.Length, f float64) Form {
	s.Profile = scaledPoints(s.Profile, f)
	return s
}

func readSlices(w *words.Words) (Form, string, error) {
	s := Slices{Wall: w.After("wall"), Profile: profileWord(w, "dome")}
	dims, err := w.Exactly(2, "slices take the widest place x the height")
	if err != nil {
		return nil, "", err
	}
	s.W, s.H = dims[0], dims[1]
	return s, fmt.Sprintf("%s in slices, %s across, %s tall", s.Profile, w.Say(s.W), w.Say(s.H)), nil
}
