package circuit

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/mat"
)

// Linear meshes against gonum's dense LU on the same nodal equations: trees,
// ladders and thick meshes, which need fill in the sparse factor.
func TestSparseAgainstDense(t *testing.T) {
	for seed := range uint64(30) {
		r := rand.New(rand.NewPCG(seed, 3))
		n := &Network{}
		const nodes = 40
		for range nodes {
			n.Node("")
		}
		n.Add(Element{Kind: Supply, A: 1, B: 0, E: 12, R: .05})
		for i := 2; i < nodes; i++ {
			n.Wire("", i, r.IntN(i), .1+r.Float64())
		}
		for range int(seed) * 6 {
			if a, b := r.IntN(nodes), r.IntN(nodes); a != b {
				n.Wire("", a, b, .1+10*r.Float64())
			}
		}
		g, rhs := mat.NewDense(nodes-1, nodes-1, nil), mat.NewVecDense(nodes-1, nil)
		add := func(i, j int, v float64) {
			if i > 0 && j > 0 {
				g.Set(i-1, j-1, g.At(i-1, j-1)+v)
			}
		}
		for _, e := range n.Elements {
			c := 1 / e.R
			add(e.A, e.A, c)
			add(e.B, e.B, c)
			add(e.A, e.B, -c)
			add(e.B, e.A, -c)
		}
		rhs.SetVec(0, 12/.05)
		var want mat.VecDense
		require.NoError(t, want.SolveVec(g, rhs))
		got := Solve(n)
		require.True(t, got.Settled)
		for i := 1; i < nodes; i++ {
			require.InDelta(t, want.AtVec(i-1), got.V[i], 1e-7, "seed %d node %d", seed, i)
		}
	}
}

// A solver may be used again after values change: the same answer as a fresh one.
func TestSolverIsReusable(t *testing.T) {
	n := random(4, 80, 20)
	s := NewSolver(n, nil)
	s.Solve()
	for i := range n.Elements {
		if n.Elements[i].Kind == Resistor {
			n.Elements[i].R *= 1.7
		}
	}
	again, fresh := s.Solve(), Solve(n)
	for i := range again.V {
		require.InDelta(t, fresh.V[i], again.V[i], 1e-6)
	}
}
