package web

import (
	"fmt"
	"net/url"

	"zapbarn/core/check"
	"zapbarn/core/measure"

	"github.com/gin-gonic/gin"
)

// walkdownPlace is everything that was found, done and looked for.
var walkdownPlace = place{
	id: "walkdown", name: "Walkdown", hint: "opened pva 2026-03-01",
	ways: []way{
		{id: "snags", title: "Snags", fill: (*Server).walkSnags},
		{id: "waived", title: "Waived", body: "snags", fill: (*Server).walkSnags},
		cardsWay, nightsWay, compareWay,
		{id: "log", title: "Log", fill: (*Server).walkLog},
		historyWay,
		{id: "find", title: "Find", fill: (*Server).walkFind},
	},
	link: func(p *Page, to way) string { return p.href("walkdown", "", "", to.id) },
}

// walkSnags lists all snags, worst first, or those that are waived.
func (s *Server) walkSnags(_ *gin.Context, p *Page, snags []check.Snag) error {
	p.Snags, p.More = nil, 0
	of, in := p.Query.Get("of"), p.Query.Get("in")
	p.filters(snags, of, in)
	for _, sn := range snags {
		if (sn.Waived != nil) == (p.Way == "waived") && (of == "" || sn.Prop == of) && (in == "" || sn.Place == in) {
			p.Snags = append(p.Snags, p.view(sn))
		}
	}
	p.Snags = folded(p.Snags)
	if len(p.Snags) > 0 {
		p.Snags[0].Main = p.Way == "snags"
	}
	return nil
}

// filters are the props and the places that snags are of, each a press away.
func (p *Page) filters(snags []check.Snag, of, in string) {
	props, places := map[string]int{}, map[string]int{}
	for _, sn := range snags {
		if (sn.Waived != nil) == (p.Way == "waived") {
			props[sn.Prop]++
			places[sn.Place]++
		}
	}
	at := func(of, in string) string {
		q := url.Values{"way": {p.Way}}
		for k, v := range map[string]string{"of": of, "in": in} {
			if v != "" {
				q.Set(k, v)
			}
		}
		return "/p/" + p.PlanID + "/walkdown?" + q.Encode()
	}
	p.ByProp = []Link{{Text: "All props", Href: at("", in), On: of == ""}}
	for _, x := range p.Plan.Props {
		if props[x.ID] > 0 {
			p.ByProp = append(p.ByProp, Link{Text: fmt.Sprintf("%s %d", x.Name, props[x.ID]), Href: at(x.ID, in),
				On: of == x.ID})
		}
	}
	p.ByPlace = []Link{{Text: "All places", Href: at(of, ""), On: in == ""}}
	for _, id := range []string{"bench", "loom", "rehearsal", "yard", "calendar", "stores", "walkdown"} {
		if places[id] > 0 {
			text := fmt.Sprintf("%s %d", measure.Capital(id), places[id])
			p.ByPlace = append(p.ByPlace, Link{Text: text, Href: at(of, id), On: in == id})
		}
	}
}

// LogLine is one edit of the log.
type LogLine struct {
	When, What, State string
	ID                int64
	Here              bool // the plan stands just after it
}

// walkLog lists what was done, newest first.
func (s *Server) walkLog(c *gin.Context, p *Page, _ []check.Snag) error {
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
func (s *Server) walkFind(_ *gin.Context, p *Page, snags []check.Snag) error {
	p.Find = p.Query.Get("find")
	p.Found = p.find(p.Find, snags)
	return nil
}
