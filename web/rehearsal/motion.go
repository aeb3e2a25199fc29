package rehearsal

import (
	"html/template"
	"strconv"

	"zapbarn/web/shell"

	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/web/draw"

	"github.com/gin-gonic/gin"
)

// MotionView is what of a prop moves, one of it drawn.
type MotionView struct {
	Of    []shell.Link
	ID    string
	Name  string
	At    int // thousandths of its travel
	Lacks []string
	Jam   string
	Moves []shell.Option // the lines of what it draws and does, as told
	Poses []string
}

func (s Room) motionWay() shell.Way {
	return shell.Way{
		ID: "motion", Title: "Motion", Body: "motion",
		Fill: shell.Showing(newView, func(_ *gin.Context, p *view, _ []check.Snag) error {
			p.moving()
			return nil
		}),
	}
}

// moving draws the picked mechanism, or the prop's first.
func (p *view) moving() {
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
				shell.Link{Text: m.Of.Name, Href: p.Href("rehearsal", p.Prop, "mechanism:"+m.Of.ID, "motion"),
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
	p.Ticket = p.TicketOf("mechanism", picked.Of.ID)
}

// after is what stands behind a prefix; "" when it is not there.
func after(s, prefix string) string {
	if len(s) > len(prefix) && s[:len(prefix)] == prefix {
		return s[len(prefix):]
	}
	return ""
}

// MovePivot moves a mechanism's motor, as it was dragged.
func (s Room) MovePivot(c *gin.Context) {
	var in struct {
		Mechanism string `form:"mechanism"`
	}
	if !s.Bind(c, &in) {
		return
	}
	at, err := shell.Dragged(c, 20_000, "x", "y")
	if err != nil {
		s.Applied(c, err, shell.Over{}, "")
		return
	}
	id := in.Mechanism
	err = s.Change(c, func(p *plan.Plan) (plan.Edit, error) {
		m := p.Mechanism(id)
		if m == nil {
			return plan.Edit{}, shell.ErrGone
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
	s.Applied(c, err, shell.Over{}, "")
}
