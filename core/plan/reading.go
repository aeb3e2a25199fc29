package plan

import "zapbarn/core/measure"

// Reading is what a meter or an eye said of a device: one of volts, amperes,
// ohms and light.
type Reading struct {
	ID     string             `json:"id"`
	Device string             `json:"device" ref:"device,needed"`
	Volts  measure.Voltage    `json:"volts,omitzero"`  // across its own terminals; of a lamp, red on its plus
	Far    bool               `json:"far,omitempty"`   // of a strip: at its far end
	Amps   measure.Current    `json:"amps,omitzero"`   // through it
	Ohms   measure.Resistance `json:"ohms,omitzero"`   // from its plus to ground, power off
	Light  string             `json:"light,omitempty"` // lit or dark, as seen
	By     string             `json:"by,omitempty" max:"40"`
	On     string             `json:"on,omitempty"` // date
}

var readingKind = listed(kind{name: "reading", most: 5000}, func(p *Plan) *[]Reading { return &p.doc.Readings })

func (x *Reading) Key() string    { return x.ID }
func (x *Reading) Called() string { return "reading of " + x.Device }

func (x *Reading) valid(c checks) error {
	n := 0
	for _, given := range []bool{!x.Volts.IsZero(), !x.Amps.IsZero(), !x.Ohms.IsZero(), x.Light != ""} {
		if given {
			n++
		}
	}
	if n != 1 {
		return measure.Bad("volts", "write what the meter shows, such as 11.6 V, 20 mA or 2 Mohm, or say lit or dark")
	}
	if a := x.Amps.Value(); a < 0 || a > 200 {
		return measure.Bad("amps", "%s is out of range; write such as 20 mA", x.Amps)
	}
	if r := x.Ohms.Value(); r < 0 {
		return measure.Bad("ohms", "%s cannot be; write such as 2 Mohm", x.Ohms)
	}
	if x.Far && x.Volts.IsZero() {
		return measure.Bad("far", "only volts are read at a far end")
	}
	if v := x.Volts.Value(); v < -60 || v > 60 {
		return measure.Bad("volts", "%s is not extra-low voltage; stay off mains with this", x.Volts)
	}
	return measure.First(measure.OneOf("light", x.Light, "", "lit", "dark"), date("on", x.On))
}
