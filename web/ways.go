package web

import (
	"bytes"
	"html/template"

	"zapbarn/core/check"

	"github.com/gin-gonic/gin"
)

// A place is where a builder works; a way is one way to see it. Each place has a
// file of its own that lists its ways, each way a file with what it fills the page
// with, and a template of its name in the place's folder.
type place struct {
	id, name string
	hint     string // what the quick line suggests there
	ofProp   bool   // shows one prop: one is chosen when none is asked for
	clock    bool   // tells the time
	ways     []way
	first    func(p *Page) string         // the way to begin with; the first of all when nil or ""
	link     func(p *Page, to way) string // leads to another way
}

// way is one way to see a place.
type way struct {
	id, title string
	body      string // its template; its id when not given
	fill      func(s *Server, c *gin.Context, p *Page, snags []check.Snag) error
}

// allPlaces in the builder's order.
func allPlaces() []place {
	return []place{
		barnPlace,
		benchPlace,
		loomPlace,
		rehearsalPlace,
		yardPlace,
		calendarPlace,
		storesPlace,
		walkdownPlace,
	}
}

func placeOf(id string) (place, bool) {
	for _, pl := range allPlaces() {
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

// filled fills the page with what the place shows in the way asked for, and its
// body.
func (s *Server) filled(c *gin.Context, p *Page, pl place, snags []check.Snag) error {
	now := pl.wayOf(p)
	p.Way, p.NeedsProp = now.id, pl.ofProp && pl.id != "rehearsal"
	for _, w := range pl.ways {
		p.Ways = append(p.Ways, Link{Text: w.title, Href: pl.link(p, w), On: w.id == now.id})
	}
	if p.NeedsProp && p.Prop == "" {
		return nil
	}
	if pl.id == "walkdown" && now.id != "snags" && now.id != "waived" { // none are shown there: none is to be tried
		p.Snags, p.More = nil, 0
	}
	return now.fill(s, c, p, snags)
}

// bodied renders the page's body, once all of the page is known.
func (s *Server) bodied(p *Page, pl place) error {
	if p.NeedsProp && p.Prop == "" {
		return nil
	}
	now := pl.wayOf(p)
	name := now.body
	if name == "" {
		name = now.id
	}
	var b bytes.Buffer
	err := s.pages.ExecuteTemplate(&b, name, p)
	p.Body = template.HTML(b.String())
	return err
}

// here is the address of a thing in the place and the way that is shown.
func (p *Page) here(key string) string {
	if p.Above {
		return p.href(p.Place, p.Prop, key, p.Way) + "&from=above"
	}
	return p.href(p.Place, p.Prop, key, p.Way)
}

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
