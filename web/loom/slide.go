package loom

import (
	"fmt"
	"math"
	"net/http"
	"strconv"

	"zapbarn/web/shell"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/wiring"

	"github.com/gin-gonic/gin"
)

// slid is a lamp moved along the run it taps off, or a run's feed moved along
// the run, to so many mm.
func slid(p *plan.Plan, id, text string) (*plan.Device, error) {
	d := p.Device(id)
	at, err := strconv.ParseFloat(text, 64)
	if d == nil || err != nil || math.IsNaN(at) {
		return nil, measure.Bad("at", "that device is gone; load the page again")
	}
	run, least := p.Device(d.From), 1.0
	if d.Is(wiring.Wire) {
		run, least = d, 0
	}
	if run == nil || !run.Is(wiring.Wire) {
		return nil, measure.Bad("at", "%s hangs on no run", d.Name)
	}
	step := measure.Inch / 4
	if p.Metric() {
		step = 5
	}
	at = math.Max(least*step, math.Round(math.Min(run.Length.Value(), at)/step)*step)
	to := measure.Length{}
	if at > 0 {
		if to, err = measure.Parse[measure.LengthKind](measure.Tape(math.Min(at, run.Length.Value()),
			p.Metric())); err != nil {
			return nil, err
		}
	}
	if to.Value() > run.Length.Value() { // the tape rounds up
		to = run.Length
	}
	next := *d
	if d.Is(wiring.Wire) {
		next.FedAt = to
	} else {
		next.At = to
	}
	return &next, nil
}

// Sliding answers what every lamp of a supply would read with one lamp moved.
func (s Room) Sliding(c *gin.Context) {
	w, _, err := s.Work(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.Answered(c, err)
		return
	}
	d, err := slid(w.Plan, c.Query("device"), c.Query("at"))
	if err != nil {
		_, msg := shell.FieldErrors(err)
		c.JSON(http.StatusOK, gin.H{"error": msg})
		return
	}
	p := w.FedBy(w.Rig().Supply(d.ID))
	*p.Device(d.ID) = *d
	lib := p.Shop(s.Lib)
	st := plan.NewRig(p, lib).Solve(nil)
	volts := map[string]string{}
	for _, x := range p.Devices() {
		if g := st.Readings[x.ID]; x.Is(wiring.Load) {
			volts[x.ID] = g.State
			if g.State == "lit" {
				volts[x.ID] = fmt.Sprintf("%.2f", g.Volts)
			}
		}
	}
	at := d.At
	if d.Is(wiring.Wire) {
		at = d.FedAt
	}
	c.JSON(http.StatusOK, gin.H{"at": at.String(), "volts": volts})
}

// Slide moves a lamp, or a run's feed, along its run.
func (s Room) Slide(c *gin.Context) {
	var in struct {
		Device string `form:"device"`
		At     string `form:"at"`
	}
	w, open := s.OpenWith(c, &in)
	if !open {
		return
	}
	d, err := slid(w.Plan, in.Device, in.At)
	if err != nil {
		_, msg := shell.FieldErrors(err)
		s.Refused(c, shell.Over{Err: msg})
		return
	}
	label := "move " + d.Name + " along its run"
	if d.Is(wiring.Wire) {
		label = "move the feed of " + d.Name
	}
	s.Apply(c, plan.Edit{Label: label, Changes: []plan.Change{w.Plan.Put("device", d.ID, d)}}, shell.Over{}, "")
}
