package plan

import "zapbarn/core/measure"

// Delivery is something on its way: what it is for cannot be worked on before.
type Delivery struct {
	ID   string `json:"id"`
	Name string `json:"name" max:"80" label:"What"`
	For  string `json:"for" ref:"any,needed"` // kind:id of what waits for it: a device, a joint, a finish, a solid, a prop
	// date on which it comes
	Arrives string `json:"arrives" label:"Arrives"`
	In      bool   `json:"in,omitempty" label:"It is here"`
	Faster  string `json:"faster,omitempty" label:"Express arrives"` // date, when more is paid
	Cost    int    `json:"cost,omitempty" label:"Express costs, $"`
}

var deliveryKind = listed(kind{name: "delivery", most: 1000}, func(p *Plan) *[]Delivery { return &p.doc.Deliveries })

func (x *Delivery) Key() string    { return x.ID }
func (x *Delivery) Called() string { return x.Name }

func (x *Delivery) valid(checks) error {
	if x.Arrives == "" {
		return measure.Bad("arrives", "is empty; write a date such as 2026-09-28")
	}
	if x.Cost < 0 || x.Cost > 100_000 {
		return measure.Bad("cost", "%d is not a price in whole dollars; write such as 14", x.Cost)
	}
	if x.Faster != "" && x.Faster >= x.Arrives {
		return measure.Bad("faster", "%s is no earlier than %s", x.Faster, x.Arrives)
	}
	return measure.First(measure.Named(x.Name), date("arrives", x.Arrives), date("faster", x.Faster))
}
