package circuit

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Peukert's worked example: 100 Ah at 20 h, k = 1.2, at 10 A: 20 x (100/200)^1.2
// = 8.706 h. At its own rate, 5 A, it gives 20 h whatever the exponent.
func TestPeukert(t *testing.T) {
	assert.InDelta(t, 8.706, Peukert(100_000, 10, 1.2), .001)
	assert.InDelta(t, 20, Peukert(100_000, 5, 1.3), 1e-9)
	assert.InDelta(t, 10, Peukert(100_000, 10, 1), 1e-9, "with k = 1 it is a plain division")
}

// The tables give their own points, and between two the log-scale middle.
func TestCapacityTables(t *testing.T) {
	aa := Cells["aa"]
	for amps, mah := range map[float64]float64{.025: 2500, .1: 2000, .5: 1300, .05: 2250} {
		assert.InDelta(t, mah, aa.Capacity(amps), 1e-6, "%g", amps)
	}
	assert.InDelta(t, 475, Cells["9v"].Capacity(math.Sqrt(.01*.05)), 1e-6)
	for id, c := range Cells {
		last := math.Inf(1)
		for a := .002; a < 1; a *= 1.3 {
			got := c.Capacity(a)
			assert.LessOrEqual(t, got, last+1e-9, "%s gives no more at a heavier load", id)
			assert.GreaterOrEqual(t, got, 0.0, id)
			last = got
		}
	}
}

func TestRuntime(t *testing.T) {
	// 100 mA from AA: 2000 mAh, 20 h; nights of 4 h: a set lasts 5; 18 nights: 4 sets
	r, err := Runtime("aa", .1, 1, false, 4, 18)
	require.NoError(t, err)
	assert.InDelta(t, 20, r[0].Value, 1e-9)
	assert.Equal(t, 4.0, r[1].Value)
	assert.Contains(t, r[1].Text, "every 5 nights")
	r, err = Runtime("aa", .1, 1, true, 4, 18)
	require.NoError(t, err)
	assert.InDelta(t, 10, r[0].Value, 1e-9, "half near freezing")
	// two rows carry half each, so each gives more than twice the hours
	two, err := Runtime("aa", .2, 2, false, 4, 18)
	require.NoError(t, err)
	one, err := Runtime("aa", .2, 1, false, 4, 18)
	require.NoError(t, err)
	assert.Greater(t, two[0].Value, 2*one[0].Value)
	r, err = Runtime("9v", .2, 1, false, 4, 10)
	require.NoError(t, err)
	assert.Contains(t, r[1].Text, "swap 4 times a night")
	for want, f := range map[string]func() error{
		"self-switching":    func() error { _, err := Runtime("bank", .03, 1, false, 4, 18); return err },
		"the shop has no":   func() error { _, err := Runtime("plutonium", .1, 1, false, 4, 18); return err },
		"can give":          func() error { _, err := Runtime("coin", 5, 1, false, 4, 18); return err },
		"more than nothing": func() error { _, err := Runtime("aa", 0, 1, false, 4, 18); return err },
		"24 hours":          func() error { _, err := Runtime("aa", .1, 1, false, 40, 18); return err },
	} {
		assert.ErrorContains(t, f(), want)
	}
}

// The number of feeds against the solver: with them the worst point keeps the
// budget, with one fewer it does not.
func TestFeedsAgainstTheSolver(t *testing.T) {
	const count, ohms, amps, volts, share = 240, .004, .008, 5.0, .03
	k, drop, oneEnd := Feeds(count*amps, 2*count*ohms, volts, share)
	require.False(t, oneEnd)
	worst := func(k int) float64 {
		n := &Network{}
		p, g := ideal(n, volts)
		load := Element{Kind: Sink, I: amps, Vf: .5}
		w := 0.0
		half := count / (2 * k)
		for range 2 * k { // each feed serves half a part either way
			n.Strip("s", p, g, half, ohms, load)
		}
		s := Solve(n)
		require.True(t, s.Settled)
		for _, e := range n.Elements {
			if e.Kind == Sink {
				w = math.Max(w, volts-s.Across(e))
			}
		}
		return w
	}
	assert.InEpsilon(t, drop, worst(k), .08, "segments are lumps")
	assert.LessOrEqual(t, worst(k), share*volts*1.08)
	assert.Greater(t, worst(k-1), share*volts)
	_, _, oneEnd = Feeds(.1, .1, 12, .03)
	assert.True(t, oneEnd)
}

// 1500 W at 120 V is 12.5 A: past 80 % of 15 A (12 A) when continuous, fine
// for a short while.
func TestOutlet(t *testing.T) {
	r, err := Outlet(1500, 120, 15, 4)
	require.NoError(t, err)
	assert.InDelta(t, 12.5, r[0].Value, 1e-9)
	assert.Contains(t, r[0].Text, "TOO MUCH")
	assert.InDelta(t, 6, r[1].Value, 1e-9)
	r, err = Outlet(1500, 120, 15, 2)
	require.NoError(t, err)
	assert.Contains(t, r[0].Text, "fits")
	assert.Contains(t, r[1].Steps[0].Numbers, "licensed electrician")
	_, err = Outlet(100, 12, 15, 2)
	assert.ErrorContains(t, err, "230 V")
}

// The cells as they are kept: every number of the table, so that none changes by
// a slip. From memory of makers' data sheets, typical.
func TestCellsAsTheyAreKept(t *testing.T) {
	for id, want := range map[string]Cell{
		"aa": {Name: "AA alkaline", Volts: 1.5, Load: []float64{.025, .1, .5}, MAh: []float64{2500, 2000, 1300}, Cold: .5,
			Ohms: .15, Most: 1, Price: .7},
		"aaa": {Name: "AAA alkaline", Volts: 1.5, Load: []float64{.025, .1, .5}, MAh: []float64{1150, 900, 450}, Cold: .5,
			Ohms: .3, Most: .6, Price: .6},
		"c": {Name: "C alkaline", Volts: 1.5, Load: []float64{.025, .1, .5}, MAh: []float64{8000, 7000, 4500}, Cold: .5,
			Ohms: .1, Most: 1.5, Price: 1.6},
		"d": {Name: "D alkaline", Volts: 1.5, Load: []float64{.025, .1, .5}, MAh: []float64{17000, 14000, 9000}, Cold: .5,
			Ohms: .08, Most: 2, Price: 2},
		"9v": {Name: "9 V alkaline", Volts: 9, Load: []float64{.01, .05, .2}, MAh: []float64{550, 400, 200}, Cold: .5,
			Ohms: 1.7, Most: .25, Price: 2.5},
		"sla7": {Name: "Sealed lead 12 V, 7 Ah", Volts: 12, Cold: .8, Lead: true, Rated: 7000, Ohms: .03, Most: 21, Price: 25,
			Again: true},
		"bank": {Name: "USB bank, 10 000 mAh printed", Volts: 5, Load: []float64{.1, 1, 2}, MAh: []float64{6000, 6000, 5600},
			Cold: .8, Least: .08, Ohms: .05, Most: 2.1, Price: 18, Again: true},
	} {
		assert.Equal(t, want, Cells[id], id)
	}
}

// What a circuit is asked for: 600 W for 4 h is 2.4 kWh, and each number at and
// past its bound.
func TestMainsAtItsBounds(t *testing.T) {
	res, err := Outlet(600, 120, 15, 4)
	require.NoError(t, err)
	assert.InDelta(t, 5, res[0].Value, 1e-12)
	assert.InDelta(t, 2.4, res[1].Value, 1e-12)
	ok := func(w, v, b, h float64) bool { _, err := Outlet(w, v, b, h); return err == nil }
	assert.True(t, ok(20000, 250, 32, 24) && ok(1, 100, 5, .1))
	for _, bad := range [][4]float64{{20001, 120, 15, 4}, {0, 120, 15, 4}, {600, 99, 15, 4}, {600, 251, 15, 4},
		{600, 120, 4.9, 4}, {600, 120, 32.1, 4}, {600, 120, 15, 0}, {600, 120, 15, 24.1}} {
		assert.False(t, ok(bad[0], bad[1], bad[2], bad[3]), "%v", bad)
	}
}
