package plan

import "zapbarn/core/measure"

// Ticked is a line of a night's opening or closing list that was done.
type Ticked struct {
	ID   string `json:"id"`
	On   string `json:"on"`             // date
	Line string `json:"line" max:"160"` // which line: its key
	By   string `json:"by,omitempty" max:"40"`
	At   string `json:"at,omitempty" max:"10"` // time of the day
}

var tickedKind = listed(kind{name: "ticked", most: 40_000, twin: func(v any) (string, error) {
	x := v.(*Ticked)
	return x.On + "/" + x.Line, measure.Bad("line", "is done already")
}}, func(p *Plan) *[]Ticked { return &p.doc.Ticks })

func (x *Ticked) Key() string    { return x.ID }
func (x *Ticked) Called() string { return "done: " + x.Line }

func (x *Ticked) valid(checks) error {
	if x.Line == "" || x.On == "" {
		return measure.Bad("line", "is empty; it is the line that was done")
	}
	if _, ok := Clock(x.At); !ok {
		return measure.Bad("at", "%q is no time of the day; write such as 18:30", x.At)
	}
	return date("on", x.On)
}
