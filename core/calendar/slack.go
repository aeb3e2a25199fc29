package calendar

import (
	"math"
	"math/rand/v2"
	"slices"
	"sort"
)

// Latest is how late each task may begin, the same people doing everything in the same
// order, for all to be over when it is: by walking back through their hours from what
// comes after. A task that may begin no later than it does is critical. Tasks that have
// no place have -1.
func Latest(p Problem, s Schedule) []int {
	n := len(p.Tasks)
	next, before := make([][]int, n), make([][]int, n) // by whom and by what they share
	for _, list := range chains(p, s) {
		for k := 1; k < len(list); k++ {
			next[list[k-1]] = append(next[list[k-1]], list[k])
			before[list[k]] = append(before[list[k]], list[k-1])
		}
	}
	over := make([]int, n) // by when its wait is over at the latest
	hands := make([]int, n)
	for i := range over {
		over[i], hands[i] = s.End, s.End
	}
	by := make([]int, 0, n)
	for i := range p.Tasks {
		if s.Slots[i].Placed() {
			by = append(by, i)
		}
	}
	sort.SliceStable(by, func(a, b int) bool { // what is over last goes first; of two at once, what begins last
		x, y := s.Slots[by[a]], s.Slots[by[b]]
		if x.Start() != y.Start() {
			return x.Start() > y.Start()
		}
		return x.Free > y.Free
	})
	by = backwards(p, next, by)
	out := make([]int, n)
	for i := range out {
		out[i] = -1
	}
	for _, i := range by {
		t := p.Tasks[i]
		end := min(t.latestEnd(min(s.Slots[i].End(), over[i]), over[i]), hands[i])
		out[i] = back(p, s.Slots[i].Who, end, t)
		for _, w := range t.Within {
			out[i] = min(out[i], s.Slots[w.After].Free+w.Minutes)
		}
		for _, a := range t.After {
			over[a] = min(over[a], out[i])
		}
		for _, a := range before[i] {
			hands[a] = min(hands[a], out[i])
		}
	}
	return out
}

// backwards puts tasks so that each comes after all that follow it.
func backwards(p Problem, next [][]int, by []int) []int {
	follow := make([][]int, len(p.Tasks))
	for i, t := range p.Tasks {
		for _, a := range t.After {
			follow[a] = append(follow[a], i)
		}
		follow[i] = append(follow[i], next[i]...)
	}
	done := make([]bool, len(p.Tasks))
	in := make([]bool, len(p.Tasks))
	for _, i := range by {
		in[i] = true
	}
	out := make([]int, 0, len(by))
	var visit func(i int)
	visit = func(i int) {
		if done[i] || !in[i] {
			return
		}
		done[i] = true
		for _, f := range follow[i] {
			visit(f)
		}
		out = append(out, i)
	}
	for _, i := range by {
		visit(i)
	}
	return out
}

// chains are the tasks of each person and of each tool, in order of time.
func chains(p Problem, s Schedule) (out [][]int) {
	of := map[string][]int{}
	var names []string
	add := func(name string, i int) {
		if of[name] == nil {
			names = append(names, name)
		}
		of[name] = append(of[name], i)
	}
	for i, t := range p.Tasks {
		if !s.Slots[i].Placed() || t.Work == 0 {
			continue
		}
		for _, w := range s.Slots[i].Who {
			add(string(rune('0'+w))+"p", i)
		}
		if t.Tool != "" {
			add("t"+t.Tool, i)
		}
	}
	for _, name := range names {
		list := of[name]
		sort.SliceStable(list, func(a, b int) bool { return s.Slots[list[a]].Start() < s.Slots[list[b]].Start() })
		out = append(out, list)
	}
	return out
}

// back is the latest minute at which some people begin a task that is done by an end.
func back(p Problem, who []int, end int, t Task) int {
	if t.Work == 0 {
		return end
	}
	there := p.Crew[who[0]].There
	for _, w := range who[1:] {
		there = common(there, p.Crew[w].There)
	}
	left := t.Work
	for k := len(there) - 1; k >= 0; k-- {
		x := there[k]
		x.End = min(x.End, end)
		if x.End <= x.Start || t.Whole && x.End-x.Start < t.Work ||
			left < t.Work && x.End-x.Start < t.Least { // the last of it may be shorter
			continue
		}
		if x.End-x.Start >= left {
			return x.End - max(left, min(t.Least, t.Work)) // it is begun with no less than that
		}
		left -= x.End - x.Start
	}
	return end - t.Work
}

// Chance is the share of so many nights out of a hat in which all is over by a minute: each
// task takes its time times a factor between short and long, most often 1 (triangular), the
// order of the schedule kept. The second answer is, by task, in how many of the late ones
// it was critical.
func Chance(
	p Problem,
	s Schedule,
	by int,
	short, long float64,
	draws int,
	seed uint64,
) (share float64, carries []int) {
	rng := rand.New(rand.NewPCG(seed, 21))
	carries = make([]int, len(p.Tasks))
	order := make([]int, 0, len(p.Tasks))
	for i := range p.Tasks {
		order = append(order, i)
	}
	sort.SliceStable(order, func(a, b int) bool { return first(s.Slots[order[a]]) < first(s.Slots[order[b]]) })
	b := newBoard(p)
	in := 0
	for range draws {
		q := p
		q.Tasks = slices.Clone(p.Tasks)
		for i := range q.Tasks {
			t := &q.Tasks[i]
			t.Work = int(float64(t.Work)*triangular(rng.Float64(), short, 1, long) + .5)
			t.Whole = t.Whole && t.Work <= p.Tasks[i].Work // who is nearly done stays a little longer
		}
		b.p = q
		got := b.serial(after(q, order))
		if got.End <= by {
			in++
			continue
		}
		for i, at := range Latest(q, got) {
			if got.Slots[i].Placed() && q.Tasks[i].Work > 0 && at <= got.Slots[i].Start() {
				carries[i]++
			}
		}
	}
	return float64(in) / float64(max(1, draws)), carries
}

func first(s Slot) int {
	if !s.Placed() {
		return 1 << 40
	}
	return s.Start()
}

// after is an order with each task after all it waits for.
func after(p Problem, order []int) []int {
	s := Search{board: &board{p: p}}
	rank := make([]float64, len(order))
	for k, i := range order {
		rank[i] = float64(k)
	}
	return s.order(rank)
}

// triangular is a draw between a and c with its mode at m, by its inverse distribution
// (Kotz and van Dorp 2004, eq. 1.6).
func triangular(u, a, m, c float64) float64 {
	if c <= a {
		return m
	}
	if f := (m - a) / (c - a); u < f {
		return a + math.Sqrt(u*(c-a)*(m-a))
	}
	return c - math.Sqrt((1-u)*(c-a)*(c-m))
}
