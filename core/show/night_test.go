package show

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// evening is a night on one mat.
func evening(groups int) Night {
	return Night{Length: 3_600_000, Groups: groups, Size: 1, Speed: 1, Stops: []Stop{{"mat", 5, 300}}, Seed: 7}
}

// One guest every minute and a scene of one second: each is scared.
func TestANightWithTime(t *testing.T) {
	rep, tr := evening(60).Run(machine(OneShot))
	p := rep.Props[0]
	assert.Equal(t, []int{60, 60, 0, 0, 0}, []int{p.Came, p.Scared, p.Shared, p.Missed, p.Ignored})
	assert.Equal(t, 60, rep.Guests)
	assert.Equal(t, 60*500, rep.On["fill"])
	assert.Len(t, tr.Spans("jars"), 60)
}

// A rest longer than an evening: the first group alone is scared.
func TestANightOfRest(t *testing.T) {
	m := machine(OneShot)
	m.Triggers[0].Rest = 4_000_000
	rep, _ := evening(60).Run(m)
	p := rep.Props[0]
	assert.Equal(t, []int{60, 1, 0, 59, 59}, []int{p.Came, p.Scared, p.Shared, p.Missed, p.Ignored})
	// a scene as long: all others see it play
	m = machine(OneShot)
	m.Scenes[0].Length = 5_000_000
	rep, _ = evening(60).Run(m)
	assert.Equal(t, 59, rep.Props[0].Shared)
}

// Energy by hand: 0.1 A at rest for an hour, and 2 A for 60 times half a second.
func TestANightsEnergy(t *testing.T) {
	n := evening(60)
	n.Loads = []Load{{Supply: "S", Rest: .1, Amps: map[string]float64{"fill": 2}}}
	n.Volts = map[string]float64{"S": 12}
	rep, _ := n.Run(machine(OneShot))
	assert.InDelta(t, .1+2*30.0/3600, rep.Ah["S"], 1e-9)
	assert.InDelta(t, 12*(.1+2*30.0/3600), rep.Wh["S"], 1e-9)
}

// Everybody who comes is counted once, and the same seed gives the same night.
func TestNobodyIsLost(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := evening(rapid.IntRange(1, 120).Draw(t, "groups"))
		n.Size, n.Dwell = rapid.IntRange(1, 6).Draw(t, "size"), rapid.IntRange(0, 20000).Draw(t, "dwell")
		n.Seed = rapid.Uint64().Draw(t, "seed")
		m := machine(rapid.SampledFrom(Latches[:5]).Draw(t, "latch"))
		m.Triggers[0].Rest = rapid.IntRange(0, 90000).Draw(t, "rest")
		a, _ := n.Run(m)
		b, _ := n.Run(m)
		require.Equal(t, a, b)
		p := a.Props[0]
		require.Equal(t, n.Groups, p.Came)
		require.Equal(t, p.Came, p.Scared+p.Shared+p.Missed)
	})
}

// Four hours, 200 groups, eight props.
func BenchmarkNight(b *testing.B) {
	for _, k := range []int{1, 10} {
		m := Machine{}
		n := Night{Length: 4 * 3_600_000, Groups: 200 * k, Size: 5, Speed: 1, Dwell: 8000, Seed: 1}
		for i := range 8 {
			id := fmt.Sprint(i)
			m.Inputs = append(m.Inputs, Input{ID: "i" + id, MinPulse: 30, HoldOff: 2000})
			m.Scenes = append(m.Scenes, Scene{ID: "s" + id, Cues: []Cue{lit("a"+id, 0, 900), lit("b"+id, 200, 5000),
				lit("c"+id, 1000, 4000), {Channel: "d" + id, Length: 3000, Shape: Flicker}}})
			m.Triggers = append(
				m.Triggers,
				Trigger{ID: "t" + id, Input: "i" + id, Scene: "s" + id, Latch: OneShot, Rest: 9000},
			)
			n.Stops = append(n.Stops, Stop{"i" + id, float64(3 * i), 400})
		}
		b.Run(fmt.Sprintf("%dgroups", n.Groups), func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				n.Run(m)
			}
		})
	}
}
