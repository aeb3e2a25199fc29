package shell

import (
	"bytes"
	"net/http"
	"slices"

	"zapbarn/core/hearing"
	"zapbarn/core/plan"
	"zapbarn/core/shorthand"

	"github.com/gin-gonic/gin"
)

// helpPart is what can be said, subject by subject, those of the place first.
type helpPart struct {
	shorthand.HelpGroup
	Open bool // it belongs to the place one is at
}

// Help answers with what can be said in a prop: each line tried on the plan.
func (s *Site) Help(c *gin.Context) {
	w, _, err := s.Work(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.Answered(c, err)
		return
	}
	p := &Page{Plan: w.Plan, Work: w}
	var list []helpPart
	for _, g := range shorthand.HelpFor(w.Plan, s.Lib, c.Query("prop")) {
		if g.Title == "Openings and panes" {
			g.Lines = append(p.fitting(c.Query("prop")), g.Lines...)
		}
		slices.SortStableFunc(g.Lines, func(a, b shorthand.Help) int { return goodFirst(a.Good, b.Good) })
		list = append(list, helpPart{g, slices.Contains(g.Places, c.Query("place"))})
	}
	slices.SortStableFunc(list, func(a, b helpPart) int { return goodFirst(a.Open, b.Open) })
	var b bytes.Buffer
	if err := s.pages.ExecuteTemplate(&b, "help", list); err != nil {
		panic(err)
	}
	c.Data(http.StatusOK, "text/html; charset=utf-8", b.Bytes())
}

func goodFirst(a, b bool) int {
	switch {
	case a == b:
		return 0
	case a:
		return -1
	}
	return 1
}

// fitting are openings that fit into the prop's first solid with room for them.
func (p *Page) fitting(prop string) (out []shorthand.Help) {
	for i := range p.Plan.Solids() {
		s := &p.Plan.Solids()[i]
		if s.Prop != prop || len(out) > 0 {
			continue
		}
		for _, say := range p.says(s) {
			if r, err := shorthand.Read(p.Plan, p.Work.Lib, prop, say.Line); err == nil {
				out = append(out, shorthand.Help{Line: say.Line, Says: r.Text, Good: true})
			}
		}
	}
	return out
}

// tries are lines to go on with where one was not understood.
func tries(p *plan.Plan, err error) (out []string) {
	e, ok := err.(*shorthand.Error)
	if !ok {
		return nil
	}
	for _, line := range e.Tries() {
		if len(e.Offers) == 0 {
			line = shorthand.InUnits(line, p.Metric())
		}
		out = append(out, line)
	}
	return out
}

// goingOn are the lines that one can go on with after a line that was not done: the one that comes
// near it first, and at the end one that keeps it as it was said.
func goingOn(p *plan.Plan, h hearing.Heard) (out []string) {
	if h.As != "" {
		out = append(out, h.As)
	}
	out = append(out, tries(p, h.Err)...)
	if h.Note != "" {
		out = append(out, h.Note)
	}
	return out
}

// notHeard is why a line was not done.
func notHeard(h hearing.Heard) string {
	if h.Answer == hearing.Offered {
		return h.Trouble()
	}
	return whyNot(h.Err)
}

// offers are those of the line itself, set right; none while it is only begun.
func offers(err error) []string {
	if e, ok := err.(*shorthand.Error); ok {
		return e.Offers
	}
	return nil
}

// whyNot is why a line was not understood, less what is offered beside it.
func whyNot(err error) string {
	if e, ok := err.(*shorthand.Error); ok {
		return e.Why
	}
	return err.Error()
}

// Example is a line that could be said now, for a press in an empty place.
func (p *Page) Example(verb string) string {
	return shorthand.Example(p.Plan, p.Work.Lib, p.Prop, verb)
}
