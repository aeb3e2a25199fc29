package plan

import (
	"time"

	"zapbarn/core/measure"
)

// Night is one night of the season as it went.
type Night struct {
	ID      string `json:"id"`
	On      string `json:"on" label:"Night of"` // date
	Opened  string `json:"opened,omitempty" max:"10" label:"Opened at"`
	Closed  string `json:"closed,omitempty" max:"10" label:"Closed at"`
	Guests  int    `json:"guests,omitempty" label:"Guests"`
	Weather string `json:"weather,omitempty" max:"80" label:"Weather"`
	Note    string `json:"note,omitempty" max:"2000" label:"Note" wide:"true"`
}

var nightKind = listed(kind{name: "night", most: 1000, twin: func(v any) (string, error) {
	return v.(*Night).On, measure.Bad("on", "%s is in the book; change that", v.(*Night).On)
}}, func(p *Plan) *[]Night { return &p.doc.NightBook })

func (x *Night) Key() string    { return x.ID }
func (x *Night) Called() string { return "of " + x.On }

func (x *Night) valid(checks) error {
	if x.On == "" {
		return measure.Bad("on", "is empty; write a date such as 2026-10-31")
	}
	if x.Guests < 0 || x.Guests > 1_000_000 {
		return measure.Bad("guests", "%d cannot be; write how many came", x.Guests)
	}
	for _, f := range [][2]string{{"opened", x.Opened}, {"closed", x.Closed}} {
		if _, ok := Clock(f[1]); !ok {
			return measure.Bad(f[0], "%q is no time of the day; write such as 18:30", f[1])
		}
	}
	return date("on", x.On)
}

// Open is how many minutes a night was open, past midnight too; 0 where that was not noted.
func (x *Night) Open() int {
	from, _ := Clock(x.Opened)
	to, _ := Clock(x.Closed)
	if x.Opened == "" || x.Closed == "" {
		return 0
	}
	return (to - from + 24*60) % (24 * 60)
}

// Clock reads a time of the day, in minutes; no text is none.
func Clock(text string) (minutes int, ok bool) {
	if text == "" {
		return 0, true
	}
	t, err := time.Parse("15:04", text)
	if err != nil {
		return 0, false
	}
	return t.Hour()*60 + t.Minute(), true
}
