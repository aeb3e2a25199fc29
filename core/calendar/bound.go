package calendar

import "sort"

// bound is a time before which no schedule is over: the longest chain of tasks as if
// nobody were ever busy, and for all people of a trade, and for each tool, the first time
// by which their hours hold all that is asked of them, with the least that comes before
// and after.
func (b *board) bound() int {
	p := b.p
	head, tail := make([]int, len(p.Tasks)), make([]int, len(p.Tasks))
	order := p.topological()
	best := 0
	placed := make([]bool, len(p.Tasks))
	b.clear()
	for _, i := range order {
		t := p.Tasks[i]
		head[i] = t.From
		placed[i] = true
		for _, a := range t.After {
			placed[i] = placed[i] && placed[a]
			head[i] = max(head[i], head[a])
		}
		end := -1
		for _, c := range b.crews[i] {
			if pieces := b.pieces(b.there[c], head[i], t); pieces != nil && placed[i] {
				if e := pieces[len(pieces)-1].End; end < 0 || e < end {
					end = e
				}
			}
		}
		if placed[i] = placed[i] && end >= 0; !placed[i] {
			continue
		}
		best = max(best, end+t.Wait)
		head[i] = end + t.Wait // for those after it
	}
	begins := func(i int) int { // the earliest its hands go on
		at := p.Tasks[i].From
		for _, a := range p.Tasks[i].After {
			at = max(at, head[a])
		}
		return at
	}
	for k := len(order) - 1; k >= 0; k-- {
		i := order[k]
		tail[i] += p.Tasks[i].Wait
		for _, a := range p.Tasks[i].After {
			if placed[i] {
				tail[a] = max(tail[a], tail[i]+p.Tasks[i].Work)
			}
		}
	}
	var trades, tools []string
	seen := map[string]bool{}
	for _, t := range p.Tasks {
		if !seen["trade "+t.Trade] {
			seen["trade "+t.Trade] = true
			trades = append(trades, t.Trade)
		}
		if t.Tool != "" && !seen["tool "+t.Tool] {
			seen["tool "+t.Tool] = true
			tools = append(tools, t.Tool)
		}
	}
	load := func(of func(Task) (minutes int, ok bool), there []edge) {
		sum, from, after := 0, -1, -1
		for i, t := range p.Tasks {
			if minutes, ok := of(t); ok && placed[i] && minutes > 0 {
				sum += minutes
				if at := begins(i); from < 0 || at < from {
					from = at
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
	for _, trade := range trades {
		var there []edge
		for _, who := range p.Crew {
			if who.Can(trade) {
				there = edges(there, who.There)
			}
		}
		load(func(t Task) (int, bool) { return t.Work * max(1, t.People), trade == "" || t.Trade == trade }, there)
	}
	for _, tool := range tools {
		var all []Span
		for _, who := range p.Crew {
			all = Either(all, who.There)
		}
		load(func(t Task) (int, bool) { return t.Work, t.Tool == tool }, edges(nil, all))
	}
	return best
}

func (b *board) clear() {
	for i := range b.busy {
		b.busy[i] = b.busy[i][:0]
	}
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
