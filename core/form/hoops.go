package form

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/words"
)

// Hoops is rings of pipe round a pole at a pitch: a spine, a cage, a worm.
type Hoops struct {
	W     measure.Length `json:"w,omitzero" label:"Pole, across" grip:"across"`
	H     measure.Length `json:"h,omitzero" label:"Height" grip:"up"`
	Pitch measure.Length `json:"pitch,omitzero" label:"Pitch"`
}

var _ = register(
	Kind{
		Name:    "hoops",
		Title:   "Rings at a pitch",
		Form:    "pipe",
		Stock:   "pvc1/2",
		Blank:   Hoops{},
		Read:    readHoops,
		Example: "hoops 12 in 48 tall pitch 6 pvc1/2",
		Press: Press{
			21,
			"hoops",
			"hoops 12 in 36 in tall pitch 6 in pvc1/2",
			"hoops 300 mm 900 mm tall pitch 150 mm pvc1/2",
			"M5 7a10 3.500 0 1 0 20 0a10 3.500 0 1 0 -20 0M5 14a10 3.500 0 1 0 20 0a10 3.500 0 1 0 -20 0M5 21a10 3.500 0 1 0 " +
				"20 0a10 3.500 0 1 0 -20 0",
			"M14 2V25M16 2V25",
		},
	},
)

// Lay cuts the rings.
func (h Hoops) Lay(on On) (*pattern.Shape, error) {
	if err := need("w", h.W, "h", h.H, "pitch", h.Pitch); err != nil {
		return nil, err
	}
	return laid(
		pattern.Hoops{Pole: h.W.Value(), H: h.H.Value(), Pitch: h.Pitch.Value(), OD: on.Stock.OD.Value()},
		"pole",
		"w",
		"height",
		"h",
	)
}

// Order bends warm, filled.
func (h Hoops) Order(Parts) []string {
	return []string{
		"Fill each piece with sand, warm it evenly, and bend it round a form a little smaller than the pole; respirator, " +
			"open doors.",
		"Join its ends with a dowel inside; set the first at the foot, then one pitch after another.",
	}
}

func readHoops(w *words.Words) (Form, string, error) {
	h := Hoops{H: w.Before("tall"), Pitch: w.After("pitch")}
	dims, err := w.Exactly(1, "hoops take the pole's width, a height said with tall, and a pitch")
	if err != nil {
		return nil, "", err
	}
	h.W = dims[0]
	return h, fmt.Sprintf(
		"hoops round a pole of %s, %s tall, one every %s",
		w.Say(h.W),
		w.Say(h.H),
		w.Say(h.Pitch),
	), nil
}
