package plan

import (
	"strings"

	"zapbarn/core/measure"
)

// Joint is where one part meets another. A and B are solid/panel, or =material
// for a bought thing.
type Joint struct {
	ID     string         `json:"id"`
	Prop   string         `json:"prop" ref:"prop,needed"`
	A      string         `json:"a" max:"260" label:"This part" choose:"parts" ref:"part"`
	B      string         `json:"b" max:"260" label:"meets" choose:"parts" ref:"part"`
	Glue   string         `json:"glue" label:"Glue" choose:"glue"`
	Length measure.Length `json:"length,omitzero" label:"Glue line"` // of the glue line
	Strain bool           `json:"strain,omitempty" label:"Under strain"`
	// it must come off again, or turn
	Apart bool `json:"apart,omitempty" label:"Must come apart"`
}

var jointKind = listed(kind{name: "joint", most: 4000, again: func(v any, c *copying) string {
	x := v.(*Joint)
	twin := *x
	renamed(&twin, c.to)
	x.ID = c.fresh("joint", twin.A+" "+twin.B)
	return x.ID
}}, func(p *Plan) *[]Joint { return &p.doc.Joints })

func (x *Joint) Key() string    { return x.ID }
func (x *Joint) Called() string { return "joint of " + x.A + " and " + x.B }

func (x *Joint) valid(c checks) error {
	for _, side := range [][2]string{{"a", x.A}, {"b", x.B}} {
		f, r := side[0], side[1]
		if m, bought := strings.CutPrefix(r, "="); bought {
			if err := measure.InList(f, m, c.lib.Materials, "=pet"); err != nil {
				return err
			}
		} else if r == "" {
			return measure.Bad(f, "is empty; name a part such as box/front")
		}
	}
	return measure.First(
		measure.InList("glue", x.Glue, c.lib.Glues, "pu or hotlow"),
		measure.Within("length", x.Length, 1, 1000*metre),
	)
}
