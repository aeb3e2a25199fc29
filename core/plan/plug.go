package plan

import "zapbarn/core/measure"

// Plug is what else is plugged in: a fog machine, a screen, an amplifier.
type Plug struct {
	ID     string        `json:"id"`
	Name   string        `json:"name" max:"80" label:"Name"`
	Outlet string        `json:"outlet" label:"Outlet" choose:"outlets" ref:"outlet,needed"`
	Watts  measure.Power `json:"watts" label:"Watts"`
	Heater bool          `json:"heater,omitempty" label:"A heater"` // alone on its circuit
	// per cent of the night it draws: a thermostat's; 100 when not given
	Duty int `json:"duty,omitempty" label:"Draws, % of the time"`
}

var plugKind = listed(kind{name: "plug", most: 1000}, func(p *Plan) *[]Plug { return &p.doc.Plugs })

func (x *Plug) Key() string    { return x.ID }
func (x *Plug) Called() string { return x.Name }

func (x *Plug) valid(c checks) error {
	if p := x.Watts.Value(); p <= 0 || p > 5000 {
		return measure.Bad("watts", "%s is out of range; write such as 400 W, 5 kW at most", x.Watts)
	}
	if x.Duty < 0 || x.Duty > 100 {
		return measure.Bad("duty", "%d %%; write 1 to 100", x.Duty)
	}
	return measure.Named(x.Name)
}
