package barn

import (
	"html/template"

	"zapbarn/web/shell"
)

// Place is the whole display, and its shop.
func (s Room) Place() shell.Place {
	return shell.Place{
		ID: "barn", Clock: true, Name: "Barn", Hint: "prop weathervane 30 in tall",
		Ways: []shell.Way{s.showWay(), s.shopWay()},
		Link: func(p *shell.Page, to shell.Way) string { return p.Href("barn", p.Prop, "", to.ID) },
	}
}

// view is what the Barn shows.
type view struct {
	*shell.Page
	Tonight Tonight
	Takes   []Take
	Drawn   []template.HTML
	Later   []Later
	Rows    []shell.Row
	Shop    []ShopTable
	Find    string // what is looked for in the shop
}

func newView(p *shell.Page) *view { return &view{Page: p} }
