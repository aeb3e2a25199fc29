package form

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/words"
)

// Modelled is a rounded body built up by hand over an armature.
type Modelled struct {
	W    measure.Length `json:"w,omitzero" label:"Width" grip:"across"`
	D    measure.Length `json:"d,omitzero" label:"Depth"`
	H    measure.Length `json:"h,omitzero" label:"Height" grip:"up"`
	Skin measure.Length `json:"skin,omitzero" label:"Thickness over armature" scale:"no"`
}

var _ = register(
	Kind{
		Name:    "modelled",
		Title:   "Modelled body",
		Form:    "modelled",
		Stock:   "lightclay",
		Piles:   true,
		Flat:    true,
		Blank:   Modelled{},
		Read:    readModelled,
		Example: "modelled 8 x 9 x 11 skin 3/8 lightclay",
		Press: Press{
			17,
			"clay",
			"modelled 8 x 9 x 11 in skin 1/2 in lightclay",
			"modelled 200 x 230 x 280 skin 12 lightclay",
			"M6 14Q4 4 15 3Q27 4 25 15Q24 24 15 24Q7 24 6 14Z",
			"M10 12q2 -2 4 0M17 12q2 -2 4 0M12 18q3 2 6 0",
		},
	},
)

// Lay reckons what it takes.
func (m Modelled) Lay(on On) (*pattern.Shape, error) {
	if err := need("w", m.W, "d", m.D, "h", m.H); err != nil {
		return nil, err
	}
	return laid(
		pattern.Modelled{
			W:       m.W.Value(),
			D:       m.D.Value(),
			H:       m.H.Value(),
			Skin:    m.Skin.Value(),
			Density: on.Stock.Density,
			Unit:    on.Stock.Unit,
		},
		"width",
		"w",
		"depth",
		"d",
		"height",
		"h",
	)
}

// Order is armature first, thin layers after.
func (m Modelled) Order(Parts) []string {
	return []string{
		"Armature first, a skin smaller all round, with something for the first layer to hold to.",
		"Layers no thicker than it dries through; the next when the last is firm.",
		"Sand and seal when it is dry to the core.",
	}
}

func readModelled(w *words.Words) (Form, string, error) {
	m := Modelled{Skin: w.After("skin")}
	dims, err := w.Exactly(3, "a modelled body takes width x depth x height")
	if err != nil {
		return nil, "", err
	}
	m.W, m.D, m.H = dims[0], dims[1], dims[2]
	text := fmt.Sprintf("modelled body, %s x %s, %s tall", w.Say(m.W), w.Say(m.D), w.Say(m.H))
	if m.Skin.IsZero() {
		return m, text + ", solid", nil
	}
	return m, text + ", " + w.Say(m.Skin) + " over an armature", nil
}
