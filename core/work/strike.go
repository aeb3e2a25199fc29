package work

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"zapbarn/core/pattern"
	"zapbarn/core/plan"
)

// Piece is what of a prop comes away as one when it is taken down.
type Piece struct {
	Prop   *plan.Prop
	Solids []*plan.Solid // the heaviest first
	Size   [3]float64    // mm, the longest first
	Mass   float64       // kg, bare
	Copies int           // that are alike and come away one by one: the size is that of one, the mass that of all
}

// Name is what it is called: its heaviest solid, and how many copies there are of it.
func (p *Piece) Name() string {
	if p.Copies < 2 {
		return p.Solids[0].Name
	}
	return fmt.Sprintf("%s, %d of them", p.Solids[0].Name, p.Copies)
}

// Pieces are all props taken apart where nothing permanent holds: solids that are glued
// stay together, joints that are to come apart do. The heaviest first, as they are loaded.
func (w *Work) Pieces() []*Piece {
	of := map[string]string{} // solid to the first of its piece
	var root func(id string) string
	root = func(id string) string {
		if to, ok := of[id]; ok && to != id {
			return root(to)
		}
		return id
	}
	for i := range w.Plan.Joints() {
		j := &w.Plan.Joints()[i]
		a, b := w.solidOf(j.A), w.solidOf(j.B)
		if a != nil && b != nil && !j.Apart && root(a.ID) != root(b.ID) {
			of[root(b.ID)] = root(a.ID)
		}
	}
	by := map[string]*Piece{}
	var out []*Piece
	for i := range w.Plan.Solids() {
		s := &w.Plan.Solids()[i]
		if w.Shapes()[s.ID] == nil {
			continue
		}
		p := by[root(s.ID)]
		if p == nil {
			p = &Piece{Prop: w.Plan.Prop(s.Prop)}
			by[root(s.ID)] = p
			out = append(out, p)
		}
		p.Solids = append(p.Solids, s)
		p.Mass += w.MassOf(s.ID)
	}
	for _, p := range out {
		p.Size, p.Copies = w.sizeOf(p.Solids), 1
		if loose := w.Apart(p.Solids[0]); len(p.Solids) == 1 && len(loose) > 0 {
			p.Size, p.Copies = longestFirst(w.Largest(p.Solids[0])), len(loose)
		}
		slices.SortStableFunc(
			p.Solids,
			func(a, b *plan.Solid) int { return cmp.Compare(w.MassOf(b.ID), w.MassOf(a.ID)) },
		)
	}
	slices.SortStableFunc(out, func(a, b *Piece) int { return cmp.Compare(b.Mass, a.Mass) })
	return out
}

// solidOf is the solid that a part belongs to; nil of what is bought.
func (w *Work) solidOf(ref string) *plan.Solid {
	if s := w.Solid(ref); s != nil {
		return s
	}
	if p := w.Part(ref); p != nil {
		return p.Solid
	}
	return nil
}

// sizeOf is the box around some solids as they stand, the longest side first.
func (w *Work) sizeOf(solids []*plan.Solid) (size [3]float64) {
	lo := [3]float64{math.Inf(1), math.Inf(1), math.Inf(1)}
	hi := [3]float64{math.Inf(-1), math.Inf(-1), math.Inf(-1)}
	for _, s := range solids {
		v, x, y, z := w.Shapes()[s.ID].Size, s.X.Value(), s.Y.Value(), s.Z.Value()
		for k, d := range [3][2]float64{{x - v.X/2, x + v.X/2}, {y - v.Y/2, y + v.Y/2}, {z, z + v.Z}} {
			lo[k], hi[k] = math.Min(lo[k], d[0]), math.Max(hi[k], d[1])
		}
	}
	return longestFirst(pattern.Vec{X: hi[0] - lo[0], Y: hi[1] - lo[1], Z: hi[2] - lo[2]})
}

// longestFirst are three sides, the longest first.
func longestFirst(v pattern.Vec) [3]float64 {
	size := [3]float64{v.X, v.Y, v.Z}
	slices.SortFunc(size[:], func(a, b float64) int { return cmp.Compare(b, a) })
	return size
}

// Through is whether a piece goes through an opening, turned the best way square to it.
func (p *Piece) Through(wide, high float64) bool {
	return p.Size[2] <= math.Min(wide, high) && p.Size[1] <= math.Max(wide, high)
}

// Into is whether a piece goes into a box, turned the best way square to it.
func (p *Piece) Into(a, b, c float64) bool {
	box := []float64{a, b, c}
	slices.Sort(box)
	return p.Size[2] <= box[0] && p.Size[1] <= box[1] && p.Size[0] <= box[2]
}
