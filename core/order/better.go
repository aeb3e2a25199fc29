package order

import (
	"crypto/sha256"
	"fmt"
	"strings"

	"zapbarn/core/calendar"
	"zapbarn/core/measure"
)

// Better looks for a better order of a timetable's tasks, round by round, from the one it
// has. The same timetable and rounds give the same answer.
type Better struct {
	t     *Timetable
	look  *calendar.Search
	tries int
}

// Better begins to look.
func (t *Timetable) Better() *Better {
	return &Better{t: t, look: calendar.NewSearch(t.Problem, seed, t.kept())}
}

// Step tries so many more orders, and reports whether a better one was among them.
func (b *Better) Step(rounds int) bool {
	was := b.look.Best()
	now := b.look.Run(rounds)
	b.tries += rounds
	return calendar.Better(now, was)
}

// Tries is how many orders were tried.
func (b *Better) Tries() int { return b.tries }

// Proven is whether no order can be over earlier.
func (b *Better) Proven() bool { return b.look.Proven() }

// Turns is the best order so far, as a plan keeps it: the tasks' keys as they begin.
func (b *Better) Turns() string {
	var keys []string
	for _, i := range b.look.Order() {
		keys = append(keys, b.t.Row[i].Key)
	}
	return strings.Join(keys, " ")
}

// Says is what the best so far comes to, against what the timetable has and what is the
// least that any order could.
func (b *Better) Says() string {
	best := b.look.Best()
	said := fmt.Sprintf("%d orders tried: all is over %s", b.tries, b.t.Say(best.End))
	if won := b.t.End - best.End; won > 0 {
		said += fmt.Sprintf(", %s sooner than it was", measure.Span(float64(won)*60))
	}
	switch gap := best.End - best.Bound; {
	case b.look.Proven():
		said += "; no order is over sooner"
	case gap > 0:
		said += fmt.Sprintf("; no order is over before %s, so %s at most are left to win", b.t.Say(best.Bound),
			measure.Span(float64(gap)*60))
	}
	return said
}

// NoWorse is whether all is over no later than in another timetable of the same tasks.
func (t *Timetable) NoWorse(other *Timetable) bool { return !calendar.Better(other.Answer, t.Answer) }

// kept is the order that the plan keeps, as far as its tasks are still there: those it does
// not know come last, as they stand. nil where it keeps none.
func (t *Timetable) kept() []int {
	if t.turns == "" {
		return nil
	}
	row := map[string]int{}
	for i, x := range t.Row {
		row[x.Key] = i
	}
	var out []int
	seen := make([]bool, len(t.Row))
	for key := range strings.FieldsSeq(t.turns) {
		if i, ok := row[key]; ok && !seen[i] {
			seen[i] = true
			out = append(out, i)
		}
	}
	for i := range t.Row {
		if !seen[i] {
			out = append(out, i)
		}
	}
	return out
}

// sum names a timetable's problem, and the order it sets out from.
func (t *Timetable) sum() [32]byte {
	p := t.Problem.Sum()
	if t.turns == "" {
		return p
	}
	return sha256.Sum256(append(p[:], t.turns...))
}
