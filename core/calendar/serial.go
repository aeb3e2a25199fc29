package calendar

import (
	"slices"
	"sort"
)

// Waits is what a task lacks that waits for one that cannot be done.
const Waits = "waits for what cannot be done"

// serial places tasks one after the other in a list's order, each as early as its people,
// its tool and what it waits for allow (the serial schedule generation scheme, Kolisch 1996).
// Between the days a task is put down and taken up again by the same people; nothing else
// comes between. Cost grows with tasks x crews x how full the days are.
func (b *board) serial(order []int) Schedule {
	if !b.tied {
		return b.pass(order, nil)
	}
	apart, held := b.apart(order)
	together := b.pass(b.contiguous(order), b.chain)
	if held && !better(together, apart) {
		return apart
	}
	return together
}

// pass places tasks in an order, those of a chain together.
func (b *board) pass(order []int, chain [][]int) Schedule {
	s := Schedule{Slots: make([]Slot, len(b.p.Tasks))}
	b.clear()
	for k := 0; k < len(order); k++ {
		if chain != nil && chain[order[k]] != nil { // its tasks stand one after the other
			b.together(&s, chain[order[k]])
			k += len(chain[order[k]]) - 1
			continue
		}
		b.place(&s, order[k], 0)
	}
	for _, x := range s.Slots {
		s.End = max(s.End, x.Free)
	}
	return s
}

// place gives a task its slot, from a minute on, and books it.
func (b *board) place(s *Schedule, i, from int) {
	t := b.p.Tasks[i]
	from = max(from, t.From)
	for _, before := range t.After {
		if !s.Slots[before].Placed() {
			s.Slots[i] = Slot{Lacks: Waits}
			return
		}
		from = max(from, s.Slots[before].Free)
	}
	var best Slot
	for _, c := range b.crews[i] {
		if pieces := b.earliest(t, c, from, best); pieces != nil {
			best = Slot{Pieces: append(best.Pieces[:0], pieces...), Who: b.who[c]}
		}
	}
	if best.Placed() {
		best.Free = best.End() + t.WaitFrom(best.End())
		best.Pieces = slices.Clip(best.Pieces)
		for _, r := range b.holds(t, best.Who) {
			b.book(r, Span{best.Start(), best.End()})
		}
	} else {
		best.Lacks = lacks(t)
	}
	s.Slots[i] = best
}

// board is a problem made ready to be scheduled many times.
type board struct {
	p     Problem
	who   [][]int  // sets of people
	there [][]Span // when all of a set are there
	crews [][]int  // by task: which sets can do it
	tied  bool     // some windows close
	chain [][]int  // by task: what windows tie it to
	busy  [][]Span // by person, then by tool, in order
	log   []booked // how busy came to be, for undo
	tools map[string]int
	some  []Span // room for pieces
	held  []int  // and for what is held
	from  []int
}

func newBoard(p Problem) *board {
	b := &board{p: p, tools: map[string]int{}, crews: make([][]int, len(p.Tasks)), chain: p.chains()}
	sets := map[string]int{}
	for i, t := range p.Tasks {
		b.tied = b.tied || len(t.Within) > 0
		if t.Tool != "" {
			if _, ok := b.tools[t.Tool]; !ok {
				b.tools[t.Tool] = len(p.Crew) + len(b.tools)
			}
		}
		for _, who := range p.crews(t) {
			key := ""
			for _, k := range who {
				key += string(rune(k + 1))
			}
			n, ok := sets[key]
			if !ok {
				n = len(b.who)
				sets[key] = n
				there := p.Crew[who[0]].There
				for _, k := range who[1:] {
					there = common(there, p.Crew[k].There)
				}
				b.who, b.there = append(b.who, who), append(b.there, there)
			}
			b.crews[i] = append(b.crews[i], n)
		}
	}
	b.busy = make([][]Span, len(p.Crew)+len(b.tools))
	return b
}

// holds are the people and the tool that a task takes.
func (b *board) holds(t Task, who []int) []int {
	if t.Tool == "" {
		return who
	}
	b.held = append(append(b.held[:0], who...), b.tools[t.Tool])
	return b.held
}

// earliest is when a crew is done with a task first, from a time on; nil when that is no
// earlier than the best so far, or never.
func (b *board) earliest(t Task, crew, from int, best Slot) []Span {
	there := b.there[crew]
	holds := b.holds(t, b.who[crew])
	at := from
	k := past(there, at)
	b.from = b.from[:0] // by what is held: how many of its times are over
	for _, r := range holds {
		b.from = append(b.from, past(b.busy[r], at))
	}
	for {
		if best.Placed() && at+t.Work >= best.End() {
			return nil
		}
		for k < len(there) && there[k].End <= at {
			k++
		}
		pieces := b.pieces(there[k:], at, t)
		if pieces == nil || best.Placed() && pieces[len(pieces)-1].End >= best.End() {
			return nil
		}
		begin, end := pieces[0].Start, pieces[len(pieces)-1].End
		again := begin
		for n, r := range holds {
			list, f := b.busy[r], b.from[n]
			for f < len(list) && list[f].End <= begin {
				f++
			}
			if b.from[n] = f; f < len(list) && list[f].Start < end {
				again = max(again, list[f].End)
			}
		}
		if again == begin {
			return pieces
		}
		at = again
	}
}

// past is how many of some times, in order, are over by a minute.
func past(list []Span, at int) int {
	from, to := 0, len(list)
	for from < to {
		if mid := (from + to) / 2; list[mid].End <= at {
			from = mid + 1
		} else {
			to = mid
		}
	}
	return from
}

// pieces are the first times that add up to a task's work, from a minute on, of times that
// are not over by then; they are good until it is asked again.
func (b *board) pieces(there []Span, at int, t Task) []Span {
	out := b.some[:0]
	defer func() { b.some = out }()
	if t.Work <= 0 {
		out = append(out, Span{at, at})
		return out
	}
	left := t.Work
	for _, s := range there {
		s.Start = max(s.Start, at)
		if t.Whole && s.End-s.Start < t.Work || s.End-s.Start < min(t.Least, left) {
			continue
		}
		s.End = min(s.End, s.Start+left)
		left -= s.End - s.Start
		out = append(out, s)
		if left == 0 {
			return out
		}
	}
	return nil
}

// clear makes everybody and everything free.
func (b *board) clear() {
	for i := range b.busy {
		b.busy[i] = b.busy[i][:0]
	}
	b.log = b.log[:0]
}

// booked is what a booking made of a list: it grew the time at k or the one before, joined
// both, or came between.
type booked struct {
	r, k        int
	left, right bool
	was         Span // the time that grew; of two that were joined the later
	end         int  // and when the earlier was over
}

// book keeps something busy. Times that nothing fits between are one: so a full calendar
// is looked through fast.
func (b *board) book(r int, s Span) {
	if s.Start == s.End {
		return
	}
	list := b.busy[r]
	k := sort.Search(len(list), func(k int) bool { return list[k].Start > s.Start })
	x := booked{r: r, k: k}
	x.left = k > 0 && b.idle(r, list[k-1].End, s.Start)
	x.right = k < len(list) && b.idle(r, s.End, list[k].Start)
	switch {
	case x.left && x.right:
		x.was, x.end = list[k], list[k-1].End
		list[k-1].End = list[k].End
		list = slices.Delete(list, k, k+1)
	case x.left:
		x.was = list[k-1]
		list[k-1].End = s.End
	case x.right:
		x.was = list[k]
		list[k].Start = s.Start
	default:
		list = slices.Insert(list, k, s)
	}
	b.busy[r] = list
	b.log = append(b.log, x)
}

// undo takes back the bookings that came after so many.
func (b *board) undo(to int) {
	for _, x := range slices.Backward(b.log[to:]) {
		list := b.busy[x.r]
		switch {
		case x.left && x.right:
			list = slices.Insert(list, x.k, x.was)
			list[x.k-1].End = x.end
		case x.left:
			list[x.k-1] = x.was
		case x.right:
			list[x.k] = x.was
		default:
			list = slices.Delete(list, x.k, x.k+1)
		}
		b.busy[x.r] = list
	}
	b.log = b.log[:to]
}

// idle reports that nothing can be done from one minute to another: there is no time
// between them, or somebody is not there.
func (b *board) idle(r, from, to int) bool {
	if from >= to || r >= len(b.p.Crew) {
		return from >= to
	}
	there := b.p.Crew[r].There
	k := past(there, from)
	return k == len(there) || there[k].Start >= to
}
