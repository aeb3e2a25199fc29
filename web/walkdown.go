package web

import (
	"zapbarn/core/check"

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
		{id: "find", title: "Find", fill: (*Server).walkFind},
	},
	link: func(p *Page, to way) string { return p.href("walkdown", "", "", to.id) },
}

// walkSnags lists all snags, worst first, or those that are waived.
func (s *Server) walkSnags(_ *gin.Context, p *Page, snags []check.Snag) error {
	p.Snags, p.More = nil, 0
	for _, sn := range snags {
		if (sn.Waived != nil) == (p.Way == "waived") {
			p.Snags = append(p.Snags, p.view(sn))
		}
	}
	p.Snags = folded(p.Snags)
	if len(p.Snags) > 0 {
		p.Snags[0].Main = p.Way == "snags"
	}
	return nil
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
