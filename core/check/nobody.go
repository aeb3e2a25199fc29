package check

import (
	"fmt"
	"slices"
	"strings"

	"zapbarn/core/calendar"
	"zapbarn/core/measure"
	"zapbarn/core/order"
	"zapbarn/core/plan"
	"zapbarn/core/words"
	"zapbarn/core/work"
)

var _ = rule(
	"nobody",
	Fix,
	"A task wants a trade, or more people at once, than the crew has.",
	func(w *work.Work, say func(Snag)) {
		t := order.In(w)
		tasks, why := t.Undone()
		of := map[string][]*order.Task{}
		var reasons []string
		for i, x := range tasks {
			if why[i] == order.Waits {
				continue
			}
			if of[why[i]] == nil {
				reasons = append(reasons, why[i])
			}
			of[why[i]] = append(of[why[i]], x)
		}
		for _, reason := range reasons {
			list := of[reason]
			s := Snag{
				Level:  Fix,
				Place:  "calendar",
				At:     []string{list[0].About[0]},
				key:    strings.ReplaceAll(reason, " ", "-"),
				weight: float64(len(list)),
				Title:  "Nobody can do " + measure.Uncapital(list[0].Name),
				Why: fmt.Sprintf("%s %s; the crew's trades and hours do not give it.", words.Count(len(list), "task"),
					map[bool]string{true: reason, false: "each " + reason}[len(list) == 1]),
			}
			if len(list) > 1 {
				s.Title = fmt.Sprintf("Nobody can do %s", words.Count(len(list), "task"))
			}
			if reason == order.Closes {
				s.Title = measure.Capital(measure.Uncapital(list[0].Name)) + " cannot begin before its window closes"
				s.Why = fmt.Sprintf(
					"%s with what it goes on, one after the other: no evening of the crew’s is long enough for "+
						"both and the wait between. A longer day is wanted, or more hands.",
					words.Count(len(list), "task"),
				)
			}
			if reason != order.Closes {
				s.Mends = atOnce(w, list)
			}
			if trade := list[0].Trade; trade != "" && reason != order.Closes {
				for i := range w.Plan.People() {
					p := w.Plan.People()[i]
					if !strings.Contains(strings.ToLower(p.Trades), trade) && len(s.Mends) < 2 {
						p.Trades = strings.TrimPrefix(p.Trades+", "+trade, ", ")
						s.Mends = append(s.Mends, put(w, p.Name+" does "+trade+" as well", "person", p.ID, p))
					}
				}
			}
			say(s)
		}
	},
)

// atOnce are edits by which two are there at once, for tasks that want as many: one comes
// when another does, or somebody comes to help the only one there is.
func atOnce(w *work.Work, tasks []*order.Task) (out []Mend) {
	people := w.Plan.People()
	if slices.ContainsFunc(tasks, func(x *order.Task) bool { return x.People != 2 }) {
		return nil
	}
	hours := func(p plan.Person) string {
		if strings.TrimSpace(p.Hours) == "" {
			return plan.AnyHours
		}
		return p.Hours
	}
	if len(people) == 1 {
		a := people[0]
		helper := plan.Person{ID: w.FreshID("person", "helper"), Name: "Helper", Hours: a.Hours, Off: a.Off}
		out = append(out, put(w, "Somebody comes to help when "+a.Name+" is there", "person", helper.ID, helper))
	}
	for i, a := range people {
		for k, b := range people {
			both, ok := joined(hours(b), hours(a))
			if b.Hours = both; i != k && ok && len(out) < 2 {
				out = append(out, put(w, b.Name+" comes when "+a.Name+" does, too: "+hours(a), "person", b.ID, b))
			}
		}
	}
	for i := range out {
		out[i].gives = allTimed
	}
	return out
}

// joined are the hours of two lists in one, the earlier of a day first; ok is false where
// some overlap.
func joined(a, b string) (both string, ok bool) {
	for _, both = range []string{a + ", " + b, b + ", " + a} {
		if _, err := calendar.ParseWeek(both); err == nil {
			return both, true
		}
	}
	return "", false
}

// allTimed is when all is done, or how much has no time.
func allTimed(w *work.Work) string {
	if tasks, _ := order.In(w).Undone(); len(tasks) > 0 {
		return words.Count(len(tasks), "task") + " with no time"
	}
	return "all done " + done(w)
}

var _ = rule(
	"tasks-in-a-loop",
	Fix,
	"Tasks wait for each other in a ring: none can begin.",
	func(w *work.Work, say func(Snag)) {
		t := order.In(w)
		if len(t.Loop) == 0 {
			return
		}
		var ring []string
		for _, x := range t.Loop {
			ring = append(ring, measure.Uncapital(x.Name))
		}
		s := Snag{
			Level: Fix,
			Place: "calendar",
			At:    []string{t.Loop[0].About[0]},
			key:   t.Loop[0].Key,
			Title: "Tasks wait for each other",
			Why: "Each comes before the next, and the last before the first: " + strings.Join(
				append(ring, ring[0]),
				", then ",
			) + ".",
		}
		for _, x := range t.Loop {
			if x.Job != nil && x.Job.After != "" && len(s.Mends) < 2 {
				j := *x.Job
				j.After = ""
				s.Mends = append(s.Mends, put(w, "Do not put "+measure.Uncapital(x.Name)+" after that", "job", j.ID, j))
			}
		}
		say(s)
	},
)
