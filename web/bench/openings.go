package bench

import (
	"math"

	"zapbarn/web/shell"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"

	"github.com/gin-gonic/gin"
)

// slidTo is an opening moved by dx to the right and dy up, mm: onto the face's middle or in
// line with another opening where one is near, else to the nearest quarter inch or 5 mm.
func slidTo(w *work.Work, s *plan.Solid, n int, dx, dy, near float64) plan.Solid {
	step := shell.LengthStep(w.Plan.Metric())
	xs, ys := []float64{0}, []float64{}
	for k, o := range s.Openings {
		if k != n && o.Face == s.Openings[n].Face {
			xs, ys = append(xs, o.X.Value()), append(ys, o.Y.Value())
		}
	}
	tape := func(v float64) measure.Length { return measure.OnTape(v, w.Plan.Metric()) }
	next := *s
	next.Openings = append([]plan.Opening(nil), s.Openings...)
	o := &next.Openings[n]
	o.X, o.Y = tape(shell.Settle(o.X.Value()+dx, step, near, xs...)), tape(shell.Settle(o.Y.Value()+dy, step, near, ys...))
	return next
}

// MoveOpening moves an opening by what it was dragged on its part.
func (s Room) MoveOpening(c *gin.Context) {
	var in struct {
		Solid   string `form:"solid"`
		Opening *int   `form:"opening"`
		Back    string `form:"back"`
	}
	w, open := s.OpenWith(c, &in)
	if !open {
		return
	}
	by, err := shell.Dragged(c, 60_000, "dx", "dy", "near")
	if err != nil {
		s.Applied(c, err, shell.Over{}, "")
		return
	}
	sol := w.Solid(in.Solid)
	if sol == nil || in.Opening == nil || *in.Opening < 0 || *in.Opening >= len(sol.Openings) {
		s.Refused(c, shell.Over{Err: "That opening is gone; look again."})
		return
	}
	n := *in.Opening
	next := slidTo(w, sol, n, by["dx"], by["dy"], math.Min(by["near"], 200))
	name := sol.Openings[n].Name
	if name == "" {
		name = "an opening"
	}
	s.Apply(
		c,
		plan.Edit{Label: "move " + name, Changes: []plan.Change{w.Plan.Put("solid", sol.ID, next)}},
		shell.Over{},
		in.Back,
	)
}
