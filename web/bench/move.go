package bench

import (
	"math"
	"net/url"

	"zapbarn/web/shell"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"

	"github.com/gin-gonic/gin"
)

// moved is a solid moved by dx to the right, dy to the back and dz up, mm. It
// settles on what is near: the floor, the top of another solid, edge to edge,
// middle over middle, the prop's middle. What nothing is near to goes to the
// nearest quarter inch, or 5 mm.
func moved(w *work.Work, s *plan.Solid, dx, dy, dz, near float64) plan.Solid {
	next := *s
	step := shell.LengthStep(w.Plan.Metric())
	own := w.Shapes()[s.ID].Size
	xs, ys, zs := []float64{0}, []float64{0}, []float64{0}
	for i := range w.Plan.Solids() {
		o := &w.Plan.Solids()[i]
		shape := w.Shapes()[o.ID]
		if o.ID == s.ID || o.Prop != s.Prop || shape == nil {
			continue
		}
		xs = append(xs, beside(o.X.Value(), shape.Size.X, own.X)...)
		ys = append(ys, beside(o.Y.Value(), shape.Size.Y, own.Y)...)
		zs = append(zs, o.Z.Value(), o.Z.Value()+shape.Size.Z, o.Z.Value()-own.Z)
	}
	tape := func(mm float64) measure.Length { return measure.OnTape(mm, w.Plan.Metric()) }

	if dx != 0 {
		next.X = tape(shell.Settle(s.X.Value()+dx, step, near, xs...))
	}
	if dy != 0 {
		next.Y = tape(shell.Settle(s.Y.Value()+dy, step, near, ys...))
	}
	if dz != 0 {
		next.Z = tape(math.Max(0, shell.Settle(s.Z.Value()+dz, step, near, zs...)))
	}
	return next
}

// beside are where a thing of a size lies by one at a place: its middle over the
// other's, its edge against it, its edge flush with it.
func beside(at, size, own float64) []float64 {
	half := (size + own) / 2
	return []float64{at, at - half, at + half, at - half + own, at + half - own}
}

// MoveSolid moves a solid by what it was dragged.
func (s Room) MoveSolid(c *gin.Context) {
	var in struct {
		Solid string `form:"solid"`
	}
	w, open := s.OpenWith(c, &in)
	if !open {
		return
	}
	by, err := shell.Dragged(c, 60_000, "dx", "dy", "dz", "near")
	if err != nil {
		s.Applied(c, err, shell.Over{}, "")
		return
	}
	sol := w.Plan.Solid(in.Solid)
	if sol == nil || w.Shapes()[sol.ID] == nil {
		s.Refused(c, shell.Over{Err: "That solid is gone; look again."})
		return
	}
	next := moved(w, sol, by["dx"], by["dy"], by["dz"], math.Min(by["near"], 200))
	p := &shell.Page{Asked: shell.Asked{PlanID: c.Param("plan"), Place: "bench", Prop: sol.Prop, Way: "whole"}}
	if by["dy"] != 0 {
		p.Query = url.Values{"from": {"above"}}
	}
	to := p.Here("solid:" + sol.ID)
	s.Apply(
		c,
		plan.Edit{Label: "move " + sol.Name, Changes: []plan.Change{w.Plan.Put("solid", sol.ID, next)}},
		shell.Over{},
		to,
	)
}
