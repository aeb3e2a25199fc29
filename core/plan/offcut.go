package plan

import "zapbarn/core/measure"

var offcutKind = listed(
	kind{name: "offcut", most: 1000, valid: func(v any, c checks) error { return validOffcut(v.(*Offcut), c) }},
	func(p *Plan) *[]Offcut { return &p.doc.Offcuts },
)

func validOffcut(x *Offcut, c checks) error {
	if err := measure.First(measure.InList("stock", x.Stock, c.lib.Materials, "xps1"),
		measure.Within("w", x.W, 20, 10*metre),
		measure.Within("h", x.H, 20, 10*metre)); err != nil {
		return err
	}
	switch {
	case c.lib.Materials[x.Stock].Form != "sheet":
		return measure.Bad("stock", "%s is no sheet; the shelf takes offcuts of sheet", c.lib.Materials[x.Stock].Name)
	case x.W.IsZero():
		return measure.Bad("w", "is empty; write such as 18 in")
	case x.H.IsZero():
		return measure.Bad("h", "is empty; write such as 30 in")
	}
	return nil
}
