package form

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/words"
)

// Wrap is a tube rolled of one sheet, kerfed on its inside or not.
type Wrap struct {
	W     measure.Length `json:"w,omitzero" label:"Across" grip:"across"`
	H     measure.Length `json:"h,omitzero" label:"Height" grip:"up"`
	Allow measure.Length `json:"allow,omitzero" label:"Seam overlap" scale:"no"`
	Skin  measure.Length `json:"skin,omitzero" label:"Kerf leaves" scale:"no"`
}

var _ = register(
	Kind{
		Name:    "wrap",
		Title:   "Tube by wrap",
		Form:    "sheet",
		Stock:   "eva5",
		Piles:   true,
		Splits:  true,
		Blank:   Wrap{},
		Read:    readWrap,
		Example: "wrap 12 in x 30 in eva5",
		Press: Press{
			11,
			"tube",
			"wrap 10 in x 24 in eva5roll",
			"wrap 250 x 600 eva5roll",
			"M8 21V6a7 3 0 0 1 14 0V21a7 3 0 0 1 -14 0Z",
			"M8 6a7 3 0 0 0 14 0",
		},
	},
)

// Lay lays out the sheet.
func (x Wrap) Lay(on On) (*pattern.Shape, error) {
	if err := need("w", x.W, "h", x.H); err != nil {
		return nil, err
	}
	p := pattern.Wrap{D: x.W.Value(), H: x.H.Value(), T: on.Thick(), Overlap: x.Allow.Value()}
	if !x.Skin.IsZero() {
		p.Kerf, p.Skin = measure.Inch/8, x.Skin.Value()
	}
	return laid(p, "diameter", "w", "height", "h", "allowance", "allow", "kerf", "skin")
}

// Order closes the seam from the middle.
func (x Wrap) Order(Parts) []string { return rolled() }

// Bends is all round; kerfed inside, only the skin bends.
func (x Wrap) Bends(t float64) (radius, bends float64, ok bool) {
	if skin := x.Skin.Value(); skin > 0 {
		return x.W.Value()/2 - skin, skin, true
	}
	return x.W.Value()/2 - t, t, true
}

func readWrap(w *words.Words) (Form, string, error) {
	x := Wrap{Skin: w.After("skin")}
	dims, err := w.Exactly(2, "a wrap takes the tube's width x its height")
	if err != nil {
		return nil, "", err
	}
	x.W, x.H = dims[0], dims[1]
	return x, fmt.Sprintf("tube by wrap, %s across, %s tall", w.Say(x.W), w.Say(x.H)), nil
}
