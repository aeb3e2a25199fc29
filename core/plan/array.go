package plan

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
)

// MostInArray is how many there may be in one row or circle.
const MostInArray = 100

// Place is where one of several stands, by the middle of its floor.
type Place struct{ X, Y float64 } // mm

// RowOf are the places of n in a row from the first on, pitch apart, mm.
func RowOf(from Place, n int, pitch float64) (out []Place) {
	for k := range n {
		out = append(out, Place{from.X + float64(k)*pitch, from.Y})
	}
	return out
}

// PicketsOf are the places of n that stand along a length, the outer ones flush with its
// ends: from the first on, each wide, mm.
func PicketsOf(from Place, n int, long, wide float64) []Place {
	if n < 2 {
		return RowOf(from, n, 0)
	}
	return RowOf(from, n, (long-wide)/float64(n-1))
}

// CircleOf are the places of n in a circle so far across round a middle, mm: the first in
// front, where guests stand, then to the right.
func CircleOf(middle Place, n int, across float64) (out []Place) {
	for k := range n {
		s, c := math.Sincos(2*math.Pi*float64(k)/float64(n) - math.Pi/2)
		out = append(out, Place{middle.X + across/2*c, middle.Y + across/2*s})
	}
	return out
}

// Array is a solid at the first of some places, and copies of it, with their coats, at the
// others: named after it with a number, each standing for itself.
func (p *Plan) Array(id string, places []Place) (Edit, error) {
	s := p.Solid(id)
	switch {
	case s == nil:
		return Edit{}, fmt.Errorf("there is no solid %q", id)
	case len(places) < 2 || len(places) > MostInArray:
		return Edit{}, fmt.Errorf("%d of them; write 2 to %d", len(places), MostInArray)
	}
	first := *s
	first.stand(places[0], p.Metric())
	e := Edit{Label: fmt.Sprintf("%d of %s", len(places), s.Name), Changes: []Change{p.Put("solid", id, first)}}
	q, err := p.Apply(e)
	if err != nil {
		return Edit{}, err
	}
	for _, at := range places[1:] {
		one, copied, err := q.CopySolid(id, q.FreeName("solid", s.Name), false)
		if err != nil {
			return Edit{}, err
		}
		again := *s
		again.stand(at, p.Metric())
		again.ID, again.Name = copied, nameIn(one, copied)
		one.Changes[0] = q.Put("solid", copied, again)
		if q, err = q.Apply(one); err != nil {
			return Edit{}, err
		}
		e.Changes = append(e.Changes, one.Changes...)
	}
	return e, nil
}

// stand puts a solid at a place, by nothing else.
func (s *Solid) stand(at Place, metric bool) {
	s.By, s.How, s.ByAt = "", "", measure.Length{}
	s.X, s.Y = measure.OnTape(at.X, metric), measure.OnTape(at.Y, metric)
}

// nameIn is the name that a copy was given.
func nameIn(e Edit, id string) string {
	var s Solid
	for _, c := range e.Changes {
		if c.Kind == "solid" && c.ID == id && s.UnmarshalJSON(c.After) == nil {
			return s.Name
		}
	}
	return id
}

// Width is how wide a solid stands, mm; 0 while it lacks sizes.
func (p *Plan) Width(s *Solid) float64 {
	shape, err := s.Shape(p.Own())
	if err != nil {
		return 0
	}
	return shape.Size.X
}
