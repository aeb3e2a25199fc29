package plan

import (
	"strings"
	"time"

	"zapbarn/core/measure"
)

// Job is what is said of a task: that it was done, when and how long it took, that it is
// left out, or not begun before a day. Of a task's own that no rule makes it is the task.
type Job struct {
	ID   string `json:"id"`
	Task string `json:"task,omitempty" max:"200"` // of the order of work; none is a task of its own
	Name string `json:"name,omitempty" max:"80" label:"Task"`
	Prop string `json:"prop,omitempty" ref:"prop" label:"For" choose:"props"`
	// hands on it
	Hands measure.Duration `json:"hands,omitzero" label:"Hands-on"`
	Wait  measure.Duration `json:"wait,omitzero" label:"Then wait"`
	Trade string           `json:"trade,omitempty" max:"40" label:"Trade"`
	After string           `json:"after,omitempty" max:"200" label:"Comes after" choose:"tasks"`
	Parts int              `json:"parts,omitempty" label:"In parts"`
	With  string           `json:"with,omitempty" max:"200" label:"Together with" choose:"tasks"`
	From  string           `json:"from,omitempty" label:"Not before"` // date
	State string           `json:"state,omitempty" label:"State" choose:"|done|left out"`
	At    string           `json:"at,omitempty" label:"Done at"` // 2026-09-20 19:40
	Took  measure.Duration `json:"took,omitzero" label:"Took"`
	By    string           `json:"by,omitempty" max:"40" label:"By"`
	Why   string           `json:"why,omitempty" max:"500" label:"Why" wide:"true"`
}

// Moment is how the time of something done is written.
const Moment = "2006-01-02 15:04"

var jobKind = listed(kind{name: "job", most: 4000, twin: func(v any) (string, error) {
	task := v.(*Job).Task
	return task, measure.Bad("task", "%q has been spoken of already; change that", task)
}}, func(p *Plan) *[]Job { return &p.doc.Jobs })

func (x *Job) Key() string { return x.ID }

func (x *Job) Called() string {
	if x.Name != "" {
		return x.Name
	}
	return "task " + x.Task
}

func (x *Job) valid(checks) error {
	if x.Task == "" {
		if err := measure.Named(x.Name); err != nil {
			return err
		}
	}
	if x.At != "" {
		if _, err := time.Parse(Moment, x.At); err != nil {
			return measure.Bad("at", "%q is no time; write such as 2026-09-20 19:40", x.At)
		}
	}
	if x.State == "left out" && strings.TrimSpace(x.Why) == "" {
		return measure.Bad("why", "is empty; say why it is left out")
	}
	if x.With != "" && x.With == x.Task {
		return measure.Bad("with", "is the task itself; name another")
	}
	if x.Parts < 0 || x.Parts > 12 {
		return measure.Bad("parts", "%d is too many; 2 to 12, or 0 to do it as one", x.Parts)
	}
	const most = 30 * 24 * 3600
	return measure.First(
		measure.OneOf("state", x.State, "", "done", "left out"),
		date("from", x.From),
		lasts("hands", x.Hands, most),
		lasts("wait", x.Wait, most),
		lasts("took", x.Took, most),
	)
}

// JobOf is what is said of a task, or nil.
func (p *Plan) JobOf(task string) *Job {
	for i := range p.Jobs() {
		if p.Jobs()[i].Task == task && task != "" {
			return &p.Jobs()[i]
		}
	}
	return nil
}

// lasts checks that a time is not out of range.
func lasts(field string, d measure.Duration, most float64) error {
	if v := d.Value(); v < 0 || v > most {
		return measure.Bad(field, "%s is out of range; write up to %s", d, measure.Span(most))
	}
	return nil
}
