package plan

import (
	"zapbarn/core/cutting"
	"zapbarn/core/measure"
)

// Layout, Pin and Offcut are as package cutting has them.
type (
	Layout = cutting.Layout
	Pin    = cutting.Pin
	Offcut = cutting.Offcut
)

var layoutKind = listed(
	kind{name: "layout", most: 200, valid: func(v any, c checks) error { return validLayout(v.(*Layout), c) }},
	func(p *Plan) *[]Layout { return &p.doc.Layouts },
)

func validLayout(x *Layout, c checks) error {
	if err := measure.InList("id", x.ID, c.lib.Materials, "xps1"); err != nil {
		return err
	}
	for _, q := range x.Pins {
		if q.Copy < 0 || q.Copy >= 2000 || q.Sheet < 0 || q.Sheet >= 2000 || q.Part == "" {
			return measure.Bad("pins", "copy %d of %q on sheet %d cannot be", q.Copy, q.Part, q.Sheet)
		}
		if err := measure.First(measure.Within("pins", q.X, -10*metre, 10*metre),
			measure.Within("pins", q.Y, -10*metre, 10*metre)); err != nil {
			return err
		}
	}
	return nil
}
