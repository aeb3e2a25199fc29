package calendar

import "slices"

// Closes is what a task lacks for which there is no time before its window closes.
const Closes = "no time for it before its window closes"

// tries bounds how often what a window ties together is put later.
const tries = 300

// chains are the tasks that windows tie together, with what must come between them: each
// list in an order in which they can be done. By task; nil for one that is tied to none.
func (p Problem) chains() [][]int {
	n := len(p.Tasks)
	root := make([]int, n)
	tied := false
	for i := range root {
		root[i] = i
	}
	var find func(i int) int
	find = func(i int) int {
		if root[i] != i {
			root[i] = find(root[i])
		}
		return root[i]
	}
	for i, t := range p.Tasks {
		for _, w := range t.Within {
			root[find(i)] = find(w.After)
			tied = true
		}
	}
	out := make([][]int, n)
	if !tied {
		return out
	}
	order := p.topological()
	for again := true; again; { // what lies between two of a chain belongs to it
		again = false
		size := make([]int, n)
		for i := range p.Tasks {
			size[find(i)]++
		}
		for i := range p.Tasks {
			if find(i) != i || size[i] < 2 {
				continue
			}
			below := p.reached(order, find, find(i))
			for k := range p.Tasks {
				if below[k] && find(k) != i {
					root[find(k)], again = i, true
				}
			}
		}
	}
	of := map[int][]int{}
	for _, i := range order {
		of[find(i)] = append(of[find(i)], i)
	}
	for i := range p.Tasks {
		if c := of[find(i)]; len(c) > 1 {
			out[i] = c
		}
	}
	return out
}

// reached are the tasks that come after one of a chain and before another of it.
func (p Problem) reached(order []int, find func(int) int, chain int) []bool {
	after, before := make([]bool, len(p.Tasks)), make([]bool, len(p.Tasks))
	for _, i := range order {
		for _, a := range p.Tasks[i].After {
			after[i] = after[i] || after[a] || find(a) == chain
		}
	}
	for _, i := range slices.Backward(order) {
		for _, a := range p.Tasks[i].After {
			before[a] = before[a] || before[i] || find(i) == chain
		}
	}
	for i := range after {
		after[i] = after[i] && before[i]
	}
	return after
}

// contiguous is an order with each chain in one piece, after all that its tasks wait for.
func (b *board) contiguous(order []int) []int {
	out := make([]int, 0, len(order))
	done := make([]bool, len(order))
	var visit func(i int)
	visit = func(i int) {
		if done[i] {
			return
		}
		chain := b.chain[i]
		if chain == nil {
			chain = []int{i}
		}
		for _, i := range chain {
			done[i] = true
		}
		for _, i := range chain {
			for _, a := range b.p.Tasks[i].After {
				visit(a)
			}
		}
		out = append(out, chain...)
	}
	for _, i := range order {
		visit(i)
	}
	return out
}

// apart places tasks in an order, what windows tie together not in one piece: where a
// window has closed, all is taken back to what it is counted from, and that begins later by
// as much. It reports whether all windows hold.
func (b *board) apart(order []int) (s Schedule, held bool) {
	n := len(b.p.Tasks)
	s = Schedule{Slots: make([]Slot, n)}
	later, at, log := make([]int, n), make([]int, n), make([]int, n) // log: bookings before it was placed
	b.clear()
	for k, left := 0, tries+n; k < n; k++ {
		i := order[k]
		at[i], log[i] = k, len(b.log)
		b.place(&s, i, later[i])
		for _, w := range b.p.Tasks[i].Within {
			first := s.Slots[w.After]
			if !s.Slots[i].Placed() || !first.Placed() {
				if first.Placed() { // begun, and never to be gone on with
					return s, false
				}
				continue
			}
			if over := s.Slots[i].Start() - (first.Free + w.Minutes); over > 0 {
				if left--; left == 0 {
					return s, false
				}
				later[w.After] = first.Start() + over
				k = at[w.After] - 1
				b.undo(log[w.After])
				break
			}
		}
	}
	for _, x := range s.Slots {
		s.End = max(s.End, x.Free)
	}
	return s, true
}

// together places a chain: each as early as it can be, and where a window has closed by
// then, what it is counted from later by as much, until all of them hold.
func (b *board) together(s *Schedule, chain []int) {
	log := len(b.log)
	later := map[int]int{}
	lacks := Closes
	for try := range tries {
		holds := true
		for _, i := range chain {
			b.place(s, i, later[i])
			slot := s.Slots[i]
			if !slot.Placed() {
				if holds = false; try == 0 { // no window is why
					lacks = slot.Lacks
				}
				break
			}
			for _, w := range b.p.Tasks[i].Within {
				if over := slot.Start() - (s.Slots[w.After].Free + w.Minutes); over > 0 {
					later[w.After], holds = s.Slots[w.After].Start()+over, false
				}
			}
			if !holds {
				break
			}
		}
		if holds {
			return
		}
		b.undo(log)
		if !s.Slots[chain[0]].Placed() || lacks != Closes {
			break
		}
	}
	for _, i := range chain {
		s.Slots[i] = Slot{Lacks: lacks}
	}
}
