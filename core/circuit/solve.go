package circuit

import (
	"math"
	"slices"
)

// Solver holds a network's elimination order, so that the same wiring can be
// solved in many states. The order is by least degree: a tree is eliminated
// leaf by leaf with no fill, so cost grows linearly with its nodes.
type Solver struct {
	net    *Network
	start  []float64 // the last solution
	guess  []float64 // a supply's volts on all that its wires lead to
	island []int
	ground []int
	fixed  []bool
	order  []int32 // nodes in order of elimination
	first  []int32 // per place in that order: where its row of val starts; one more at the end
	nbr    []int32 // the later nodes each row touches
	val    []float64
	pair   []int32 // targets of the updates, in the order they are made
	offOf  []int32 // per element: index into val, or -1
	diag   []float64
	rhs    []float64
	ends   [][2]int32 // per element: its nodes
	cond   []float64  // per element: conductance of a plain resistor, else 0
	curved []int32    // elements that are no plain resistors
	diag0  []float64  // what the plain resistors stamp, once for all steps
	val0   []float64
}

// NewSolver prepares a network. Its elements may change their values and be
// turned round, but not go to other nodes, between solves.
func NewSolver(n *Network) *Solver {
	s := &Solver{net: n, ends: make([][2]int32, len(n.Elements))}
	for i := range n.Elements {
		s.ends[i] = [2]int32{int32(n.Elements[i].A), int32(n.Elements[i].B)}
	}
	s.findIslands()
	s.eliminate()
	return s
}

// Twin is a solver of a network of the same nodes and ends, which has solved nothing
// yet: what was found of its shape is shared, nothing that a solve changes is.
func (s *Solver) Twin(n *Network) *Solver {
	t := *s
	t.net, t.start, t.curved = n, nil, nil
	t.ends = slices.Clone(s.ends)
	t.val, t.diag, t.rhs = make([]float64, len(s.val)), make([]float64, len(s.diag)), make([]float64, len(s.rhs))
	t.diag0, t.val0 = make([]float64, len(s.diag0)), make([]float64, len(s.val0))
	t.cond = make([]float64, len(s.cond))
	return &t
}

// findIslands names the connected parts and grounds each at its first
// supply's negative, or at its first node when it has no supply. What wires
// alone join to a supply's plus is near its volts: the first guess.
func (s *Solver) findIslands() {
	n := len(s.net.Names)
	wired := make([]int32, n)
	for i := range wired {
		wired[i] = int32(i)
	}
	rest := make([]int32, 0, len(s.net.Elements)/2+1)
	for i, ends := range s.ends {
		if e := &s.net.Elements[i]; e.Kind == Resistor && e.R < 1 {
			join(wired, ends[0], ends[1])
		} else {
			rest = append(rest, int32(i))
		}
	}
	for i := range wired {
		wired[i] = find(wired, int32(i))
	}
	root := append([]int32(nil), wired...)
	for _, i := range rest {
		join(root, s.ends[i][0], s.ends[i][1])
	}
	s.island, s.fixed = make([]int, n), make([]bool, n)
	for i := range root { // a root comes before all it stands for
		if r := find(root, int32(i)); int(r) == i {
			s.island[i] = len(s.ground)
			s.ground = append(s.ground, i)
		} else {
			s.island[i] = s.island[r]
		}
	}
	had := make([]bool, len(s.ground))
	for _, i := range rest {
		if e := &s.net.Elements[i]; e.Kind == Supply && !had[s.island[e.A]] {
			had[s.island[e.A]] = true
			s.ground[s.island[e.A]] = e.B
		}
	}
	for _, g := range s.ground {
		s.fixed[g] = true
	}
	s.guess = make([]float64, n)
	plus := map[int32]float64{}
	for _, i := range rest {
		if e := &s.net.Elements[i]; e.Kind == Supply && wired[e.B] == wired[s.ground[s.island[e.B]]] &&
			wired[e.A] != wired[e.B] {
			plus[wired[e.A]] = max(plus[wired[e.A]], e.E)
		}
	}
	for i := range wired {
		s.guess[i] = plus[wired[i]]
	}
}

// find is the least node that stands for what i is joined to.
func find(root []int32, i int32) int32 {
	for root[i] != i {
		root[i] = root[root[i]]
		i = root[i]
	}
	return i
}

func join(root []int32, a, b int32) {
	if x, y := find(root, a), find(root, b); x < y {
		root[y] = x
	} else {
		root[x] = y
	}
}

// SameIsland reports whether two nodes are joined by elements of any kind.
func (s *Solver) SameIsland(a, b int) bool { return s.island[a] == s.island[b] }

// eliminate finds the order and the pattern of the factor.
func (s *Solver) eliminate() {
	n := len(s.net.Names)
	s.order, s.first = make([]int32, 0, n), make([]int32, 0, n+1)
	s.nbr = make([]int32, 0, len(s.net.Elements))
	rank := make([]int32, n)
	for i := range rank {
		rank[i] = -1
	}
	if left := s.peel(rank); left > 0 {
		s.core(rank, left)
	}
	s.first = append(s.first, int32(len(s.nbr)))
	s.val = make([]float64, len(s.nbr))
	s.diag, s.rhs = make([]float64, n), make([]float64, n)
	s.diag0, s.val0 = make([]float64, n), make([]float64, len(s.nbr))
	s.cond = make([]float64, len(s.net.Elements))
	// where each update lands
	at := func(a, b int32) int32 {
		r := rank[a]
		if rank[b] < r {
			r, b = rank[b], a
		}
		for i := s.first[r]; i < s.first[r+1]; i++ {
			if s.nbr[i] == b {
				return i
			}
		}
		return -1
	}
	for r := range s.order {
		row := s.nbr[s.first[r]:s.first[r+1]]
		for i, a := range row {
			for _, b := range row[i+1:] {
				s.pair = append(s.pair, at(a, b))
			}
		}
	}
	s.offOf = make([]int32, len(s.net.Elements))
	for i, e := range s.ends {
		s.offOf[i] = -1
		if !s.fixed[e[0]] && !s.fixed[e[1]] && e[0] != e[1] {
			s.offOf[i] = at(e[0], e[1])
		}
	}
}

// peel takes off leaf after leaf, which fills nothing in: all of a tree, and
// what hangs on a mesh. For each node it keeps how many elements join it to
// others and the exclusive or of those others' numbers, which for a leaf is its
// only one. It returns how many nodes are left.
func (s *Solver) peel(rank []int32) (left int) {
	n := len(rank)
	deg, other := make([]int32, n), make([]int32, n)
	for _, e := range s.ends {
		if a, b := e[0], e[1]; a != b && !s.fixed[a] && !s.fixed[b] {
			deg[a]++
			deg[b]++
			other[a] ^= b
			other[b] ^= a
		}
	}
	for i := range n {
		if s.fixed[i] {
			rank[i] = math.MaxInt32
			continue
		}
		left++
		for k := int32(i); k >= 0 && deg[k] <= 1 && rank[k] < 0; { // and on along its chain
			rank[k] = int32(len(s.order))
			s.order, s.first = append(s.order, k), append(s.first, int32(len(s.nbr)))
			left--
			next := int32(-1)
			if deg[k] == 1 {
				next = other[k]
				s.nbr = append(s.nbr, next)
				deg[next]--
				other[next] ^= k
				if int(next) > i { // it comes up by itself
					next = -1
				}
			}
			k = next
		}
	}
	return left
}

// core orders the nodes that lie in loops, by least degree.
func (s *Solver) core(rank []int32, left int) {
	n := len(rank)
	adj := make([][]int32, n)
	deg := make([]int32, n)
	inner := func(e *Element) bool { return rank[e.A] < 0 && rank[e.B] < 0 && e.A != e.B }
	total := int32(0)
	for i := range s.net.Elements {
		if e := &s.net.Elements[i]; inner(e) {
			deg[e.A]++
			deg[e.B]++
			total += 2
		}
	}
	room := make([]int32, 0, int(total)+2*left) // one piece of memory for all of them
	for i, d := range deg {
		if d > 0 {
			k := len(room)
			room = room[:k+int(d)+2]
			adj[i] = room[k : k : k+int(d)+2]
		}
	}
	link := func(a, b int32) {
		for _, x := range adj[a] {
			if x == b {
				return
			}
		}
		adj[a], adj[b] = append(adj[a], b), append(adj[b], a)
	}
	var seen map[[2]int]bool // only nodes with many neighbours need it
	for i := range s.net.Elements {
		e := &s.net.Elements[i]
		if !inner(e) {
			continue
		}
		if deg[e.A] > 16 || deg[e.B] > 16 {
			k := [2]int{min(e.A, e.B), max(e.A, e.B)}
			if seen[k] {
				continue
			}
			if seen == nil {
				seen = map[[2]int]bool{}
			}
			seen[k] = true
			adj[e.A], adj[e.B] = append(adj[e.A], int32(e.B)), append(adj[e.B], int32(e.A))
			continue
		}
		link(int32(e.A), int32(e.B))
	}
	degree := newDegrees(n)
	for i := n - 1; i >= 0; i-- {
		if rank[i] < 0 {
			degree.put(int32(i), len(adj[i]))
		}
	}
	for k := degree.least(); k >= 0; k = degree.least() {
		rank[k] = int32(len(s.order))
		s.order, s.first = append(s.order, k), append(s.first, int32(len(s.nbr)))
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
			degree.put(a, len(adj[a]))
		}
	}
}

// degrees keeps nodes by their degree, the least at hand.
type degrees struct {
	head       []int32 // per degree: its first node, or -1
	next, prev []int32 // of each node within its degree
	of         []int32 // each node's degree, or -1
	lowest     int
}

func newDegrees(n int) *degrees {
	d := &degrees{next: make([]int32, n), prev: make([]int32, n), of: make([]int32, n)}
	for i := range d.of {
		d.of[i] = -1
	}
	return d
}

// put says a node's degree, in place of what was said before.
func (d *degrees) put(k int32, degree int) {
	if d.of[k] >= 0 {
		d.take(k)
	}
	for len(d.head) <= degree {
		d.head = append(d.head, -1)
	}
	h := d.head[degree]
	d.next[k], d.prev[k], d.of[k], d.head[degree] = h, -1, int32(degree), k
	if h >= 0 {
		d.prev[h] = k
	}
	d.lowest = min(d.lowest, degree)
}

func (d *degrees) take(k int32) {
	if p := d.prev[k]; p >= 0 {
		d.next[p] = d.next[k]
	} else {
		d.head[d.of[k]] = d.next[k]
	}
	if q := d.next[k]; q >= 0 {
		d.prev[q] = d.prev[k]
	}
	d.of[k] = -1
}

// least takes out the node last put at the lowest degree; -1 when none is left.
func (d *degrees) least() int32 {
	for ; d.lowest < len(d.head); d.lowest++ {
		if k := d.head[d.lowest]; k >= 0 {
			d.take(k)
			return k
		}
	}
	return -1
}

// factorSolve solves the stamped equations in place; rhs becomes the answer.
func (s *Solver) factorSolve() {
	p := 0
	for r, k := range s.order {
		lo, hi := s.first[r], s.first[r+1]
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
		x := s.rhs[k]
		for i := s.first[r]; i < s.first[r+1]; i++ {
			x -= s.val[i] * s.rhs[s.nbr[i]]
		}
		s.rhs[k] = x / s.diag[k]
	}
}

// prepare stamps the plain resistors, which are the same in every step.
func (s *Solver) prepare() {
	s.curved = s.curved[:0]
	clear(s.diag0)
	clear(s.val0)
	for i := range s.diag0 {
		s.diag0[i] = 1e-12
	}
	for i := range s.net.Elements {
		e := &s.net.Elements[i]
		s.cond[i], s.ends[i] = 0, [2]int32{int32(e.A), int32(e.B)} // it may have been turned round
		if e.Kind != Resistor {
			s.curved = append(s.curved, int32(i))
		} else {
			s.cond[i] = 1 / e.R
			s.stamp(s.diag0, s.val0, i, s.cond[i])
		}
	}
}

// stamp adds a conductance between an element's nodes to the equations.
func (s *Solver) stamp(diag, val []float64, i int, g float64) {
	e := s.ends[i]
	if e[0] == e[1] {
		return // a wire back to its own joint
	}
	diag[e[0]] += g
	diag[e[1]] += g
	if o := s.offOf[i]; o >= 0 {
		val[o] -= g
	}
}

// straight is residual with the curved elements' currents as they stand.
func (s *Solver) straight(v, sum, current []float64) (norm float64, at int) {
	clear(sum)
	for i, e := range s.ends {
		if s.cond[i] > 0 {
			current[i] = (v[e[0]] - v[e[1]]) * s.cond[i]
		}
		sum[e[0]] += current[i]
		sum[e[1]] -= current[i]
	}
	return s.worst(sum)
}

// residual fills the node current sums, the elements' currents and the curved
// elements' slopes at v, and returns the largest sum.
func (s *Solver) residual(v, sum, slope, current []float64) (norm float64, at int) {
	clear(sum)
	for i, e := range s.ends {
		c := (v[e[0]] - v[e[1]]) * s.cond[i]
		current[i] = c
		sum[e[0]] += c
		sum[e[1]] -= c
	}
	for k, i := range s.curved {
		e := s.ends[i]
		c, g := s.net.Elements[i].At(v[e[0]] - v[e[1]])
		current[i], slope[k] = c, g
		sum[e[0]] += c
		sum[e[1]] -= c
	}
	return s.worst(sum)
}

// worst is the largest sum of a node that is not fixed, and which.
func (s *Solver) worst(sum []float64) (norm float64, at int) {
	at = -1
	for i, x := range sum {
		if a := math.Abs(x); (a > norm || at < 0) && !s.fixed[i] {
			norm, at = a, i
		}
	}
	return norm, at
}

// forward is v with a share of the step in rhs.
func (s *Solver) forward(next, v []float64, step float64) {
	for i := range next {
		next[i] = v[i]
		if !s.fixed[i] {
			next[i] += step * s.rhs[i]
		}
	}
}

// downhill is how much of the step in rhs to take when the largest error does
// not shrink, as between flat and steep pieces of an overloaded supply's line.
// No element's current falls as its volts rise, so the sums are the gradient
// of a convex function (Millar's co-content); along the step its slope rises
// from below nothing, and the step ends where that is a tenth of what it was.
func (s *Solver) downhill(next, v, sum, slope, current []float64) float64 {
	along := func(step float64) (g float64) {
		s.forward(next, v, step)
		s.residual(next, sum, slope, current)
		for i, x := range sum {
			if !s.fixed[i] {
				g += x * s.rhs[i]
			}
		}
		return g
	}
	first := along(0)
	if first >= 0 {
		return 0
	}
	lo, hi := 0.0, 1.0
	if along(1) <= -.1*first { // all of it, even when that is not far enough
		return 1
	}
	for range 60 {
		mid := (lo + hi) / 2
		switch g := along(mid); {
		case math.Abs(g) <= -.1*first:
			return mid
		case g > 0:
			hi = mid
		default:
			lo = mid
		}
	}
	return lo
}

// Solve finds the operating point by damped Newton steps: every element is
// passive but for the supplies, so the equations are monotone and each step is
// a descent; a step that does not lower the current errors is halved, and when
// that does not help goes as far downhill as the co-content falls.
func (s *Solver) Solve() *Solution {
	n := len(s.net.Names)
	sol := &Solution{V: make([]float64, n), I: make([]float64, len(s.net.Elements)), Ground: s.ground, Island: s.island}
	v, next, sum := sol.V, make([]float64, n), make([]float64, n)
	s.prepare()
	slope := make([]float64, len(s.curved))
	if len(s.start) == n { // set out from where the last state settled
		copy(v, s.start)
	} else {
		copy(v, s.guess)
	}
	norm, at := s.residual(v, sum, slope, sol.I)
	const tolerance = 1e-13
	for sol.Iterations = 0; sol.Iterations < 200; sol.Iterations++ {
		if norm < tolerance {
			break
		}
		copy(s.diag, s.diag0)
		copy(s.val, s.val0)
		for k, i := range s.curved {
			s.stamp(s.diag, s.val, int(i), slope[k])
		}
		for i, x := range sum {
			s.rhs[i] = -x
		}
		s.factorSolve()
		for _, g := range s.ground {
			s.rhs[g] = 0
		}
		largest := 0.0
		for _, k := range s.order {
			if x := math.Abs(s.rhs[k]); x > largest {
				largest = x
			}
		}
		if largest < 1e-6 { // volts; the next step would be its square
			for k, i := range s.curved {
				e := s.ends[i]
				sol.I[i] += slope[k] * (s.rhs[e[0]] - s.rhs[e[1]])
			}
			for _, k := range s.order {
				v[k] += s.rhs[k]
			}
			norm, at = s.straight(v, sum, sol.I)
			break
		}
		step, better := 1.0, false
		for range 5 {
			s.forward(next, v, step)
			m, where := s.residual(next, sum, slope, sol.I)
			if m < norm || m < tolerance {
				norm, at, better = m, where, true
				break
			}
			step /= 2
		}
		if !better {
			if step = s.downhill(next, v, sum, slope, sol.I); step*largest < 1e-12 { // round-off, or it will not settle
				norm, at = s.residual(v, sum, slope, sol.I)
				break
			}
			s.forward(next, v, step)
			norm, at = s.residual(next, sum, slope, sol.I)
		}
		copy(v, next)
	}
	scale := 0.0
	for _, c := range sol.I {
		if a := math.Abs(c); a > scale {
			scale = a
		}
	}
	s.start = v
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
