package plan

import "zapbarn/core/measure"

// Incident is something that went wrong on a night.
type Incident struct {
	ID      string `json:"id"`
	On      string `json:"on" label:"Night of"` // date
	Prop    string `json:"prop,omitempty" ref:"prop" label:"Prop" choose:"props"`
	What    string `json:"what" max:"200" label:"What happened" wide:"true"`
	Minutes int    `json:"minutes,omitempty" label:"Minutes down"`
	Part    string `json:"part,omitempty" max:"80" label:"Part"`
	Cause   string `json:"cause,omitempty" max:"200" label:"Cause"`
	Mended  string `json:"mended,omitempty" max:"200" label:"What was done"`
	Cost    int    `json:"cost,omitempty" label:"It cost, $"`
	By      string `json:"by,omitempty" max:"40" label:"By"`
	// what is to be better next season
	Next string `json:"next,omitempty" max:"200" label:"Next season" wide:"true"`
}

var incidentKind = listed(kind{name: "incident", most: 4000, again: func(any, *copying) string { return "" }},
	func(p *Plan) *[]Incident { return &p.doc.Incidents })

func (x *Incident) Key() string    { return x.ID }
func (x *Incident) Called() string { return x.What }

func (x *Incident) valid(checks) error {
	if x.On == "" {
		return measure.Bad("on", "is empty; write a date such as 2026-10-31")
	}
	if x.What == "" {
		return measure.Bad("what", "is empty; write what happened")
	}
	if x.Minutes < 0 || x.Minutes > 24*60 {
		return measure.Bad("minutes", "%d is no part of a night; write 0 to 1440", x.Minutes)
	}
	if x.Cost < 0 || x.Cost > 100_000 {
		return measure.Bad("cost", "%d is no price in whole dollars; write such as 14", x.Cost)
	}
	return date("on", x.On)
}
