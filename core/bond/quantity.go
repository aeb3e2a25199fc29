package bond

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/source"
	"zapbarn/core/stock"
)

// Stick is a hot-glue stick, 11.2 mm x 254 mm, in mm3.
const Stick = math.Pi / 4 * 11.2 * 11.2 * 254

// FoamCan is what a 12 oz can of one-part foam gives when cured, in litres;
// the low end of 10 to 12.
const FoamCan = 10.0

// bead is the glue line's diameter in mm, by how the glue is laid.
var bead = map[string]float64{"melt": 5, "moisture": 4, "weld": 2}

// Quantity is what a joint takes: length and width of the glue line in mm. Hot
// glue is laid as a bead and counted in sticks; contact cements wet both faces;
// evaporating and two-part glues are spread over the line; moisture-cure glues
// are a bead on one face.
func Quantity(g stock.Glue, length, width float64) (source.Result, error) {
	if err := measured(length, width); err != nil {
		return source.Result{}, err
	}
	area := length * width / 1e6
	dims := fmt.Sprintf("%.0f x %.0f mm", length, width)
	r := source.Result{Key: source.What("takes"), Label: g.Name + " it takes", Unit: "mL"}
	switch {
	case g.Cure == "melt":
		return sticks(r, length), nil
	case g.Contact:
		r.Value = 2 * area / 3.5 * 1000
		r.Text = millilitres(r.Value)
		return r.With(
			"both faces, area / coverage",
			fmt.Sprintf("2 x %.0f mm x %.0f mm / 3.5 m2 a litre", length, width),
			r.Text,
			source.FromMemory("contact cement, 3 to 4 m2 a litre one face"),
		), nil
	case g.Cure == "tape" || g.Cure == "mechanical":
		r.Value, r.Unit, r.Text = length, "mm", measure.MarkedRun(length)
		return r.With("along the joint", dims, r.Text, source.Exact("length")), nil
	case bead[g.Cure] > 0:
		d := bead[g.Cure]
		r.Value = math.Pi / 4 * d * d * length / 1000
		r.Text = millilitres(r.Value)
		return r.With(
			"bead pi d d / 4 x length",
			fmt.Sprintf("pi x %g mm x %[1]g mm / 4 x %.0f mm", d, length),
			r.Text,
			source.FromTrade(fmt.Sprintf("a bead of %g mm on one face", d)),
		), nil
	case g.Cure == "instant":
		r.Value = length / 25 * .05
		r.Text = measure.Decimal(r.Value, 1) + " mL"
		return r.With(
			"a drop of 0.05 mL every 25 mm",
			fmt.Sprintf("%.0f / 25 x 0.05", length),
			r.Text,
			source.FromMemory("drop size and spacing"),
		), nil
	}
	spread := 200.0 // mL a square metre
	if g.Cure == "twopart" {
		spread = 350
	}
	r.Value = area * spread
	r.Text = millilitres(r.Value)
	return r.With(
		"area x spread",
		fmt.Sprintf("%.0f mm x %.0f mm x %.0f mL/m2", length, width, spread),
		r.Text,
		source.FromMemory("150 to 250 mL a square metre of wood glue, 300 to 400 of epoxy"),
	), nil
}

// sticks are of hot melt, laid as a bead.
func sticks(r source.Result, length float64) source.Result {
	d := bead["melt"]
	mm3 := math.Pi / 4 * d * d * length
	r.Value, r.Unit = mm3/Stick, "sticks"
	r.Text = measure.Decimal(r.Value, 1) + " sticks"
	return r.With("bead pi d d / 4 x length", fmt.Sprintf("pi x %g mm x %[1]g mm / 4 x %.0f mm", d, length),
		fmt.Sprintf("%.1f cm3", mm3/1000), source.FromTrade("a bead of 5 mm")).
		With("sticks = volume / 25 cm3", fmt.Sprintf("%.1f / %.1f", mm3/1000, Stick/1000), r.Text,
			source.Exact("a stick of 11.2 x 254 mm"))
}

// millilitres writes whole ones, and tenths of a small amount.
func millilitres(v float64) string {
	if v < 10 {
		return measure.Decimal(v, 1) + " mL"
	}
	return measure.Decimal(v, 0) + " mL"
}

// FoamCans is how many 12 oz cans of one-part foam fill a volume in mm3; a
// tenth is lost in the nozzle and over the edge.
func FoamCans(mm3 float64) (source.Result, error) {
	switch {
	case !(mm3 > 0):
		return source.Result{}, measure.Bad("volume", "must be more than nothing")
	case mm3 > 1e11:
		return source.Result{}, measure.Bad("volume", "is too large; at most 100 m3")
	}
	l := mm3 / 1e6
	n := math.Ceil(l*1.1/FoamCan - 1e-9)
	text := fmt.Sprintf("%.0f cans", n)
	return source.Result{Key: source.What("cans"), Label: "Cans of 12 oz", Value: n, Text: text}.
		With(
			"cans = ceil(1.1 volume / 10 L)",
			fmt.Sprintf("ceil(1.1 x %.1f / 10)", l),
			text,
			source.FromMemory("a 12 oz can gives 10 to 12 L cured; a tenth is lost"),
		), nil
}

// measured refuses seams that cannot be.
func measured(length, width float64) error {
	for _, x := range []struct {
		field    string
		mm, most float64
	}{{"length", length, 1e6}, {"width", width, 1e4}} {
		switch {
		case !(x.mm > 0):
			return measure.Bad(x.field, "must be more than nothing, such as 4 ft")
		case x.mm > x.most:
			return measure.Bad(x.field, "is too large; at most %.0f m", x.most/1000)
		}
	}
	return nil
}
