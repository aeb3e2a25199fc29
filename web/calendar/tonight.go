package calendar

import (
	"slices"
	"strings"

	"zapbarn/core/calendar"
	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/order"

	"github.com/gin-gonic/gin"
)

// shown is how many tasks of a person are listed.
const shown = 5

// tonight is what each of the crew does next, what dries and what is waited for.
func (s Room) tonight(_ *gin.Context, p *view, _ []check.Snag) error {
	v := s.timed(p)
	for i := range p.Plan.Deliveries() {
		if d := &p.Plan.Deliveries()[i]; !d.In {
			v.Coming = append(v.Coming, d)
		}
	}
	slices.SortFunc(v.Coming, func(a, b *deliveryOf) int {
		if a.Arrives < b.Arrives {
			return -1
		}
		return 1
	})
	v.Drying = DryingAt(v.Order, v.Now)
	for _, x := range v.Tasks {
		if x.Done && x.Job != nil {
			v.Done = append(v.Done, x)
		}
	}
	slices.SortStableFunc(v.Done, func(a, b *order.Task) int { return strings.Compare(b.Job.At, a.Job.At) })
	v.Done = v.Done[:min(len(v.Done), 6)]
	if v.Loop != nil {
		return nil
	}
	rows := v.InTime()
	for k := range v.Crew {
		v.Tonight = append(v.Tonight, p.evening(v, k, rows))
	}
	return nil
}

// evening is what one of the crew does next; rows are the tasks by when they begin.
func (p *view) evening(v *CalendarView, k int, rows []int) Evening {
	who := v.Crew[k]
	e := Evening{Name: who.Name}
	left, first := 0, -1
	for _, span := range who.There {
		if span.Start < calendar.Day {
			left += max(0, min(span.End, calendar.Day)-max(span.Start, v.Now))
		}
	}
	for _, i := range rows {
		x := v.Slots[i]
		if v.Row[i].Hands == 0 || !slices.Contains(x.Who, k) || len(e.Next) == shown {
			continue
		}
		d := x.Start() / calendar.Day
		if first < 0 {
			first = d
			if d > 0 {
				e.Day = v.At(x.Start()).Format("Monday Jan 2")
			}
		}
		if d == first {
			e.Next = append(e.Next, RowOf(p.Page, v.Timetable, v.Row[i], i))
		}
	}
	if left > 0 {
		e.Left = measure.Span(float64(left)*60) + " left today"
	}
	if left == 0 && e.Day == "" {
		if e.Left = "no hours left today"; len(e.Next) > 0 {
			e.Left += "; first next time"
		}
		for n := range e.Next {
			e.Next[n].When = ""
		}
	}
	return e
}

// DryingAt are the tasks that are done whose wait still runs at a minute.
func DryingAt(o *order.Order, now int) (out []Drying) {
	for _, x := range o.Tasks {
		if x.Done && x.Free > now && x.Wait > 0 {
			out = append(out, Drying{Name: x.Name, Left: measure.Span(float64(x.Free-now) * 60), Until: o.Say(x.Free),
				At: o.At(x.Free).Format("2006-01-02T15:04:00"), Share: max(0, min(100, 100-100*(x.Free-now)/x.Wait))})
		}
	}
	return out
}
