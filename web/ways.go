package web

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
type place struct {
	id, name string
	hint     string // what the quick line suggests there
	ofProp   bool   // shows one prop: one is chosen when none is asked for
	idle     bool   // is shown without a prop as well
	clock    bool   // tells the time
	dark     bool   // is shown with the lights out
	ways     []way
	first    func(p *Page) string         // the way to begin with; the first of all when nil or ""
	link     func(p *Page, to way) string // leads to another way
	snagWay  func(code string) string     // the way that shows a snag of the whole display; nil where a prop's does
	aside    string                       // the template of a ticket of its own
	gutter   string                       // the template of what it has in place of the snags
	working  string                       // the kind of results it knows how it came by, beside what is worked out
	reached  func(w *work.Work, k source.Key) (source.Result, bool)
}

// way is one way to see a place.
type way struct {
	id, title string
	body      string // its template; its id when not given
	noSnags   bool   // lists other things than what is to be mended
	fill      filling
}

// filling fills in what a way shows: the view its template is given.
type filling func(c *gin.Context, p *Page, snags []check.Snag) (any, error)

// showing fills a room's own view of a page.
func showing[V any](of func(*Page) *V, fill func(*gin.Context, *V, []check.Snag) error) filling {
	return func(c *gin.Context, p *Page, snags []check.Snag) (any, error) {
		v := of(p)
		return v, fill(c, v, snags)
	}
}

// placesOf are places, to be looked up.
type placesOf []place

func (all placesOf) of(id string) (place, bool) {
	for _, pl := range all {
		if pl.id == id {
			return pl, true
		}
	}
	return place{}, false
}

// wayOf is a way by its name, or the one the place begins with.
func (pl place) wayOf(p *Page) way {
	begins := ""
	if pl.first != nil {
		begins = pl.first(p)
	}
	for _, id := range []string{p.Way, begins} {
		for _, w := range pl.ways {
			if w.id == id {
				return w
			}
		}
	}
	return pl.ways[0]
}

// filled fills the page with what the place shows in the way asked for: the view of the place.
func (s *Server) filled(c *gin.Context, p *Page, pl place, snags []check.Snag) (any, error) {
	now := pl.wayOf(p)
	p.Way, p.NeedsProp = now.id, pl.ofProp && !pl.idle
	for _, w := range pl.ways {
		p.Ways = append(p.Ways, Link{Text: w.title, Href: pl.link(p, w), On: w.id == now.id})
	}
	if p.NeedsProp && p.Prop == "" {
		return nil, nil
	}
	if now.noSnags { // none are shown there: none is to be tried
		p.Snags, p.More = nil, 0
	}
	return now.fill(c, p, snags)
}

// bodied renders the page's body and what else the place has on it, once all of the page is known.
func (s *Server) bodied(p *Page, pl place, view any) error {
	if view == nil {
		return nil
	}
	now := pl.wayOf(p)
	body := now.body
	if body == "" {
		body = now.id
	}
	for _, x := range []struct {
		to   *template.HTML
		name string
	}{{&p.Body, body}, {&p.Aside, pl.aside}, {&p.Notes, pl.gutter}} {
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

// here is the address of a thing in the place and the way that is shown.
func (p *Page) here(key string) string {
	if p.Above() {
		return p.href(p.Place, p.Prop, key, p.Way) + "&from=above"
	}
	return p.href(p.Place, p.Prop, key, p.Way)
}

// Above reports that the bench's second drawing is from above.
func (p *Page) Above() bool { return p.Way == "whole" && p.Query.Get("from") == "above" }

// Front is this page with the second drawing from the front.
func (p *Page) Front() string { return p.href(p.Place, p.Prop, p.Sel, p.Way) }

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
