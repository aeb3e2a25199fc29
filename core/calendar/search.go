package calendar

import (
	"math/rand/v2"
	"sort"
)

// Search improves a schedule round by round. The same problem, seed and number of rounds
// give the same answer.
type Search struct {
	board *board
	rank  []float64 // of the best so far: tasks of a low one come first
	best  Schedule
	tail  []int
	rng   *rand.Rand
	bound int // of all tasks
}

// NewSearch has a first answer at once: the best of a few orders, those first that most
// comes after, and orders that are known, lists of all tasks. A problem with a loop has no
// schedule; ask Loop before.
func NewSearch(p Problem, seed uint64, known ...[]int) *Search {
	s := &Search{board: newBoard(p), rng: rand.New(rand.NewPCG(seed, 12))}
	s.tail = make([]int, len(p.Tasks))
	count := make([]int, len(p.Tasks))
	order := p.topological()
	for k := len(order) - 1; k >= 0; k-- {
		i := order[k]
		s.tail[i] += p.Tasks[i].Work + p.Tasks[i].Wait
		for _, a := range p.Tasks[i].After {
			s.tail[a] = max(s.tail[a], s.tail[i])
			count[a] += count[i] + 1
		}
	}
	bound := s.board.bound()
	ranks := []func(i int) float64{
		func(i int) float64 { return -float64(s.tail[i]) },
		func(i int) float64 { return -float64(s.tail[i]-p.Tasks[i].Work) - float64(p.Tasks[i].Wait) },
		func(i int) float64 { return -float64(count[i]) },
		func(i int) float64 { return -float64(s.tail[i]) / float64(1+p.Tasks[i].Work) },
	}
	if len(p.Tasks) > manyTasks { // by what most comes after, and by what that takes
		ranks = []func(i int) float64{ranks[2], ranks[0]}
	}
	for k, of := range ranks {
		rank := make([]float64, len(p.Tasks))
		for i := range rank {
			rank[i] = of(i)
		}
		got := s.board.serial(s.order(rank))
		if k == 0 || better(got, s.best) {
			s.best, s.rank = got, place(s.order(rank))
		}
	}
	for _, order := range known {
		if len(order) != len(p.Tasks) {
			continue
		}
		rank := make([]float64, len(order))
		for k, i := range order {
			rank[i] = float64(k)
		}
		if got := s.board.serial(s.order(rank)); !better(s.best, got) {
			s.best, s.rank = got, place(s.order(rank))
		}
	}
	s.bound = bound
	s.best.Bound = s.bounded(s.best)
	return s
}

// manyTasks is from how many on only two orders are tried at first: each takes longer, and
// the search goes on.
const manyTasks = 500

// Order is the order of the tasks that the best so far is placed in.
func (s *Search) Order() []int { return s.order(s.rank) }

// Better is whether a schedule is the better of two: it has more of the tasks, or is over
// sooner, or its tasks are.
func Better(a, b Schedule) bool { return better(a, b) }

// place is a rank by where each stands in an order, from 0 to 1.
func place(order []int) []float64 {
	out := make([]float64, len(order))
	for k, i := range order {
		out[i] = float64(k) / float64(max(1, len(order)))
	}
	return out
}

// bounded is the bound as it holds for a schedule: one for which there is not time for all
// is over when what it has is, and the bound is of all.
func (s *Search) bounded(of Schedule) int {
	if left(of) > 0 {
		return min(s.bound, of.End)
	}
	return s.bound
}

// left is how many tasks there is no time for.
func left(s Schedule) (n int) {
	for _, x := range s.Slots {
		if !x.Placed() {
			n++
		}
	}
	return n
}

// better is true of a schedule that has more of the tasks, or is over earlier, or whose
// tasks are over earlier in all: what is free sooner can be late without harm.
func better(a, b Schedule) bool {
	if x, y := left(a), left(b); x != y {
		return x < y
	}
	if a.End != b.End {
		return a.End < b.End
	}
	return sum(a) < sum(b)
}

func sum(s Schedule) (n int) {
	for _, x := range s.Slots {
		n += x.Free
	}
	return n
}

// order lists the tasks by rank, each after all that it waits for.
func (s *Search) order(rank []float64) []int {
	by := make([]int, len(rank))
	for i := range by {
		by[i] = i
	}
	sort.SliceStable(by, func(a, b int) bool { return rank[by[a]] < rank[by[b]] })
	out := make([]int, 0, len(rank))
	done := make([]bool, len(rank))
	var visit func(i int)
	visit = func(i int) {
		if done[i] {
			return
		}
		done[i] = true
		for _, a := range s.board.p.Tasks[i].After {
			visit(a)
		}
		out = append(out, i)
	}
	for _, i := range by {
		visit(i)
	}
	return out
}

// Best is the best schedule so far.
func (s *Search) Best() Schedule { return s.best }

// Proven reports that no schedule can be over earlier.
func (s *Search) Proven() bool { return left(s.best) == 0 && s.best.End <= s.best.Bound }

// Run tries so many more orders: the best one with some tasks moved, now and then many.
func (s *Search) Run(rounds int) Schedule {
	n := len(s.rank)
	if n < 2 {
		return s.best
	}
	for range rounds {
		if s.Proven() {
			break
		}
		rank := append([]float64(nil), s.rank...)
		moves := 1 + s.rng.IntN(3)
		if s.rng.IntN(8) == 0 {
			moves = max(2, n/4)
		}
		for range moves {
			i := s.rng.IntN(n)
			if s.rng.IntN(2) == 0 {
				rank[i] += (s.rng.Float64() - .5) * .3
			} else {
				rank[i] = s.rng.Float64()
			}
		}
		order := s.order(rank)
		got := s.board.serial(order)
		if !better(s.best, got) { // as good is taken, too: it leads on
			got.Bound = s.bounded(got)
			s.best, s.rank = got, place(order)
		}
	}
	return s.best
}
