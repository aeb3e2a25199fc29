package rehearsal

import (
	"strconv"

	"zapbarn/web/shell"

	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/source"
	"zapbarn/core/work"

	"github.com/gin-gonic/gin"
)

// NightView is a night of guests played through.
type NightView struct {
	Groups, Size, Dwell, Seed int
	Guests                    string
	Props                     []PropNight
	Longest                   string
	Cycles                    []shell.Result
	Energy                    []source.Result
	Fluid                     []source.Result
	Refused                   string
	None                      bool
	Hours                     string
}

// PropNight is how one input's night went.
type PropNight struct {
	Name, Prop                           string
	Came, Scared, Shared, Missed, Ignore int
	Wait                                 string
	Share                                int // per cent scared
}

func (s Room) nightWay() shell.Way {
	return shell.Way{
		ID: "night", Title: "Night",
		Fill: shell.Showing(newView, func(_ *gin.Context, p *view, _ []check.Snag) error {
			p.night()
			return nil
		}),
	}
}

// number is a whole number of the address, within bounds.
func (p *view) number(name string, def, least, most int) int {
	n, err := strconv.Atoi(p.Query.Get(name))
	if err != nil {
		return def
	}
	return max(least, min(most, n))
}

// night plays a whole evening of guests.
func (p *view) night() {
	w := p.Work
	v := &NightView{Groups: p.number("groups", 60, 1, 2000), Size: p.number("size", 5, 1, 40),
		Dwell: p.number("dwell", 8, 0, 600), Seed: p.number("seed", 1, 1, 1_000_000)}
	p.Night = v
	rep, ok, err := w.Evening(work.EveningOf{Groups: v.Groups, Size: v.Size, Dwell: v.Dwell, Seed: v.Seed})
	v.Hours = measure.Span(rep.Hours * 3600)
	if v.None = !ok; v.None {
		return
	}
	if err != nil {
		v.Refused = measure.Capital(err.Error()) + "."
		return
	}
	v.Guests, v.Longest = grouped(rep.Guests), measure.Span(float64(rep.Longest)/1000)
	for _, x := range rep.Props {
		in := w.Plan.Input(x.Input)
		v.Props = append(
			v.Props,
			PropNight{in.Name, p.NameOf("prop:" + in.Prop), x.Came, x.Scared, x.Shared, x.Missed, x.Ignored,
				measure.Span(float64(x.Wait) / 1000), 100 * x.Scared / max(1, x.Came)},
		)
	}
	for _, m := range w.Mechanisms() {
		if k := rep.Cycles[m.Of.ID]; k > 0 {
			v.Cycles = append(v.Cycles, shell.Result{Label: m.Of.Name, Text: grouped(k) + " runs"})
		}
	}
	v.Energy, v.Fluid = rep.Energy, rep.Fluid
}
