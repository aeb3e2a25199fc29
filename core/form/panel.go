package form

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/words"
)

// Panel is a flat rectangle, upright or lying.
type Panel struct {
	W      measure.Length `json:"w,omitzero" label:"Width" grip:"across"`
	H      measure.Length `json:"h,omitzero" label:"Height" grip:"up"`
	Copies int            `json:"copies,omitempty" label:"Copies"`
	Lying  bool           `json:"lying,omitempty" label:"Lying flat"`
	Pitch  measure.Length `json:"pitch,omitzero" label:"Pitch"`
}

var _ = register(
	Kind{
		Name:    "panel",
		Title:   "Panel",
		Form:    "sheet",
		Stock:   "ply1/4",
		Splits:  true,
		Flat:    true,
		Blank:   Panel{},
		Read:    readPanel,
		Example: "panel 36 x 10 ply1/4 x3",
		Press:   Press{12, "panel", "panel 24 x 36 ply1/4", "panel 600 x 900 ply1/4", "M7 3H23V24H7Z", ""},
	},
)

// Lay lays out the panel.
func (p Panel) Lay(on On) (*pattern.Shape, error) {
	if err := need("w", p.W, "h", p.H); err != nil {
		return nil, err
	}
	return laid(
		pattern.Flat{
			W:      p.W.Value(),
			H:      p.H.Value(),
			T:      on.Thick(),
			Copies: max(1, p.Copies),
			Lying:  p.Lying,
			Pitch:  p.Pitch.Value(),
		},
		"width",
		"w",
		"height",
		"h",
	)
}

// Order of a single plate.
func (p Panel) Order(Parts) []string { return plate() }

// Lies is true when it lies flat.
func (p Panel) Lies() bool { return p.Lying }

// Raised is true of one that stands.
func (p Panel) Raised() bool { return !p.Lying }

func readPanel(w *words.Words) (Form, string, error) {
	p := Panel{Pitch: w.After("pitch"), Copies: w.Copies(), Lying: w.Take("lying", "flat")}
	dims, err := w.Exactly(2, "a panel takes width x height")
	if err != nil {
		return nil, "", err
	}
	p.W, p.H = dims[0], dims[1]
	return p, fmt.Sprintf("%s, %s x %s", words.Count(max(1, p.Copies), "panel"), w.Say(p.W), w.Say(p.H)), nil
}

// Free is true: nothing covers its faces or its edges.
func (Panel) Free() bool { return true }
