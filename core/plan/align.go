package plan

import (
	"cmp"
	"math"
	"slices"
	"strings"

	"zapbarn/core/measure"
)

// Aligned are the ways in which what stands in the yard is put in line: a row is as far
// down as the first of them, a column as far right; evenly leaves the two outermost where
// they are, and the rest between them with their middles as far apart as can be.
var Aligned = []string{"row", "column", "evenly"}

// setOut is a thing of the yard with where its middle is, mm, for both to be changed.
type setOut struct {
	kind, id string
	v        any
	x, y     *measure.Length
}

// Align is the edit that puts things of the yard in line. keys are kind:id of plots,
// outlets, viewpoints and lamps that hang on no prop. The error says which cannot be
// moved, and why.
func (p *Plan) Align(keys []string, how string) (Edit, error) {
	var all []setOut
	for _, key := range keys {
		s, err := p.toMove(key)
		if err != nil {
			return Edit{}, err
		}
		all = append(all, s)
	}
	least := 2
	if how == "evenly" {
		least = 3
	}
	if len(all) < least {
		return Edit{}, measure.Bad("align", "takes %d things of the yard or more", least)
	}
	e := Edit{Label: map[string]string{"row": "put in a row", "column": "put in a column", "evenly": "spread evenly"}[how]}
	switch how {
	case "row":
		for _, s := range all[1:] {
			*s.y = *all[0].y
		}
	case "column":
		for _, s := range all[1:] {
			*s.x = *all[0].x
		}
	case "evenly":
		spread(all, p.Metric())
	default:
		return Edit{}, measure.Bad("align", "%q is no way to; write %s", how, strings.Join(Aligned, ", "))
	}
	for _, s := range all {
		e.Changes = append(e.Changes, p.Put(s.kind, s.id, s.v))
	}
	return e, nil
}

// spread puts things evenly along the side on which they lie further apart.
func spread(all []setOut, metric bool) {
	along := func(of func(s setOut) *measure.Length) float64 {
		lo, hi := math.Inf(1), math.Inf(-1)
		for _, s := range all {
			lo, hi = min(lo, of(s).Value()), max(hi, of(s).Value())
		}
		return hi - lo
	}
	side := func(s setOut) *measure.Length { return s.x }
	if down := func(s setOut) *measure.Length { return s.y }; along(down) > along(side) {
		side = down
	}
	slices.SortStableFunc(all, func(a, b setOut) int { return cmp.Compare(side(a).Value(), side(b).Value()) })
	last := len(all) - 1
	from, to := side(all[0]).Value(), side(all[last]).Value()
	for k := 1; k < last; k++ {
		*side(all[k]) = measure.OnTape(from+(to-from)*float64(k)/float64(last), metric)
	}
}

// toMove is a copy of a thing of the yard that may be moved.
func (p *Plan) toMove(key string) (setOut, error) {
	kind, id, _ := strings.Cut(key, ":")
	v, _ := p.Get(kind, id)
	fixed := false
	s := setOut{kind: kind, id: id}
	switch o := v.(type) {
	case *Plot:
		n := *o
		s.v, s.x, s.y, fixed = &n, &n.X, &n.Y, o.Fixed
	case *Outlet:
		n := *o
		s.v, s.x, s.y = &n, &n.X, &n.Y
	case *Viewpoint:
		n := *o
		s.v, s.x, s.y, fixed = &n, &n.X, &n.Y, o.Fixed
	case *Fixture:
		if o.Prop != "" {
			return s, measure.Bad("align", "%s hangs on %s: put that in line", o.Name, NameOf(p.Prop(o.Prop)))
		}
		n := *o
		s.v, s.x, s.y, fixed = &n, &n.X, &n.Y, o.Fixed
	default:
		return s, measure.Bad("align", "%q stands nowhere in the yard", id)
	}
	if fixed {
		return s, measure.Bad("fixed", "%s is locked in place; unlock it on its ticket", p.Name(v))
	}
	return s, nil
}
