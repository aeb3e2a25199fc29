// Package calendar puts work in order of time: tasks with hands-on minutes and waits that
// need no hands, people with their hours, tools of which there is one. It gives a good
// answer at once and a better one with more rounds, the same for the same seed, with a
// bound that no schedule can beat.
//
// All times are whole minutes from midnight of the first day.
package calendar

import (
	"crypto/sha256"
	"encoding/binary"
	"fmt"
	"math"
	"slices"
)

// Day is a day's minutes.
const Day = 24 * 60

// Span is a time from Start to End.
type Span struct{ Start, End int }

// Task is one thing to do. Its wait begins when hands are off it; what comes after it
// begins when that is over.
type Task struct {
	Work   int      // hands-on minutes, of each person at it
	People int      // at once; 1 when not given
	Trade  string   // that each of them must have; "" is anybody
	Tool   string   // held while hands are on; there is one of each
	Wait   int      // minutes after, day and night
	Drying []Drying // that are over together instead, where the air of the day makes it longer or shorter
	After  []int    // tasks that are over, wait and all, before it begins
	From   int      // not before this
	Whole  bool     // begun and finished in one go: a mix that sets, a wet edge
	Least  int      // minutes that it is not begun or gone on with for fewer of, but for its last
	Within []Window
}

// Window is a time that closes: a task that comes after another begins no more than so many
// minutes after that one's wait is over, as a coat goes on before the last is through.
type Window struct{ After, Minutes int }

// Person has hours and trades.
type Person struct {
	Trades []string // none is all
	There  []Span   // in order, apart from each other
}

// Can reports whether somebody has a trade.
func (p Person) Can(trade string) bool {
	return trade == "" || len(p.Trades) == 0 || slices.Contains(p.Trades, trade)
}

// Problem is what is to be scheduled. Tasks that nobody can do stay out and say so.
type Problem struct {
	Tasks []Task
	Crew  []Person
}

// Slot is when a task is done, and by whom.
type Slot struct {
	Pieces []Span // hands on; parted only by times when who does it is not there
	Who    []int
	Free   int // its wait is over
	Lacks  string
}

// Start and End are when hands go on and off.
func (s Slot) Start() int { return s.Pieces[0].Start }

// End is when hands are off it.
func (s Slot) End() int { return s.Pieces[len(s.Pieces)-1].End }

// Placed reports whether there is a time for it at all.
func (s Slot) Placed() bool { return len(s.Pieces) > 0 }

// Schedule is an answer.
type Schedule struct {
	Slots []Slot
	End   int // when the last task and its wait are over
	Bound int // no schedule of these tasks is over before; with no time for all, never above End
}

// Sum names a problem by all that its answer stands on.
func (p Problem) Sum() [32]byte {
	b := make([]byte, 0, 64*len(p.Tasks)+4096)
	put := func(list ...int) {
		for _, n := range list {
			b = binary.AppendVarint(b, int64(n))
		}
	}
	text := func(s string) {
		put(len(s))
		b = append(b, s...)
	}
	put(len(p.Tasks))
	for _, t := range p.Tasks {
		whole := 0
		if t.Whole {
			whole = 1
		}
		put(t.Work, t.People, t.Wait, t.From, whole, t.Least, len(t.After))
		put(t.After...)
		put(len(t.Drying))
		for _, d := range t.Drying {
			put(int(math.Float64bits(d.Wait)), len(d.Slow))
			for _, s := range d.Slow {
				put(int(math.Float64bits(s)))
			}
		}
		put(len(t.Within))
		for _, x := range t.Within {
			put(x.After, x.Minutes)
		}
		text(t.Trade)
		text(t.Tool)
	}
	for _, who := range p.Crew {
		put(len(who.Trades), len(who.There))
		for _, t := range who.Trades {
			text(t)
		}
		for _, s := range who.There {
			put(s.Start, s.End)
		}
	}
	return sha256.Sum256(b)
}

// Loop is tasks that each wait for the next, and the last for the first; nil when there
// is none. Only tasks in it are named, in their order.
func (p Problem) Loop() []int {
	state := make([]int, len(p.Tasks))
	var path, loop []int
	var visit func(i int) bool
	visit = func(i int) bool {
		state[i] = 1
		path = append(path, i)
		for _, b := range p.Tasks[i].After {
			if state[b] == 1 {
				loop = slices.Clone(path[slices.Index(path, b):])
				slices.Reverse(loop)
				return true
			}
			if state[b] == 0 && visit(b) {
				return true
			}
		}
		state[i] = 2
		path = path[:len(path)-1]
		return false
	}
	for i := range p.Tasks {
		if state[i] == 0 && visit(i) {
			return loop
		}
	}
	return nil
}

// topological is an order in which each task follows all it waits for, those that come
// first in the list first; only for tasks without a loop.
func (p Problem) topological() []int {
	out := make([]int, 0, len(p.Tasks))
	done := make([]bool, len(p.Tasks))
	var visit func(i int)
	visit = func(i int) {
		if done[i] {
			return
		}
		done[i] = true
		for _, b := range p.Tasks[i].After {
			visit(b)
		}
		out = append(out, i)
	}
	for i := range p.Tasks {
		visit(i)
	}
	return out
}

// crews are the sets of people that can do a task together.
func (p Problem) crews(t Task) (out [][]int) {
	var able []int
	for i, who := range p.Crew {
		if who.Can(t.Trade) {
			able = append(able, i)
		}
	}
	n := max(1, t.People)
	var pick func(from int, have []int)
	pick = func(from int, have []int) {
		if len(have) == n {
			out = append(out, slices.Clone(have))
			return
		}
		for k := from; k < len(able); k++ {
			pick(k+1, append(have, able[k]))
		}
	}
	pick(0, nil)
	return out
}

// lacks says why no crew can do a task.
func lacks(t Task) string {
	switch n := max(1, t.People); {
	case t.Trade != "" && n > 1:
		return fmt.Sprintf("wants %d people for %s", n, t.Trade)
	case t.Trade != "":
		return "wants somebody for " + t.Trade
	case n > 1:
		return fmt.Sprintf("wants %d people at once", n)
	}
	return "wants somebody"
}

// common are the times in both of two lists.
func common(a, b []Span) (out []Span) {
	for i, k := 0, 0; i < len(a) && k < len(b); {
		s := Span{max(a[i].Start, b[k].Start), min(a[i].End, b[k].End)}
		if s.Start < s.End {
			out = append(out, s)
		}
		if a[i].End < b[k].End {
			i++
		} else {
			k++
		}
	}
	return out
}
