package rehearsal

import (
	"fmt"
	"slices"

	"zapbarn/web/shell"

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

// Record makes cues of what a hand did with a slider: the height of a channel, or the angle
// of a servo, over time.
func (s Room) Record(c *gin.Context) {
	var in struct {
		Long    int    `form:"long"` // ms
		Curve   string `form:"curve"`
		Channel string `form:"channel" binding:"required"`
		Scene   string `form:"scene"`
	}
	if !s.Bind(c, &in) {
		return
	}
	long := in.Long
	if long < sample || long > longestAct {
		s.Refused(c, shell.Over{Err: "Record a tenth of a second to a minute: hold the button and move the slider."})
		return
	}
	curve := (&plan.Clip{Wave: in.Curve}).Heights()
	cues := show.Perform(in.Channel, curve, long, sample, least)
	if len(cues) == 0 || len(cues) > 400 {
		s.Refused(c, shell.Over{Err: "Nothing was recorded: the slider stayed at its lowest."})
		return
	}
	var to string
	err := s.Change(c, func(p *plan.Plan) (plan.Edit, error) {
		d := p.Device(in.Channel)
		if d == nil || !d.Driven {
			return plan.Edit{}, shell.ErrGone
		}
		next := plan.Scene{Prop: d.Prop, Name: d.Name + ", by hand"}
		if was := p.Scene(in.Scene); was != nil {
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
		to = (&shell.Page{Asked: shell.Asked{PlanID: c.Param("plan")}}).Href("rehearsal", d.Prop, "scene:"+next.ID, "")
		label := fmt.Sprintf("record %s in “%s”", d.Name, next.Name)
		return plan.Edit{Label: label, Changes: []plan.Change{p.Put("scene", next.ID, next)}}, nil
	})
	s.Applied(c, err, shell.Over{}, to)
}
