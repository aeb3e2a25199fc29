package shorthand

import (
	"fmt"
	"strconv"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
)

// offcut puts a piece of sheet on the shelf.
func (r *reader) offcut() (*Reading, error) {
	o := plan.Offcut{}
	line := r.phrase(r.words[1:])
	o.Stock = r.stockIn(line, "")
	dims, rest := line.Sizes(), line.List
	if o.Stock == "" || len(dims) != 2 {
		return nil, fmt.Errorf("an offcut takes its stock and two sizes")
	}
	o.W, o.H, o.Label = dims[0], dims[1], strings.Join(rest, " ")
	o.ID = r.p.FreshID("offcut", r.lib.Materials[o.Stock].Name)
	text := fmt.Sprintf("on the shelf: %s, %s x %s", r.lib.Materials[o.Stock].Name, w(r, o.W), w(r, o.H))
	if o.Label != "" {
		text += ", labelled " + o.Label
	}
	return r.put(text, "offcut", o.ID, o)
}

// scale stretches the whole prop: to one known size, or by a factor.
func (r *reader) scale() (*Reading, error) {
	p := r.p.Prop(r.prop)
	_, words := take(r.words[1:], "to")
	of := ""
	for _, said := range [][2]string{{"tall", "height"}, {"high", "height"}, {"wide", "width"}, {"deep", "depth"}} {
		if yes, rest := take(words, said[0]); yes && of == "" {
			of, words = said[1], rest
		}
	}
	if of == "" { // a plain factor: x 1.5, 1.5, or 1:6
		_, words = take(words, "x")
		f := factor(words)
		if f < 0.01 || f > 100 {
			return nil, fmt.Errorf("scale takes a size with tall, wide or deep, or a factor")
		}
		e := r.p.Scaled(p.ID, f)
		return &Reading{
			Text:   fmt.Sprintf("every size of %s x %s", p.Name, measure.Decimal(f, 3)),
			Edit:   e,
			Select: "prop:" + p.ID,
		}, nil
	}
	dims, rest := r.sizes(words)
	if err := wantNone(rest); err != nil {
		return nil, err
	}
	if len(dims) != 1 {
		return nil, fmt.Errorf("scale takes one size")
	}
	now, ok := r.p.Extent(r.lib, p.ID)
	if !ok {
		return nil, fmt.Errorf("%s has no parts to scale yet", p.Name)
	}
	got := map[string]float64{"height": now.Z, "width": now.X, "depth": now.Y}[of]
	f := dims[0].Value() / got
	if f < 0.01 || f > 100 {
		return nil, fmt.Errorf("%s is %s times what it is", dims[0], measure.Decimal(f, 3))
	}
	e := r.p.Scaled(p.ID, f)
	next := *p
	next.Known, next.Of = dims[0], of
	e.Changes = append(e.Changes, r.p.Put("prop", p.ID, next))
	return &Reading{
		Text: fmt.Sprintf(
			"every size of %s x %s, so that its %s is %s",
			p.Name,
			measure.Decimal(f, 3),
			of,
			w(r, dims[0]),
		),
		Edit:   e,
		Select: "prop:" + p.ID,
	}, nil
}

// factor reads how many times: 1.5, x1.5 or 1:6; 0 for none.
func factor(words []string) float64 {
	if len(words) != 1 {
		return 0
	}
	a, b, ratio := strings.Cut(words[0], ":")
	x, err := strconv.ParseFloat(strings.TrimPrefix(a, "x"), 64)
	y := 1.0
	if ratio && err == nil {
		y, err = strconv.ParseFloat(b, 64)
	}
	if err != nil || x <= 0 || y <= 0 {
		return 0
	}
	return x / y
}
