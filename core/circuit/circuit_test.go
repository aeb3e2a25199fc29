package circuit

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"zapbarn/core/measure"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// ideal is a supply with next to no resistance of its own.
func ideal(n *Network, volts float64) (pos, neg int) {
	neg, pos = n.Node("0"), n.Node("+")
	n.Add(Element{Kind: Supply, A: pos, B: neg, E: volts, R: 1e-6})
	return
}

func TestDivider(t *testing.T) { // 12 V over 1k and 2k: 8 V over the 2k
	n := &Network{}
	p, g := ideal(n, 12)
	m := n.Node("m")
	n.Wire("", p, m, 1000)
	n.Wire("", m, g, 2000)
	s := Solve(n)
	require.True(t, s.Settled)
	assert.InDelta(t, 8, s.V[m]-s.V[g], 1e-6)
	assert.InDelta(t, .004, s.I[1], 1e-9)
}

// Infinite-ladder closed form: series R and shunt R repeat to the golden ratio
// times R, reached to 1e-9 after 25 rungs.
func TestLadderGoldenRatio(t *testing.T) {
	n := &Network{}
	p, g := ideal(n, 1)
	at := p
	for range 25 {
		next := n.Node("")
		n.Wire("", at, next, 1)
		n.Wire("", next, g, 1)
		at = next
	}
	s := Solve(n)
	assert.InDelta(t, 1/math.Phi, -s.I[0], 1e-6)
}

// Uniformly loaded strip: end drop I R/2 fed at one end, a quarter of that fed
// at both ends or in the middle (closed forms for a continuous load; n
// segments with the load at each far end give (n+1)/n of the first).
func TestUniformStripClosedForms(t *testing.T) {
	const count, ohms, amps = 200, 0.001, 0.01
	load := Element{Kind: Sink, I: amps, Vf: 0.5}
	one := &Network{}
	p, g := ideal(one, 12)
	fp, fn := one.Strip("s", p, g, count, ohms, load)
	s := Solve(one)
	require.True(t, s.Settled)
	drop := 12 - (s.V[fp] - s.V[fn])
	closed := (count * amps) * (2 * ohms * count) / 2
	assert.InEpsilon(t, closed*(count+1)/count, drop, 1e-5)

	both := &Network{}
	p, g = ideal(both, 12)
	fp, fn = both.Strip("s", p, g, count, ohms, load)
	both.Wire("feed", p, fp, 0)
	both.Wire("feed", g, fn, 0)
	s = Solve(both)
	require.True(t, s.Settled)
	worst := 0.0
	for _, e := range both.Elements {
		if e.Kind == Sink {
			worst = math.Max(worst, 12-s.Across(e))
		}
	}
	assert.InEpsilon(t, closed/4, worst, .002)

	middle := &Network{}
	p, g = ideal(middle, 12)
	fp, fn = middle.Strip("a", p, g, count/2, ohms, load)
	middle.Strip("b", p, g, count/2, ohms, load)
	s = Solve(middle)
	assert.InEpsilon(t, closed/4*(count/2+1)/(count/2), 12-(s.V[fp]-s.V[fn]), 1e-4)
}

// Worked LED examples: 12 V, three whites of 3.2 V, 20 mA: (12-9.6)/0.02 = 120
// ohm exactly. 5 V, one red of 2.0 V: 150 ohm. 12 V, one white: 440 -> 470.
func TestLEDResistorExamples(t *testing.T) {
	for _, c := range []struct {
		vs, vf float64
		n      int
		ohms   float64
		watts  float64
	}{{12, 3.2, 3, 120, .125}, {5, 2.0, 1, 150, .125}, {12, 3.2, 1, 470, .5}, {24, 2, 1, 1100, 1}} {
		r, w, res, err := LEDResistor(c.vs, c.vf, c.n, .02)
		require.NoError(t, err)
		assert.InEpsilon(t, c.ohms, r, 1e-9)
		assert.Equal(t, c.watts, w, "%v", c)
		assert.Len(t, res.Steps, 3)
	}
	_, _, _, err := LEDResistor(5, 3.2, 2, .02)
	assert.ErrorContains(t, err, "at most 1 in a row")
}

// The junction obeys its own equation, for any voltage and resistor.
func TestJunctionProperty(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		v, r := rapid.Float64Range(-5, 30).Draw(t, "v"), math.Pow(10, rapid.Float64Range(-3, 5).Draw(t, "logR"))
		is := SaturationCurrent(2+rapid.Float64Range(-.5, 1.5).Draw(t, "vf"), .02, .05)
		i := junction(v, r, is, .05, math.Log(is*r/.05))
		if v > 0.5 {
			require.InDelta(t, v, .05*math.Log1p(i/is)+i*r, 1e-6*math.Max(1, v))
		} else {
			require.LessOrEqual(t, math.Abs(i), 1e-6)
		}
	})
}

// random makes a tree or a mesh of wires with loads of every kind.
func random(seed uint64, nodes, extra int) *Network {
	r := rand.New(rand.NewPCG(seed, 1))
	n := &Network{}
	g, p := n.Node("0"), n.Node("p")
	n.Add(Element{Kind: Supply, A: p, B: g, E: 12, R: .02})
	at := []int{p}
	for i := range nodes {
		next := n.Node(fmt.Sprint("n", i))
		n.Wire("w", at[r.IntN(len(at))], next, .01+.2*r.Float64())
		at = append(at, next)
		switch r.IntN(4) {
		case 0:
			n.Add(Element{Kind: Prewired, A: next, B: g, Vf: 3.1, R: 445})
		case 1:
			n.Add(Element{Kind: LED, A: next, B: g, R: 120, Is: SaturationCurrent(9.6, .02, .15), Vt: .15})
		case 2:
			n.Add(Element{Kind: Sink, A: next, B: g, I: .01, Vf: 3})
		}
	}
	for range extra {
		n.Wire("x", at[r.IntN(len(at))], at[r.IntN(len(at))], .05+.1*r.Float64())
	}
	return n
}

// Kirchhoff: currents balance at every free node, power in is power out.
func TestKirchhoffOnRandomNetworks(t *testing.T) {
	for seed := range uint64(20) {
		n := random(seed, 60, int(seed)*2)
		s := Solve(n)
		require.True(t, s.Settled, "seed %d", seed)
		sum, power := make([]float64, len(n.Names)), 0.0
		for i, e := range n.Elements {
			sum[e.A] += s.I[i]
			sum[e.B] -= s.I[i]
			power += s.I[i] * s.Across(e)
		}
		for _, x := range sum {
			require.InDelta(t, 0, x, 1e-6)
		}
		require.InDelta(t, 0, power, 1e-5)
	}
}

// A prepared solver takes changed values and elements turned round, and gives
// what a fresh one gives.
func TestPreparedSolverSeesChanges(t *testing.T) {
	n := random(7, 80, 20)
	s := NewSolver(n, nil)
	s.Solve()
	for i := range n.Elements {
		e := &n.Elements[i]
		switch {
		case i == 0:
			e.E = 24
		case e.Kind == LED && i%2 == 0:
			e.A, e.B = e.B, e.A
		case e.Kind == Prewired && i%3 == 0:
			*e = Element{Kind: Resistor, A: e.A, B: e.B, R: 33}
		case e.Kind == Resistor && i%5 == 0:
			e.R = 1e3
		}
	}
	again, fresh := s.Solve(), Solve(n)
	require.True(t, again.Settled && fresh.Settled)
	for i := range n.Names {
		require.InDelta(t, fresh.V[i], again.V[i], 1e-6, n.Names[i])
	}
	for i := range n.Elements {
		require.InDelta(t, fresh.I[i], again.I[i], 1e-6)
		c, _ := n.Elements[i].At(again.Across(n.Elements[i]))
		require.InDelta(
			t,
			c,
			again.I[i],
			1e-9*(1+24/n.Elements[i].R),
			"the currents are those of the voltages handed out",
		)
	}
}

func TestSupplyLimits(t *testing.T) {
	n := &Network{}
	g, p := n.Node("0"), n.Node("+")
	n.Add(Element{Kind: Supply, A: p, B: g, E: 12, R: .01, Limit: 2})
	n.Wire("short", p, g, .1)
	s := Solve(n)
	require.True(t, s.Settled)
	assert.InDelta(t, 2, -s.I[0], 1e-3)
	assert.InDelta(t, .2, s.V[p]-s.V[g], 1e-3)
}

func TestIslandsStayApart(t *testing.T) {
	n := &Network{}
	_, _ = ideal(n, 5)
	a, b := n.Node("a"), n.Node("b")
	n.Wire("", a, b, 10)
	s := Solve(n)
	assert.True(t, s.Settled)
	assert.NotEqual(t, s.Island[0], s.Island[a])
	assert.Zero(t, s.V[a]-s.V[b])
}

func TestChoosers(t *testing.T) {
	// By hand: 2 A over 10 ft at 12 V, 3 % = 0.36 V: 0.36/(2 x 2 x 3.048) = 29.5
	// mohm/m, so 18 AWG (20.95), since 20 AWG has 33.3.
	assert.Equal(t, 18, ChooseGauge(10*measure.Foot, 2, 12, DropBudget))
	assert.Equal(t, -1, ChooseGauge(10*measure.Foot, 50, 12, DropBudget))
	assert.Equal(t, 3.0, ChooseFuse(2, 3))
	assert.Equal(t, 0.0, ChooseFuse(2.9, 3))
	assert.Equal(t, .5, ChooseFuse(.1, 1.3))
}

func BenchmarkSolve(b *testing.B) {
	for _, c := range []struct{ nodes, extra int }{{2000, 0}, {5000, 0}, {40000, 0}, {500, 100}} {
		n := random(1, c.nodes, c.extra)
		for i := range n.Elements { // keep the far end lit: short fat wires
			if n.Elements[i].Kind == Resistor {
				n.Elements[i].R /= float64(c.nodes) / 50
			}
		}
		b.Run(fmt.Sprintf("%dnodes%dloops", c.nodes, c.extra), func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				s := NewSolver(n, nil).Solve()
				b.ReportMetric(float64(slices.Max(s.Steps)), "newton/op")
				if !s.Settled {
					b.Fatal("not settled")
				}
			}
		})
	}
}

func TestRoughLog(t *testing.T) {
	for x := 1e-6; x < 1e9; x *= 1.0173 {
		require.InDelta(t, math.Log(x), roughLog(x), 1e-4, x)
	}
}

// Worked by hand: an overloaded supply between flat pieces of every line. It
// gives its limit of 1 A; two loads of 2 A with their knee at 6 V are 3 ohm
// each below it, so 1 A through 1.5 ohm: 1.5 V, less what the wire loses of the
// supply's own 1e-6 S beyond its limit.
func TestOverloadedSupplySettles(t *testing.T) {
	n := &Network{}
	g, p, q := n.Node("-"), n.Node("+"), n.Node("far")
	s := n.Add(Element{Kind: Supply, A: p, B: g, E: 12, R: .1, Limit: 1})
	n.Wire("w", p, q, .05)
	a := n.Add(Element{Kind: Sink, A: q, B: g, I: 2, Vf: 6})
	n.Add(Element{Kind: Sink, A: q, B: g, I: 2, Vf: 6})
	sol := Solve(n)
	require.True(t, sol.Settled)
	require.InDelta(t, 1.5, sol.V[q]-sol.V[g], 1e-4)
	require.InDelta(t, -1, sol.I[s], 2e-5)
	require.InDelta(t, .5, sol.I[a], 1e-4)
	// fifty of them in a row, each through its own wire, the far ones reversed
	n = &Network{}
	g, p = n.Node("-"), n.Node("+")
	s = n.Add(Element{Kind: Supply, A: p, B: g, E: 12, R: .1, Limit: 1})
	at := p
	for i := range 50 {
		next := n.Node("n")
		n.Wire("w", at, next, .02)
		x, y := next, g
		if i >= 40 {
			x, y = y, x
		}
		n.Add(Element{Kind: Sink, A: x, B: y, I: .5, Vf: 8})
		at = next
	}
	sol = Solve(n)
	require.True(t, sol.Settled)
	sum := 0.0
	for i, e := range n.Elements {
		if e.Kind == Sink {
			sum += sol.I[i]
		}
	}
	require.InDelta(t, -sol.I[s], sum, .01, "all it gives is taken; what is reversed only leaks")
	require.InDelta(t, -1, sol.I[s], 2e-5)
}

// A leaf's only neighbour is found though its elements are many, parallel or
// loops on one node; and the answer is that of the same network in any order.
func TestPeelingKeepsTheAnswer(t *testing.T) {
	build := func(turn bool) (*Network, int) {
		n := &Network{}
		nodes := make([]int, 12)
		for i := range nodes {
			nodes[i] = n.Node("n")
		}
		edges := [][2]int{
			{0, 1},
			{1, 2},
			{1, 2},
			{2, 3},
			{3, 4},
			{4, 2},
			{4, 5},
			{5, 6},
			{6, 6},
			{5, 7},
			{7, 8},
			{8, 9},
			{9, 10},
			{10, 11},
		}
		for k := range edges {
			e := edges[k]
			if turn {
				e = edges[len(edges)-1-k]
				e[0], e[1] = e[1], e[0]
			}
			n.Wire("w", e[0], e[1], 1+float64(e[0]+e[1]))
		}
		n.Add(Element{Kind: Supply, A: 0, B: 11, E: 9, R: .5})
		return n, 5
	}
	a, at := build(false)
	b, _ := build(true)
	x, y := Solve(a), Solve(b)
	require.True(t, x.Settled && y.Settled)
	require.InDelta(t, x.V[at]-x.V[11], y.V[at]-y.V[11], 1e-9)
	// the mesh 2-3-4 is 6 ohm beside 8 + 7, the double 1-2 is 4 + 4 in parallel: by hand
	ohms := 2.0 + 2 + 1/(1/7.+1/(6.+8)) + 10 + 13 + 16 + 18 + 20 + 22 + .5
	require.InDelta(t, 9/ohms, -x.I[len(a.Elements)-1], 1e-9)
}

// A long strip lumped is one of all its segments: the closed form of a uniform load,
// I R / 2 at the far end, and every lamp's end to a thousandth of the drop.
func TestALumpedStripIsTheWholeOne(t *testing.T) {
	for _, count := range []int{601, 900, 1500, 3000, 6001} {
		ends := map[int]float64{}
		for _, most := range []int{600, count} {
			n := &Network{}
			p, q := n.Node("+"), n.Node("-")
			n.Add(Element{Kind: Supply, A: p, B: q, E: 12, R: 1e-6})
			load := Element{Kind: Sink, I: 3.0 / float64(count), Vf: 0.1}
			fp, fq := n.StripOf("s", p, q, count, most, 0.5/float64(count), load)
			sol := NewSolver(n, nil).Solve()
			require.True(t, sol.Settled)
			ends[most] = sol.V[fp] - sol.V[fq]
		}
		assert.InDelta(t, 12-3*(2*0.5)/2, ends[600], 0.003, "%d segments against the closed form", count)
		assert.InDelta(t, ends[count], ends[600], 1e-3*1.5, "%d segments", count)
	}
}
