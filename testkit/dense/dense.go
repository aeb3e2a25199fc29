// Package dense solves a wiring by plain nodal analysis: the whole matrix, LU,
// Newton with a shortened step while the error does not fall. It shares nothing
// with package circuit but the elements' own laws, so that the two can be held
// against each other.
package dense

import (
	"math"
	"testing"

	"zapbarn/core/circuit"

	"gonum.org/v1/gonum/mat"
)

// Solve returns every node's voltage; each island's first node is zero.
func Solve(t testing.TB, n *circuit.Network) []float64 {
	t.Helper()
	size := len(n.Names)
	group := make([]int, size) // by its least node
	for i := range group {
		group[i] = i
	}
	root := func(i int) int {
		for group[i] != i {
			group[i] = group[group[i]]
			i = group[i]
		}
		return i
	}
	for _, e := range n.Elements {
		a, b := root(e.A), root(e.B)
		group[max(a, b)] = min(a, b)
	}
	v := make([]float64, size)
	off := func(v []float64) (f []float64, norm float64) {
		f = make([]float64, size)
		for i := range n.Elements {
			e := &n.Elements[i]
			c, _ := e.At(v[e.A] - v[e.B])
			f[e.A] += c
			f[e.B] -= c
		}
		for i := range f {
			if root(i) == i {
				f[i] = v[i]
			}
			norm = math.Max(norm, math.Abs(f[i]))
		}
		return f, norm
	}
	f, norm := off(v)
	for step := 0; norm > 1e-8; step++ {
		if step == 400 {
			t.Fatalf("dense: not settled, %g A left", norm)
		}
		j := mat.NewDense(size, size, nil)
		add := func(r, c int, x float64) {
			if root(r) != r {
				j.Set(r, c, j.At(r, c)+x)
			}
		}
		for i := range n.Elements {
			e := &n.Elements[i]
			_, g := e.At(v[e.A] - v[e.B])
			add(e.A, e.A, g)
			add(e.A, e.B, -g)
			add(e.B, e.B, g)
			add(e.B, e.A, -g)
		}
		for i := range size {
			if root(i) == i {
				j.Set(i, i, 1)
			}
		}
		d := new(mat.VecDense)
		if err := d.SolveVec(j, mat.NewVecDense(size, f)); err != nil {
			if _, close := err.(mat.Condition); !close {
				t.Fatal(err)
			}
		}
		k := 1.0
		for ; ; k /= 2 {
			w := make([]float64, size)
			for i := range w {
				w[i] = v[i] - k*d.AtVec(i)
			}
			g, m := off(w)
			if m < norm || k < 1e-4 {
				v, f, norm = w, g, m
				break
			}
		}
	}
	return v
}
