package calendar

import (
	"slices"
	"sort"
)

// bound is a time before which no schedule is over: the longest chain of tasks as if
// nobody were ever busy, and for all people of a trade, and for each tool, the first time
// by which their hours hold all that is asked of them, with the least that comes before
// and after.
func (b *board) bound() int {
	begins, placed, best := b.heads()
	tail := b.tails(placed)
	load := func(of func(Task) (minutes int, ok bool), there []edge) {
		sum, from, after := 0, -1, -1
		for i, t := range b.p.Tasks {
			if minutes, ok := of(t); ok && placed[i] && minutes > 0 {
				sum += minutes
				if from < 0 || begins[i] < from {
					from = begins[i]
				}
				if after < 0 || tail[i] < after {
					after = tail[i]
				}
			}
		}
		if sum > 0 {
			best = max(best, filled(there, from, sum)+after)
		}
	}
	trades, tools := b.asked()
	for _, trade := range trades {
		var there []edge
		for _, who := range b.p.Crew {
			if who.Can(trade) {
				there = edges(there, who.There)
			}
		}
		load(func(t Task) (int, bool) { return t.Work * max(1, t.People), trade == "" || t.Trade == trade }, there)
	}
	var all []Span
	for _, who := range b.p.Crew {
		all = Either(all, who.There)
	}
	for _, tool := range tools {
		load(func(t Task) (int, bool) { return t.Work, t.Tool == tool }, edges(nil, all))
	}
	return best
}

// heads are when each task begins at the earliest, as if nobody were ever busy, which
// tasks can be done at all, and when the longest chain of them is over.
func (b *board) heads() (begins []int, placed []bool, best int) {
	p := b.p
	begins, placed = make([]int, len(p.Tasks)), make([]bool, len(p.Tasks))
	over := make([]int, len(p.Tasks))
	b.clear()
	for _, i := range p.topological() {
		t := p.Tasks[i]
		begins[i], placed[i] = t.From, true
		for _, a := range t.After {
			placed[i] = placed[i] && placed[a]
			begins[i] = max(begins[i], over[a])
		}
		end := -1
		for _, c := range b.crews[i] {
			if pieces := b.pieces(b.there[c][past(b.there[c], begins[i]):], begins[i], t); pieces != nil {
				if e := pieces[len(pieces)-1].End; end < 0 || e < end {
					end = e
				}
			}
		}
		if placed[i] = placed[i] && end >= 0; placed[i] {
			over[i] = end + t.WaitFrom(end)
			best = max(best, over[i])
		}
	}
	return begins, placed, best
}

// tails are the least that comes after hands are off each task.
func (b *board) tails(placed []bool) []int {
	p := b.p
	tail := make([]int, len(p.Tasks))
	order := p.topological()
	for k := len(order) - 1; k >= 0; k-- {
		i := order[k]
		tail[i] += p.Tasks[i].leastWait()
		for _, a := range p.Tasks[i].After {
			if placed[i] {
				tail[a] = max(tail[a], tail[i]+p.Tasks[i].Work)
			}
		}
	}
	return tail
}

// asked are the trades and the tools that tasks ask for, each once.
func (b *board) asked() (trades, tools []string) {
	for _, t := range b.p.Tasks {
		if !slices.Contains(trades, t.Trade) {
			trades = append(trades, t.Trade)
		}
		if t.Tool != "" && !slices.Contains(tools, t.Tool) {
			tools = append(tools, t.Tool)
		}
	}
	return trades, tools
}

// edge is a minute at which one more is there, or one fewer.
type edge struct{ at, more int }

func edges(list []edge, there []Span) []edge {
	for _, s := range there {
		list = append(list, edge{s.Start, 1}, edge{s.End, -1})
	}
	return list
}

// filled is the first minute by which those that are there have given so many minutes,
// from a minute on; the last edge when they never do.
func filled(list []edge, from, minutes int) int {
	sort.Slice(list, func(i, k int) bool { return list[i].at < list[k].at })
	n, at := 0, from
	for _, e := range list {
		if e.at > at {
			if n > 0 && (e.at-at)*n >= minutes {
				return at + (minutes+n-1)/n
			}
			minutes -= (e.at - at) * n
			at = e.at
		}
		n += e.more
	}
	return at
}

// Either are the times in one of two lists, or both.
func Either(a, b []Span) (out []Span) {
	all := append(append([]Span(nil), a...), b...)
	sort.Slice(all, func(i, k int) bool { return all[i].Start < all[k].Start })
	for _, s := range all {
		if n := len(out); n > 0 && out[n-1].End >= s.Start {
			out[n-1].End = max(out[n-1].End, s.End)
			continue
		}
		out = append(out, s)
	}
	return out
}
