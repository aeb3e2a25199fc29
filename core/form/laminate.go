package form

import (
	"fmt"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/words"
)

// Laminate is a shell of mat or cloth and resin laid up in a mould.
type Laminate struct {
	W     measure.Length `json:"w,omitzero" label:"Width of the rim" grip:"across"`
	H     measure.Length `json:"h,omitzero" label:"Height of the rim" grip:"up"`
	D     measure.Length `json:"d,omitzero" label:"Depth of the dish"`
	Plies int            `json:"plies,omitempty" label:"Plies"`
	Gel   bool           `json:"gel,omitempty" label:"Gel coat"`
}

var _ = register(
	Kind{
		Name:    "laminate",
		Title:   "Laid up in a mould",
		Form:    "laminate",
		Stock:   "glassmat",
		Piles:   true,
		Flat:    true,
		Blank:   Laminate{Plies: 2},
		Read:    readLaminate,
		Example: "laminate 2 plies gel 9 x 11 x 5 glassmat",
		Press: Press{
			24,
			"shell",
			"laminate 2 plies gel 9 x 11 x 5 in glassmat",
			"laminate 2 plies gel 230 x 280 x 130 glassmat",
			"M4 6H26Q26 24 15 24Q4 24 4 6Z",
			"M7 9q1 12 8 12M11 9q1 8 4 9",
		},
	},
)

// Lay reckons what it takes.
func (l Laminate) Lay(on On) (*pattern.Shape, error) {
	if err := need("w", l.W, "h", l.H, "d", l.D); err != nil {
		return nil, err
	}
	return laid(
		pattern.Laminate{
			W:        l.W.Value(),
			H:        l.H.Value(),
			Deep:     l.D.Value(),
			Plies:    l.Plies,
			Gel:      l.Gel,
			Fibre:    on.Stock.Fibre,
			Glass:    on.Stock.Glass,
			Density:  on.Stock.Density,
			Hardener: on.Stock.Hardener,
			Pot:      on.Stock.Pot.Value(),
		},
		"width",
		"w",
		"height",
		"h",
		"depth",
		"d",
	)
}

// Order is from the mould's face outwards: common practice, no source.
func (l Laminate) Order(Parts) []string {
	out := []string{
		"Organic-vapour respirator, gloves, goggles for the hardener; no flame, moving air; " +
			"the product's own data sheet.",
		"Seal the mould until it shines, wax and buff three times, then release film; let each dry.",
	}
	if l.Gel {
		out = append(out, "Gel coat brushed even; lay up when it is tacky and leaves no colour on a finger.")
	}
	return append(out,
		"Tear mat, cut cloth; strips overlap by an inch or two. Wet out from below, roll the air out, "+
			"ply by ply.",
		"Mix no more than is used before it gels; a cup that warms is set outside, and never goes on.",
		"Trim at the rubbery stage with a knife, or cured with a saw and a dust mask; wedge out, never pry.",
	)
}

// Make is mat or cloth, resin with its hardener and gel coat: what is done is order's own (mould,
// gel coat, lay up), since each waits on the one before while that keeps.
func (l Laminate) Make(on On, s *pattern.Shape) Making {
	fibre, resin, _ := strings.Cut(on.Stock.Name, " in ")
	out := Making{Goods: []Good{
		{What: "material:" + on.Stock.ID + " fibre", Name: fibre, Unit: "m2", Use: figure(s, "cloth"),
			Pack: 5, In: "roll of 5 m2",
			Lead: 3, How: "the plies with their overlaps"},
		{What: "material:" + on.Stock.ID + " resin",
			Name: measure.Capital(resin) + " resin", Unit: "kg", Use: figure(s, "resin"),
			Pack: 1, In: "can of 1 kg", Lead: 3, How: "what is mixed"},
		{What: "material:" + on.Stock.ID + " hardener",
			Name: "Hardener of the " + resin, Unit: "kg", Use: figure(s, "hardener"),
			Pack: .1, In: "bottle of 0.1 kg", Lead: 3, How: "its share of the resin"},
		{What: "bought:mould wax and release", Name: "Mould wax and release film", Unit: "m2", Use: figure(s, "face"),
			Pack: 10,
			In:   "set for 10 m2", Lead: 3, How: "the mould's face"},
	}}
	if gel := figure(s, "gel"); gel > 0 {
		out.Goods = append(out.Goods, Good{What: "material:" + on.Stock.ID + " gel", Name: "Gel coat", Unit: "kg", Use: gel,
			Pack: 1,
			In:   "can of 1 kg", Lead: 3, How: "half a millimetre on the mould's face"})
	}
	return out
}

func readLaminate(w *words.Words) (Form, string, error) {
	l := Laminate{Gel: w.Take("gel")}
	var err error
	if l.Plies, err = w.Count(2, "plies", "ply"); err != nil {
		return nil, "", err
	}
	dims, err := w.Exactly(3, "a shell takes the width and height of its rim x its depth")
	if err != nil {
		return nil, "", err
	}
	l.W, l.H, l.D = dims[0], dims[1], dims[2]
	coat := ""
	if l.Gel {
		coat = " behind a gel coat"
	}
	return l, fmt.Sprintf("shell of %d plies%s, %s x %s, %s deep", l.Plies, coat, w.Say(l.W), w.Say(l.H), w.Say(l.D)), nil
}
