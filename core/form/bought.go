package form

import (
	"fmt"
	"strconv"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/words"
)

// Bought is a thing that comes as it is: a bottle, a jar, a ball, a skull, a
// mannequin, a tote. It can be coated, lit, drilled, glued and held.
type Bought struct {
	W      measure.Length `json:"w,omitzero" label:"Widest" grip:"across" scale:"no"`
	D      measure.Length `json:"d,omitzero" label:"Depth, if not round" scale:"no"`
	H      measure.Length `json:"h,omitzero" label:"Height" grip:"up" scale:"no"`
	Wall   measure.Length `json:"wall,omitzero" label:"Wall" scale:"no"`
	Copies int            `json:"copies,omitempty" label:"How many"`
	Of     string         `json:"of,omitempty" label:"It is a" choose:"ball|bottle|jar|mannequin|skull|tote"`
	Weight measure.Mass   `json:"weight,omitzero" label:"Weight, each"`
	Each   string         `json:"each,omitempty" label:"Price, each, $" max:"12"`
	Have   bool           `json:"have,omitempty" label:"Have it already"`
}

// Price is what one costs, $; 0 where it is not said. It errs where what is said is no price.
func (b Bought) Price() (float64, error) {
	text := strings.TrimPrefix(strings.TrimSpace(b.Each), "$")
	if text == "" {
		return 0, nil
	}
	v, err := strconv.ParseFloat(text, 64)
	if err != nil || v < 0 || v > 1e5 || v != v {
		return 0, measure.Bad("each", "%q is no price; write dollars such as 2.50", b.Each)
	}
	return v, nil
}

var _ = register(
	Kind{
		Name:    "bought",
		Title:   "Bought thing",
		Form:    "bought",
		Stock:   "pet",
		Piles:   true,
		Flat:    true,
		Blank:   Bought{Of: "jar"},
		Read:    readBought,
		Example: "bought jar 4 in x 6 in pet x24",
		Press: Press{
			18,
			"jar",
			"bought jar 4 in x 6 in pet",
			"bought jar 100 x 150 pet",
			"M9 3H21V6L23 9V22Q23 25 20 25H10Q7 25 7 22V9L9 6Z",
			"M9 6H21M7 14H23",
		},
	},
)

// How long a bought thing is made ready, minutes (typical, from memory).
const (
	WashOne   = 4.0 // one washed, its label off, scuffed
	WashDries = 60.0
)

// Lay reckons the thing; so many of them stand in a row.
func (b Bought) Lay(on On) (*pattern.Shape, error) {
	if err := need("w", b.W, "h", b.H); err != nil {
		return nil, err
	}
	if b.Copies < 0 || b.Copies > 1000 {
		return nil, measure.Bad("copies", "%d cannot be set up; write 1 to 1000", b.Copies)
	}
	if _, err := b.Price(); err != nil {
		return nil, err
	}
	of := b.Of
	if of == "" {
		of = "jar"
	}
	s, err := laid(
		pattern.Bought{
			Of:      of,
			W:       b.W.Value(),
			D:       b.D.Value(),
			H:       b.H.Value(),
			Wall:    b.Wall.Or(on.Thick()),
			Density: on.Stock.Density,
			Mass:    b.Weight.Value(),
		},
		"width",
		"w",
		"depth",
		"d",
		"height",
		"h",
		"weight",
		"weight",
	)
	if err != nil || b.Copies < 2 {
		return s, err
	}
	return s.Row(b.Copies), nil
}

// Order tells what a bought thing wants first.
func (b Bought) Order(Parts) []string {
	return []string{
		"Wash off grease and labels; scuff it where glue or paint must hold.",
		"Drill with a block behind the wall, slowly, before anything is inside.",
	}
}

// Make is the thing itself, from the shop or from the shelf, washed and scuffed.
func (b Bought) Make(on On, _ *pattern.Shape) Making {
	n, of := max(1, b.Copies), b.Of
	if of == "" {
		of = "jar"
	}
	many := words.Count(n, of)
	ready := Job{
		ID:    "ready",
		Name:  "Wash and scuff %s, " + many,
		Takes: []Takes{{"washed, dried and scuffed", float64(n), WashOne}},
		Wait:  WashDries, Carrier: "water",
		Steps: []string{
			"Warm water and dish soap, labels off, then spirit where glue or paint must hold.",
			"Scuff those faces with 220 grit; not what light goes through.",
		},
		Cautions: []string{"Gloves: a glass with a chip cuts."},
	}
	if b.Have {
		return Making{Jobs: []Job{ready}, Have: "on the shelf, found or borrowed"}
	}
	price, _ := b.Price() // it was laid: it is one
	size := b.W.String()
	if !b.D.IsZero() {
		size += " x " + b.D.String()
	}
	size += " x " + b.H.String()
	return Making{Jobs: []Job{ready}, Goods: []Good{{
		What: "bought:" + strings.ToLower(of+" "+size+" "+on.Stock.ID),
		Name: measure.Capital(of) + " " + size + ", " + on.Stock.Name,
		Unit: "pieces", Use: float64(n), Price: price, Lead: 3, How: "as many as it says",
	}}}
}

func readBought(w *words.Words) (Form, string, error) {
	b := Bought{Copies: w.Copies(), Of: w.OneOf("", pattern.BoughtNames()...), Wall: w.After("wall")}
	if b.Of == "" {
		return nil, "", fmt.Errorf("say what it is: %s", strings.Join(pattern.BoughtNames(), ", "))
	}
	b.Have = w.Take("found", "borrowed", "have")
	for i, x := range w.List { // a price, such as $2.50
		if strings.HasPrefix(x, "$") && len(x) > 1 {
			b.Each = x[1:]
			w.List = append(append([]string(nil), w.List[:i]...), w.List[i+1:]...)
			break
		}
	}
	for i, x := range w.List { // a weight, such as 450g
		if m, err := measure.Parse[measure.MassKind](x); err == nil && strings.Trim(x, "0123456789.") != "" {
			b.Weight = m
			w.List = append(append([]string(nil), w.List[:i]...), w.List[i+1:]...)
			break
		}
	}
	dims := w.Sizes()
	if err := w.None(); err != nil {
		return nil, "", err
	}
	switch len(dims) {
	case 1:
		b.W, b.H = dims[0], dims[0]
	case 2:
		b.W, b.H = dims[0], dims[1]
	case 3:
		b.W, b.D, b.H = dims[0], dims[1], dims[2]
	default:
		return nil, "", fmt.Errorf("a bought thing takes its width and height, or width x depth x height")
	}
	return b, fmt.Sprintf("%s, bought, %s wide, %s tall", words.Count(max(1, b.Copies), b.Of), w.Say(b.W), w.Say(b.H)), nil
}
