package plan

import "zapbarn/core/measure"

// Lot is an opened bottle on the shelf.
type Lot struct {
	ID     string `json:"id"`
	Glue   string `json:"glue" label:"Glue" choose:"glue"`
	Opened string `json:"opened" label:"Opened"` // date
}

var lotKind = listed(kind{name: "lot", most: 1000}, func(p *Plan) *[]Lot { return &p.doc.Lots })

func (x *Lot) Key() string    { return x.ID }
func (x *Lot) Called() string { return "bottle of " + x.Glue }

func (x *Lot) valid(c checks) error {
	return measure.First(measure.InList("glue", x.Glue, c.lib.Glues, "pva"), date("opened", x.Opened))
}
