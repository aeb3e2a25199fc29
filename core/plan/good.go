package plan

import (
	"crypto/sha256"
	"errors"
	"regexp"

	"zapbarn/core/measure"
	"zapbarn/core/memo"
	"zapbarn/core/stock"
)

// Good is an entry of the shop that this plan changes or adds: a material that
// is not on the list, a lamp as it was measured, what something costs today.
// Everything is worked out with it; what it does not say is as in the entry it
// is like.
type Good struct {
	ID    string    `json:"id"`    // of the element: its table and name, such as material-cork3
	Table string    `json:"table"` // material, glue, coat, lamp or supply
	Good  string    `json:"good"`  // the shop's name for it, such as cork3
	Like  string    `json:"like,omitempty"`
	Set   []Setting `json:"set,omitempty" max:"40"`
	On    string    `json:"on,omitempty"` // date
}

// Setting is one field of an entry, by its name in the shop's files.
type Setting struct {
	Field string `json:"field" max:"30"`
	Value string `json:"value" max:"120"`
}

var goodKind = listed(kind{name: "good", most: 400}, func(p *Plan) *[]Good { return &p.doc.Goods })

func (g *Good) Key() string    { return g.ID }
func (g *Good) Called() string { return g.Table + " " + g.Good }

var goodName = regexp.MustCompile(`^[a-z0-9][a-z0-9./-]{0,29}$`)

func (g *Good) over() stock.Over {
	o := stock.Over{Table: g.Table, ID: g.Good, Like: g.Like, On: g.On}
	for _, s := range g.Set {
		o.Set = append(o.Set, stock.Setting(s))
	}
	return o
}

// With is the good with one field set, in place of what was set before; an empty
// value leaves it as the entry it is like has it.
func (g Good) With(field, value string) Good {
	var out []Setting
	for _, s := range g.Set {
		if s.Field != field {
			out = append(out, s)
		}
	}
	if value != "" {
		out = append(out, Setting{field, value})
	}
	g.Set = out
	return g
}

type shopOf struct {
	lib *stock.Library
	err error
}

// In is the plan in a shop, whose list and bench it is validated by.
func (p *Plan) In(lib *stock.Library) *Plan {
	q := *p
	q.lib = lib.Base()
	return &q
}

// list is the shop that the plan is in, without what it adds itself.
func (p *Plan) list() *stock.Library {
	if p.lib == nil {
		return stock.Shop
	}
	return p.lib
}

// Own is the shop that the plan is in, with what it changes and adds.
func (p *Plan) Own() *stock.Library { return p.Shop(p.list()) }

// Shop is the library with what this plan changes and adds. Entries that cannot
// be are left out; Validate speaks of them.
func (p *Plan) Shop(lib *stock.Library) *stock.Library {
	got, err := p.shop(lib)
	if err != nil {
		return lib.Base()
	}
	return got
}

func (p *Plan) shop(lib *stock.Library) (*stock.Library, error) {
	base := lib.Base()
	if len(p.Goods()) == 0 {
		return base, nil
	}
	work := func() shopOf {
		var overs []stock.Over
		for i := range p.Goods() {
			overs = append(overs, p.Goods()[i].over())
		}
		l, err := base.With(overs)
		return shopOf{l, err}
	}
	// by the entries themselves, so that one plan's shop is one library
	shops := memo.At[[32]byte, shopOf](lib.Bench(), "shops", 200, nil)
	s := shops.Get(sha256.Sum256(encode(p.Goods())), work)
	return s.lib, s.err
}

// valid checks one entry by itself, laid over the shop alone with those before it.
func (g *Good) valid(c checks) error {
	p := c.plan
	if !goodName.MatchString(g.Good) {
		return measure.Bad(
			"good",
			"%q must be small letters, digits, dots and dashes, at most 30, such as cork3",
			g.Good,
		)
	}
	if err := measure.First(measure.OneOf("table", g.Table, stock.Tables()...), date("on", g.On)); err != nil {
		return err
	}
	if g.ID != GoodID(g.Table, g.Good) {
		return measure.Bad("id", "%q must be %s", g.ID, GoodID(g.Table, g.Good))
	}
	if _, err := p.shop(p.list()); err == nil {
		return nil // all of them together can be
	}
	var before []stock.Over
	for i := range p.Goods() {
		before = append(before, p.Goods()[i].over())
		if p.Goods()[i].ID == g.ID {
			break
		}
	}
	_, err := p.list().With(before)
	var f *measure.FieldError
	if errors.As(err, &f) {
		return f
	}
	return err
}

// GoodID is the element's ID of an entry.
func GoodID(table, good string) string { return Slug(table + "-" + good) }

// GoodOf is the plan's own entry for a good of a table, or one that changes
// nothing yet.
func (p *Plan) GoodOf(table, good string) Good {
	for _, g := range p.Goods() {
		if g.Table == table && g.Good == good {
			return g
		}
	}
	return Good{ID: GoodID(table, good), Table: table, Good: good}
}
