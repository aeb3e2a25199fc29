package plan

import "zapbarn/core/measure"

// Cord is a cord as it lies in the yard, from an outlet to a prop.
type Cord struct {
	ID      string         `json:"id"`
	Name    string         `json:"name" max:"80" label:"Name"`
	Outlet  string         `json:"outlet,omitempty" ref:"outlet" label:"From" choose:"outlets"`
	Prop    string         `json:"prop,omitempty" ref:"prop" label:"to" choose:"props"`
	Through string         `json:"through,omitempty" max:"2000" label:"by way of" wide:"true"` // places between
	Long    measure.Length `json:"long,omitzero" label:"Cord is"`                              // what was bought
	Drops   measure.Length `json:"drops,omitzero" label:"Up and down"`                         // 6 ft when not given
	Over    string         `json:"over,omitempty" label:"Where people walk it is" choose:"|covered|overhead|buried"`
	End     string         `json:"end,omitempty" label:"Its end is" choose:"|off the ground|in a box"`
	Fixed   bool           `json:"fixed,omitempty" label:"Locked in place"`
}

var cordKind = listed(kind{name: "cord", most: 400, again: func(any, *copying) string { return "" }},
	func(p *Plan) *[]Cord { return &p.doc.Cords })

func (x *Cord) Key() string    { return x.ID }
func (x *Cord) Called() string { return x.Name }

func (x *Cord) valid(c checks) error {
	if _, err := Route("through", x.Through, c.plan.Display().Units); err != nil {
		return err
	}
	return measure.First(
		measure.Named(x.Name),
		measure.Within("long", x.Long, 10, 200*metre),
		measure.Within(
			"drops",
			x.Drops,
			0,
			30*metre,
		),
		measure.OneOf("over", x.Over, "", "covered", "overhead", "buried"),
		measure.OneOf("end", x.End, "", "off the ground", "in a box"),
	)
}
