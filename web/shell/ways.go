package shell

import (
	"bytes"
	"html/template"

	"zapbarn/core/check"
	"zapbarn/core/source"
	"zapbarn/core/work"

	"github.com/gin-gonic/gin"
)

// A place is where a builder works; a way is one way to see it. Each place has a
// file of its own that lists its ways, each way a file with what it fills the page
// with, and a template of its name in the place's folder.
type Place struct {
	ID, Name string
	Hint     string // what the quick line suggests there
	OfProp   bool   // shows one prop: one is chosen when none is asked for
	Idle     bool   // is shown without a prop as well
	Clock    bool   // tells the time
	Dark     bool   // is shown with the lights out
	Ways     []Way
	First    func(p *Page) string         // the way to begin with; the first of all when nil or ""
	Link     func(p *Page, to Way) string // leads to another way
	SnagWay  func(code string) string     // the way that shows a snag of the whole display; nil where a prop's does
	Aside    string                       // the template of a ticket of its own
	Gutter   string                       // the template of what it has in place of the snags
	Working  string                       // the kind of results it knows how it came by, beside what is worked out
	Reached  func(w *work.Work, k source.Key) (source.Result, bool)
}

// Way is one way to see a place.
type Way struct {
	ID, Title string
	Body      string // its template; its id when not given
	NoSnags   bool   // lists other things than what is to be mended
	Fill      Filling
}

// Filling fills in what a way shows: the view its template is given.
type Filling func(c *gin.Context, p *Page, snags []check.Snag) (any, error)

// Showing fills a room's own view of a page.
func Showing[V any](of func(*Page) *V, fill func(*gin.Context, *V, []check.Snag) error) Filling {
	return func(c *gin.Context, p *Page, snags []check.Snag) (any, error) {
		v := of(p)
		return v, fill(c, v, snags)
	}
}

// PlacesOf are places, to be looked up.
type PlacesOf []Place

func (all PlacesOf) of(id string) (Place, bool) {
	for _, pl := range all {
		if pl.ID == id {
			return pl, true
		}
	}
	return Place{}, false
}

// wayOf is a way by its name, or the one the place begins with.
func (pl Place) wayOf(p *Page) Way {
	begins := ""
	if pl.First != nil {
		begins = pl.First(p)
	}
	for _, id := range []string{p.Way, begins} {
		for _, w := range pl.Ways {
			if w.ID == id {
				return w
			}
		}
	}
	return pl.Ways[0]
}

// filled fills the page with what the place shows in the way asked for: the view of the place.
func (s *Site) filled(c *gin.Context, p *Page, pl Place, snags []check.Snag) (any, error) {
	now := pl.wayOf(p)
	p.Way, p.NeedsProp = now.ID, pl.OfProp && !pl.Idle
	for _, w := range pl.Ways {
		p.Ways = append(p.Ways, Link{Text: w.Title, Href: pl.Link(p, w), On: w.ID == now.ID})
	}
	if p.NeedsProp && p.Prop == "" {
		return nil, nil
	}
	if now.NoSnags { // none are shown there: none is to be tried
		p.Snags, p.More = nil, 0
	}
	return now.Fill(c, p, snags)
}

// bodied renders the page's body and what else the place has on it, once all of the page is known.
func (s *Site) bodied(p *Page, pl Place, view any) error {
	if view == nil {
		return nil
	}
	now := pl.wayOf(p)
	body := now.Body
	if body == "" {
		body = now.ID
	}
	for _, x := range []struct {
		to   *template.HTML
		name string
	}{{&p.Body, body}, {&p.Aside, pl.Aside}, {&p.Notes, pl.Gutter}} {
		if x.name == "" {
			continue
		}
		var b bytes.Buffer
		if err := s.pages.ExecuteTemplate(&b, x.name, view); err != nil {
			return err
		}
		*x.to = template.HTML(b.String())
	}
	return nil
}

// Here is the address of a thing in the place and the way that is shown.
func (p *Page) Here(key string) string {
	if p.Above() {
		return p.Href(p.Place, p.Prop, key, p.Way) + "&from=above"
	}
	return p.Href(p.Place, p.Prop, key, p.Way)
}

// Above reports that the bench's second drawing is from above.
func (p *Page) Above() bool { return p.Way == "whole" && p.Query.Get("from") == "above" }

// Front is this page with the second drawing from the front.
func (p *Page) Front() string { return p.Href(p.Place, p.Prop, p.Sel, p.Way) }

// Row is a line of a list.
type Row struct {
	Key, Href, Mark, Title, Sub, Right string
	On                                 bool
	Verdict                            bool // the mark is bond's verdict
}

// Group is a list under a heading.
type Group struct {
	Title string
	Rows  []Row
}
