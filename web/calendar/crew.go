package calendar

import (
	"fmt"
	"math"
	"net/http"
	"strconv"
	"strings"
	"time"

	"zapbarn/web/shell"

	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/order"
	"zapbarn/core/plan"
	"zapbarn/core/wiring"

	"github.com/gin-gonic/gin"
)

type deliveryOf = plan.Delivery

// crew lists who helps and when, what is on its way, own tasks, and how times came out.
func (s Room) crew(_ *gin.Context, p *view, _ []check.Snag) error {
	v := s.timed(p)
	for _, k := range order.Kinds() {
		if c, ok := v.Order.Rates[k[0]]; ok {
			v.Rates = append(v.Rates, RateRow{k[0], k[1], c})
		}
	}
	for i := range p.Plan.Props() {
		x := &p.Plan.Props()[i]
		v.For = append(v.For, shell.Option{Value: "prop:" + x.ID, Text: x.Name})
		for _, d := range p.Plan.Devices() {
			if d.Prop == x.ID && !d.Is(wiring.Wire|wiring.Load) || d.Prop == x.ID && turns(p, d.Product) {
				v.For = append(v.For, shell.Option{Value: "device:" + d.ID, Text: x.Name + ": " + d.Name})
			}
		}
		for _, sol := range p.Plan.Solids() {
			if sol.Prop == x.ID {
				v.For = append(v.For, shell.Option{Value: "solid:" + sol.ID, Text: x.Name + ": " + sol.Name})
			}
		}
	}
	for _, x := range v.Tasks {
		if !x.Done && !x.Out {
			v.AfterOf = append(v.AfterOf, shell.Option{Value: x.Key, Text: x.Name})
		}
	}
	return nil
}

func turns(p *view, product string) bool {
	k := p.Work.Lib.Lamps[product].Kind
	return k == "motor" || k == "servo"
}

// added are the kinds of element that a form of the Calendar makes, by what names them.
var added = map[string]func() any{
	"person":   func() any { return &plan.Person{} },
	"delivery": func() any { return &plan.Delivery{} },
	"job":      func() any { return &plan.Job{} },
}

// AddTo makes a person, a delivery or a task of a form's fields.
func (s Room) AddTo(c *gin.Context) {
	var in struct {
		Kind string `form:"kind"`
	}
	if !s.Bind(c, &in) {
		return
	}
	kind := in.Kind
	blank, ok := added[kind]
	if !ok {
		s.Refused(c, shell.Over{Err: "There is no such thing to add."})
		return
	}
	values := map[string]string{}
	v := blank()
	id := ""
	err := s.Change(c, func(p *plan.Plan) (plan.Edit, error) {
		for k, of := range c.Request.PostForm {
			if name, ok := strings.CutPrefix(k, "n."); ok {
				text := of[len(of)-1]
				values[k] = text
				if err := plan.SetText(v, name, text, p.Metric()); err != nil {
					return plan.Edit{}, err
				}
			}
		}
		name := plan.NameOf(v)
		if strings.TrimSpace(values["n.name"]) == "" {
			return plan.Edit{}, measure.Named("")
		}
		id = p.FreshID(kind, name)
		if err := plan.SetText(v, "id", id, false); err != nil {
			return plan.Edit{}, err
		}
		return plan.Edit{Label: "add " + name, Changes: []plan.Change{p.Put(kind, id, v)}}, nil
	})
	if err != nil {
		_, msg := shell.FieldErrors(err)
		s.Refused(c, shell.Over{Err: "Nothing was added. " + measure.Capital(msg), Values: values})
		return
	}
	s.Applied(c, nil, shell.Over{}, "")
}

// saying is what a form says of a task.
type saying struct {
	Task  string `form:"task" binding:"required"`
	Do    string `form:"do" binding:"required"`
	Took  string `form:"took"`
	Why   string `form:"why"`
	From  string `form:"from"`
	Parts string `form:"parts"`
	With  string `form:"with"`
}

// into puts what is said of a task into its job.
func (in saying) into(j *plan.Job, by string, now time.Time) error {
	switch in.Do {
	case "done":
		j.State, j.At, j.By = "done", now.Format(plan.Moment), by
		if took := strings.TrimSpace(in.Took); took != "" {
			d, err := measure.Parse[measure.DurationKind](minutesOf(took))
			if err != nil {
				return measure.Bad("took", "%s", err.Error())
			}
			j.Took = d
		}
	case "left out":
		j.State, j.Why, j.By = "left out", strings.TrimSpace(in.Why), by
	case "later":
		j.From = strings.TrimSpace(in.From)
	case "split":
		n, err := strconv.Atoi(strings.TrimSpace(in.Parts))
		if err != nil || n < 1 || n > 12 {
			return measure.Bad("parts", "%q is no number of parts; 2 to 12, or 1 for one", in.Parts)
		}
		if j.Parts = n; n == 1 {
			j.Parts = 0
		}
	case "merge":
		if j.With = strings.TrimSpace(in.With); j.With == "" {
			return measure.Bad("with", "is empty; choose the task that it is done with")
		}
	case "apart":
		j.With = ""
	case "still to do":
		j.State, j.At, j.Took, j.Why = "", "", measure.Duration{}, ""
	default:
		return measure.Bad("do", "%q is nothing that can be said of a task", in.Do)
	}
	return nil
}

// SayTask keeps what was said of a task: done, left out, not before a day, or none of it.
func (s Room) SayTask(c *gin.Context) {
	var in saying
	if !s.Bind(c, &in) {
		return
	}
	key, do := in.Task, in.Do
	if do == "here" {
		s.cameIn(c)
		return
	}
	w, open := s.Open(c)
	if !open {
		return
	}
	of := order.In(w).Task(key)
	if of == nil {
		s.Refused(c, shell.Over{Err: "That task is gone: the plan has changed. Look again.", Code: http.StatusConflict})
		return
	}
	by := shell.SayWho(c, "by")
	now := s.Now()
	err := s.ChangeBy(c, by, func(p *plan.Plan) (plan.Edit, error) {
		j := plan.Job{Task: key}
		if own, ok := strings.CutPrefix(key, "own:"); ok {
			x, _ := p.Get("job", own)
			if x == nil {
				return plan.Edit{}, shell.ErrGone
			}
			j = *x.(*plan.Job)
		} else if was := p.JobOf(key); was != nil {
			j = *was
		}
		label := do + ": " + of.Name
		if err := in.into(&j, by, now); err != nil {
			return plan.Edit{}, err
		}
		if j.Task != "" && j.State == "" && j.From == "" && j.After == "" && j.Parts == 0 && j.With == "" {
			if j.ID == "" {
				return plan.Edit{}, shell.ErrGone
			}
			return plan.Edit{Label: label, Changes: []plan.Change{p.Drop("job", j.ID)}}, nil
		}
		if j.ID == "" {
			j.ID = p.FreshID("job", key)
		}
		e := plan.Edit{Label: label}
		if do == "done" {
			e.Changes = sharedOut(p, of, &j)
		}
		e.Changes = append([]plan.Change{p.Put("job", j.ID, j)}, e.Changes...)
		return e, nil
	})
	if err != nil {
		_, msg := shell.FieldErrors(err)
		s.Refused(c, shell.Over{Err: fmt.Sprintf("Nothing was kept. %s", measure.Capital(msg))})
		return
	}
	s.Applied(c, nil, shell.Over{}, "")
}

// sharedOut says of what was done together with a task that it is done, too; what it all
// took is shared by what each was planned to take.
func sharedOut(p *plan.Plan, t *order.Task, j *plan.Job) (out []plan.Change) {
	took, planned := j.Took.Value(), float64(t.Planned)
	for _, m := range t.Merged {
		k := plan.Job{Task: m.Key}
		if own, ok := strings.CutPrefix(m.Key, "own:"); ok {
			if x, _ := p.Get("job", own); x != nil {
				k = *x.(*plan.Job)
			}
		} else if was := p.JobOf(m.Key); was != nil {
			k = *was
		} else {
			k.ID = p.FreshID("job", m.Key)
		}
		k.State, k.At, k.By = j.State, j.At, j.By
		if took > 0 && planned > 0 {
			k.Took = measure.Of[measure.DurationKind](math.Round(took*float64(m.Planned)/planned/60) * 60)
			j.Took = measure.Of[measure.DurationKind](j.Took.Value() - k.Took.Value())
		}
		out = append(out, p.Put("job", k.ID, k))
	}
	return out
}

// minutesOf reads a bare number as minutes.
func minutesOf(text string) string {
	for _, r := range text {
		if r < '0' || r > '9' {
			return text
		}
	}
	return text + " min"
}

// cameIn says that a delivery is here.
func (s Room) cameIn(c *gin.Context) {
	var in struct {
		Delivery string `form:"delivery"`
	}
	if !s.Bind(c, &in) {
		return
	}
	id := in.Delivery
	err := s.Change(c, func(p *plan.Plan) (plan.Edit, error) {
		v, _ := p.Get("delivery", id)
		if v == nil {
			return plan.Edit{}, shell.ErrGone
		}
		d := *v.(*plan.Delivery)
		d.In = true
		return plan.Edit{Label: d.Name + " is here", Changes: []plan.Change{p.Put("delivery", id, d)}}, nil
	})
	s.Applied(c, err, shell.Over{}, "")
}
