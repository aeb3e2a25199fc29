package web

import "html/template"

// barnPlace is the whole display, and its shop.
func (s *Server) barnPlace() place {
	return place{
		id: "barn", clock: true, name: "Barn", hint: "prop weathervane 30 in tall", ways: []way{s.barnShowWay(), s.barnShopWay()},
		link: func(p *Page, to way) string { return p.href("barn", p.Prop, "", to.id) },
	}
}

// barnView is what the Barn shows.
type barnView struct {
	*Page
	Tonight Tonight
	Takes   []Take
	Drawn   []template.HTML
	Later   []Later
	Rows    []Row
	Shop    []ShopTable
	Find    string // what is looked for in the shop
}

func newBarn(p *Page) *barnView { return &barnView{Page: p} }
