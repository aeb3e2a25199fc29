package calendar

import (
	"fmt"
	"html/template"
	"strings"

	"zapbarn/web/shell"

	"zapbarn/core/calendar"
	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/order"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/words"
	"zapbarn/core/work"
	"zapbarn/web/draw"

	"github.com/gin-gonic/gin"
)

// Place is the order of work in time: what to do now, what dries meanwhile, when
// all of it is done.
func (s Room) Place() shell.Place {
	return shell.Place{
		ID: "calendar", Clock: true, Name: "Calendar", Hint: "person Ola mon-fri 18-21:30, sat sun 10-18",
		Ways: []shell.Way{
			{ID: "tonight", Title: "Tonight", Fill: shell.Showing(newView, s.tonight)},
			{ID: "bars", Title: "Bars", Fill: shell.Showing(newView, s.bars)},
			{ID: "crew", Title: "Crew", Fill: shell.Showing(newView, s.crew)},
			{ID: "whatif", Title: "What if", Fill: shell.Showing(newView, s.whatIf)},
			{ID: "rules", Title: "Why so", Body: "orderrules", Fill: shell.Showing(newView, s.orderRules)},
		},
		Link: func(p *shell.Page, to shell.Way) string { return p.Href("calendar", "", p.Sel, to.ID) },
		SnagWay: func(code string) string {
			if code == "late" {
				return "bars"
			}
			return "crew"
		},
		Aside: "task", Working: "task",
		Reached: func(w *work.Work, k source.Key) (source.Result, bool) { return taskWorking(order.In(w), k) },
	}
}

// CalendarView is what the Calendar shows.
type CalendarView struct {
	*order.Timetable
	Now        int // minute of the first day
	Tonight    []Evening
	Drying     []Drying
	Coming     []*plan.Delivery
	Done       []*order.Task
	Days       []DayTasks
	Cases      []CaseRow
	Rates      []RateRow
	Rules      []*order.Rule
	Likely     *shell.Result
	Carries    []string
	Gap        string
	Searchable bool // a better order may be found, or one is kept
	Margin     string
	Ends       string
	Ahead      bool // all is done in time
	For        []shell.Option
	AfterOf    []shell.Option
	TaskKind   [][2]string
}

// Evening is what one person does next.
type Evening struct {
	Name, Left string
	Day        string // when that is not today
	Next       []TaskRow
}

// TaskRow is a task with its times.
type TaskRow struct {
	*order.Task
	Of        string // its prop
	When      string
	Who       string
	For, Then string // hands-on, and the wait
	Late      string // when it must begin
	By        string // when its window closes, where what it goes on is done
	Href      string
	Critical  bool
	On        bool
}

// Drying is something whose wait runs.
type Drying struct {
	Name, Left, Until string
	At                string // of the end, for the clock on the page
	Share             int    // of the wait that is over, in per cent
}

// DayTasks are a day's tasks.
type DayTasks struct {
	Day  string
	Rows []TaskRow
}

// RateRow is how a kind of task came out.
type RateRow struct {
	Kind, Says string
	order.Corrected
}

// timed fills in the timetable, and the ticket of what is selected.
func (s Room) timed(p *view) *CalendarView {
	t := order.In(p.Work)
	now := s.Now()
	v := &CalendarView{Timetable: t, Now: now.Hour()*60 + now.Minute()}
	p.Calendar = v
	switch {
	case t.Loop != nil || t.End == 0 && t.Stuck() != "": // nothing has a time
	case t.Deadline == 0:
		v.Ends = t.Say(t.End)
	default:
		v.Ends, v.Ahead = t.Say(t.End), t.Late() == 0
		v.Margin = measure.Span(float64(t.Deadline-t.End) * 60)
		if !v.Ahead {
			v.Margin = measure.Span(float64(t.Late()) * 60)
		}
	}
	if t.End > 0 && t.Loop == nil {
		v.Gap = "no order of these tasks is done sooner"
		if t.End > t.Bound {
			v.Gap = fmt.Sprintf("no order of them is done before %s", t.Say(t.Bound))
		}
		v.Searchable = t.End > t.Bound || p.Plan.Display().Turns != ""
	}
	kind, id, _ := strings.Cut(p.Sel, ":")
	switch kind {
	case "task":
		if own, ok := strings.CutPrefix(id, "own:"); ok {
			p.Ticket = p.TicketOf("job", own)
		}
		if p.Ticket == nil {
			p.taskTicket(t, id)
		}
	case "person", "delivery", "job":
		p.Ticket = p.TicketOf(kind, id)
	}
	return v
}

// RowOf is a task's row; i is its number in the problem, or -1.
func RowOf(p *shell.Page, t *order.Timetable, x *order.Task, i int) TaskRow {
	r := TaskRow{Task: x, Href: p.Href("calendar", "", "task:"+x.Key, p.Way), On: p.Sel == "task:"+x.Key}
	if prop := p.Plan.Prop(x.Prop); prop != nil {
		r.Of = prop.Name
	}
	if x.Hands > 0 {
		r.For = measure.Span(float64(x.Hands) * 60)
	}
	if x.Wait > 0 {
		r.Then = measure.Span(float64(x.Wait) * 60)
	}
	for _, l := range x.After {
		if l.Within > 0 && l.Task.Done && !l.Missed() {
			r.By = t.Say(l.Task.Free + l.Within)
		}
	}
	if i < 0 || !t.Slots[i].Placed() {
		return r
	}
	slot := t.Slots[i]
	r.When = calendar.Clock(slot.Start())
	r.Who = strings.Join(t.Who(i), " and ")
	r.Critical = t.Critical(i)
	r.Late = t.Say(t.Latest[i])
	return r
}

// bars draws the order of work over the days.
func (s Room) bars(_ *gin.Context, p *view, _ []check.Snag) error {
	v := s.timed(p)
	if v.Loop != nil || len(v.Row) == 0 {
		return nil
	}
	p.Draw = template.HTML(draw.Bars(v.Timetable, v.Now, p.Plan, p.Sel,
		func(key string) string { return p.Href("calendar", "", "task:"+key, "bars") }))
	byDay := map[int][]TaskRow{}
	var days []int
	for _, i := range v.InTime() {
		d := v.Slots[i].Start() / calendar.Day
		if byDay[d] == nil {
			days = append(days, d)
		}
		byDay[d] = append(byDay[d], RowOf(p.Page, v.Timetable, v.Row[i], i))
	}
	for _, d := range days {
		v.Days = append(v.Days, DayTasks{v.At(d * calendar.Day).Format("Monday Jan 2"), byDay[d]})
	}
	if v.Deadline > 0 {
		r, carries := v.Timetable.Chance()
		v.Likely, v.Carries = &shell.Result{Key: source.KeyOf("task", "all", "chance"), Label: r.Label, Text: r.Text}, carries
	}
	return nil
}

// orderRules lists the rules of order, each with its reason.
func (s Room) orderRules(_ *gin.Context, p *view, _ []check.Snag) error {
	v := s.timed(p)
	v.Rules, v.TaskKind = order.Rules(), order.Kinds()
	return nil
}

// CaseRow is something that may happen, as it is told.
type CaseRow struct {
	What, Ends, Later, Against string
	Bad                        bool
}

// whatIf tells what each thing that may happen does to the end.
func (s Room) whatIf(_ *gin.Context, p *view, _ []check.Snag) error {
	v := s.timed(p)
	if v.Loop != nil || len(v.Row) == 0 {
		return nil
	}
	for _, c := range order.Cases(p.Work) {
		r := CaseRow{What: c.What, Ends: v.Say(c.End), Later: "no later", Bad: c.Late > 0 || c.Lacks > 0}
		switch {
		case c.Later > 0:
			r.Later = measure.Span(float64(c.Later)*60) + " later"
		case c.Later < 0:
			r.Later = measure.Span(float64(-c.Later)*60) + " sooner"
		}
		switch {
		case c.Lacks > 0: // then it is not all of it that is done
			r.Ends, r.Later = "never", "as it stands"
			r.Against = words.Count(c.Lacks, "task") + " that nobody can do"
		case c.Late > 0:
			r.Against = measure.Span(float64(c.Late)*60) + " after the opening"
		case v.Deadline > 0:
			r.Against = "in time"
		}
		v.Cases = append(v.Cases, r)
	}
	return nil
}

// TaskTicket is a task that is selected.
type TaskTicket struct {
	TaskRow
	After   []Waiting
	Over    []Waiting // rules that are overruled for it
	Results []shell.Result
	Lacks   string
	Took    string
	Parts   int            // in how many it is done
	With    []shell.Option // what it may be done together with
}

// Waiting is what a task waits for, with the reason, and the waiver that overrules that.
type Waiting struct {
	shell.Link
	ID, Reason, By string
}

// taskTicket shows a task with what it waits for.
func (p *view) taskTicket(t *order.Timetable, key string) {
	x := t.Task(key)
	if x == nil {
		return
	}
	i := -1
	for k, r := range t.Row {
		if r == x && t.Slots != nil {
			i = k
		}
	}
	v := &TaskTicket{TaskRow: RowOf(p.Page, t, x, i)}
	for _, l := range x.After {
		done := ""
		if l.Task.Done {
			done = ", done"
		} else if l.Task.Out {
			done = ", left out"
		}
		if l.Missed() {
			done += fmt.Sprintf(", its window missed, so not before %s after it", measure.Span(float64(l.Again)*60))
		} else if l.Within > 0 {
			done += fmt.Sprintf(", begun no later than %s after it is dry", measure.Span(float64(l.Within)*60))
			if l.Task.Done {
				done += ": by " + t.Say(l.Task.Free+l.Within)
			}
		}
		v.After = append(v.After, Waiting{Link: shell.Link{Text: l.Task.Name + done + ": " + l.Rule.Why,
			Href: p.Href("calendar", "", "task:"+l.Task.Key, p.Way)}, ID: order.Overruling(l.Rule, x)})
	}
	if v.Parts = 1; x.Job != nil && x.Job.Parts > 1 {
		v.Parts = x.Job.Parts
	}
	for _, y := range t.Left() {
		if y != x && y.Kind != "arrive" && y.Kind != "install" && y.Kind != "dark test" {
			v.With = append(v.With, shell.Option{Value: y.Key, Text: y.Name})
		}
	}
	for _, r := range order.Rules() {
		for i := range p.Plan.Waivers() {
			if wv := &p.Plan.Waivers()[i]; wv.ID == order.Overruling(r, x) {
				v.Over = append(v.Over, Waiting{Link: shell.Link{Text: r.Says}, ID: wv.ID, Reason: wv.Reason, By: wv.By})
			}
		}
	}
	v.Results = []shell.Result{{Key: source.KeyOf("task", key, "hands"), Label: "Hands-on", Text: v.For}}
	if i >= 0 && t.Slots[i].Placed() {
		v.Results = append(v.Results,
			shell.Result{Key: source.KeyOf("task", key, "start"), Label: "Begins", Text: t.Say(t.Slots[i].Start())},
			shell.Result{Key: source.KeyOf("task", key, "latest"), Label: "At the latest", Text: t.Say(t.Latest[i])})
	} else if i >= 0 {
		v.Lacks = t.Slots[i].Lacks
	}
	p.Task = v
}

// taskWorking is how a task's number came about.
func taskWorking(t *order.Timetable, k source.Key) (r source.Result, ok bool) {
	if k.ID == "all" && t.Slots != nil {
		if k.What == "chance" {
			r, _ = t.Chance()
			return r, true
		}
		return t.Ends(), true
	}
	x := t.Task(k.ID)
	if x == nil {
		return r, false
	}
	switch k.What {
	case "hands":
		r = source.Num("Hands-on, "+x.Name, float64(x.Hands), "min", measure.Span(float64(x.Hands)*60))
		r.Steps = x.Working()
		return r, true
	case "start", "latest":
		for i, y := range t.Row {
			if y != x || t.Slots == nil || !t.Slots[i].Placed() {
				continue
			}
			slot := t.Slots[i]
			if k.What == "latest" {
				r = source.Num("Begins at the latest", float64(t.Latest[i]), "min", t.Say(t.Latest[i]))
				return r.With("back through its people's hours from what comes after it", "", t.Say(t.Latest[i]),
					source.Exact("the same people doing everything in the same order")), true
			}
			r = source.Num("Begins", float64(slot.Start()), "min", t.Say(slot.Start()))
			for _, l := range x.After {
				for n, z := range t.Row {
					if z == l.Task && t.Slots[n].Placed() {
						r = r.With("after "+l.Task.Name, l.Rule.Code, t.Say(t.Slots[n].Free), l.Rule.From)
					}
				}
			}
			if x.From > 0 {
				r = r.With("not before", "", t.Say(x.From), source.Entered(""))
			}
			return r.With(
				"when who does it is there and free",
				measure.Span(float64(x.Hands)*60),
				t.Say(slot.Start()),
				source.Exact("serial schedule, improved by search, seed 1"),
			), true
		}
	}
	return r, false
}

// CrewHref leads to who helps and when.
func (p *view) CrewHref() string { return p.Href("calendar", "", "", "crew") }

// Selects is the address of an element in the way that is shown.
func (p *view) Selects(kind, id string) string {
	return p.Href("calendar", "", kind+":"+id, p.Way)
}

// Span writes seconds.
func (p *view) Span(seconds int) string { return measure.Span(float64(seconds)) }

// view is what the Calendar shows.
type view struct {
	*shell.Page
	Draw     template.HTML
	Calendar *CalendarView
	Task     *TaskTicket // the task that is selected
}

func newView(p *shell.Page) *view { return &view{Page: p} }
