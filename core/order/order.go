// Package order derives what is to be done from the plan: tasks with hands-on time and
// waits, and which must come before which, each by a rule with a code and a reason. It puts
// them in order of time with package calendar. Nothing is typed in twice: a task follows
// the plan, and what a builder says of it (done, left out, not before) is a plan.Job.
package order

import (
	"slices"
	"strings"
	"time"

	"zapbarn/core/calendar"
	"zapbarn/core/plan"
	"zapbarn/core/work"
)

// Task is one thing to do. Its key says of what it is, never what it is called.
type Task struct {
	Key, Kind string
	Prop      string
	Name      string
	About     []string // elements it concerns, kind:id, the first to go to
	Hands     int      // minutes of each person at it
	Planned   int      // the same before what was logged corrected it
	Wait      int      // minutes after, day and night
	People    int
	Trade     string
	Tool      string
	Whole     bool // begun and finished in one go
	From      int  // not before this minute of the first day
	Steps     []string
	Timers    []Timer // that run while hands are on it
	Cautions  []string
	Job       *plan.Job // what was said of it, or nil
	Done, Out bool
	Free      int // of one that is done: when its wait is over
	After     []Link
	Merged    []*Task  // those that are done with it, in one go
	solids    []string // whose parts it handles
	n         int      // where it stands among its like: coats of one stack
	heat      bool
	drying    []drying // what its wait is made of, where air is what it waits on
	joins     bool     // it glues to foam that heat would melt
	coat      string   // of a coat: which
	keeps     int      // minutes after its wait in which what follows on it begins; 0 for any time
	again     int      // that missed, minutes after it before that may
	of        []*Task  // the parts of the same that come before it
	parts     []portion
	corrected Corrected
}

// Timer is a time within a task: a window that closes, or a wait of minutes.
type Timer struct {
	Name    string
	Seconds int
}

// Link is what a task waits for, and the rule that says so.
type Link struct {
	Task   *Task
	Rule   *Rule
	Within int // it begins no more than so many minutes after that is free; 0 for any time
	Again  int // or, that missed, so many minutes after
}

// Missed is whether what a link waits for is done, and the window behind it closed before
// today.
func (l Link) Missed() bool { return l.Within > 0 && l.Task.Done && l.Task.Free+l.Within < 0 }

// wait adds what a task waits for. Where it waits for that already, the narrower window
// holds, by the rule that sets it, and the longer time where it was missed.
func (t *Task) wait(l Link) {
	i := slices.IndexFunc(t.After, func(x Link) bool { return x.Task == l.Task })
	if i < 0 {
		t.After = append(t.After, l)
		return
	}
	x := &t.After[i]
	again := max(x.Again, l.Again)
	if l.Within > 0 && (x.Within == 0 || l.Within < x.Within) {
		*x = l
	}
	x.Again = again
}

// kind is one sort of task.
type kind struct {
	name  string
	says  string     // what it is
	trade string     // that it takes, when it takes one
	by    plan.Stage // a prop that has come so far has it behind it; none when it is never
	make  func(b *builder, p *plan.Prop)
	whole func(b *builder) // what is of no prop
}

// never is a stage that no prop comes to.
const never = plan.Standing + 1

// kinds are the sorts of task, in the order they are usually done; each in a file of its own.
var kinds []kind

func init() { // not in the variable itself: making tasks looks it up
	kinds = []kind{
		arriving,
		cutting,
		making,
		moulding,
		gelling,
		layingUp,
		fitting,
		gluing,
		joining,
		filling,
		coating,
		blacking,
		mounting,
		wireUp,
		proving,
		closing,
		tuning,
		installing,
		darkTest,
		own,
	}
}

// Kinds are the sorts of task by name, in order, with what each is.
func Kinds() (out [][2]string) {
	for _, k := range kinds {
		out = append(out, [2]string{k.name, k.says})
	}
	return out
}

// Order is all that is to be done.
type Order struct {
	Tasks []*Task
	First time.Time // the day that minutes are counted from, at midnight
	Rates map[string]Corrected
	by    map[string]*Task
	work  *work.Work
}

// Task is the task of a key, or nil.
func (o *Order) Task(key string) *Task { return o.by[key] }

// builder makes the order of a plan worked out.
type builder struct {
	*work.Work
	o    *Order
	kind kind
	in   map[string][]*plan.Solid // with a shape, by prop
	dev  map[string][]*plan.Device
	part map[string][]*work.Part

	seam  map[string][]*plan.Joint // of a solid's own parts
	joins map[string][]*plan.Joint // of a prop: of two solids, or of one and what is bought
	coat  map[string]*plan.Finish  // by solid

	overruled map[string]bool // waivers of rules of order
}

// Of is the order of work of a plan.
func Of(w *work.Work) *Order {
	b := begun(w)
	b.each(kinds)
	b.split()
	b.spoken()
	b.o.correct()
	b.link()
	b.merge()
	return b.o
}

// begun has all at hand that tasks are made of.
func begun(w *work.Work) *builder {
	first := time.Date(w.Today.Year(), w.Today.Month(), w.Today.Day(), 0, 0, 0, 0, time.UTC)
	b := &builder{Work: w, o: &Order{First: first, by: map[string]*Task{}, work: w},
		in: map[string][]*plan.Solid{}, dev: map[string][]*plan.Device{}, part: map[string][]*work.Part{},
		seam: map[string][]*plan.Joint{}, joins: map[string][]*plan.Joint{}, coat: map[string]*plan.Finish{}}
	b.index()
	return b
}

// each makes the tasks of some kinds.
func (b *builder) each(kinds []kind) {
	for i := range b.Plan.Props() {
		for _, k := range kinds {
			if b.kind = k; k.make != nil {
				k.make(b, &b.Plan.Props()[i])
			}
		}
	}
	for _, k := range kinds {
		if b.kind = k; k.whole != nil {
			k.whole(b)
		}
	}
}

// index finds what belongs to each prop and solid, once.
func (b *builder) index() {
	for i := range b.Plan.Solids() {
		if s := &b.Plan.Solids()[i]; b.Shapes()[s.ID] != nil {
			b.in[s.Prop] = append(b.in[s.Prop], s)
		}
	}
	for i := range b.Plan.Devices() {
		d := &b.Plan.Devices()[i]
		b.dev[d.Prop] = append(b.dev[d.Prop], d)
	}
	for _, part := range b.Parts() {
		b.part[part.Solid.Prop] = append(b.part[part.Solid.Prop], part)
	}
	for i := range b.Plan.Joints() {
		j := &b.Plan.Joints()[i]
		e := ends(j)
		bought := strings.HasPrefix(j.A, "=") || strings.HasPrefix(j.B, "=")
		switch {
		case len(e) == 1 && !bought:
			b.seam[e[0]] = append(b.seam[e[0]], j)
		case len(e) > 0:
			b.joins[j.Prop] = append(b.joins[j.Prop], j)
		}
	}
	for i := range b.Plan.Finishes() {
		b.coat[b.Plan.Finishes()[i].Solid] = &b.Plan.Finishes()[i]
	}
}

// add puts a task into the order.
func (b *builder) add(t *Task) *Task {
	t.Kind = b.kind.name
	if t.Trade == "" {
		t.Trade = b.kind.trade
	}
	t.People = max(1, t.People)
	t.Planned = t.Hands
	if p := b.Plan.Prop(t.Prop); p != nil {
		t.Done = plan.StageNamed(p.Stage) >= b.kind.by
		if len(t.About) == 0 {
			t.About = []string{"prop:" + p.ID}
		}
	}
	b.o.Tasks = append(b.o.Tasks, t)
	b.o.by[t.Key] = t
	return t
}

// spoken takes what was said of tasks.
func (b *builder) spoken() {
	for i := range b.Plan.Jobs() {
		j := &b.Plan.Jobs()[i]
		t := b.taskOf(j.Task, j.ID)
		if t == nil {
			continue
		}
		t.Job = j
		t.From = max(t.From, b.o.minute(j.From, 0))
		switch j.State {
		case "done":
			t.Done = true
			if at, err := time.Parse(plan.Moment, j.At); err == nil {
				minute := int(at.Sub(b.o.First).Minutes())
				t.Wait = b.o.waitFrom(t, minute)
				t.Free = minute + t.Wait
			}
		case "left out":
			t.Out = true
		}
	}
}

// minute is a minute of a date's day, 0 where there is no date.
func (o *Order) minute(date string, of int) int {
	d, err := time.Parse(time.DateOnly, date)
	if err != nil {
		return 0
	}
	return int(d.Sub(o.First).Hours()/24)*calendar.Day + of
}

// At is a minute as a time.
func (o *Order) At(minute int) time.Time { return o.First.Add(time.Duration(minute) * time.Minute) }

// Left are the tasks that are still to be done.
func (o *Order) Left() (out []*Task) {
	for _, t := range o.Tasks {
		if !t.Done && !t.Out {
			out = append(out, t)
		}
	}
	return out
}

// State is how far it has come: to do, done, or left out.
func (t *Task) State() string {
	switch {
	case t.Done:
		return "done"
	case t.Out:
		return "left out"
	}
	return "to do"
}

// solid is whether a task handles parts of a solid.
func (t *Task) handles(id string) bool {
	for _, s := range t.solids {
		if s == id {
			return true
		}
	}
	return false
}

// share reports that two tasks handle parts of the same solid.
func share(a, b *Task) bool {
	for _, s := range a.solids {
		if b.handles(s) {
			return true
		}
	}
	return false
}

// minutes rounds a time up to five minutes, five at least.
func minutes(x float64) int { return max(5, (int(x+4.999)/5)*5) }
