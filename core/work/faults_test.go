package work_test

import (
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"zapbarn/core/circuit"
	"zapbarn/core/plan"
	"zapbarn/core/wiring"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// healthy is the demo with its planted mistakes mended, so that a test's own
// fault is the only one.
func healthy(t testing.TB) *plan.Plan {
	p := demo.Apiary(today).In(shop.Kept)
	p.Device("jar-8").Reversed = false
	require.NoError(t, p.Validate())
	return p
}

// hunt plays a builder: sees which lamps are lit, then measures where the
// bench says, with a meter that errs, up to most readings.
func hunt(b *wiring.FaultBench, truth int, r *rand.Rand, most int) (found string, readings int) {
	var seen []circuit.Seen
	for _, id := range b.Devices {
		if s, ok := b.Light(id, true); ok {
			s.Value = 0
			if b.Glows(truth, s.Load) {
				s.Value = 1
			}
			seen = append(seen, s)
		}
	}
	done := map[int]bool{}
	causes := b.Rank(seen, circuit.HandMeter)
	for readings < most {
		k := b.Next(causes, circuit.HandMeter, done)
		if k < 0 {
			break
		}
		done[k] = true
		v := b.Reads(truth, k)
		v += r.NormFloat64() * (0.005*v + 0.01) / 1.5
		seen = append(seen, circuit.Seen{Probe: k, Value: v})
		causes = b.Rank(seen, circuit.HandMeter)
		readings++
	}
	return causes[0].Group, readings
}

// 200 single faults drawn at random in the demo's harnesses: the true one is
// first after at most four readings in 95 % of cases.
func TestTheTrueFaultComesFirst(t *testing.T) {
	p := healthy(t)
	r := rand.New(rand.NewPCG(7, 7))
	right, total, used := 0, 0, 0
	for _, supply := range []string{"S1", "S2"} {
		b := wiring.Suspects(p.Wiring(shop.Kept), supply)
		for range 100 {
			truth := 1 + r.IntN(len(b.Faults)-1)
			got, n := hunt(b, truth, r, 4)
			total++
			used += n
			if got == b.Faults[truth].Group {
				right++
			} else {
				t.Logf("%s taken for %s after %d readings", b.Faults[truth].Say, got, n)
			}
		}
	}
	t.Logf("%d of %d right, %.1f readings each", right, total, float64(used)/float64(total))
	assert.GreaterOrEqual(t, right, total*95/100)
}

// Worked by hand: a dark jar. 0 V at its leads: a lead is open; full volts: it
// is dead; full volts the other way round: it is reversed.
func TestOneDarkJar(t *testing.T) {
	b := wiring.Suspects(healthy(t).Wiring(shop.Kept), "S1")
	for volts, want := range map[float64]string{0: "lead:jar-5", 11.66: "dead:jar-5", -11.66: "reversed:jar-5"} {
		var seen []circuit.Seen
		for _, id := range b.Devices {
			if s, ok := b.Light(id, id != "jar-5"); ok {
				seen = append(seen, s)
			}
		}
		s, ok := b.Volts("jar-5", volts)
		require.True(t, ok)
		causes := b.Rank(append(seen, s), circuit.HandMeter)
		assert.Equal(t, want, causes[0].Group)
		assert.Greater(t, causes[0].Share, .8)
	}
	_, ok := b.Volts("glow-1", 12)
	assert.False(t, ok, "on another supply")
	// all well
	var seen []circuit.Seen
	for _, id := range b.Devices {
		if s, ok := b.Light(id, true); ok {
			seen = append(seen, s)
		}
	}
	s, _ := b.Volts("jar-24", b.Expected(0, "jar-24"))
	assert.Equal(t, "none", b.Rank(append(seen, s), circuit.HandMeter)[0].Group)
}

func BenchmarkFaultRanking(b *testing.B) {
	p := healthy(b)
	n := len(wiring.Suspects(p.Wiring(shop.Kept), "S1").Faults)
	b.ReportAllocs()
	for b.Loop() {
		bench := wiring.Suspects(p.Wiring(shop.Kept), "S1")
		s, _ := bench.Volts("jar-9", 6)
		bench.Next(bench.Rank([]circuit.Seen{s}, circuit.HandMeter), circuit.HandMeter, nil)
	}
	b.ReportMetric(float64(n), "candidates")
}

// Sixty pairs of faults at once, drawn at random: after at most six readings
// what stands first is the pair, or one of the two (mend it and measure again:
// the other then stands alone), or reads the same, in 85 % of cases; the pair
// itself in half. Seeded.
func TestTwoFaultsAtOnce(t *testing.T) {
	b := wiring.Suspects(healthy(t).Wiring(shop.Kept), "S1")
	r := rand.New(rand.NewPCG(11, 3))
	right, tried, pair := 0, 0, 0
	for tried < 60 {
		x, y := 1+r.IntN(len(b.Faults)-1), 1+r.IntN(len(b.Faults)-1)
		fx, fy := b.Faults[x], b.Faults[y]
		if fx.Group == fy.Group || overlap(fx, fy) {
			continue
		}
		both := circuit.Fault{
			Group: fx.Group + " and " + fy.Group,
			Set:   map[int]circuit.Element{},
			Flips: append(append([]int(nil), fx.Flips...), fy.Flips...),
		}
		for _, f := range []circuit.Fault{fx, fy} {
			for i, e := range f.Set {
				both.Set[i] = e
			}
		}
		volts, lit := b.With(both)
		var seen []circuit.Seen
		for _, id := range b.Devices {
			if s, ok := b.Light(id, true); ok {
				s.Value = 0
				if lit[s.Load] > .3 {
					s.Value = 1
				}
				seen = append(seen, s)
			}
		}
		done := map[int]bool{}
		rank := func() []circuit.Cause {
			c := b.Rank(seen, circuit.HandMeter)
			if !circuit.Explained(c, seen) {
				c = b.RankTwo(seen, circuit.HandMeter)
			}
			return c
		}
		causes := rank()
		for n := 0; n < 6; n++ {
			k := b.Next(causes, circuit.HandMeter, done)
			if k < 0 {
				break
			}
			done[k] = true
			seen = append(seen, circuit.Seen{Probe: k, Value: volts[k]})
			causes = rank()
		}
		tried++
		same := true // a pair may hide one of its faults behind the other
		for k, v := range causes[0].Volts {
			same = same && math.Abs(v-volts[k]) < .05+.01*math.Abs(volts[k])
		}
		switch got := causes[0].Group; {
		case same || got == both.Group || got == fy.Group+" and "+fx.Group:
			right++
			pair++
		case got != "none" && (strings.Contains(both.Group+" ", got+" ") || strings.HasPrefix(got, fx.Group+" and") ||
			strings.HasPrefix(got, fy.Group+" and") || strings.HasSuffix(got, "and "+fx.Group) ||
			strings.HasSuffix(got, "and "+fy.Group)):
			right++
		default:
			t.Logf("%s, and %s: taken for %s (%.0f %%)", fx.Say, fy.Say, causes[0].Say, 100*causes[0].Share)
		}
	}
	t.Logf("%d of %d, %d of them as a pair", right, tried, pair)
	assert.GreaterOrEqual(t, right, tried*85/100)
	assert.GreaterOrEqual(t, pair, tried/2)
}

func overlap(a, b circuit.Fault) bool {
	for i := range a.Set {
		if _, ok := b.Set[i]; ok {
			return true
		}
	}
	return false
}

func BenchmarkTwoFaults(b *testing.B) {
	bench := wiring.Suspects(healthy(b).Wiring(shop.Kept), "S1")
	s, _ := bench.Volts("jar-9", 6)
	q, _ := bench.Volts("jar-20", 9)
	b.ReportAllocs()
	for b.Loop() {
		bench.RankTwo([]circuit.Seen{s, q}, circuit.HandMeter)
	}
}
