package plan

import (
	"math"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/stock"
)

// Extent is how far a prop's solids reach: width, depth and height. It is
// false when none has its sizes yet.
func (p *Plan) Extent(lib *stock.Library, prop string) (size pattern.Vec, ok bool) {
	return ExtentOf(p.Solids(), prop, func(s *Solid) *pattern.Shape {
		shape, _ := s.Shape(lib)
		return shape
	})
}

// ExtentOf is Extent of solids whose shapes are known: none where sizes lack.
func ExtentOf(solids []Solid, prop string, shapeOf func(*Solid) *pattern.Shape) (size pattern.Vec, ok bool) {
	lo, hi := pattern.Vec{X: math.Inf(1), Y: math.Inf(1), Z: math.Inf(1)}, pattern.Vec{
		X: math.Inf(-1),
		Y: math.Inf(-1),
		Z: math.Inf(-1),
	}
	for i := range solids {
		s := &solids[i]
		if s.Prop != prop {
			continue
		}
		shape := shapeOf(s)
		if shape == nil {
			continue
		}
		ok = true
		x, y, z := s.X.Value(), s.Y.Value(), s.Z.Value()
		lo = pattern.Vec{X: math.Min(lo.X, x-shape.Size.X/2), Y: math.Min(lo.Y, y-shape.Size.Y/2), Z: math.Min(lo.Z, z)}
		hi = pattern.Vec{
			X: math.Max(hi.X, x+shape.Size.X/2),
			Y: math.Max(hi.Y, y+shape.Size.Y/2),
			Z: math.Max(hi.Z, z+shape.Size.Z),
		}
	}
	return pattern.Vec{X: hi.X - lo.X, Y: hi.Y - lo.Y, Z: hi.Z - lo.Z}, ok
}

// Scaled is the edit that makes a prop f times as large: every size and place
// of its solids and their openings, pipe lengths and profile points. What the
// stock gives stays: thicknesses, pipe widths, walls, allowances, laps.
func (p *Plan) Scaled(prop string, f float64) Edit {
	e := Edit{Label: "scale " + prop + " x " + measure.Decimal(f, 3)}
	by := func(l measure.Length) measure.Length {
		if l.IsZero() {
			return l
		}
		mm := l.Value() * f
		next, err := measure.Parse[measure.LengthKind](measure.Tape(mm, p.Metric()))
		if err != nil { // too small for a tape
			next = measure.Of[measure.LengthKind](math.Round(mm*100) / 100)
		}
		return next
	}
	for _, s := range p.Solids() {
		if s.Prop != prop {
			continue
		}
		if s.Form != nil {
			s.Form = form.Scaled(s.Form, by, f)
		}
		for _, l := range []*measure.Length{&s.SeamAt, &s.X, &s.Y, &s.Z} {
			*l = by(*l)
		}
		openings := s.Openings
		s.Openings = nil
		for _, o := range openings {
			o.W, o.H, o.X, o.Y = by(o.W), by(o.H), by(o.X), by(o.Y)
			s.Openings = append(s.Openings, o)
		}
		e.Changes = append(e.Changes, p.Put("solid", s.ID, s))
	}
	return e
}
