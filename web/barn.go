package web

// barnPlace is the whole display, and its shop.
var barnPlace = place{
	id: "barn", clock: true, name: "Barn", hint: "prop weathervane 30 in tall", ways: []way{barnShowWay, barnShopWay},
	link: func(p *Page, to way) string { return p.href("barn", p.Prop, "", to.id) },
}
