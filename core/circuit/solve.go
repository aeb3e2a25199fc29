package circuit

import (
	"math"
	"slices"

	"zapbarn/core/memo"
)

// island is a part of a network that nothing joins to the rest, with an elimination order,
// so that the same wiring can be solved in many states. The order is by least degree: a
// tree is eliminated leaf by leaf with no fill, so cost grows linearly with its nodes.
type island struct {
	nodes    []int32 // their numbers in the network, in order
	elements []int32
	local    []int32    // of each node of the network: its number in its island
	el       []Element  // as they stand, ends by local number
	start    []float64  // the last solution; nil at rest
	mark     memo.Key   // sum of the states it came from
	guess    []float64  // a supply's volts on all that its wires lead to
	ground   int        // the node taken as zero
	ends     [][2]int32 // per element: its nodes
	*shape
	scratch
}

// shape is what stands of an island whatever its elements come to: how it is eliminated.
// All islands of that shape share it.
type shape struct {
	order []int32 // nodes in order of elimination
	first []int32 // per place in that order: where its row of val starts; one more at the end
	nbr   []int32 // the later nodes each row touches
	pair  []int32 // targets of the updates, in the order they are made
	offOf []int32 // per element: index into val, or -1
}

// bench is what a solve works on, made when the first begins.
type scratch struct {
	val    []float64
	diag   []float64
	rhs    []float64
	cond   []float64 // per element: conductance of a plain resistor, else 0
	curved []int32   // elements that are no plain resistors
	diag0  []float64 // what the plain resistors stamp, once for all steps
	val0   []float64
}

// shapes remembers what was found of islands' shapes.
func shapes(b *memo.Bench) *memo.Memo[memo.Key, *shape] {
	return memo.At[memo.Key](b, "islands", 2_000_000, func(f *shape) int64 {
		return int64(len(f.order) + len(f.first) + len(f.nbr) + len(f.pair) + len(f.offOf) + 8)
	})
}

// take reads the island's elements as the network has them now.
func (s *island) take(n *Network) {
	if s.el == nil {
		s.el, s.ends = make([]Element, len(s.elements)), make([][2]int32, len(s.elements))
	}
	for k, i := range s.elements {
		e := n.Elements[i]
		e.A, e.B = int(s.local[e.A]), int(s.local[e.B])
		s.el[k], s.ends[k] = e, [2]int32{int32(e.A), int32(e.B)}
	}
}

// begin finds its ground, the first guess and the order of elimination.
func (s *island) begin(sum *memo.Sum, b *memo.Bench) {
	s.findGround()
	sum.Reset()
	sum.Bits(uint64(s.ground)) // every node is an end, where there is an element
	for _, e := range s.ends {
		sum.Bits(uint64(e[0])<<32 | uint64(e[1]))
	}
	s.shape = shapes(b).Get(sum.Key(), func() *shape {
		s.shape = &shape{}
		s.eliminate()
		return s.shape
	})
}

func (s *island) twin() *island {
	t := *s
	t.rest()
	t.el, t.ends, t.scratch = nil, nil, scratch{}
	return &t
}

func (s *island) rest() { s.start, s.mark = nil, memo.Key{} }

// findGround grounds it at its first supply's negative, or at its first node when it has
// no supply. What wires alone join to a supply's plus is near its volts: the first guess.
func (s *island) findGround() {
	n := len(s.nodes)
	wired := make([]int32, n)
	for i := range wired {
		wired[i] = int32(i)
	}
	for i, ends := range s.ends {
		if e := &s.el[i]; e.Kind == Resistor && e.R < 1 {
			join(wired, ends[0], ends[1])
		}
	}
	for i := range wired {
		wired[i] = find(wired, int32(i))
	}
	s.ground = 0
	for i := range s.el {
		if e := &s.el[i]; e.Kind == Supply {
			s.ground = e.B
			break
		}
	}
	plus := map[int32]float64{}
	for i := range s.el {
		if e := &s.el[i]; e.Kind == Supply && wired[e.B] == wired[s.ground] && wired[e.A] != wired[e.B] {
			plus[wired[e.A]] = max(plus[wired[e.A]], e.E)
		}
	}
	s.guess = make([]float64, n)
	for i := range wired {
		s.guess[i] = plus[wired[i]]
	}
}

// grounds reports whether one of two nodes is the ground.
func (s *island) grounds(ends [2]int32) bool {
	return int(ends[0]) == s.ground || int(ends[1]) == s.ground
}

// eliminate finds the order and the pattern of the factor.
func (s *island) eliminate() {
	n := len(s.nodes)
	s.order, s.first = make([]int32, 0, n), make([]int32, 0, n+1)
	s.nbr = make([]int32, 0, len(s.el))
	rank := make([]int32, n)
	for i := range rank {
		rank[i] = -1
	}
	if left := s.peel(rank); left > 0 {
		s.core(rank, left)
	}
	s.first = append(s.first, int32(len(s.nbr)))
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
	s.offOf = make([]int32, len(s.el))
	for i, e := range s.ends {
		s.offOf[i] = -1
		if !s.grounds(e) && e[0] != e[1] {
			s.offOf[i] = at(e[0], e[1])
		}
	}
}

// peel takes off leaf after leaf, which fills nothing in: all of a tree, and
// what hangs on a mesh. For each node it keeps how many elements join it to
// others and the exclusive or of those others' numbers, which for a leaf is its
// only one. It returns how many nodes are left.
func (s *island) peel(rank []int32) (left int) {
	n := len(rank)
	deg, other := make([]int32, n), make([]int32, n)
	for _, e := range s.ends {
		if a, b := e[0], e[1]; a != b && !s.grounds(e) {
			deg[a]++
			deg[b]++
			other[a] ^= b
			other[b] ^= a
		}
	}
	for i := range n {
		if i == s.ground {
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
func (s *island) core(rank []int32, left int) {
	m := s.meshed(rank, left)
	degree := newDegrees(len(rank))
	for i := len(rank) - 1; i >= 0; i-- {
		if rank[i] < 0 {
			degree.put(int32(i), len(m[i]))
		}
	}
	for k := degree.least(); k >= 0; k = degree.least() {
		rank[k] = int32(len(s.order))
		s.order, s.first = append(s.order, k), append(s.first, int32(len(s.nbr)))
		s.nbr = append(s.nbr, m[k]...)
		m.take(k)
		for _, a := range m[k] {
			degree.put(a, len(m[a]))
		}
	}
}

// mesh are the neighbours of each node that is left.
type mesh [][]int32

// link joins two nodes, once.
func (m mesh) link(a, b int32) {
	if !slices.Contains(m[a], b) {
		m[a], m[b] = append(m[a], b), append(m[b], a)
	}
}

// take eliminates a node: its neighbours become each other's.
func (m mesh) take(k int32) {
	for _, a := range m[k] {
		row := m[a]
		if i := slices.Index(row, k); i >= 0 {
			row[i] = row[len(row)-1]
			m[a] = row[:len(row)-1]
		}
	}
	for i, a := range m[k] {
		for _, b := range m[k][i+1:] {
			m.link(a, b)
		}
	}
}

// meshed are the neighbours of the nodes that are left when the trees are off.
func (s *island) meshed(rank []int32, left int) mesh {
	n := len(rank)
	m := make(mesh, n)
	deg := make([]int32, n)
	inner := func(e *Element) bool { return rank[e.A] < 0 && rank[e.B] < 0 && e.A != e.B }
	total := int32(0)
	for i := range s.el {
		if e := &s.el[i]; inner(e) {
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
			m[i] = room[k : k : k+int(d)+2]
		}
	}
	seen := map[[2]int]bool{} // only nodes with many neighbours need it
	for i := range s.el {
		e := &s.el[i]
		switch k := [2]int{min(e.A, e.B), max(e.A, e.B)}; {
		case !inner(e):
		case deg[e.A] <= 16 && deg[e.B] <= 16:
			m.link(int32(e.A), int32(e.B))
		case !seen[k]:
			seen[k] = true
			m[e.A], m[e.B] = append(m[e.A], int32(e.B)), append(m[e.B], int32(e.A))
		}
	}
	return m
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
func (s *island) factorSolve() {
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
func (s *island) prepare() {
	if n := len(s.nodes); s.diag == nil {
		s.scratch = scratch{val: make([]float64, len(s.nbr)), diag: make([]float64, n), rhs: make([]float64, n),
			cond: make([]float64, len(s.el)), diag0: make([]float64, n), val0: make([]float64, len(s.nbr))}
	}
	s.curved = s.curved[:0]
	clear(s.val0)
	for i := range s.diag0 {
		s.diag0[i] = 1e-12
	}
	for i := range s.el {
		e := &s.el[i]
		if s.cond[i] = 0; e.Kind != Resistor {
			s.curved = append(s.curved, int32(i))
		} else {
			s.cond[i] = 1 / e.R
			s.stamp(s.diag0, s.val0, i, s.cond[i])
		}
	}
}

// stamp adds a conductance between an element's nodes to the equations.
func (s *island) stamp(diag, val []float64, i int, g float64) {
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
func (s *island) straight(v, sum, current []float64) (norm float64, at int) {
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
func (s *island) residual(v, sum, slope, current []float64) (norm float64, at int) {
	clear(sum)
	for i, e := range s.ends {
		c := (v[e[0]] - v[e[1]]) * s.cond[i]
		current[i] = c
		sum[e[0]] += c
		sum[e[1]] -= c
	}
	for k, i := range s.curved {
		e := s.ends[i]
		c, g := s.el[i].At(v[e[0]] - v[e[1]])
		current[i], slope[k] = c, g
		sum[e[0]] += c
		sum[e[1]] -= c
	}
	return s.worst(sum)
}

// worst is the largest sum of a node that is not fixed, and which.
func (s *island) worst(sum []float64) (norm float64, at int) {
	at = -1
	for i, x := range sum {
		if a := math.Abs(x); (a > norm || at < 0) && i != s.ground {
			norm, at = a, i
		}
	}
	return norm, at
}

// forward is v with a share of the step in rhs.
func (s *island) forward(next, v []float64, step float64) {
	for i := range next {
		next[i] = v[i]
		if i != s.ground {
			next[i] += step * s.rhs[i]
		}
	}
}

// downhill is how much of the step in rhs to take when the largest error does
// not shrink, as between flat and steep pieces of an overloaded supply's line.
// No element's current falls as its volts rise, so the sums are the gradient
// of a convex function (Millar's co-content); along the step its slope rises
// from below nothing, and the step ends where that is a tenth of what it was.
func (s *island) downhill(next, v, sum, slope, current []float64) float64 {
	along := func(step float64) (g float64) {
		s.forward(next, v, step)
		s.residual(next, sum, slope, current)
		for i, x := range sum {
			if i != s.ground {
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

// tolerance is the current left over at a node, in A, from which on it counts as none.
const tolerance = 1e-13

// iteration is where Newton's method stands: the volts, the sums of the currents at each
// node, the currents, the curved elements' slopes, and the worst node with its sum.
type iteration struct {
	v, next, sum, slope, i []float64
	norm                   float64
	at                     int
}

// solve finds the operating point by damped Newton steps: every element is
// passive but for the supplies, so the equations are monotone and each step is
// a descent; a step that does not lower the current errors is halved, and when
// that does not help goes as far downhill as the co-content falls.
func (s *island) solve() *settled {
	n := len(s.nodes)
	s.prepare()
	x := &iteration{v: make([]float64, n), next: make([]float64, n), sum: make([]float64, n),
		slope: make([]float64, len(s.curved)), i: make([]float64, len(s.el))}
	if s.start != nil { // set out from where the last state settled
		copy(x.v, s.start)
	} else {
		copy(x.v, s.guess)
	}
	x.norm, x.at = s.residual(x.v, x.sum, x.slope, x.i)
	steps := 0
	for ; steps < 200 && x.norm >= tolerance && s.step(x); steps++ {
	}
	scale := 0.0
	for _, c := range x.i {
		scale = math.Max(scale, math.Abs(c))
	}
	return &settled{v: x.v, i: x.i, steps: steps, at: x.at, settled: x.norm <= 1e-6*math.Max(scale, 1e-3)}
}

// step takes one step; false when it was the last.
func (s *island) step(x *iteration) bool {
	largest := s.newton(x)
	if largest < 1e-6 { // volts; the next step would be its square
		s.last(x)
		return false
	}
	step, better := 1.0, false
	for range 5 {
		s.forward(x.next, x.v, step)
		norm, at := s.residual(x.next, x.sum, x.slope, x.i)
		if norm < x.norm || norm < tolerance {
			x.norm, x.at, better = norm, at, true
			break
		}
		step /= 2
	}
	if !better {
		if step = s.downhill(x.next, x.v, x.sum, x.slope, x.i); step*largest < 1e-12 { // round-off, or it will not settle
			x.norm, x.at = s.residual(x.v, x.sum, x.slope, x.i)
			return false
		}
		s.forward(x.next, x.v, step)
		x.norm, x.at = s.residual(x.next, x.sum, x.slope, x.i)
	}
	copy(x.v, x.next)
	return true
}

// newton solves for the whole step, left in rhs, and returns its largest change of volts.
func (s *island) newton(x *iteration) (largest float64) {
	copy(s.diag, s.diag0)
	copy(s.val, s.val0)
	for k, i := range s.curved {
		s.stamp(s.diag, s.val, int(i), x.slope[k])
	}
	for i, c := range x.sum {
		s.rhs[i] = -c
	}
	s.factorSolve()
	s.rhs[s.ground] = 0
	for _, k := range s.order {
		largest = math.Max(largest, math.Abs(s.rhs[k]))
	}
	return largest
}

// last takes a step so small that the elements' slopes hold over it.
func (s *island) last(x *iteration) {
	for k, i := range s.curved {
		e := s.ends[i]
		x.i[i] += x.slope[k] * (s.rhs[e[0]] - s.rhs[e[1]])
	}
	for _, k := range s.order {
		x.v[k] += s.rhs[k]
	}
	x.norm, x.at = s.straight(x.v, x.sum, x.i)
}

// Solve solves a network once.
func Solve(n *Network) *Solution { return NewSolver(n, nil).Solve() }
