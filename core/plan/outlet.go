package plan

import (
	"zapbarn/core/circuit"
	"zapbarn/core/measure"
)

// Outlet is a mains outlet with its circuit: plugs and cords only.
type Outlet struct {
	ID      string          `json:"id"`
	Name    string          `json:"name" max:"80" label:"Name"`
	Volts   measure.Voltage `json:"volts" label:"Volts"`                            // 120 V or 230 V
	Breaker measure.Current `json:"breaker" label:"Breaker"`                        // of its circuit
	Guard   bool            `json:"guard,omitempty" label:"Ground-fault protected"` // ground-fault protection
	Gauge   measure.Gauge   `json:"gauge,omitzero" label:"Cord gauge"`              // of the extension cord to it
	Cord    measure.Length  `json:"cord,omitzero" label:"Cord length"`              // its length
	X       measure.Length  `json:"x,omitzero" label:"In the yard, right by"`
	Y       measure.Length  `json:"y,omitzero" label:"and down by"`
}

var outletKind = listed(kind{name: "outlet", most: 200}, func(p *Plan) *[]Outlet { return &p.doc.Outlets })

func (x *Outlet) Key() string    { return x.ID }
func (x *Outlet) Called() string { return x.Name }

func (x *Outlet) valid(c checks) error {
	if v := x.Volts.Value(); v < 100 || v > 250 {
		return measure.Bad("volts", "%s is no outlet; write 120 V or 230 V", x.Volts)
	}
	if a := x.Breaker.Value(); a < 5 || a > 32 {
		return measure.Bad("breaker", "%s is no outlet circuit; write 10 A to 20 A", x.Breaker)
	}
	return measure.First(measure.Named(x.Name), measure.Within("cord", x.Cord, 1, 100*metre), inYard("x", x.X),
		inYard("y", x.Y))
}

// CordOhms is both conductors of an outlet's extension cord.
func (o *Outlet) CordOhms() float64 {
	if o.Gauge.IsZero() || o.Cord.IsZero() {
		return 0
	}
	return circuit.WireOhms(o.Gauge.Value(), o.Cord.Value(), 20)
}
