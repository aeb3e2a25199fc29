package circuit

import (
	"math"

	"zapbarn/core/memo"
)

// Solver solves a network in many states: each of its islands, parts that no element joins,
// by itself. An edit of one leaves what was found of the others.
type Solver struct {
	net     *Network
	islands []*island
	island  []int     // of each node
	ground  []int     // of each island: the node taken as zero
	sum     *memo.Sum // to keep what was found of islands, for all solvers of a bench; nil keeps nothing
	bench   *memo.Bench
}

// NewSolver prepares a network, of which what is found is remembered on a bench, if any. Its
// elements may change their values and be turned round, but not go to other nodes, between solves.
func NewSolver(n *Network, b *memo.Bench) *Solver {
	s := &Solver{net: n, bench: b, island: make([]int, len(n.Names))}
	root := make([]int32, len(n.Names))
	for i := range root {
		root[i] = int32(i)
	}
	for i := range n.Elements {
		join(root, int32(n.Elements[i].A), int32(n.Elements[i].B))
	}
	local := make([]int32, len(root)) // each node's number in its island
	for i := range root {             // a root comes before all it stands for
		r := find(root, int32(i))
		if int(r) == i {
			s.island[i] = len(s.islands)
			s.islands = append(s.islands, &island{})
		} else {
			s.island[i] = s.island[r]
		}
		x := s.islands[s.island[i]]
		local[i] = int32(len(x.nodes))
		x.nodes = append(x.nodes, int32(i))
	}
	for i := range n.Elements {
		x := s.islands[s.island[n.Elements[i].A]]
		x.elements = append(x.elements, int32(i))
	}
	sum := memo.NewSum()
	for _, x := range s.islands {
		x.local = local
		x.take(n)
		x.begin(sum, b)
		s.ground = append(s.ground, int(x.nodes[x.ground]))
	}
	return s
}

// Remembers makes it keep what it finds of an island, and take over what any solver found
// of the same island that came from the same states: to the last digit what it would find.
func (s *Solver) Remembers() *Solver {
	if s.bench != nil {
		s.sum = memo.NewSum()
	}
	return s
}

// Twin is a solver of a network of the same nodes and ends, which has solved nothing
// yet: what was found of its shape is shared, nothing that a solve changes is.
func (s *Solver) Twin(n *Network) *Solver {
	t := *s
	t.net, t.islands = n, make([]*island, len(s.islands))
	if s.sum != nil {
		t.sum = memo.NewSum() // the two may solve at once
	}
	for i, x := range s.islands {
		t.islands[i] = x.twin()
	}
	return &t
}

// Rest forgets the last state: the next solve sets out as the first did.
func (s *Solver) Rest() {
	for _, x := range s.islands {
		x.rest()
	}
}

// SameIsland reports whether two nodes are joined by elements of any kind.
func (s *Solver) SameIsland(a, b int) bool { return s.island[a] == s.island[b] }

// Solve finds the operating point of every island.
func (s *Solver) Solve() *Solution {
	sol := &Solution{V: make([]float64, len(s.net.Names)), I: make([]float64, len(s.net.Elements)),
		Ground: s.ground, Island: s.island, Settled: true,
		Steps: make([]int, len(s.islands)), Nodes: make([]int, len(s.islands))}
	for n, x := range s.islands {
		got := s.found(x)
		for k, i := range x.nodes {
			sol.V[i] = got.v[k]
		}
		for k, i := range x.elements {
			sol.I[i] = got.i[k]
		}
		sol.Steps[n], sol.Nodes[n] = got.steps, len(x.nodes)
		if sol.Settled && !got.settled {
			x.take(s.net)
			sol.Settled, sol.Worst = false, got.worst(s.net, x)
		}
	}
	return sol
}

// settled is what was found of an island, to be read only.
type settled struct {
	v, i    []float64 // by local number
	steps   int
	settled bool
	at      int // the worst node; -1 for none
}

// worst is the name of an element next to the worst node.
func (f *settled) worst(net *Network, x *island) string {
	for k := range x.el {
		if e := &x.el[k]; e.A == f.at || e.B == f.at {
			return net.Elements[x.elements[k]].Name
		}
	}
	return ""
}

// states remembers what was found of islands, by all that led there.
func states(b *memo.Bench) *memo.Memo[memo.Key, *settled] {
	return memo.At[memo.Key](b, "states", 1_000_000, func(f *settled) int64 { return int64(len(f.v) + len(f.i) + 8) })
}

// found solves an island, or takes over what was found of the like.
func (s *Solver) found(x *island) (got *settled) {
	solve := func() *settled {
		x.take(s.net)
		return x.solve()
	}
	if s.sum == nil {
		got = solve()
	} else {
		x.mark = x.sum(s.net, s.sum)
		got = states(s.bench).Get(x.mark, solve)
	}
	x.start = got.v
	return got
}

// sum is of the island's elements as the network has them now, and of the states it came from.
func (x *island) sum(n *Network, s *memo.Sum) memo.Key {
	s.Reset()
	s.Bits(x.mark[:]...)
	if x.start == nil {
		s.Bits(uint64(x.ground))
		s.Num(x.guess...)
	}
	for _, k := range x.elements {
		e := &n.Elements[k]
		s.Bits(uint64(e.Kind)<<60|uint64(x.local[e.A])<<30|uint64(x.local[e.B]), math.Float64bits(e.R))
		if e.Kind != Resistor {
			s.Num(e.E, e.Limit, e.Vf, e.I, e.Is, e.Vt)
		}
	}
	return s.Key()
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
