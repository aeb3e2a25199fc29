package plan

import "zapbarn/core/measure"

// Tried is a card of the commissioning as it was worked: what was measured or seen, whether
// that is as expected, and by whom.
type Tried struct {
	ID       string `json:"id"`
	At       string `json:"at" ref:"any,needed"` // what it is of, kind:id
	What     string `json:"what" max:"120"`      // the card
	Measured string `json:"measured,omitempty" max:"200" label:"Measured, or seen"`
	Passed   bool   `json:"passed,omitempty" label:"As expected"`
	By       string `json:"by,omitempty" max:"40" label:"By"`
	On       string `json:"on,omitempty" label:"On"` // date
	Photo    string `json:"photo,omitempty" ref:"photo"`
}

var triedKind = listed(kind{name: "tried", most: 4000, twin: func(v any) (string, error) {
	x := v.(*Tried)
	return x.At + "/" + x.What, measure.Bad("what", "%q is noted already; change that", x.What)
}, again: func(any, *copying) string { return "" }}, func(p *Plan) *[]Tried { return &p.doc.Trials })

func (x *Tried) Key() string    { return x.ID }
func (x *Tried) Called() string { return "card: " + x.What }

func (x *Tried) valid(checks) error {
	if x.What == "" {
		return measure.Bad("what", "is empty; it is the card's own name")
	}
	if x.Measured == "" && !x.Passed {
		return measure.Bad("measured", "is empty; write what was measured or seen")
	}
	if x.By == "" {
		return measure.Bad("by", "is empty; write who tried it")
	}
	return date("on", x.On)
}

// TriedAs is a card as it was worked, or nil.
func (p *Plan) TriedAs(at, what string) *Tried {
	for i := range p.Trials() {
		if x := &p.Trials()[i]; x.At == at && x.What == what {
			return x
		}
	}
	return nil
}
