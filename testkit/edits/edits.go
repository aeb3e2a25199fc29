// Package edits makes edits of a plan by chance: of every kind of element, the same by the
// same seed.
package edits

import (
	"fmt"
	"math"
	"math/rand/v2"
	"reflect"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
)

// Units are what a quantity's Value is in.
var Units = map[reflect.Type]string{
	reflect.TypeFor[measure.Length]():     "mm",
	reflect.TypeFor[measure.Duration]():   "s",
	reflect.TypeFor[measure.Voltage]():    "V",
	reflect.TypeFor[measure.Current]():    "A",
	reflect.TypeFor[measure.Resistance](): "ohm",
	reflect.TypeFor[measure.Power]():      "W",
	reflect.TypeFor[measure.Celsius]():    "C",
	reflect.TypeFor[measure.Gauge]():      "mm2",
	reflect.TypeFor[measure.Mass]():       "kg",
}

// another is a field's value some way off from what it is; false where it has none.
func another(r *rand.Rand, f reflect.Value, name string) (string, bool) {
	by := []float64{.2, .5, .8, .95, 1.05, 1.25, 2, 5}[r.IntN(8)]
	switch v := f.Interface().(type) {
	case bool:
		return map[bool]string{true: "off", false: "on"}[v], true
	case int:
		if v == 0 {
			return fmt.Sprint(1 + r.IntN(5)), r.IntN(4) == 0
		}
		return fmt.Sprint(int(math.Round(float64(v)*by)) + r.IntN(2)), true
	case string:
		lists := map[string][]string{"product": stock.IDs(stock.Shop.Lamps), "stock": stock.IDs(stock.Shop.Materials),
			"glue": stock.IDs(stock.Shop.Glues), "latch": {"retrigger", "once", "hold", "toggle"}}
		if l := lists[name]; l != nil {
			return l[r.IntN(len(l))], true
		}
		return "", v != "" && r.IntN(3) == 0
	case interface{ Value() float64 }:
		unit := Units[f.Type()]
		if unit == "" {
			return "", false
		}
		if v.Value() == 0 {
			return fmt.Sprintf("%g %s", []float64{.5, 1, 5, 20, 200}[r.IntN(5)], unit), r.IntN(4) == 0
		}
		return fmt.Sprintf("%.6f %s", v.Value()*by, unit), true
	}
	return "", false
}

// changed sets one field of an element some way off; the empty name where that cannot be.
func changed(r *rand.Rand, next reflect.Value) (name, text string) {
	var names []string
	fields := func(t reflect.Type) {
		for i := range t.NumField() {
			if name, _, _ := strings.Cut(t.Field(i).Tag.Get("json"), ","); name != "id" && name != "-" && name != "" {
				names = append(names, name)
			}
		}
	}
	fields(next.Elem().Type())
	if s, ok := next.Interface().(*plan.Solid); ok && s.Form != nil {
		fields(reflect.TypeOf(s.Form))
	}
	for range 12 {
		name := names[r.IntN(len(names))]
		f, _, _, ok := plan.At(next.Interface(), name)
		if !ok {
			continue
		}
		text, ok := another(r, f, name)
		if !ok {
			continue
		}
		if err := plan.SetText(next.Interface(), name, text, false); err != nil {
			return "", ""
		}
		return name, text
	}
	return "", ""
}

// Varied is a plan with one field of one of its elements some way off, nil where
// that cannot be.
func Varied(r *rand.Rand, p *plan.Plan) (*plan.Plan, string) {
	var all []plan.Element
	for _, kind := range plan.Kinds() {
		all = append(all, p.Elements(kind)...)
	}
	e := all[r.IntN(len(all))]
	next := reflect.New(reflect.TypeOf(e.Value).Elem())
	next.Elem().Set(reflect.ValueOf(e.Value).Elem())
	name, text := changed(r, next)
	if name == "" {
		return nil, ""
	}
	q, err := p.Apply(plan.Edit{Changes: []plan.Change{p.Put(e.Kind, e.ID, next.Interface())}})
	if err != nil {
		return nil, ""
	}
	return q, fmt.Sprintf("%s %s %s %s", e.Kind, e.ID, name, text)
}

// Of is an edit of an element of a kind by chance, and what it does: one field some way off, or
// all of it taken away, or put back as another's twin. ok is false where the plan has none, or
// would not have the edit.
func Of(r *rand.Rand, p *plan.Plan, kind string) (e plan.Edit, what string, ok bool) {
	all := p.Elements(kind)
	if len(all) == 0 {
		return e, "", false
	}
	x := all[r.IntN(len(all))]
	if kind != "display" && r.IntN(4) == 0 {
		e, what = p.Without(kind, x.ID), "without "+kind+" "+x.ID
	} else {
		next := reflect.New(reflect.TypeOf(x.Value).Elem())
		next.Elem().Set(reflect.ValueOf(x.Value).Elem())
		name, text := changed(r, next)
		if name == "" {
			return e, "", false
		}
		e = plan.Edit{Label: what, Changes: []plan.Change{p.Put(kind, x.ID, next.Interface())}}
		what = fmt.Sprintf("%s %s %s %s", kind, x.ID, name, text)
	}
	_, err := p.Apply(e)
	return e, what, err == nil && !e.Idle()
}
