package plan

import "zapbarn/core/measure"

// Offcut is a piece of sheet on the shelf, used before a new one is opened.
type Offcut struct {
	ID    string         `json:"id"`
	Stock string         `json:"stock" label:"Stock" choose:"sheet"`
	W     measure.Length `json:"w" label:"Across"`
	H     measure.Length `json:"h" label:"Along the grain"` // along the grain or flutes
	Label string         `json:"label,omitempty" max:"80" label:"Label"`
}

var offcutKind = listed(kind{name: "offcut", most: 1000}, func(p *Plan) *[]Offcut { return &p.Offcuts })

func (x *Offcut) Key() string    { return x.ID }
func (x *Offcut) Called() string { return "offcut " + x.ID }

func (x *Offcut) valid(c checks) error {
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
