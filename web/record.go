package web

import (
	"fmt"
	"slices"
	"strconv"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/show"

	"github.com/gin-gonic/gin"
)

// Mostly a performance by hand: a slider's height, sampled ten times a second.
const (
	sample     = 100    // ms
	longestAct = 60_000 // ms
	least      = 0.05   // below which the hand is taken to rest
)

// record makes cues of what a hand did with a slider: the height of a channel, or the angle
// of a servo, over time.
func (s *Server) record(c *gin.Context) {
	long, err := strconv.Atoi(c.PostForm("long"))
	if err != nil || long < sample || long > longestAct {
		s.refused(c, over{err: "Record a tenth of a second to a minute: hold the button and move the slider."})
		return
	}
	curve := (&plan.Clip{Wave: c.PostForm("curve")}).Heights()
	cues := show.Perform(c.PostForm("channel"), curve, long, sample, least)
	if len(cues) == 0 || len(cues) > 400 {
		s.refused(c, over{err: "Nothing was recorded: the slider stayed at its lowest."})
		return
	}
	var to string
	_, err = s.store.Edit(c.Request.Context(), c.Param("plan"), editor(c), func(p *plan.Plan) (plan.Edit, error) {
		d := p.Device(c.PostForm("channel"))
		if d == nil || !d.Driven {
			return plan.Edit{}, errGone
		}
		next := plan.Scene{Prop: d.Prop, Name: d.Name + ", by hand"}
		if was := p.Scene(c.PostForm("scene")); was != nil {
			next = *was
		} else {
			next.ID = p.FreshID("scene", next.Name)
		}
		next.Cues = slices.DeleteFunc(slices.Clone(next.Cues), func(q plan.Cue) bool { return q.Channel == d.ID })
		for _, q := range cues {
			ms := func(v int) measure.Duration { return measure.Of[measure.DurationKind](float64(v) / 1000) }
			next.Cues = append(
				next.Cues,
				plan.Cue{Channel: q.Channel, Start: ms(q.Start), Length: ms(q.Length), Level: q.Level},
			)
		}
		to = (&Page{Asked: Asked{PlanID: c.Param("plan")}}).href("rehearsal", d.Prop, "scene:"+next.ID, "")
		label := fmt.Sprintf("record %s in “%s”", d.Name, next.Name)
		return plan.Edit{Label: label, Changes: []plan.Change{p.Put("scene", next.ID, next)}}, nil
	})
	s.applied(c, err, over{}, to)
}
