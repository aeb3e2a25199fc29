package web

import (
	"math"
	"strconv"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"

	"github.com/gin-gonic/gin"
)

// slidTo is an opening moved by dx to the right and dy up, mm: onto the face's middle or in
// line with another opening where one is near, else to the nearest quarter inch or 5 mm.
func slidTo(w *work.Work, s *plan.Solid, n int, dx, dy, near float64) plan.Solid {
	step := lengthStep(w.Plan.Metric())
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
	o.X, o.Y = tape(settle(o.X.Value()+dx, step, near, xs...)), tape(settle(o.Y.Value()+dy, step, near, ys...))
	return next
}

// moveOpening moves an opening by what it was dragged on its part.
func (s *Server) moveOpening(c *gin.Context) {
	w, _, err := s.work(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.fail(c, err)
		return
	}
	by, err := dragged(c, 60_000, "dx", "dy", "near")
	if err != nil {
		s.applied(c, err, over{}, "")
		return
	}
	sol := w.Solid(c.PostForm("solid"))
	n, err := strconv.Atoi(c.PostForm("opening"))
	if sol == nil || err != nil || n < 0 || n >= len(sol.Openings) {
		s.refused(c, over{err: "That opening is gone; look again."})
		return
	}
	next := slidTo(w, sol, n, by["dx"], by["dy"], math.Min(by["near"], 200))
	name := sol.Openings[n].Name
	if name == "" {
		name = "an opening"
	}
	s.apply(
		c,
		plan.Edit{Label: "move " + name, Changes: []plan.Change{w.Plan.Put("solid", sol.ID, next)}},
		over{},
		c.PostForm("back"),
	)
}
