package plan

import (
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/stock"
)

// Hows are the ways a solid stands by another, as its How says; the empty one
// lets it stand where its own numbers say.
var Hows = []string{"on", "in", "around", "beside right", "beside left", "behind", "before"}

// standSlack is how far in mm a solid's own numbers may be off its relation: both
// are rounded to a tape.
const standSlack = 2

// Stood is a solid put where its relation to another says, sizes as both are now.
// The error says what does not go in what, or which size is missing.
func (p *Plan) Stood(s Solid, lib *stock.Library) (Solid, error) {
	o := p.Solid(s.By)
	if o == nil || s.How == "" {
		return s, nil
	}
	own, err := s.Shape(lib)
	if err != nil {
		return s, err
	}
	that, err := o.Shape(lib)
	if err != nil {
		return s, err
	}
	tape := func(mm float64) measure.Length {
		if mm == 0 {
			return measure.Length{}
		}
		return measure.OnTape(mm, p.Metric())
	}
	s.X, s.Y, s.Z = o.X, o.Y, tape(o.Z.Value()+s.ByAt.Value())
	side, back := (that.Size.X+own.Size.X)/2, (that.Size.Y+own.Size.Y)/2
	switch s.How {
	case "on":
		s.Z = tape(o.Z.Value() + that.Size.Z)
	case "in":
		err = within(s.Name, own, that, p.Metric())
	case "around":
		err = within(o.Name, that, own, p.Metric())
	case "beside right":
		s.X = tape(o.X.Value() + side)
	case "beside left":
		s.X = tape(o.X.Value() - side)
	case "behind":
		s.Y = tape(o.Y.Value() + back)
	case "before":
		s.Y = tape(o.Y.Value() - back)
	}
	return s, err
}

// within refuses what is larger than what should be round it.
func within(name string, inner, outer *pattern.Shape, metric bool) error {
	if inner.Size.X <= outer.Size.X+.5 && inner.Size.Y <= outer.Size.Y+.5 {
		return nil
	}
	tape := func(mm float64) string { return measure.Tape(mm, metric) }
	return measure.Bad("how", "%s is larger than what should be round it: %s by %s against %s by %s", name,
		tape(inner.Size.X), tape(inner.Size.Y), tape(outer.Size.X), tape(outer.Size.Y))
}

// Settled is an edit with all that follows of it: solids that stand by one that
// moved or grew move with it, and one that was itself moved elsewhere lets go; a lamp
// that becomes another is called by what it is. An edit that cannot be applied is left as it is.
func (p *Plan) Settled(e Edit) Edit { return p.Placed(p.settled(e)) }

// settled is Settled, its elements not placed yet.
func (p *Plan) settled(e Edit) Edit {
	e = p.figured(p.keptUp(e))
	touched := false
	for _, c := range e.Changes {
		touched = touched || c.Kind == "solid" || c.Kind == "good"
	}
	if !touched || !p.standing() && !touches(e) {
		return e
	}
	q, err := p.changed(e)
	if err != nil || !q.sound(e) {
		return e // it is refused when it is applied
	}
	q = q.cloned(func(kind string) bool { return kind == "solid" })
	lib := q.Own()
	for range len(q.Solids()) { // a chain settles from its foot up
		moved := false
		for i := range q.Solids() {
			s := q.Solids()[i]
			next, err := q.Stood(s, lib)
			switch {
			case err != nil || same(s, next):
				continue
			case wentElsewhere(p.Solid(s.ID), s, next):
				next = s
				next.By, next.How, next.ByAt = "", "", measure.Length{}
			}
			e.Changes = append(e.Changes, q.Put("solid", s.ID, next))
			q.Solids()[i] = next
			moved = true
		}
		if !moved {
			break
		}
	}
	return e
}

// standing reports whether any solid stands by another.
func (p *Plan) standing() bool {
	for i := range p.Solids() {
		if p.Solids()[i].By != "" {
			return true
		}
	}
	return false
}

// touches reports whether an edit says how a solid stands.
func touches(e Edit) bool {
	for _, c := range e.Changes {
		var s Solid
		if c.Kind == "solid" && c.After != nil && decodeFields(c.After, &s) == nil && s.By != "" {
			return true
		}
	}
	return false
}

// same reports whether two solids stand in the same place.
func same(a, b Solid) bool { return off(a, b) == 0 }

// off is how far apart they stand, in mm.
func off(a, b Solid) float64 {
	d := func(x, y measure.Length) float64 { return math.Abs(x.Value() - y.Value()) }
	return max(d(a.X, b.X), d(a.Y, b.Y), d(a.Z, b.Z))
}

// wentElsewhere is true of a solid that an edit moved away from where its
// relation, which the edit left as it was, puts it.
func wentElsewhere(was *Solid, now, stands Solid) bool {
	return was != nil && was.By == now.By && was.How == now.How && was.ByAt == now.ByAt && off(*was, now) > 0 &&
		off(now, stands) > standSlack
}

// loops reports whether a solid stands, over others, by itself.
func (p *Plan) loops(s *Solid) bool {
	at := s
	for range len(p.Solids()) + 1 {
		if at = p.Solid(at.By); at == nil {
			return false
		}
		if at.ID == s.ID {
			return true
		}
	}
	return true
}
