package plan

import "zapbarn/core/measure"

// Layout is how the parts of one stock lie on its sheets, as kept or as moved
// by hand. Its ID is the stock's.
type Layout struct {
	ID   string `json:"id"`
	Pins []Pin  `json:"pins" max:"20000"`
}

var layoutKind = listed(kind{name: "layout", most: 200}, func(p *Plan) *[]Layout { return &p.Layouts })

func (x *Layout) Key() string    { return x.ID }
func (x *Layout) Called() string { return "layout of " + x.ID }

func (x *Layout) valid(c checks) error {
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

// Pin is where one copy of a part lies: its box's lower left corner.
type Pin struct {
	Part   string         `json:"part" max:"260"` // solid/panel
	Copy   int            `json:"copy"`
	Offcut string         `json:"offcut,omitempty"` // which offcut of the shelf, or else
	Sheet  int            `json:"sheet"`            // which new sheet, from 0
	X      measure.Length `json:"x"`
	Y      measure.Length `json:"y"`
	Turned bool           `json:"turned,omitempty"` // by a quarter
	Flip   bool           `json:"flip,omitempty"`   // head to foot, before the turn
	Locked bool           `json:"locked,omitempty"` // laid by hand: the rest is laid round it
	Cut    bool           `json:"cut,omitempty"`    // its sheet is cut: nothing more is laid there
}
