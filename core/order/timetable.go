package order

import (
	"fmt"
	"slices"

	"zapbarn/core/calendar"
	"zapbarn/core/memo"
	"zapbarn/core/plan"
	"zapbarn/core/words"
	"zapbarn/core/work"
)

// Who is one of the crew in a timetable.
type Who struct {
	Name  string
	There []calendar.Span
}

// Timetable is the order of work put in order of time.
type Timetable struct {
	turns string // an order that the plan keeps
	*Order
	Crew     []Who
	Asked    bool    // the crew is the plan's own, not one supposed
	Row      []*Task // by number in the problem
	Slots    []calendar.Slot
	Latest   []int // that each may begin
	End      int   // when all is done
	Bound    int
	Deadline int     // minute by which all must be done; 0 when no opening is set
	Loop     []*Task // that wait for each other; then there are no slots
	Problem  calendar.Problem
	Answer   calendar.Schedule
}

// OpensAt is the minute of the opening day by which all must be done.
const OpensAt = 17 * 60

// Ahead is how many days are looked at.
const Ahead = 400

// In puts an order of work in time.
func In(w *work.Work) *Timetable {
	return work.Derive(w, "timetable", scheduled)
}

var _ = work.Early(func(w *work.Work) { In(w) })

func scheduled(w *work.Work) *Timetable {
	o := Of(w)
	t := &Timetable{Order: o, turns: w.Plan.Display().Turns}
	if d := o.minute(w.Plan.Display().Opens, OpensAt); d > 0 {
		t.Deadline = d
	}
	people := w.Plan.People()
	if t.Asked = len(people) > 0; !t.Asked {
		people = []plan.Person{{Name: "You", Hours: plan.AnyHours}}
	}
	for i := range people {
		there := people[i].There(o.First, Ahead)
		t.Crew = append(t.Crew, Who{people[i].Name, there})
		t.Problem.Crew = append(t.Problem.Crew, calendar.Person{Trades: people[i].List(), There: there})
	}
	t.fill()
	if loop := t.Problem.Loop(); loop != nil {
		for _, i := range loop {
			t.Loop = append(t.Loop, t.Row[i])
		}
		return t
	}
	n := max(1, len(t.Row))
	rounds := min(200, 300_000/(n*n)) // a handful on hundreds of tasks wins nothing: that is Better's
	solved := memo.At[[32]byte, calendar.Schedule](w.Lib.Bench(), "schedules", 200, nil)
	t.Answer = solved.Get(t.sum(), func() calendar.Schedule {
		return calendar.NewSearch(t.Problem, seed, t.kept()).Run(rounds)
	})
	t.Slots, t.End, t.Bound = t.Answer.Slots, t.Answer.End, t.Answer.Bound
	t.weathered()
	t.Latest = calendar.Latest(t.Problem, t.Answer)
	return t
}

const seed = 1

// fill makes the problem: tasks that are left, each after those it waits for that are; of
// one that is done the rest of its wait counts, one that is left out leads on to what it
// would have waited for.
func (t *Timetable) fill() {
	at := map[*Task]int{}
	for _, x := range t.Left() {
		at[x] = len(t.Row)
		t.Row = append(t.Row, x)
	}
	for _, x := range t.Row {
		c := calendar.Task{
			Work:   x.Hands,
			People: x.People,
			Trade:  x.Trade,
			Tool:   x.Tool,
			Wait:   x.Wait,
			Drying: t.Order.inTheAir(x, 0),
			From:   x.From,
			Whole:  x.Whole,
			Least:  leastPiece(x),
		}
		if !t.Asked { // nobody was named yet: who is needed besides is taken to come
			c.People, c.Trade = 1, ""
		}
		seen := map[*Task]bool{}
		var follow func(links []Link)
		follow = func(links []Link) {
			for _, l := range links {
				if seen[l.Task] {
					continue
				}
				seen[l.Task] = true
				switch n, left := at[l.Task]; {
				case left:
					c.After = append(c.After, n)
					if l.Within > 0 {
						c.Within = append(c.Within, calendar.Window{After: n, Minutes: l.Within})
					}
				case l.Missed():
					c.From = max(c.From, l.Task.Free-l.Task.Wait+l.Again)
				case l.Task.Out:
					follow(l.Task.After)
				default:
					c.From = max(c.From, l.Task.Free)
				}
			}
		}
		follow(x.After)
		t.Problem.Tasks = append(t.Problem.Tasks, c)
	}
}

// leastPiece is how many minutes a task is not begun for fewer of: its set-up and as long again
// at it; where glue or paint stands open meanwhile, half an hour.
func leastPiece(x *Task) int {
	switch {
	case x.Hands == 0:
		return 0
	case slices.Contains(wetKinds, x.Kind):
		return openAtLeast
	}
	return 2 * SetUp
}

// wetKinds are the kinds of task in which something stands open that sets; openAtLeast is for how
// long one stays at it, minutes (common practice, no source).
var wetKinds = []string{"glue", "join", "coat", "fill", "gel coat", "lay up", "black out"}

const openAtLeast = 30

// Late is by how many minutes all is done too late; 0 when it is in time or no opening is set.
func (t *Timetable) Late() int {
	if t.Deadline == 0 || t.Loop != nil {
		return 0
	}
	return max(0, t.End-t.Deadline)
}

// Waits is why a task has no place that waits for one without.
const Waits = calendar.Waits

// Closes is why one has none that does not come to be begun before its window closes.
const Closes = calendar.Closes

// Say writes a minute as people do: Thu Oct 8 19:55.
func (o *Order) Say(minute int) string {
	return o.At(minute).Format("Mon Jan 2") + " " + calendar.Clock(minute)
}

// Undone are tasks that nobody can do, and why.
func (t *Timetable) Undone() (out []*Task, why []string) {
	for i, s := range t.Slots {
		if !s.Placed() {
			out, why = append(out, t.Row[i]), append(why, s.Lacks)
		}
	}
	return out, why
}

// Stuck says what has no time and why; "" when everything has.
func (t *Timetable) Stuck() string {
	tasks, why := t.Undone()
	if len(tasks) == 0 {
		return ""
	}
	first := max(0, slices.IndexFunc(why, func(w string) bool { return w != Waits }))
	s := fmt.Sprintf("%s of %d have no time. %s: %s.", words.Count(len(tasks), "task"), len(t.Row), tasks[first].Name,
		why[first])
	if len(tasks) == 1 {
		s = fmt.Sprintf("One task of %d has no time. %s: %s.", len(t.Row), tasks[first].Name, why[first])
	}
	if slices.Contains(why, Waits) {
		s += " What comes after waits for it."
	}
	return s
}

// Critical reports that a task may begin no later than it does.
func (t *Timetable) Critical(i int) bool {
	return t.Slots[i].Placed() && t.Latest[i] <= t.Slots[i].Start()
}
