package circuit

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"zapbarn/core/memo"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// apart are networks beside each other that nothing joins, their nodes taking turns.
func apart(nets ...*Network) (all *Network, at [][]int) {
	all = &Network{}
	at = make([][]int, len(nets))
	for k := 0; ; k++ {
		some := false
		for i, n := range nets {
			if k < len(n.Names) {
				at[i], some = append(at[i], all.Node(n.Names[k])), true
			}
		}
		if !some {
			break
		}
	}
	for k := 0; ; k++ {
		some := false
		for i, n := range nets {
			if k < len(n.Elements) {
				e := n.Elements[k]
				e.A, e.B = at[i][e.A], at[i][e.B]
				all.Add(e)
				some = true
			}
		}
		if !some {
			return all, at
		}
	}
}

// What lies beside a network changes nothing in it, to the last digit.
func TestIslandsAreSolvedByThemselves(t *testing.T) {
	nets := []*Network{random(1, 40, 10), random(2, 5, 0), random(3, 90, 4)}
	all, at := apart(nets...)
	sol := Solve(all)
	require.True(t, sol.Settled)
	for i, n := range nets {
		own := Solve(n)
		for k, v := range own.V {
			require.Equal(t, v, sol.V[at[i][k]], "network %d, node %d", i, k)
		}
		nodes, steps := sol.Of(at[i][0])
		assert.Equal(t, len(n.Names), nodes)
		assert.Equal(t, own.Steps[0], steps)
	}
}

// What is remembered of an island is what it would find, to the last digit: through states
// that come after one another, from rest, by one solver and by its twin, whatever other
// networks were solved between.
func TestRememberedIsFoundAfresh(t *testing.T) {
	r := rand.New(rand.NewPCG(4, 4))
	var all []*Network
	for k := range uint64(4) {
		n, _ := apart(random(k/2, 12, 3), random(9, 8, 0)) // two and two are the same
		all = append(all, n)
	}
	solvers := make([][2]*Solver, len(all))
	for i, n := range all {
		solvers[i] = [2]*Solver{NewSolver(n, nil), NewSolver(n, remembering).Remembers()}
	}
	for range 400 {
		i := r.IntN(len(all))
		n, s := all[i], &solvers[i]
		e := &n.Elements[r.IntN(len(n.Elements))]
		some := []float64{.5, 2, 1}[r.IntN(3)]
		switch r.IntN(12) {
		case 0:
			e.R *= some
		case 1:
			e.A, e.B = e.B, e.A
		case 2:
			e.E *= some
		case 3:
			e.Limit = some - .5
		case 4:
			e.Vf *= some
		case 5:
			e.I *= some
		case 6:
			if e.Kind == LED {
				e.Is *= some
				e.lnC = math.Log(e.Is * e.R / e.Vt)
			}
		case 7:
			if e.Kind == LED {
				e.Vt *= some
				e.lnC = math.Log(e.Is * e.R / e.Vt)
			}
		case 8:
			if e.Kind == Sink || e.Kind == Prewired {
				e.Kind, e.Vf, e.R, e.I = Sink+Prewired-e.Kind, 3, 400, .01
			}
		case 9:
			s[0].Rest()
			s[1].Rest()
		case 10:
			s[0], s[1] = s[0].Twin(n), s[1].Twin(n)
		}
		a, b := s[0].Solve(), s[1].Solve()
		require.True(t, slices.Equal(a.V, b.V) && slices.Equal(a.I, b.I))
		require.Equal(t, a.Steps, b.Steps)
		require.Equal(t, a.Settled, b.Settled)
	}
	_, held := states(remembering).Holds()
	assert.Greater(t, held, 100)
}

// Solvers of what was another network when they were made set out from other guesses:
// what one finds is not taken for the other's.
func TestGuessesAreToldApart(t *testing.T) {
	one, two := random(5, 20, 4), random(5, 20, 4)
	for i := range two.Elements {
		if e := &two.Elements[i]; e.Kind == Supply {
			e.E = 5
		}
	}
	a, b, plain := NewSolver(one, remembering).Remembers(), NewSolver(two, remembering).Remembers(), NewSolver(two, nil)
	copy(two.Elements, one.Elements)
	a.Solve()
	got, want := b.Solve(), plain.Solve()
	assert.Equal(t, want.V, got.V)
	assert.Equal(t, want.Steps, got.Steps)
}

// remembering is the bench of these tests.
var remembering = memo.NewBench()

// A twin sets out from rest, whatever the other has solved.
func TestATwinIsAtRest(t *testing.T) {
	told := 0
	for seed := range uint64(20) {
		n := random(seed, 30, 5)
		s := NewSolver(n, nil)
		first := s.Solve()
		if s.Solve().Steps[0] < first.Steps[0] {
			told++
		}
		assert.Equal(t, first.Steps, s.Twin(n).Solve().Steps)
	}
	assert.Greater(t, told, 3, "from where it was it takes fewer")
}

// Networks that differ in one value of one element are never taken for each other.
func TestEveryValueTellsApart(t *testing.T) {
	base := random(1, 12, 2)
	kinds := map[Kind]int{}
	for i := range base.Elements {
		for field, change := range map[string]func(e *Element){
			"R":     func(e *Element) { e.R *= 1.5 },
			"E":     func(e *Element) { e.E += 1 },
			"Limit": func(e *Element) { e.Limit = .02 },
			"Vf":    func(e *Element) { e.Vf += .5 },
			"I":     func(e *Element) { e.I += .01 },
			"Is":    func(e *Element) { e.Is *= 3 },
			"Vt":    func(e *Element) { e.Vt *= 1.2 },
			"kind": func(e *Element) {
				if e.Kind == Sink || e.Kind == Prewired {
					e.Kind = Sink + Prewired - e.Kind
				}
			},
		} {
			n := &Network{Names: base.Names, Elements: slices.Clone(base.Elements)}
			for k := range n.Elements { // that a change of kind has all it needs
				if e := &n.Elements[k]; e.Kind == Sink || e.Kind == Prewired {
					e.Vf, e.R, e.I = 3, 400, .01
				}
			}
			was := NewSolver(n, remembering).Remembers().Solve()
			e := &n.Elements[i]
			change(e)
			if e.Kind == LED {
				e.lnC = math.Log(e.Is * e.R / e.Vt)
			}
			want := NewSolver(n, nil).Solve()
			got := NewSolver(n, remembering).Remembers().Solve()
			require.Equal(t, want.V, got.V, "%s of element %d", field, i)
			if !slices.Equal(was.V, want.V) {
				kinds[e.Kind]++
			}
		}
	}
	for k := Resistor; k <= Sink; k++ {
		assert.Positive(t, kinds[k], "a change of kind %d was felt", k)
	}
}

// Islands of one shape share how it is eliminated; those that differ in an end, a node, the
// order of two elements or in which node is the ground do not: each is solved to the last
// digit as where nothing is shared.
func TestShapesAreSharedByTheLikeOnly(t *testing.T) {
	r := rand.New(rand.NewPCG(6, 1))
	n := random(5, 12, 3)
	for k := range 300 {
		switch r.IntN(6) {
		case 0: // another ground
			i := slices.IndexFunc(n.Elements, func(e Element) bool { return e.Kind == Supply })
			e := &n.Elements[i]
			e.A, e.B = e.B, e.A
		case 1:
			e := &n.Elements[r.IntN(len(n.Elements))]
			e.B = r.IntN(len(n.Names))
		case 2:
			n.Wire("stub", r.IntN(len(n.Names)), n.Node("end"), 1)
		case 3:
			i, j := r.IntN(len(n.Elements)), r.IntN(len(n.Elements))
			n.Elements[i], n.Elements[j] = n.Elements[j], n.Elements[i]
		case 4:
			n.Elements[r.IntN(len(n.Elements))].R *= 1.5
		case 5: // another ground, the ends as they were
			e, f := &n.Elements[r.IntN(len(n.Elements))], &n.Elements[r.IntN(len(n.Elements))]
			*e, *f = *f, *e
			e.A, e.B, f.A, f.B = f.A, f.B, e.A, e.B
		}
		if k%30 == 29 {
			n = random(uint64(k), 12, 3)
		}
		a := NewSolver(n, remembering).Solve()
		b := NewSolver(n, nil).Solve()
		require.Equal(t, b, a, "change %d", k)
	}
}
