package form

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/words"
)

// Trim is banding: strips that wrap the four edges of a rectangle, mitred or
// butted, one over another.
type Trim struct {
	W      measure.Length `json:"w,omitzero" label:"Round a width of" grip:"across"`
	D      measure.Length `json:"d,omitzero" label:"and a depth of"`
	H      measure.Length `json:"h,omitzero" label:"Strip, wide" scale:"no"`
	Copies int            `json:"copies,omitempty" label:"Bands"`
	Pitch  measure.Length `json:"pitch,omitzero" label:"Pitch"`
	Mitred bool           `json:"mitred,omitempty" label:"Mitred corners"`
}

var _ = register(
	Kind{
		Name:    "trim",
		Title:   "Banding",
		Form:    "sheet",
		Stock:   "eva5",
		Blank:   Trim{},
		Read:    readTrim,
		Example: "trim 22 x 18 strip 2 in eva5 x3",
		Press: Press{
			19,
			"bands",
			"trim 22 x 18 in strip 2 in eva5",
			"trim 550 x 450 strip 50 eva5",
			"M3 10L15 5L27 10V15L15 20L3 15Z",
			"M3 10L15 15L27 10M15 15V20",
		},
	},
)

// Lay lays out the strips: long ones over the width, short ones over the depth.
func (x Trim) Lay(on On) (*pattern.Shape, error) {
	if err := need("w", x.W, "d", x.D, "h", x.H); err != nil {
		return nil, err
	}
	return laid(
		pattern.Band{
			W:      x.W.Value(),
			D:      x.D.Value(),
			H:      x.H.Value(),
			T:      on.Thick(),
			Mitred: x.Mitred,
			Copies: max(1, x.Copies),
			Pitch:  x.Pitch.Value(),
		},
		"width",
		"w",
		"depth",
		"d",
		"height",
		"h",
	)
}

// Order is front and back first.
func (x Trim) Order(Parts) []string {
	return []string{
		"Front and back strips first, flush with the corners; the sides between or over them.",
		"Seams where nobody looks; weigh or tape them until the glue holds.",
	}
}

func readTrim(w *words.Words) (Form, string, error) {
	x := Trim{Copies: w.Copies(), Mitred: w.Take("mitred", "mitre"), H: w.After("strip"), Pitch: w.After("pitch")}
	dims, err := w.Exactly(2, "banding takes the width x depth it goes round, and strip with its width")
	if err != nil {
		return nil, "", err
	}
	if x.W, x.D = dims[0], dims[1]; x.H.IsZero() {
		x.H = measure.Len("2 in")
	}
	return x, fmt.Sprintf("%d bands round %s x %s, %s wide", max(1, x.Copies), w.Say(x.W), w.Say(x.D), w.Say(x.H)), nil
}

// Scales is rows of scales over a face, each row half a scale over.
type Scales struct {
	W    measure.Length `json:"w,omitzero" label:"Face, wide" grip:"across"`
	H    measure.Length `json:"h,omitzero" label:"Face, high" grip:"up"`
	Wide measure.Length `json:"wide,omitzero" label:"Scale, wide" scale:"no"`
	Tall measure.Length `json:"tall,omitzero" label:"Scale, tall" scale:"no"`
	Show measure.Length `json:"show,omitzero" label:"Showing" scale:"no"`
}

var _ = register(
	Kind{
		Name:    "scales",
		Title:   "Rows of scales",
		Form:    "sheet",
		Stock:   "eva2",
		Flat:    true,
		Blank:   Scales{},
		Read:    readScales,
		Example: "scales 24 x 36 in wide 3 tall 4 show 2 1/2 eva2",
		Press: Press{
			20,
			"scales",
			"scales 24 x 24 in wide 3 in tall 4 in eva2",
			"scales 600 x 600 wide 75 tall 100 eva2",
			"M3 4H27V9a4 4 0 0 1 -8 0a4 4 0 0 1 -8 0a4 4 0 0 1 -8 0Z",
			"M7 13v2a4 4 0 0 0 8 0v-2M15 15a4 4 0 0 0 8 0v-2M3 19v1a4 4 0 0 0 8 0a4 4 0 0 0 8 0a4 4 0 0 0 8 0v-1",
		},
	},
)

// Lay lays out one scale of each, and stands the rows.
func (x Scales) Lay(on On) (*pattern.Shape, error) {
	if err := need("w", x.W, "h", x.H, "wide", x.Wide, "tall", x.Tall); err != nil {
		return nil, err
	}
	return laid(
		pattern.Scaling{
			W:    x.W.Value(),
			H:    x.H.Value(),
			Wide: x.Wide.Value(),
			Tall: x.Tall.Value(),
			Show: x.Show.Or(math.Max(x.Tall.Value()*2/3, 1)),
			T:    on.Thick(),
		},
		"w",
		"w",
		"h",
		"h",
	)
}

// Order is from the bottom row up.
func (x Scales) Order(p Parts) []string {
	return []string{
		fmt.Sprintf("Cut the %d scales in stacks, edges together.", p.N),
		"Snap a line for each row; glue from the bottom row up, every second row half a scale over.",
	}
}

func readScales(w *words.Words) (Form, string, error) {
	x := Scales{Wide: w.After("wide"), Tall: w.After("tall"), Show: w.After("show", "showing")}
	dims, err := w.Exactly(2, "scales take the width x height of the face, wide and tall of one")
	if err != nil {
		return nil, "", err
	}
	if x.Wide.IsZero() || x.Tall.IsZero() {
		return nil, "", fmt.Errorf("say how wide and how tall one scale is")
	}
	x.W, x.H = dims[0], dims[1]
	return x, fmt.Sprintf("scales of %s x %s over %s x %s", w.Say(x.Wide), w.Say(x.Tall), w.Say(x.W), w.Say(x.H)), nil
}

// Free is true: nothing covers its faces or its edges.
func (Trim) Free() bool { return true }
