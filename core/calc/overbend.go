package calc

import (
	"fmt"
	"math"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/motion"
	"zapbarn/core/source"
)

var _ = register(
	"overbend",
	"How far a metal bar, wire or sheet must be bent to come back to the angle wanted.",
	[]Param{
		{"metal", "text", "steel, aluminium, brass or spring-steel", "steel"},
		{"thick", "length", "how thick it is across the bend", ""},
		{"radius", "length", "the inside radius it is bent round", ""},
		{"angle", "number", "the degrees it is to turn", "90"},
	},
	func(in Inputs) ([]source.Result, error) {
		metal, ok := motion.Metals[strings.ToLower(in.T("metal"))]
		if !ok {
			return nil, measure.Bad(
				"metal",
				"%q is not known; write steel, aluminium, brass or spring-steel",
				in.T("metal"),
			)
		}
		thick, radius, angle := in.N("thick"), in.N("radius"), in.N("angle")
		switch {
		case thick <= 0:
			return nil, measure.Bad("thick", "is nothing; write such as 3 mm")
		case radius <= 0:
			return nil, measure.Bad("radius", "is nothing; write such as 1/4 in")
		case angle <= 0 || angle > 180:
			return nil, measure.Bad("angle", "%g degrees is no bend; write 1 to 180", angle)
		}
		to, opens, far := motion.Springback(metal, thick, radius, angle)
		if far {
			return nil, measure.Bad(
				"radius",
				"%s springs back wholly from so wide a bend; bend it round less than %s",
				metal.Name,
				measure.Tape(0.5*metal.Stiff*thick/metal.Yield, false),
			)
		}
		x := radius * metal.Yield / (metal.Stiff * thick)
		n := func(v float64) string { return measure.Decimal(v, 4) }
		r := source.Num("Bend it to", to, "deg", measure.Degrees(math.Round(10*to)/10)).With(
			"angle x (Rf + T/2) / (Ri + T/2)",
			fmt.Sprintf("%s x (%s + %s / 2) / (%s + %s / 2)", n(angle), n(opens), n(thick), n(radius), n(thick)),
			measure.Degrees(math.Round(10*to)/10), motion.SpringbackFrom, motion.MetalsFrom)
		r.Key = source.What("bend")
		over := source.Num("Over by", to-angle, "deg", measure.Degrees(math.Round(10*(to-angle))/10)).With(
			"bent to - wanted", fmt.Sprintf("%s - %s", n(to), n(angle)), measure.Degrees(math.Round(10*(to-angle))/10),
			source.Exact("sum"))
		over.Key = source.What("over")
		o := source.Num("Inside radius, let go", opens, "mm", measure.Decimal(opens, 2)+" mm").With(
			"Ri / (4x^3 - 3x + 1), x = Ri Y / (E T)",
			fmt.Sprintf("%s mm / (4 x %.6f x %.6f x %.6f - 3 x %.6f + 1)", n(radius), x, x, x, x),
			measure.Decimal(opens, 2)+" mm", motion.SpringbackFrom)
		o.Key = source.What("opens")
		return []source.Result{r, over, o}, nil
	},
)
