package web

import (
	"html/template"
	"strconv"

	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/web/draw"

	"github.com/gin-gonic/gin"
)

// MotionView is what of a prop moves, one of it drawn.
type MotionView struct {
	Of    []Link
	ID    string
	Name  string
	At    int // thousandths of its travel
	Lacks []string
	Jam   string
	Moves []Option // the lines of what it draws and does, as told
	Poses []string
}

func (s *Server) motionWay() way {
	return way{
		id: "motion", title: "Motion", body: "motion",
		fill: showing(newRehearsal, func(_ *gin.Context, p *rehearsalView, _ []check.Snag) error {
			p.moving()
			return nil
		}),
	}
}

// moving draws the picked mechanism, or the prop's first.
func (p *rehearsalView) moving() {
	v := &MotionView{}
	p.Motion = v
	picked := p.Work.Moved(after(p.Sel, "mechanism:"))
	for _, m := range p.Work.Mechanisms() {
		if m.Of.Prop != p.Prop {
			continue
		}
		if picked == nil || picked.Of.Prop != p.Prop {
			picked = m
		}
	}
	for _, m := range p.Work.Mechanisms() {
		if m.Of.Prop == p.Prop {
			v.Of = append(
				v.Of,
				Link{Text: m.Of.Name, Href: p.href("rehearsal", p.Prop, "mechanism:"+m.Of.ID, "motion"),
					On: m == picked},
			)
		}
	}
	if picked == nil {
		return
	}
	v.ID, v.Name = picked.Of.ID, picked.Of.Name
	v.Lacks = plan.Labels("mechanism", picked.Lacks)
	if picked.Jam != nil {
		v.Jam = measure.Capital(picked.Jam.Error())
	}
	at, err := strconv.Atoi(p.Query.Get("at"))
	if err != nil {
		at = 400
	}
	v.At = max(0, min(1000, at))
	if len(picked.Rows) > 0 {
		p.Draw = template.HTML(draw.Mechanism(p.Work, picked, v.At))
	}
	p.Ticket = p.ticket("mechanism", picked.Of.ID)
}

// after is what stands behind a prefix; "" when it is not there.
func after(s, prefix string) string {
	if len(s) > len(prefix) && s[:len(prefix)] == prefix {
		return s[len(prefix):]
	}
	return ""
}

// movePivot moves a mechanism's motor, as it was dragged.
func (s *Server) movePivot(c *gin.Context) {
	at, err := dragged(c, 20_000, "x", "y")
	if err != nil {
		s.applied(c, err, over{}, "")
		return
	}
	id := c.PostForm("mechanism")
	_, err = s.store.Edit(c.Request.Context(), c.Param("plan"), editor(c), func(p *plan.Plan) (plan.Edit, error) {
		m := p.Mechanism(id)
		if m == nil {
			return plan.Edit{}, errGone
		}
		next := *m
		near := func(mm float64) measure.Length {
			got, err := measure.Parse[measure.LengthKind](measure.Tape(mm, p.Metric()))
			if err != nil {
				return measure.Of[measure.LengthKind](mm)
			}
			return got
		}
		next.PivotX = near(at["x"])
		if m.Kind != "slide" {
			next.PivotY = near(at["y"])
		}
		return plan.Edit{
			Label:   "move the motor of " + m.Name,
			Changes: []plan.Change{p.Put("mechanism", id, next)},
		}, nil
	})
	s.applied(c, err, over{}, "")
}
