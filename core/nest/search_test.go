package nest

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"zapbarn/core/pattern"

	"github.com/stretchr/testify/require"
)

// crumbs are n star-shaped parts of their own each.
func crumbs(n int) []Part {
	r := rand.New(rand.NewPCG(1, 2))
	var parts []Part
	for i := range n {
		w, h := 80+300*r.Float64(), 80+300*r.Float64()
		var p []pattern.Point
		c := 5 + i%9
		for k := range c {
			a := 2 * math.Pi * float64(k) / float64(c)
			q := .55 + .45*r.Float64()
			p = append(p, pattern.Point{X: w / 2 * (1 + q*math.Cos(a)), Y: h / 2 * (1 + q*math.Sin(a))})
		}
		parts = append(parts, Part{W: w, H: h, Turn: true, Polys: [][]pattern.Point{p}, Shape: fmt.Sprint(i)})
	}
	return parts
}

// The search goes on from a layout that stood at once to a tighter one, the
// same each time, and never overlaps.
func TestSearchBettersTrueOutlines(t *testing.T) {
	parts := crumbs(60)
	stocks := []Stock{{"s", 1219, 2438, -1}}
	o := Options{Kerf: 3, Margin: 6, Seed: 1}
	used := func(l Layout) float64 {
		a := 0.0
		for i, s := range l.Sheets {
			if i < len(l.Sheets)-1 {
				a += s.Stock.W * s.Stock.H
				continue
			}
			fx, fy := 0.0, 0.0
			for _, q := range s.Placed {
				w, h := parts[q.Part].size(q.Turned)
				fx, fy = math.Max(fx, q.X+w), math.Max(fy, q.Y+h)
			}
			a += math.Min(fx*s.Stock.H, fy*s.Stock.W)
		}
		return a
	}
	s := NewSearch(parts, stocks, o)
	first := used(s.Best())
	s.Step(4)
	l := s.Best()
	t.Logf("stock used: %.1f %% less after 4 steps", 100*(1-used(l)/first))
	require.Less(t, used(l), 0.96*first)
	for _, sh := range l.Sheets {
		for i, q := range sh.Placed {
			require.True(t, Fits(parts, sh.Placed[:i], q, sh.Stock, o))
		}
	}
	again := NewSearch(parts, stocks, o)
	again.Step(4)
	require.Equal(t, l, again.Best())
}

// What the Bench shows first, and what one more step of the search costs.
func BenchmarkSearch(b *testing.B) {
	for _, n := range []int{10, 200} {
		parts := crumbs(n)
		b.Run(fmt.Sprintf("first/%d", n), func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				NewSearch(parts, []Stock{{"s", 1219, 2438, -1}}, Options{Kerf: 3, Margin: 6, Seed: 1})
			}
		})
		b.Run(fmt.Sprintf("step/%d", n), func(b *testing.B) {
			s := NewSearch(parts, []Stock{{"s", 1219, 2438, -1}}, Options{Kerf: 3, Margin: 6, Seed: 1})
			b.ReportAllocs()
			for b.Loop() {
				s.Step(1)
			}
		})
	}
}
