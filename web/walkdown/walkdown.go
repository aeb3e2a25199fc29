package walkdown

import (
	"fmt"

	"zapbarn/web/shell"

	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/source"
	"zapbarn/core/wiring"

	"github.com/gin-gonic/gin"
)

// Place is everything that was found, done and looked for.
func (s Room) Place() shell.Place {
	return shell.Place{
		ID: "walkdown", Name: "Walkdown", Hint: "opened pva 2026-03-01",
		Ways: []shell.Way{
			{ID: "snags", Title: "Snags", Fill: shell.Showing(newView, s.walkSnags)},
			{ID: "waived", Title: "Waived", Body: "snags", Fill: shell.Showing(newView, s.walkSnags)},
			s.cardsWay(), s.nightsWay(), s.compareWay(),
			{ID: "log", Title: "Log", NoSnags: true, Fill: shell.Showing(newView, s.walkLog)},
			s.historyWay(),
			{ID: "find", Title: "Find", NoSnags: true, Fill: shell.Showing(newView, s.walkFind)},
		},
		Link:   func(p *shell.Page, to shell.Way) string { return p.Href("walkdown", "", "", to.ID) },
		Gutter: "tally",
	}
}

// walkSnags lists all snags, worst first, or those that are waived.
func (s Room) walkSnags(_ *gin.Context, p *view, snags []check.Snag) error {
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
			p.Snags = append(p.Snags, p.View(sn))
		}
	}
	p.Snags = shell.Folded(p.Snags)
	if len(p.Snags) > 0 {
		p.Snags[0].Main = p.Way == "snags"
	}
	return nil
}

// PriceFrom is where the prices in mends are from.
func (p *view) PriceFrom() []source.Source { return wiring.BillFrom }

// Filter is one way to narrow the snags: what it can be narrowed to, how many are left
// with what else is chosen.
type Filter struct {
	Name, Label string
	Options     []shell.Option
}

// filters are the props, places, trades and people that snags are of.
func (p *view) filters(snags []check.Snag, only check.For) {
	add := func(name, label, all, at string, to func(f *check.For) *string, choices []shell.Option) {
		f := Filter{Name: name, Label: label}
		for _, c := range append([]shell.Option{{Text: all}}, choices...) {
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
	var props, places, trades, people []shell.Option
	for _, x := range p.Plan.Props() {
		props = append(props, shell.Option{Value: x.ID, Text: x.Name})
	}
	for _, id := range []string{"bench", "loom", "rehearsal", "yard", "calendar", "stores", "walkdown"} {
		places = append(places, shell.Option{Value: id, Text: measure.Capital(id)})
	}
	for _, t := range check.Trades {
		trades = append(trades, shell.Option{Value: t, Text: measure.Capital(t)})
	}
	add("of", "Prop", "All props", only.Prop, func(f *check.For) *string { return &f.Prop }, props)
	add("in", "Place", "All places", only.Place, func(f *check.For) *string { return &f.Place }, places)
	add("trade", "Trade", "All trades", only.Trade, func(f *check.For) *string { return &f.Trade }, trades)
	if len(p.Plan.People()) == 0 {
		return
	}
	for _, x := range p.Plan.People() {
		people = append(people, shell.Option{Value: x.ID, Text: x.Name})
	}
	people = append(people, shell.Option{Value: check.Nobody, Text: "Nobody's trade"})
	add("for", "Person", "Everybody", only.Person, func(f *check.For) *string { return &f.Person }, people)
}

// LogLine is one edit of the log.
type LogLine struct {
	When, What, State string
	ID                int64
	Here              bool // the plan stands just after it
}

// walkLog lists what was done, newest first.
func (s Room) walkLog(c *gin.Context, p *view, _ []check.Snag) error {
	log, err := s.Store.Log(c.Request.Context(), p.PlanID, 60)
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
func (s Room) walkFind(_ *gin.Context, p *view, snags []check.Snag) error {
	p.Find = p.Query.Get("find")
	p.Found = p.find(p.Find, snags)
	return nil
}

// view is what the Walkdown shows.
type view struct {
	*shell.Page
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

func newView(p *shell.Page) *view { return &view{Page: p} }
