package web

import (
	"fmt"

	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/source"
	"zapbarn/core/wiring"

	"github.com/gin-gonic/gin"
)

// walkdownPlace is everything that was found, done and looked for.
func (s *Server) walkdownPlace() place {
	return place{
		id: "walkdown", name: "Walkdown", hint: "opened pva 2026-03-01",
		ways: []way{
			{id: "snags", title: "Snags", fill: showing(newWalkdown, s.walkSnags)},
			{id: "waived", title: "Waived", body: "snags", fill: showing(newWalkdown, s.walkSnags)},
			s.cardsWay(), s.nightsWay(), s.compareWay(),
			{id: "log", title: "Log", noSnags: true, fill: showing(newWalkdown, s.walkLog)},
			s.historyWay(),
			{id: "find", title: "Find", noSnags: true, fill: showing(newWalkdown, s.walkFind)},
		},
		link:   func(p *Page, to way) string { return p.href("walkdown", "", "", to.id) },
		gutter: "tally",
	}
}

// walkSnags lists all snags, worst first, or those that are waived.
func (s *Server) walkSnags(_ *gin.Context, p *walkdownView, snags []check.Snag) error {
	p.Snags, p.More = nil, 0
	only := check.For{Prop: p.Query.Get("of"), Place: p.Query.Get("in"), Trade: p.Query.Get("trade"),
		Person: p.Query.Get("for")}
	var shown []check.Snag
	for _, sn := range snags {
		if (sn.Waived != nil) == (p.Way == "waived") {
			shown = append(shown, sn)
		}
	}
	p.Narrowed = only != check.For{}
	p.filters(shown, only)
	for _, sn := range shown {
		if only.Of(p.Plan, sn) {
			p.Snags = append(p.Snags, p.view(sn))
		}
	}
	p.Snags = folded(p.Snags)
	if len(p.Snags) > 0 {
		p.Snags[0].Main = p.Way == "snags"
	}
	return nil
}

// PriceFrom is where the prices in mends are from.
func (p *walkdownView) PriceFrom() []source.Source { return wiring.BillFrom }

// Filter is one way to narrow the snags: what it can be narrowed to, how many are left
// with what else is chosen.
type Filter struct {
	Name, Label string
	Options     []Option
}

// filters are the props, places, trades and people that snags are of.
func (p *walkdownView) filters(snags []check.Snag, only check.For) {
	add := func(name, label, all, at string, to func(f *check.For) *string, choices []Option) {
		f := Filter{Name: name, Label: label}
		for _, c := range append([]Option{{Text: all}}, choices...) {
			would, n := only, 0
			*to(&would) = c.Value
			for _, sn := range snags {
				if would.Of(p.Plan, sn) {
					n++
				}
			}
			if c.On = c.Value == at; n > 0 || c.On || c.Value == "" {
				c.Text = fmt.Sprintf("%s (%d)", c.Text, n)
				f.Options = append(f.Options, c)
			}
		}
		p.Filters = append(p.Filters, f)
	}
	var props, places, trades, people []Option
	for _, x := range p.Plan.Props() {
		props = append(props, Option{Value: x.ID, Text: x.Name})
	}
	for _, id := range []string{"bench", "loom", "rehearsal", "yard", "calendar", "stores", "walkdown"} {
		places = append(places, Option{Value: id, Text: measure.Capital(id)})
	}
	for _, t := range check.Trades {
		trades = append(trades, Option{Value: t, Text: measure.Capital(t)})
	}
	add("of", "Prop", "All props", only.Prop, func(f *check.For) *string { return &f.Prop }, props)
	add("in", "Place", "All places", only.Place, func(f *check.For) *string { return &f.Place }, places)
	add("trade", "Trade", "All trades", only.Trade, func(f *check.For) *string { return &f.Trade }, trades)
	if len(p.Plan.People()) == 0 {
		return
	}
	for _, x := range p.Plan.People() {
		people = append(people, Option{Value: x.ID, Text: x.Name})
	}
	people = append(people, Option{Value: check.Nobody, Text: "Nobody's trade"})
	add("for", "Person", "Everybody", only.Person, func(f *check.For) *string { return &f.Person }, people)
}

// LogLine is one edit of the log.
type LogLine struct {
	When, What, State string
	ID                int64
	Here              bool // the plan stands just after it
}

// walkLog lists what was done, newest first.
func (s *Server) walkLog(c *gin.Context, p *walkdownView, _ []check.Snag) error {
	log, err := s.store.Log(c.Request.Context(), p.PlanID, 60)
	if err != nil {
		return err
	}
	here := false
	for _, e := range log {
		l := LogLine{e.At.Local().Format("Jan 2, 15:04:05"), e.Label, e.State, e.ID, e.State == "done" && !here}
		here = here || l.Here
		p.Log = append(p.Log, l)
	}
	return nil
}

// walkFind lists what a search finds.
func (s *Server) walkFind(_ *gin.Context, p *walkdownView, snags []check.Snag) error {
	p.Find = p.Query.Get("find")
	p.Found = p.find(p.Find, snags)
	return nil
}

// walkdownView is what the Walkdown shows.
type walkdownView struct {
	*Page
	History  []SnagTurn // of the latest edits
	Narrowed bool
	Filters  []Filter // what the snags can be narrowed to
	Nights   *NightPage
	Proofs   *CardsView
	Compare  *CompareView
	Find     string // what is searched for
	Found    []Found
	Log      []LogLine
}

func newWalkdown(p *Page) *walkdownView { return &walkdownView{Page: p} }
