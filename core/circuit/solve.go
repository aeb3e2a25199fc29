package circuit

import "math"

// Solver holds a network's elimination order, so that the same wiring can be
// solved in many states. The order is by least degree: a tree is eliminated
// leaf by leaf with no fill, so cost grows linearly with its nodes.
type Solver struct {
	net    *Network
	start  []float64 // the last solution
	island []int
	ground []int
	fixed  []bool
	order  []int // nodes in order of elimination
	first  []int // per node: where its row of val starts
	nbr    []int // the later nodes each row touches
	val    []float64
	pair   []int // targets of the updates, in the order they are made
	offOf  []int // per element: index into val, or -1
	diag   []float64
	rhs    []float64
	rank   []int
}

// NewSolver prepares a network. Its elements may change their values, but not
// their nodes, between solves.
func NewSolver(n *Network) *Solver {
	s := &Solver{net: n}
	s.findIslands()
	s.eliminate()
	return s
}

// findIslands names the connected parts and grounds each at its first
// supply's negative, or at its first node when it has no supply.
func (s *Solver) findIslands() {
	n := len(s.net.Names)
	root := make([]int, n)
	for i := range root {
		root[i] = i
	}
	find := func(i int) int {
		for root[i] != i {
			root[i] = root[root[i]]
			i = root[i]
		}
		return i
	}
	for _, e := range s.net.Elements {
		if a, b := find(e.A), find(e.B); a != b {
			root[max(a, b)] = min(a, b)
		}
	}
	s.island, s.fixed = make([]int, n), make([]bool, n)
	number := make([]int, n)
	for i := range n {
		r := find(i)
		if r == i {
			s.ground = append(s.ground, i)
			number[i] = len(s.ground) - 1
		}
		s.island[i] = number[r]
	}
	had := make([]bool, len(s.ground))
	for _, e := range s.net.Elements {
		if e.Kind == Supply && !had[s.island[e.A]] {
			had[s.island[e.A]] = true
			s.ground[s.island[e.A]] = e.B
		}
	}
	for _, g := range s.ground {
		s.fixed[g] = true
	}
}

// eliminate finds the order and the pattern of the factor.
func (s *Solver) eliminate() {
	n := len(s.net.Names)
	adj := make([][]int, n)
	room := make([]int, 0, 4*len(s.net.Elements)+2*n) // one piece of memory for all of them
	deg := make([]int, n)
	for _, e := range s.net.Elements {
		if !s.fixed[e.A] && !s.fixed[e.B] {
			deg[e.A]++
			deg[e.B]++
		}
	}
	for i, d := range deg {
		k := len(room)
		room = room[:k+d+2]
		adj[i] = room[k : k : k+d+2]
	}
	link := func(a, b int) {
		for _, x := range adj[a] {
			if x == b {
				return
			}
		}
		adj[a], adj[b] = append(adj[a], b), append(adj[b], a)
	}
	hub := make([]int, n)
	for _, e := range s.net.Elements {
		hub[e.A]++
		hub[e.B]++
	}
	seen := map[[2]int]bool{} // only nodes with many neighbours need it
	for _, e := range s.net.Elements {
		if s.fixed[e.A] || s.fixed[e.B] || e.A == e.B {
			continue
		}
		if hub[e.A] > 16 || hub[e.B] > 16 {
			k := [2]int{min(e.A, e.B), max(e.A, e.B)}
			if !seen[k] {
				seen[k] = true
				adj[e.A], adj[e.B] = append(adj[e.A], e.B), append(adj[e.B], e.A)
			}
			continue
		}
		link(e.A, e.B)
	}
	var bucket [][]int
	push := func(i int) {
		d := len(adj[i])
		for len(bucket) <= d {
			bucket = append(bucket, nil)
		}
		bucket[d] = append(bucket[d], i)
	}
	for i := n - 1; i >= 0; i-- {
		if !s.fixed[i] {
			push(i)
		}
	}
	done := make([]bool, n)
	s.first, s.rank = make([]int, n+1), make([]int, n)
	start := make([]int, n)
	for d := 0; d < len(bucket); {
		if len(bucket[d]) == 0 {
			d++
			continue
		}
		k := bucket[d][len(bucket[d])-1]
		bucket[d] = bucket[d][:len(bucket[d])-1]
		if done[k] || len(adj[k]) != d {
			continue // an old entry
		}
		done[k] = true
		s.rank[k] = len(s.order)
		s.order = append(s.order, k)
		start[k] = len(s.nbr)
		s.nbr = append(s.nbr, adj[k]...)
		for _, a := range adj[k] {
			row := adj[a]
			for i, x := range row {
				if x == k {
					row[i] = row[len(row)-1]
					adj[a] = row[:len(row)-1]
					break
				}
			}
		}
		for i, a := range adj[k] {
			for _, b := range adj[k][i+1:] {
				link(a, b)
			}
		}
		for _, a := range adj[k] {
			push(a)
			d = min(d, len(adj[a]))
		}
	}
	s.first = start
	s.val = make([]float64, len(s.nbr))
	s.diag, s.rhs = make([]float64, n), make([]float64, n)
	// where each update lands
	length := func(k int) int {
		if r := s.rank[k]; r+1 < len(s.order) {
			return start[s.order[r+1]] - start[k]
		}
		return len(s.nbr) - start[k]
	}
	at := func(a, b int) int {
		if s.rank[a] > s.rank[b] {
			a, b = b, a
		}
		for i := range length(a) {
			if s.nbr[start[a]+i] == b {
				return start[a] + i
			}
		}
		return -1
	}
	for _, k := range s.order {
		m := length(k)
		for i := range m {
			for j := i + 1; j < m; j++ {
				s.pair = append(s.pair, at(s.nbr[start[k]+i], s.nbr[start[k]+j]))
			}
		}
	}
	s.offOf = make([]int, len(s.net.Elements))
	for i, e := range s.net.Elements {
		s.offOf[i] = -1
		if !s.fixed[e.A] && !s.fixed[e.B] && e.A != e.B {
			s.offOf[i] = at(e.A, e.B)
		}
	}
}

// factorSolve solves the stamped equations in place; rhs becomes the answer.
func (s *Solver) factorSolve() {
	p := 0
	for r, k := range s.order {
		lo, hi := s.first[k], len(s.nbr)
		if r+1 < len(s.order) {
			hi = s.first[s.order[r+1]]
		}
		inv := 1 / s.diag[k]
		for i := lo; i < hi; i++ {
			l := s.val[i] * inv
			a := s.nbr[i]
			s.diag[a] -= l * s.val[i]
			s.rhs[a] -= l * s.rhs[k]
			for j := i + 1; j < hi; j++ {
				s.val[s.pair[p]] -= l * s.val[j]
				p++
			}
		}
	}
	for r := len(s.order) - 1; r >= 0; r-- {
		k := s.order[r]
		lo, hi := s.first[k], len(s.nbr)
		if r+1 < len(s.order) {
			hi = s.first[s.order[r+1]]
		}
		x := s.rhs[k]
		for i := lo; i < hi; i++ {
			x -= s.val[i] * s.rhs[s.nbr[i]]
		}
		s.rhs[k] = x / s.diag[k]
	}
}

// residual fills the node current sums and the elements' slopes at v, and
// returns the largest sum.
func (s *Solver) residual(v, sum, slope []float64) (norm float64, at int) {
	clear(sum)
	for i := range s.net.Elements {
		e := &s.net.Elements[i]
		c, g := e.At(v[e.A] - v[e.B])
		slope[i] = g
		sum[e.A] += c
		sum[e.B] -= c
	}
	at = -1
	for i, x := range sum {
		if !s.fixed[i] {
			if a := math.Abs(x); a > norm || at < 0 {
				norm, at = a, i
			}
		}
	}
	return norm, at
}

// Solve finds the operating point by damped Newton steps: every element is
// passive but for the supplies, so the equations are monotone and each step is
// a descent; a step that does not lower the current errors is halved.
func (s *Solver) Solve() *Solution {
	n := len(s.net.Names)
	sol := &Solution{V: make([]float64, n), I: make([]float64, len(s.net.Elements)), Ground: s.ground, Island: s.island}
	v, next, sum := sol.V, make([]float64, n), make([]float64, n)
	slope := make([]float64, len(s.net.Elements))
	if len(s.start) == n { // set out from where the last state settled
		copy(v, s.start)
	}
	norm, at := s.residual(v, sum, slope)
	const tolerance = 1e-10
	for sol.Iterations = 0; sol.Iterations < 200; sol.Iterations++ {
		if norm < tolerance {
			break
		}
		clear(s.diag)
		clear(s.val)
		for i := range s.net.Elements {
			e := &s.net.Elements[i]
			if e.A == e.B {
				continue // a wire back to its own joint
			}
			g := slope[i]
			s.diag[e.A] += g
			s.diag[e.B] += g
			if o := s.offOf[i]; o >= 0 {
				s.val[o] -= g
			}
		}
		for i := range s.diag {
			s.diag[i] += 1e-12
			s.rhs[i] = -sum[i]
		}
		s.factorSolve()
		largest := 0.0
		for _, k := range s.order {
			largest = math.Max(largest, math.Abs(s.rhs[k]))
		}
		if largest < 1e-7 { // volts; the next step would be its square
			for _, k := range s.order {
				v[k] += s.rhs[k]
			}
			norm, at = s.residual(v, sum, slope)
			break
		}
		step, better := 1.0, false
		for range 30 {
			for i := range next {
				next[i] = v[i]
				if !s.fixed[i] {
					next[i] += step * s.rhs[i]
				}
			}
			m, where := s.residual(next, sum, slope)
			if m < norm || m < tolerance {
				norm, at, better = m, where, true
				break
			}
			step /= 2
		}
		if !better { // no descent left: round-off, or it will not settle
			norm, at = s.residual(v, sum, slope)
			break
		}
		copy(v, next)
	}
	scale := 0.0
	for i := range s.net.Elements {
		e := &s.net.Elements[i]
		sol.I[i], _ = e.At(v[e.A] - v[e.B])
		scale = math.Max(scale, math.Abs(sol.I[i]))
	}
	s.start = append(s.start[:0], v...)
	sol.Settled = norm <= 1e-6*math.Max(scale, 1e-3)
	if !sol.Settled && at >= 0 {
		for _, e := range s.net.Elements {
			if e.A == at || e.B == at {
				sol.Worst = e.Name
				break
			}
		}
	}
	return sol
}

// Solve solves a network once.
func Solve(n *Network) *Solution { return NewSolver(n).Solve() }
