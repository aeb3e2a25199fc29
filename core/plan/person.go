package plan

import (
	"strings"
	"time"

	"zapbarn/core/calendar"
	"zapbarn/core/measure"
)

// Person is one of the crew, with the hours they give and the trades they have.
type Person struct {
	ID   string `json:"id"`
	Name string `json:"name" max:"40" label:"Name"`
	// by weekday: mon-fri 18-21:30, sat sun 10-18
	Hours  string `json:"hours" max:"300" label:"Hours" wide:"true"`
	Trades string `json:"trades,omitempty" max:"200" label:"Trades"`             // with commas; none is all
	Off    string `json:"off,omitempty" max:"2000" label:"Days off" wide:"true"` // dates, with commas or spaces
}

// AnyHours are when somebody is there who said nothing of it.
const AnyHours = "mon-fri 18-21, sat sun 10-17"

var personKind = listed(kind{name: "person", most: 60, twin: func(v any) (string, error) {
	name := strings.ToLower(v.(*Person).Name)
	return name, measure.Bad("name", "%q is there already; one is enough", v.(*Person).Name)
}}, func(p *Plan) *[]Person { return &p.doc.People })

func (x *Person) Key() string    { return x.ID }
func (x *Person) Called() string { return x.Name }

func (x *Person) valid(checks) error {
	if err := measure.Named(x.Name); err != nil {
		return err
	}
	if _, err := calendar.ParseWeek(x.Hours); err != nil {
		return err
	}
	for _, d := range x.OffDays() {
		if err := date("off", d); err != nil {
			return err
		}
	}
	return nil
}

// List are the trades, in lower case.
func (x *Person) List() (out []string) {
	for _, t := range strings.Split(strings.ToLower(x.Trades), ",") {
		if t = strings.TrimSpace(t); t != "" {
			out = append(out, t)
		}
	}
	return out
}

// OffDays are the dates when they are not there.
func (x *Person) OffDays() []string { return strings.Fields(strings.ReplaceAll(x.Off, ",", " ")) }

// There is when they are there from a day on, for so many days, in minutes from its
// midnight.
func (x *Person) There(first time.Time, days int) []calendar.Span {
	hours := x.Hours
	if strings.TrimSpace(hours) == "" {
		hours = AnyHours
	}
	week, err := calendar.ParseWeek(hours)
	if err != nil {
		return nil
	}
	off := map[string]bool{}
	for _, d := range x.OffDays() {
		off[d] = true
	}
	return week.Spans(first, days, off)
}
