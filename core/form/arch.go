package form

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/words"
)

// Arch is a roof or vault bent of one sheet.
type Arch struct {
	W    measure.Length `json:"w,omitzero" label:"Span" grip:"across-low"`
	D    measure.Length `json:"d,omitzero" label:"Depth"`
	H    measure.Length `json:"h,omitzero" label:"Rise" grip:"up"`
	Skin measure.Length `json:"skin,omitzero" label:"Kerf leaves" scale:"no"`
	Ends bool           `json:"ends,omitempty" label:"End plates"`
}

var _ = register(
	Kind{
		Name:    "arch",
		Title:   "Arched roof",
		Form:    "sheet",
		Stock:   "ply1/8",
		Piles:   true,
		Splits:  true,
		Blank:   Arch{},
		Read:    readArch,
		Example: "arch 48 wide 14 rise 30 deep ply1/8 ends",
		Press: Press{
			4,
			"arch",
			"arch 36 in wide 10 in rise 20 in deep ply1/8 ends",
			"arch 900 mm wide 250 mm rise 500 mm deep ply1/8 ends",
			"M3 23Q4 9 11 8L20 3Q26 6 27 17L19 23Q18 10 11 8Q4 9 3 23Z",
			"M3 23H19",
		},
	},
)

// Lay lays out the sheet and its ends.
func (a Arch) Lay(on On) (*pattern.Shape, error) {
	if err := need("w", a.W, "d", a.D, "h", a.H); err != nil {
		return nil, err
	}
	p := pattern.Arch{Span: a.W.Value(), Rise: a.H.Value(), Deep: a.D.Value(), T: on.Thick(), Ends: a.Ends}
	if !a.Skin.IsZero() {
		p.Kerf, p.Skin = measure.Inch/8, a.Skin.Value()
	}
	return laid(p, "span", "w", "rise", "h", "depth", "d")
}

// Order bends the sheet over the ends.
func (a Arch) Order(p Parts) []string {
	if p.Have["end"] {
		return []string{
			"Stand both ends and tie them with a batten until the sheet is on.",
			"Bend the sheet over them from the crown to both feet; glue along each end as you go.",
			"Straps over it until it holds.",
		}
	}
	return []string{
		"Bend the sheet over a form of the same rise and strap it down.",
		"Fix both feet before the straps come off: it wants to be flat again.",
	}
}

// Bends is all along; kerfed inside, only the skin bends.
func (a Arch) Bends(t float64) (radius, bends float64, ok bool) {
	if a.W.IsZero() || a.H.IsZero() {
		return 0, 0, false
	}
	r := pattern.Arch{Span: a.W.Value(), Rise: a.H.Value()}.Radius()
	if skin := a.Skin.Value(); skin > 0 {
		return r - skin, skin, true
	}
	return r - t, t, true
}

func readArch(w *words.Words) (Form, string, error) {
	a := Arch{
		Ends: w.Take("ends"),
		H:    w.Before("rise", "tall", "high"),
		D:    w.Before("deep", "long"),
		W:    w.Before("wide", "span"),
		Skin: w.After("skin"),
	}
	dims := w.Sizes()
	if err := w.None(); err != nil {
		return nil, "", err
	}
	for _, field := range []*measure.Length{&a.W, &a.D, &a.H} { // what was not said by its word, in order
		if field.IsZero() && len(dims) > 0 {
			*field, dims = dims[0], dims[1:]
		}
	}
	if a.W.IsZero() || a.D.IsZero() || a.H.IsZero() || len(dims) > 0 {
		return nil, "", fmt.Errorf("an arch takes a span said with wide, a depth said with deep, and a rise")
	}
	text := fmt.Sprintf("arch, %s wide, %s deep, rising %s", w.Say(a.W), w.Say(a.D), w.Say(a.H))
	if a.Ends {
		text += ", with end plates"
	}
	return a, text, nil
}

// Free is true: nothing covers its faces or its edges.
func (Arch) Free() bool { return true }
