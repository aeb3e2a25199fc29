package web

import (
	"strconv"

	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/show"
	"zapbarn/core/work"

	"github.com/gin-gonic/gin"
)

// NightView is a night of guests played through.
type NightView struct {
	Groups, Size, Dwell, Seed int
	Speed                     string
	Guests                    string
	Props                     []PropNight
	Longest                   string
	Cycles                    []Result
	Energy                    []Result
	Fluid                     []Result
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

var nightWay = way{
	id: "night", title: "Night",
	fill: func(_ *Server, _ *gin.Context, p *Page, _ []check.Snag) error {
		p.night()
		return nil
	},
}

// number is a whole number of the address, within bounds.
func (p *Page) number(name string, def, least, most int) int {
	n, err := strconv.Atoi(p.Query.Get(name))
	if err != nil {
		return def
	}
	return max(least, min(most, n))
}

// night plays a whole evening of guests.
func (p *Page) night() {
	w := p.Work
	_, hours, _ := w.Plan.Season()
	v := &NightView{Groups: p.number("groups", 60, 1, 2000), Size: p.number("size", 5, 1, 40),
		Dwell: p.number("dwell", 8, 0, 600), Seed: p.number("seed", 1, 1, 1_000_000), Speed: "1 m/s",
		Hours: measure.Span(hours * 3600)}
	p.Night = v
	n := show.Night{Length: int(hours * 3.6e6), Groups: v.Groups, Size: v.Size, Speed: 1, Dwell: v.Dwell * 1000,
		Seed: uint64(v.Seed), Loads: w.Loads(), Volts: map[string]float64{}}
	far := 0.0
	for i := range w.Plan.Inputs {
		in := &w.Plan.Inputs[i]
		if !in.ByGuests() {
			continue
		}
		if far += 3; !in.Far.IsZero() { // none said: three metres behind the one before
			far = in.Far.Value() / 1000
		}
		n.Stops = append(n.Stops, show.Stop{Input: in.ID, Far: far, Held: 400})
	}
	if v.None = len(n.Stops) == 0 || w.ShowErr != nil; v.None {
		return
	}
	for i := range w.Plan.Devices {
		if d := &w.Plan.Devices[i]; d.Kind == "supply" {
			n.Volts[d.ID] = w.All.Readings[d.ID].Volts
		}
	}
	rep, _ := n.Run(w.Machine)
	v.Guests, v.Longest = grouped(rep.Guests), measure.Span(float64(rep.Longest)/1000)
	for _, x := range rep.Props {
		in := w.Plan.Input(x.Input)
		v.Props = append(
			v.Props,
			PropNight{in.Name, p.nameOf("prop:" + in.Prop), x.Came, x.Scared, x.Shared, x.Missed, x.Ignored,
				measure.Span(float64(x.Wait) / 1000), 100 * x.Scared / max(1, x.Came)},
		)
	}
	for _, m := range w.Mechanisms() {
		if k := rep.Cycles[m.Of.ID]; k > 0 {
			v.Cycles = append(v.Cycles, Result{Label: m.Of.Name, Text: grouped(k) + " runs"})
		}
	}
	for _, l := range n.Loads {
		if wh := rep.Wh[l.Supply]; wh > 0.05 {
			v.Energy = append(v.Energy, Result{Label: w.Device(l.Supply).Name, Text: measure.Decimal(wh, 0) + " Wh"})
		}
	}
	v.Fluid = fogged(w, rep)
}

// fogPerMinute is what a small fogger of the battery kind uses, mL a minute (from memory).
const fogPerMinute = 2.5

// fogged is how long each fogger ran, and what it used.
func fogged(w *work.Work, rep show.Report) (out []Result) {
	for i := range w.Plan.Devices {
		d := &w.Plan.Devices[i]
		if w.Lib.Lamps[d.Product].Makes != "fog" {
			continue
		}
		for up := d; up != nil; up = w.Device(up.From) {
			if up.Driven {
				s := float64(rep.On[up.ID]) / 1000
				out = append(out, Result{Label: d.Name, Text: measure.Span(s) + " of fog, " +
					measure.Decimal(s/60*fogPerMinute, 0) + " mL"})
				break
			}
		}
	}
	return out
}
