package plan

import (
	"strconv"
	"strings"

	"zapbarn/core/measure"
)

// Stocked is what lies on the shelf of something that is bought, in the unit it is needed in.
type Stocked struct {
	ID   string `json:"id"`
	What string `json:"what" max:"60"` // material:xps1, coat:latex, lamp:puck12, wire:18 AWG
	Have string `json:"have,omitempty" max:"20" label:"On the shelf"`
	Bin  string `json:"bin,omitempty" max:"40" label:"Bin"`
	Lead string `json:"lead,omitempty" max:"20" label:"Days until it comes"`
}

var stockedKind = listed(kind{name: "stocked", most: 2000, twin: func(v any) (string, error) {
	what := v.(*Stocked).What
	return what, measure.Bad("what", "%q is on the shelf already; change that", what)
}}, func(p *Plan) *[]Stocked { return &p.doc.Shelf })

func (x *Stocked) Key() string    { return x.ID }
func (x *Stocked) Called() string { return "shelf: " + x.What }

func (x *Stocked) valid(checks) error {
	if kind, id, ok := strings.Cut(x.What, ":"); !ok || kind == "" || id == "" {
		return measure.Bad("what", "%q is nothing that is bought", x.What)
	}
	for _, f := range [][2]string{{"have", x.Have}, {"lead", x.Lead}} {
		if _, ok := amount(f[1]); !ok {
			return measure.Bad(f[0], "%q is no amount; write a number such as 3 or 0.5", f[1])
		}
	}
	return nil
}

// Check is whether it may stand in a plan.
func (x *Stocked) Check() error { return x.valid(checks{}) }

// amount reads a number that is not less than nothing; no text is nothing.
func amount(text string) (float64, bool) {
	text = strings.TrimSpace(text)
	if text == "" {
		return 0, true
	}
	v, err := strconv.ParseFloat(text, 64)
	return v, err == nil && v >= 0 && v < 1e6
}

// Amount is how much lies there.
func (x *Stocked) Amount() float64 { v, _ := amount(x.Have); return v }

// LeadDays is how many days it takes to come, and whether that was said.
func (x *Stocked) LeadDays() (int, bool) {
	v, _ := amount(x.Lead)
	return int(v), strings.TrimSpace(x.Lead) != ""
}

// StockedOf is what lies on the shelf of a thing, or nil.
func (p *Plan) StockedOf(what string) *Stocked {
	for i := range p.Shelf() {
		if p.Shelf()[i].What == what {
			return &p.Shelf()[i]
		}
	}
	return nil
}
