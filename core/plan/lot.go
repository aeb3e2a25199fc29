package plan

// Lot is an opened bottle on the shelf.
type Lot struct {
	ID     string `json:"id"`
	Glue   string `json:"glue" label:"Glue" choose:"glue"`
	Opened string `json:"opened" label:"Opened"` // date
}

var lotKind = listed(kind{name: "lot", most: 1000}, func(p *Plan) *[]Lot { return &p.Lots })

func (x *Lot) key() string    { return x.ID }
func (x *Lot) called() string { return "bottle of " + x.Glue }

func (x *Lot) valid(c checks) error {
	return first(inList("glue", x.Glue, c.lib.Glues, "pva"), date("opened", x.Opened))
}
