package show

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// riser is a box whose frames are driven up and down; a switch at their top works a
// player that toggles.
func riser() Machine {
	return Machine{
		Inputs: []Input{
			{ID: "mat", MinPulse: 30},
			{ID: "top", Mover: "frames", At: 100},
		},
		Scenes: []Scene{
			{ID: "rise", Cues: []Cue{lit("up", 0, 1000), lit("down", 4000, 1000)}},
			{ID: "hum", Cues: []Cue{lit("player", 0, 4000)}},
		},
		Triggers: []Trigger{
			{ID: "a", Input: "mat", Scene: "rise", Latch: OneShot},
			{ID: "b", Input: "top", Scene: "hum", Latch: OneShot},
		},
		Movers: []Mover{{ID: "frames", Up: "up", Down: "down", UpTime: 1000}},
	}
}

func search(t *testing.T, m Machine, depth int, own ...Promise) Found {
	f, err := Search{Machine: m, Promises: own, Depth: depth}.Run()
	require.NoError(t, err)
	return f
}

func TestALimitWorksAScene(t *testing.T) {
	tr := play(t, riser(), 8000, Press("mat", 0, 100))
	assert.Equal(t, []Span{{30, 1030}}, tr.Spans("up"))
	assert.Equal(t, []Span{{1030, 5030}}, tr.Spans("player"), "the top is reached after 1 s of travel")
	v := riser().Movers[0]
	assert.Equal(t, 500, tr.At(v, 530))
	assert.Equal(t, 1000, tr.At(v, 2000))
	assert.Equal(t, 0, tr.At(v, 7000))
}

// The classic: a toggling player on a switch that closes once an opening. Nothing is
// wrong with it until its contact bounces; with two switches one press is enough.
func TestTheClassic(t *testing.T) {
	m := riser()
	up := Promise{ID: "own", Kind: OnWhile, A: Term{"channel", "player"}, B: Term{"mover", "frames"}, For: 1200}
	assert.Nil(t, search(t, m, 2, up).Of("own"))
	m.Triggers[1].Latch = Toggle
	b := search(t, m, 2, up).Of("own")
	require.NotNil(t, b)
	assert.Equal(t, []string{"press mat", "bounce top"}, b.Steps)
	// replayed, it does what was found
	tr := m.Run(b.Stimuli, b.At+5000)
	assert.Equal(t, []Span{{1030, 1051}}, tr.Spans("player"), "on as it closes, off 21 ms later")
	// two switches on the one player: the second hit of the same opening silences it
	m.Inputs = append(m.Inputs, Input{ID: "half", Mover: "frames", At: 50})
	m.Triggers[1].ID = "half"
	m.Triggers[1].Input = "half"
	m.Triggers = append(m.Triggers, Trigger{ID: "c", Input: "top", Scene: "hum", Latch: Toggle})
	m.Triggers[2].Latch = Toggle
	b = search(t, m, 2, up).Of("own")
	require.NotNil(t, b)
	assert.Equal(t, []string{"press mat"}, b.Steps)
	m.Triggers = m.Triggers[:2]
	m.Inputs[2].MinPulse = 30
	assert.Equal(t, []string{"press mat", "press mat"}, search(t, m, 3, up).Of("own").Steps,
		"one switch with no bounce is not enough of a mend: it still runs when they open again")
	m.Triggers[1].Latch = OneShot
	assert.Nil(t, search(t, m, 3, up).Of("own"))
}

// Planted faults, each at the least number of events that shows it, worked out by hand.
func TestPlantedFaults(t *testing.T) {
	for _, c := range []struct {
		name   string
		plant  func(m *Machine)
		broken string
		events int
	}{
		{"the motor is driven on at its top", func(m *Machine) { m.Scenes[0].Cues[0].Length = 1400 }, "into-stop:frames", 1},
		{"up and down overlap", func(m *Machine) { m.Scenes[0].Cues[1].Start = 500 }, "both-ways:frames", 1},
		{"a timer starts it after power returns", func(m *Machine) {
			m.Inputs = append(m.Inputs, Input{ID: "on", Kind: Power})
			m.Triggers = append(m.Triggers, Trigger{ID: "p", Input: "on", Scene: "rise", Latch: OneShot})
		}, "alone:frames", 1},
		{"two buttons drive it both ways", func(m *Machine) {
			m.Inputs = append(m.Inputs, Input{ID: "b2"})
			m.Scenes[0].Cues = m.Scenes[0].Cues[:1]
			m.Scenes = append(m.Scenes, Scene{ID: "lower", Cues: []Cue{lit("down", 0, 900)}})
			m.Triggers = append(m.Triggers, Trigger{ID: "d", Input: "b2", Scene: "lower", Latch: OneShot})
		}, "both-ways:frames", 2},
		{"pressed again it stays on past its limit", func(m *Machine) {
			m.Scenes[0].Cues = []Cue{lit("horn", 0, 3000)}
			m.Triggers[0].Latch = Retrigger
			m.Channels = []Channel{{ID: "horn", Longest: 8000}}
		}, "longest:horn", 3}, // 3 s each, begun again before they end: more than 8 s
		{"a state that nothing leads out of", func(m *Machine) {
			m.State = "ready"
			m.Triggers[0].While, m.Triggers[0].Then = "ready", "shown"
		}, "silent:a", 1},
		{"a power cut leaves it up", func(m *Machine) {
			m.Scenes[0].Cues[0].Length = 1000 // up again from the top
		}, "power:into-stop:frames", 3}, // press, power lost while up, press again
	} {
		m := riser()
		c.plant(&m)
		b := search(t, m, c.events).Of(c.broken)
		if assert.NotNil(t, b, c.name) {
			assert.Equal(t, c.events, b.Events, "%s: %v", c.name, b.Steps)
		}
		if c.events > 1 {
			f := search(t, m, c.events-1)
			assert.Nil(t, f.Of(c.broken), "%s: no shorter way", c.name)
			assert.True(t, f.Exhaustive)
		}
	}
}

// What the search finds, against all sequences tried one by one with no memory of
// states: small machines drawn by seed.
func TestSearchAgainstBruteForce(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		latch := func(l string) Latch { return rapid.SampledFrom(Latches[:4]).Draw(t, l) }
		m := Machine{
			Inputs: []Input{{ID: "i", MinPulse: rapid.SampledFrom([]int{0, 30}).Draw(t, "pulse")}, {ID: "j"}},
			Scenes: []Scene{
				{ID: "s", Cues: []Cue{lit("a", 0, rapid.IntRange(1, 5).Draw(t, "la")*100)}},
				{ID: "u", Cues: []Cue{lit("b", 100, rapid.IntRange(1, 5).Draw(t, "lb")*100)}},
			},
			Triggers: []Trigger{
				{ID: "t", Input: "i", Scene: "s", Latch: latch("l1")},
				{
					ID:    "v",
					Input: "j",
					Scene: "u",
					Latch: latch("l2"),
					Rest:  rapid.SampledFrom([]int{0, 400}).Draw(t, "rest"),
				},
			},
		}
		own := []Promise{
			{ID: "apart", Kind: Never, A: Term{"channel", "a"}, B: Term{"channel", "b"}},
			{
				ID:   "short",
				Kind: Longest,
				A:    Term{"channel", "a"},
				For:  rapid.SampledFrom([]int{250, 600}).Draw(t, "for"),
			},
		}
		const depth = 2
		f, err := Search{Machine: m, Promises: own, Depth: depth}.Run()
		require.NoError(t, err)
		require.True(t, f.Exhaustive)
		short := brute(m, own, depth)
		for _, p := range own {
			b := f.Of(p.ID)
			if n, ok := short[p.ID]; ok {
				require.NotNil(t, b, "%s is broken by %d events", p.ID, n)
				require.LessOrEqual(t, b.Events, n)
			}
			if b != nil { // and what is found is so
				tr := m.Run(b.Stimuli, b.At+3000)
				require.True(t, breaks(tr, p), "%s by %v: %v", p.ID, b.Steps, tr.Events)
			}
		}
	})
}

// brute tries every sequence of taps, double taps and holds at each tenth of a second.
func brute(m Machine, own []Promise, depth int) map[string]int {
	short := map[string]int{}
	var try func(stim []Stimulus, from, n int)
	try = func(stim []Stimulus, from, n int) {
		tr := m.Run(stim, from+4000)
		for _, p := range own {
			if at, ok := short[p.ID]; breaks(tr, p) && (!ok || n < at) {
				short[p.ID] = n
			}
		}
		if n == depth {
			return
		}
		for at := from; at <= from+1000; at += 100 {
			for _, in := range m.Inputs {
				for _, held := range []int{90, 2500} {
					if held == 2500 && m.Triggers[slices.IndexFunc(m.Triggers, func(t Trigger) bool {
						return t.Input == in.ID
					})].Latch != Momentary {
						continue
					}
					next := append(slices.Clone(stim), Press(in.ID, at, held)...)
					try(next, at, n+1)
				}
			}
		}
	}
	try(nil, 0, 0)
	return short
}

// breaks judges a trace by its spans alone.
func breaks(tr Trace, p Promise) bool {
	a := join(tr.Spans(p.A.ID))
	if p.Kind == Longest {
		for _, s := range a {
			if s.To-s.From > p.For {
				return true
			}
		}
		return false
	}
	for _, s := range a {
		for _, u := range tr.Spans(p.B.ID) {
			if s.From < u.To && u.From < s.To {
				return true
			}
		}
	}
	return false
}

// Depth six over four inputs.
func BenchmarkSearch(b *testing.B) {
	for _, inputs := range []int{2, 4} {
		m := Machine{}
		for i := range inputs {
			n := fmt.Sprint(i)
			m.Inputs = append(m.Inputs, Input{ID: "i" + n, MinPulse: 30, HoldOff: 500})
			m.Scenes = append(m.Scenes, Scene{ID: "s" + n, Cues: []Cue{lit("c"+n, 0, 2000), lit("d", 500*i, 700)}})
			m.Triggers = append(
				m.Triggers,
				Trigger{ID: "t" + n, Input: "i" + n, Scene: "s" + n, Latch: OneShot, Rest: 3000},
			)
		}
		b.Run(fmt.Sprintf("%dinputs", inputs), func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				f, _ := Search{Machine: m, Depth: 6}.Run()
				b.ReportMetric(float64(f.Depth), "depth")
				b.ReportMetric(float64(f.States), "states")
			}
		})
	}
}
