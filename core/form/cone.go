package form

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/words"
)

// Cone is a cone rolled of one sheet, to a point or cut off.
type Cone struct {
	H     measure.Length `json:"h,omitzero" label:"Height" grip:"up"`
	Low   measure.Length `json:"low,omitzero" label:"Across, bottom" grip:"across-low"`
	High  measure.Length `json:"high,omitzero" label:"Across, top" grip:"across-top"`
	Allow measure.Length `json:"allow,omitzero" label:"Seam overlap" scale:"no"`
}

var _ = register(
	Kind{
		Name:    "cone",
		Title:   "Cone",
		Form:    "sheet",
		Stock:   "eva5",
		Piles:   true,
		Splits:  true,
		Blank:   Cone{},
		Read:    readCone,
		Example: "cone 24 to 4 18 tall eva5",
		Press: Press{
			8,
			"cone",
			"cone 18 to 4 in 16 in tall eva5roll",
			"cone 450 to 100 400 mm tall eva5roll",
			"M13 3H17L27 22a12 4 0 0 1 -24 0Z",
			"",
		},
	},
)

// Lay lays out the sector.
func (c Cone) Lay(on On) (*pattern.Shape, error) {
	if err := need("h", c.H, "low", c.Low); err != nil {
		return nil, err
	}
	return laid(
		pattern.Cone{
			Bottom:  c.Low.Value(),
			Top:     c.High.Value(),
			H:       c.H.Value(),
			T:       on.Thick(),
			Overlap: c.Allow.Value(),
		},
		"height",
		"h",
		"bottom",
		"low",
		"top",
		"high",
		"allowance",
		"allow",
	)
}

// Order closes the seam from the middle.
func (c Cone) Order(Parts) []string { return rolled() }

func rolled() []string {
	return []string{
		"Bend it round warm or over a table's edge, outside out.",
		"Close the seam from the middle to both ends, ticks to ticks.",
	}
}

// Bends is most at its small end; across the face, not level.
func (c Cone) Bends(t float64) (radius, bends float64, ok bool) {
	big, small := math.Max(c.Low.Value(), c.High.Value())/2, math.Min(c.Low.Value(), c.High.Value())/2
	if small == 0 {
		small = 3 * t // a point is cut blunt
	}
	return small*math.Hypot(c.H.Value(), big-small)/c.H.Value() - t, t, true
}

func readCone(w *words.Words) (Form, string, error) {
	c := Cone{H: w.Before("tall")}
	dims := w.Sizes()
	if err := w.None(); err != nil {
		return nil, "", err
	}
	if c.H.IsZero() || len(dims) < 1 || len(dims) > 2 {
		return nil, "", fmt.Errorf("a cone takes one or two sizes across and a height")
	}
	c.Low = dims[0]
	text := "cone, " + w.Say(c.Low) + " across at the bottom, to a point"
	if len(dims) == 2 {
		c.High = dims[1]
		text = "cone, " + w.Say(c.Low) + " across at the bottom, " + w.Say(c.High) + " at the top"
	}
	return c, text + ", " + w.Say(c.H) + " tall", nil
}
