package plan

import "zapbarn/core/measure"

// Finish is the coat stack of a solid, from the surface up.
type Finish struct {
	ID     string  `json:"id"`
	Solid  string  `json:"solid" ref:"solid,needed"`
	Layers []Layer `json:"layers" max:"30" label:"Coats from the surface up" wide:"true"`
}

var finishKind = listed(kind{name: "finish", most: 4000, twin: func(v any) (string, error) {
	solid := v.(*Finish).Solid
	return solid, measure.Bad("solid", "%q has a stack of coats already; add to that", solid)
}, again: func(v any, c *copying) string {
	x := v.(*Finish)
	x.ID = c.to("solid", x.Solid)
	return x.ID
}}, func(p *Plan) *[]Finish { return &p.doc.Finishes })

func (x *Finish) Key() string    { return x.ID }
func (x *Finish) Called() string { return "coats of " + x.Solid }

func (x *Finish) valid(c checks) error {
	if len(x.Layers) > 30 {
		return measure.Bad("layers", "%d is more than a part can bear; 30 at most", len(x.Layers))
	}
	for _, l := range x.Layers {
		if l.Coats < 1 || l.Coats > 20 {
			return measure.Bad("layers", "%d coats of %s; write 1 to 20", l.Coats, l.Coat)
		}
		if err := measure.InList("layers", l.Coat, c.lib.Coats, "masonry or latex"); err != nil {
			return err
		}
	}
	return nil
}

// Layer is one product and its number of coats.
type Layer struct {
	Coat  string `json:"coat"`
	Coats int    `json:"coats"`
}
