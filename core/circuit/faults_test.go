package circuit

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// divider is 12 V over three equal resistors in a row, with a probe on each
// joint: 12, 8 and 4 V when all is well.
func divider() (*Solver, []Fault, []Probe) {
	n := &Network{}
	g, p := n.Node("0"), n.Node("12")
	n.Add(Element{Kind: Supply, A: p, B: g, E: 12, R: .01})
	a, b := n.Node("a"), n.Node("b")
	r1, r2, r3 := n.Wire("r1", p, a, 100), n.Wire("r2", a, b, 100), n.Wire("r3", b, g, 100)
	open := func(i int) map[int]Element {
		e := n.Elements[i]
		e.R = 1e12
		return map[int]Element{i: e}
	}
	twice := func(i int) map[int]Element {
		e := n.Elements[i]
		e.R *= 2
		return map[int]Element{i: e}
	}
	faults := []Fault{
		{Group: "none"},
		{Group: "open1", Set: open(r1)},
		{Group: "open2", Set: open(r2)},
		{Group: "open3", Set: open(r3)},
		{Group: "twice1", Set: twice(r1)},
		{Group: "twice2", Set: twice(r2)},
		{Group: "twice3", Set: twice(r3)},
	}
	probes := []Probe{{"12", p, g}, {"a", a, g}, {"b", b, g}}
	return NewSolver(n, nil), faults, probes
}

// Predicted readings by hand: open in the middle leaves a at 12 and b at 0;
// the middle doubled gives 12, 9 and 3.
func TestBenchPredictsWhatTheMeterShows(t *testing.T) {
	s, faults, probes := divider()
	before := s.Solve().V
	b := NewBench(s, faults, probes, nil)
	for fault, want := range map[int][3]float64{0: {12, 8, 4}, 1: {12, 0, 0}, 2: {12, 12, 0}, 3: {12, 12, 12},
		4: {12, 6, 3}, 5: {12, 9, 3}, 6: {12, 9, 6}} {
		for k, v := range want {
			assert.InDelta(t, v, b.Reads(fault, k), .01, "%s at %s", faults[fault].Group, probes[k].Name)
		}
	}
	after := s.Solve().V
	for i := range before {
		assert.InDelta(t, before[i], after[i], 1e-9, "the network is left as it was")
	}
}

// One reading leaves those that explain it; the next probe is the one that
// splits them; the second settles it.
func TestRankAndNext(t *testing.T) {
	s, faults, probes := divider()
	b := NewBench(s, faults, probes, nil)
	none := b.Rank(nil, HandMeter)
	require.Len(t, none, len(faults))
	for _, c := range none {
		assert.InDelta(t, 1/float64(len(faults)), c.Share, 1e-9, "nothing seen: all alike")
	}
	assert.NotEqual(t, 0, b.Next(none, HandMeter, nil), "the supply's own volts tell nothing")
	seen := []Seen{{Probe: 1, Value: 9}}
	causes := b.Rank(seen, HandMeter)
	assert.ElementsMatch(t, []string{"twice2", "twice3"}, []string{causes[0].Group, causes[1].Group})
	assert.InDelta(t, .5, causes[0].Share, .01)
	k := b.Next(causes, HandMeter, map[int]bool{1: true})
	assert.Equal(t, 2, k)
	causes = b.Rank(append(seen, Seen{Probe: 2, Value: 6}), HandMeter)
	assert.Equal(t, "twice3", causes[0].Group)
	assert.Greater(t, causes[0].Share, .99)
	assert.Equal(t, -1, b.Next(causes, HandMeter, nil), "nothing left to tell apart")
	sum := 0.0
	for _, c := range causes {
		sum += c.Share
	}
	assert.InDelta(t, 1, sum, 1e-9)
}

// A group keeps its best severity; a light seen wrong does not rule a cause out.
func TestSeveritiesAndLights(t *testing.T) {
	n := &Network{}
	g, p := n.Node("0"), n.Node("12")
	n.Add(Element{Kind: Supply, A: p, B: g, E: 12, R: .01})
	a := n.Node("a")
	w := n.Wire("w", p, a, .1)
	lamp := n.Add(Element{Kind: Prewired, A: a, B: g, Vf: 3, R: 450})
	bad := func(r float64) Fault {
		e := n.Elements[w]
		e.R += r
		return Fault{Group: "bad joint", Set: map[int]Element{w: e}}
	}
	dead := Fault{Group: "dead", Set: map[int]Element{lamp: {Kind: Resistor, A: a, B: g, R: 1e12}}}
	b := NewBench(
		NewSolver(n, nil),
		[]Fault{{Group: "none"}, bad(10), bad(100), bad(1000), dead},
		[]Probe{{"a", a, g}},
		map[int]float64{lamp: .02},
	)
	causes := b.Rank([]Seen{{Probe: 0, Value: b.Reads(2, 0)}}, HandMeter)
	require.Equal(t, "bad joint", causes[0].Group)
	assert.InDelta(t, b.Reads(2, 0), causes[0].Volts[0], 1e-9, "the 100 ohm one fits")
	assert.True(t, b.Glows(0, lamp))
	assert.False(t, b.Glows(4, lamp))
	causes = b.Rank([]Seen{{Probe: -1, Load: lamp, Value: 0}}, HandMeter)
	assert.Equal(t, "dead", causes[0].Group)
	for _, c := range causes {
		assert.Greater(t, c.Share, 0.0)
		assert.False(t, math.IsNaN(c.Share))
	}
}
