package work

import (
	"fmt"
	"slices"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/source"
)

// Season is the season so far, out of the night book.
type Season struct {
	Nights  []*plan.Night // in the order of their dates
	Minutes int           // that it was open
	Guests  int
	Cost    int
	Props   []Uptime
	Failed  []Failed // what failed, the most minutes first
	Next    []*plan.Incident
	Open    source.Result // of all props together, per cent
}

// Uptime is a prop's share of the time it was up.
type Uptime struct {
	Prop  *plan.Prop
	Times int // it failed
	Down  int // minutes
	Share float64
}

// Failed is a part or a cause by what it cost.
type Failed struct {
	What    string
	Times   int
	Minutes int
	Cost    int
}

// aNight is how long a night is taken to be where its times were not noted.
func (w *Work) aNight(n *plan.Night) int {
	if m := n.Open(); m > 0 {
		return m
	}
	_, hours, _ := w.Plan.Season()
	return int(hours * 60)
}

// Season reads the night book.
func (w *Work) Season() *Season {
	s := &Season{}
	for i := range w.Plan.NightBook() {
		n := &w.Plan.NightBook()[i]
		s.Nights = append(s.Nights, n)
		s.Minutes, s.Guests = s.Minutes+w.aNight(n), s.Guests+n.Guests
	}
	slices.SortFunc(s.Nights, func(a, b *plan.Night) int { return strings.Compare(a.On, b.On) })
	down, times := map[string]int{}, map[string]int{}
	failed := map[string]*Failed{}
	for i := range w.Plan.Incidents() {
		x := &w.Plan.Incidents()[i]
		down[x.Prop], times[x.Prop], s.Cost = down[x.Prop]+x.Minutes, times[x.Prop]+1, s.Cost+x.Cost
		if x.Next != "" {
			s.Next = append(s.Next, x)
		}
		what := x.Part
		if what == "" {
			what = x.What
		}
		if failed[what] == nil {
			failed[what] = &Failed{What: what}
		}
		f := failed[what]
		f.Times, f.Minutes, f.Cost = f.Times+1, f.Minutes+x.Minutes, f.Cost+x.Cost
	}
	all := 0
	for i := range w.Plan.Props() {
		p := &w.Plan.Props()[i]
		lost := min(down[p.ID], s.Minutes)
		u := Uptime{Prop: p, Times: times[p.ID], Down: down[p.ID], Share: 1}
		if s.Minutes > 0 {
			u.Share = 1 - float64(lost)/float64(s.Minutes)
		}
		all += lost
		s.Props = append(s.Props, u)
	}
	for _, f := range failed {
		s.Failed = append(s.Failed, *f)
	}
	slices.SortFunc(s.Failed, func(a, b Failed) int {
		if a.Minutes != b.Minutes {
			return b.Minutes - a.Minutes
		}
		return strings.Compare(a.What, b.What)
	})
	if n := len(w.Plan.Props()); n > 0 && s.Minutes > 0 {
		share := 100 * (1 - float64(all)/float64(s.Minutes*n))
		text := measure.Decimal(share, 1) + " %"
		s.Open = source.Num("Up", share, "%", text).With("1 - minutes down / (minutes open × props)",
			fmt.Sprintf("1 - %d / (%d × %d)", all, s.Minutes, n), text, source.Exact("the night book"))
	}
	return s
}
