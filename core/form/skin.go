package form

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/words"
)

// Skin is a sewn cover of cloth over a tube or a box.
type Skin struct {
	W    measure.Length `json:"w,omitzero" label:"Width of what it covers" grip:"across"`
	D    measure.Length `json:"d,omitzero" label:"Depth, if not round"`
	H    measure.Length `json:"h,omitzero" label:"Height" grip:"up"`
	Ease int            `json:"ease,omitempty" label:"Ease, %"`
	Seam measure.Length `json:"seamAllow,omitzero" label:"Seam allowance" scale:"no"`
	Hem  measure.Length `json:"hem,omitzero" label:"Hem" scale:"no"`
	Top  bool           `json:"top,omitempty" label:"Top sewn in"`
}

var _ = register(
	Kind{
		Name:    "skin",
		Title:   "Skin of cloth",
		Form:    "sheet",
		Stock:   "muslin",
		Flat:    true,
		Blank:   Skin{},
		Read:    readSkin,
		Example: "skin 18 in x 40 in muslin top",
		Press: Press{
			16,
			"cloth",
			"skin 18 in x 36 in muslin top",
			"skin 450 x 900 muslin top",
			"M9 4H21L26 24Q23 22 20.500 24Q18 22 15 24Q12 22 9.500 24Q7 22 4 24Z",
			"M12 8L10 20M15 8V20M18 8L20 20",
		},
	},
)

// Lay cuts the cloth; with nothing said, 3 % ease, half an inch of seam, an inch
// of hem: common practice, no source.
func (k Skin) Lay(on On) (*pattern.Shape, error) {
	if err := need("w", k.W, "h", k.H); err != nil {
		return nil, err
	}
	ease := .03
	if k.Ease > 0 {
		ease = float64(k.Ease) / 100
	}
	return laid(
		pattern.Skin{
			W:    k.W.Value(),
			D:    k.D.Value(),
			H:    k.H.Value(),
			T:    on.Thick(),
			Ease: ease,
			Seam: k.Seam.Or(measure.Inch / 2),
			Hem:  k.Hem.Or(measure.Inch),
			Top:  k.Top,
		},
		"width",
		"w",
		"depth",
		"d",
		"height",
		"h",
		"seam",
		"seamAllow",
	)
}

// Order sews the side first.
func (k Skin) Order(p Parts) []string {
	out := []string{"Sew the strip's two ends together, right sides in."}
	if p.Have["top"] {
		out = append(out, "Pin the top in at four points, then between them, and sew it in.")
	}
	return append(out, "Turn it, hem the foot, and pull it on from above; record its flame treatment.")
}

func readSkin(w *words.Words) (Form, string, error) {
	k := Skin{Top: w.Take("top"), Seam: w.After("seam"), Hem: w.After("hem")}
	w.Take("tall")
	dims := w.Sizes()
	if err := w.None(); err != nil {
		return nil, "", err
	}
	switch len(dims) {
	case 2:
		k.W, k.H = dims[0], dims[1]
		return k, fmt.Sprintf("skin of cloth round %s, %s tall", w.Say(k.W), w.Say(k.H)), nil
	case 3:
		k.W, k.D, k.H = dims[0], dims[1], dims[2]
		return k, fmt.Sprintf("skin of cloth over %s x %s, %s tall", w.Say(k.W), w.Say(k.D), w.Say(k.H)), nil
	}
	return nil, "", fmt.Errorf("a skin takes the width x height of a tube, or width x depth x height of a box")
}
