package form

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/words"
)

// Tower is a tapered pillar of equal faces.
type Tower struct {
	H     measure.Length `json:"h,omitzero" label:"Height" grip:"up"`
	Sides int            `json:"sides,omitempty" label:"Sides"`
	Low   measure.Length `json:"low,omitzero" label:"Across, bottom" grip:"across-low"`
	High  measure.Length `json:"high,omitzero" label:"Across, top" grip:"across-top"`
}

var _ = register(
	Kind{
		Name:    "tower",
		Title:   "Tapered tower",
		Form:    "sheet",
		Stock:   "xps1",
		Piles:   true,
		Splits:  true,
		Blank:   Tower{Sides: 4},
		Read:    readTower,
		Example: "tower 6 sides 48 tall 20 to 9 xps1",
		Press: Press{
			2,
			"tower",
			"tower 4 sides 48 in tall 20 to 9 xps1",
			"tower 4 sides 1200 mm tall 500 to 230 xps1",
			"M11 3H19L26 23L15 25L4 23Z",
			"M14 3.500L15 25",
		},
	},
)

// Lay lays out the tower.
func (t Tower) Lay(on On) (*pattern.Shape, error) {
	if err := need("h", t.H, "low", t.Low, "high", t.High); err != nil {
		return nil, err
	}
	return laid(
		pattern.Tower{N: t.Sides, H: t.H.Value(), Bottom: t.Low.Value(), Top: t.High.Value(), T: on.Thick()},
		"height",
		"h",
		"bottom",
		"low",
		"top",
		"high",
	)
}

// Order folds the faces round.
func (t Tower) Order(p Parts) []string {
	return []string{
		fmt.Sprintf("Lay the %d faces outside up, edges touching, ticks to ticks; tape across every seam.", p.N),
		"Turn them over, glue into the open bevels, fold round and tape the last seam.",
		"Set it on a flat floor and measure the diagonals before it grabs.",
	}
}

func readTower(w *words.Words) (Form, string, error) {
	t := Tower{}
	var err error
	if t.Sides, err = w.Count(4, "sides"); err != nil || t.Sides < 3 {
		return nil, "", fmt.Errorf("%d sides make no tower; write 3 or more", t.Sides)
	}
	t.H = w.Before("tall")
	dims := w.Sizes()
	if err := w.None(); err != nil {
		return nil, "", err
	}
	if t.H.IsZero() && len(dims) == 3 { // the height comes first, as in the calculator
		t.H, dims = dims[0], dims[1:]
	}
	if t.H.IsZero() || len(dims) != 2 {
		return nil, "", fmt.Errorf("a tower takes a height, said with tall, and two sizes across")
	}
	t.Low, t.High = dims[0], dims[1]
	return t, fmt.Sprintf(
		"tower of %d sides, %s tall, %s across at the bottom, %s at the top",
		t.Sides,
		w.Say(t.H),
		w.Say(t.Low),
		w.Say(t.High),
	), nil
}
