package work

import (
	"math"
	"slices"

	"zapbarn/core/form"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
)

// Apart are the sizes of a solid's copies where each is a thing by itself: not one of several
// that its form holds together. One size for each; none where the solid is one thing.
func (w *Work) Apart(s *plan.Solid) (sizes []pattern.Vec) {
	shape := w.Shapes()[s.ID]
	if b, ok := s.Form.(form.Bought); ok && shape != nil && b.Copies > 1 { // jars in a row are jars
		one := pattern.Vec{X: b.W.Value(), Y: b.D.Or(b.W.Value()), Z: b.H.Value()}
		return slices.Repeat([]pattern.Vec{one}, b.Copies)
	}
	if shape == nil || !form.IsLoose(s.Form) {
		return nil
	}
	for _, p := range shape.Panels {
		lo := pattern.Vec{X: math.Inf(1), Y: math.Inf(1), Z: math.Inf(1)}
		hi := pattern.Vec{X: math.Inf(-1), Y: math.Inf(-1), Z: math.Inf(-1)}
		for _, b := range shape.Bodies {
			if b.Panel != p.ID {
				continue
			}
			if b.Copy > 0 && !math.IsInf(lo.X, 1) {
				break
			}
			for _, f := range b.Faces {
				for _, q := range f.Points {
					lo = pattern.Vec{X: min(lo.X, q.X), Y: min(lo.Y, q.Y), Z: min(lo.Z, q.Z)}
					hi = pattern.Vec{X: max(hi.X, q.X), Y: max(hi.Y, q.Y), Z: max(hi.Z, q.Z)}
				}
			}
		}
		if math.IsInf(lo.X, 1) {
			return nil
		}
		for range p.Copies {
			sizes = append(sizes, pattern.Vec{X: hi.X - lo.X, Y: hi.Y - lo.Y, Z: hi.Z - lo.Z})
		}
	}
	if len(sizes) < 2 {
		return nil
	}
	return sizes
}

// Largest is the size of a solid as it is handled: of its largest copy where those are things by
// themselves.
func (w *Work) Largest(s *plan.Solid) pattern.Vec {
	loose := w.Apart(s)
	if len(loose) == 0 {
		return w.Shapes()[s.ID].Size
	}
	best := loose[0]
	for _, v := range loose {
		if v.X*v.Y*v.Z > best.X*best.Y*best.Z {
			best = v
		}
	}
	return best
}
