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

var _ = register(Kind{Name: "modelled", Title: "Modelled body", Form: "modelled", Stock: "foamclay", Piles: true, Flat: true, Blank: Modelled{}, Read: readModelled, Example: "modelled 8 x 9 x 11 skin 3/8 foamclay"})

// Lay reckons what it takes.
func (m Modelled) Lay(on On) (*pattern.Shape, error) {
	if err := need("w", m.W, "d", m.D, "h", m.H); err != nil {
		return nil, err
	}
	return laid(pattern.Modelled{W: m.W.Value(), D: m.D.Value(), H: m.H.Value(), Skin: m.Skin.Value(), Density: on.Stock.Density, Unit: on.Stock.Unit}, "width", "w", "depth", "d", "height", "h")
}

// Order is armature first, thin layers after.
func (m Modelled) Order(Parts) []string {
	return []string{"Armature first, a skin smaller all round, with something for the first layer to hold to.", "Layers no thicker than it dries through; the next when the last is firm.", "Sand and seal when it is dry to the core."}
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
