package form

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/words"
)

// Rings is a stack of rings, straight or tapered.
type Rings struct {
	H    measure.Length `json:"h,omitzero" label:"Height" grip:"up"`
	Low  measure.Length `json:"low,omitzero" label:"Across, bottom" grip:"across-low"`
	High measure.Length `json:"high,omitzero" label:"Across, top" grip:"across-top"`
	Wall measure.Length `json:"wall,omitzero" label:"Wall" scale:"no"`
}

var _ = register(
	Kind{
		Name:    "rings",
		Title:   "Ring stack",
		Form:    "sheet",
		Stock:   "xps2",
		Piles:   true,
		Splits:  true,
		Layered: true,
		Blank:   Rings{},
		Read:    readRings,
		Example: "rings 24 to 12 30 tall wall 3 xps2",
		Press: Press{
			7,
			"rings",
			"rings 24 to 16 in 18 in tall wall 3 xps2",
			"rings 600 to 400 450 mm tall wall 75 xps2",
			"M5 20a10 4 0 0 0 20 0V8a10 4 0 0 0 -20 0Z",
			"M5 8a10 4 0 0 0 20 0M5 12a10 4 0 0 0 20 0M5 16a10 4 0 0 0 20 0",
		},
	},
)

// Lay lays out the rings.
func (r Rings) Lay(on On) (*pattern.Shape, error) {
	if err := need("h", r.H, "low", r.Low, "high", r.High, "wall", r.Wall); err != nil {
		return nil, err
	}
	return laid(
		pattern.Rings{Bottom: r.Low.Value(), Top: r.High.Value(), H: r.H.Value(), Wall: r.Wall.Value(), T: on.Thick()},
		"height",
		"h",
		"bottom",
		"low",
		"top",
		"high",
	)
}

// Order is from the bottom up.
func (r Rings) Order(p Parts) []string {
	return []string{
		fmt.Sprintf("Stack the %d rings from the bottom up, glue and a weight after every third.", p.N),
		"Rasp from the outside in when all is dry.",
	}
}

// Lies is true: each ring is drawn from above.
func (r Rings) Lies() bool { return true }

func readRings(w *words.Words) (Form, string, error) {
	r := Rings{H: w.Before("tall"), Wall: w.After("wall")}
	dims := w.Sizes()
	if err := w.None(); err != nil {
		return nil, "", err
	}
	if len(dims) == 1 {
		dims = append(dims, dims[0])
	}
	if r.H.IsZero() || r.Wall.IsZero() || len(dims) != 2 {
		return nil, "", fmt.Errorf("rings take one or two diameters, a height and a wall")
	}
	r.Low, r.High = dims[0], dims[1]
	return r, fmt.Sprintf(
		"ring stack, %s across at the bottom, %s at the top, %s tall, wall %s",
		w.Say(r.Low),
		w.Say(r.High),
		w.Say(r.H),
		w.Say(r.Wall),
	), nil
}
