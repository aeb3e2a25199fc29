package web

import (
	"fmt"
	"math"
	"net/http"
	"strconv"

	"github.com/gin-gonic/gin"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
)

// slid is a device moved along the run it taps off, to so many mm.
func slid(p *plan.Plan, id, text string) (*plan.Device, error) {
	d := p.Device(id)
	at, err := strconv.ParseFloat(text, 64)
	if d == nil || err != nil || math.IsNaN(at) {
		return nil, measure.Bad("at", "that lamp is gone; load the page again")
	}
	run := p.Device(d.From)
	if run == nil || run.Kind != "run" {
		return nil, measure.Bad("at", "%s hangs on no run", d.Name)
	}
	next := *d
	at = math.Max(1, math.Min(run.Length.Value(), at))
	step := measure.Inch / 4
	if p.Metric() {
		step = 5
	}
	if next.At, err = measure.Parse[measure.LengthKind](measure.Tape(math.Min(math.Max(step, math.Round(at/step)*step), run.Length.Value()), p.Metric())); err != nil {
		return nil, err
	}
	if next.At.Value() > run.Length.Value() { // the tape rounds up
		next.At = run.Length
	}
	return &next, nil
}

// sliding answers what every lamp of a supply would read with one lamp moved.
func (s *Server) sliding(c *gin.Context) {
	w, _, err := s.work(c, c.Param("plan"))
	if err != nil {
		c.JSON(http.StatusServiceUnavailable, gin.H{"error": "the database does not answer"})
		return
	}
	d, err := slid(w.Plan, c.Query("device"), c.Query("at"))
	if err != nil {
		_, msg := fieldErrors(err)
		c.JSON(http.StatusOK, gin.H{"error": msg})
		return
	}
	p := w.Plan.FedBy(w.Rig.Supply(d.ID))
	*p.Device(d.ID) = *d
	st := plan.NewRig(p, s.lib).Solve(s.lib, nil)
	volts := map[string]string{}
	for _, x := range p.Devices {
		if g := st.Readings[x.ID]; x.Kind == "lamp" {
			volts[x.ID] = g.State
			if g.State == "lit" {
				volts[x.ID] = fmt.Sprintf("%.2f", g.Volts)
			}
		}
	}
	c.JSON(http.StatusOK, gin.H{"at": d.At.String(), "volts": volts})
}

// slide moves a lamp along its run.
func (s *Server) slide(c *gin.Context) {
	w, _, err := s.work(c, c.Param("plan"))
	if err != nil {
		s.fail(c, err)
		return
	}
	d, err := slid(w.Plan, c.PostForm("device"), c.PostForm("at"))
	if err != nil {
		_, msg := fieldErrors(err)
		s.refused(c, over{err: msg})
		return
	}
	s.apply(c, plan.Edit{Label: "move " + d.Name + " along its run", Changes: []plan.Change{w.Plan.Put("device", d.ID, d)}}, over{}, "")
}
