package form

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/words"
)

// Pyramid is a rectangular frustum, or a pyramid to a point.
type Pyramid struct {
	W    measure.Length `json:"w,omitzero" label:"Width" grip:"across-low"`
	D    measure.Length `json:"d,omitzero" label:"Depth"`
	H    measure.Length `json:"h,omitzero" label:"Height" grip:"up"`
	TopW measure.Length `json:"topW,omitzero" label:"Top, wide" grip:"across-top"`
	TopD measure.Length `json:"topD,omitzero" label:"Top, deep"`
}

var _ = register(
	Kind{
		Name:    "pyramid",
		Title:   "Pyramid or hopper",
		Form:    "sheet",
		Stock:   "xps1",
		Piles:   true,
		Splits:  true,
		Blank:   Pyramid{},
		Read:    readPyramid,
		Example: "pyramid 24 x 18 to 8 x 6 30 tall xps1",
		Press: Press{
			3,
			"hopper",
			"pyramid 24 x 18 to 10 x 8 20 in tall xps1",
			"pyramid 600 x 450 to 250 x 200 500 mm tall xps1",
			"M4 5L14 9L26 4L19 22L14 24L10 22Z",
			"M14 9V24M4 5L16 2L26 4",
		},
	},
)

// Lay lays out the faces.
func (p Pyramid) Lay(on On) (*pattern.Shape, error) {
	if err := need("w", p.W, "d", p.D, "h", p.H); err != nil {
		return nil, err
	}
	return laid(
		pattern.Pyramid{
			W:    p.W.Value(),
			D:    p.D.Value(),
			H:    p.H.Value(),
			TopW: p.TopW.Value(),
			TopD: p.TopD.Value(),
			T:    on.Thick(),
		},
		"width",
		"w",
		"depth",
		"d",
		"height",
		"h",
		"top width",
		"topW",
	)
}

// Order folds the faces round.
func (p Pyramid) Order(x Parts) []string { return Tower{}.Order(x) }

func readPyramid(w *words.Words) (Form, string, error) {
	p := Pyramid{H: w.Before("tall")}
	dims := w.Sizes()
	if err := w.None(); err != nil {
		return nil, "", err
	}
	if p.H.IsZero() || len(dims) != 1 && len(dims) != 2 && len(dims) != 4 {
		return nil, "", fmt.Errorf(
			"a pyramid takes width x depth, a height said with tall, and to width x depth of its top or none",
		)
	}
	if p.W, p.D = dims[0], dims[0]; len(dims) > 1 {
		p.D = dims[1]
	}
	top := "to a point"
	if len(dims) == 4 {
		p.TopW, p.TopD = dims[2], dims[3]
		top = w.Say(p.TopW) + " x " + w.Say(p.TopD) + " at the top"
	}
	return p, fmt.Sprintf("pyramid, %s x %s at the bottom, %s, %s tall", w.Say(p.W), w.Say(p.D), top, w.Say(p.H)), nil
}
