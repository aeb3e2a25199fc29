package order

import (
	"fmt"
	"sort"

	"zapbarn/core/calendar"
	"zapbarn/core/measure"
	"zapbarn/core/source"
)

// short and long are how far hands-on times stray from what is planned: typical, from
// memory.
const short, long = .8, 1.8

// InTime are the numbers of the tasks that have a time, by when they begin.
func (t *Timetable) InTime() (out []int) {
	for i, s := range t.Slots {
		if s.Placed() {
			out = append(out, i)
		}
	}
	sort.SliceStable(out, func(a, b int) bool { return t.Slots[out[a]].Start() < t.Slots[out[b]].Start() })
	return out
}

// Who are the people of a task, by name; none of what wants no hands.
func (t *Timetable) Who(i int) (out []string) {
	if t.Row[i].Hands == 0 {
		return nil
	}
	for _, k := range t.Slots[i].Who {
		out = append(out, t.Crew[k].Name)
	}
	return out
}

// Ends is when all is done, with its working.
func (t *Timetable) Ends() source.Result {
	r := source.Num("All is done", float64(t.End), "min", t.Say(t.End))
	for i, x := range t.Row {
		if t.Slots[i].Placed() && t.Slots[i].Free == t.End {
			r = r.With("the last: "+x.Name, "its hands are off it "+t.Say(t.Slots[i].End())+", then "+
				measure.Span(float64(x.Wait)*60), t.Say(t.End), source.Exact("serial schedule, improved by search"))
			break
		}
	}
	return r.With("no order of these tasks is done before",
		"the longest chain; all hours asked against all that are there",
		t.Say(t.Bound), source.Exact("a lower bound"))
}

// Chance is the share of seeded draws in which all is done by the opening, with its
// working, and up to three tasks that the late ones hang on most, with how many.
func (t *Timetable) Chance() (r source.Result, carries []string) {
	draws := max(20, min(200, 40_000/max(1, len(t.Row))))
	share, of := calendar.Chance(t.Problem, t.Answer, t.Deadline, short, long, draws, seed)
	r = source.Num("Chance to make the date", share*100, "%", measure.Decimal(share*100, 0)+" %")
	r = r.With("draws in time / draws", fmt.Sprintf("%.0f / %d", share*float64(draws), draws), r.Text,
		source.FromMemory(fmt.Sprintf("hands-on times from %g to %g of what is planned, most often as planned", short, long)))
	late := draws - int(share*float64(draws)+.5)
	by := make([]int, 0, len(of))
	for i, n := range of {
		if n > 0 {
			by = append(by, i)
		}
	}
	sort.SliceStable(by, func(a, b int) bool { return of[by[a]] > of[by[b]] })
	for _, i := range by[:min(3, len(by))] {
		carries = append(carries, fmt.Sprintf("%s (%d of %d late draws)", t.Row[i].Name, of[i], late))
	}
	return r, carries
}
