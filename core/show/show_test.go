package show

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func lit(channel string, start, long int) Cue {
	return Cue{Channel: channel, Start: start, Length: long}
}

func machine(latch Latch) Machine {
	return Machine{
		Inputs:   []Input{{ID: "mat", MinPulse: 20}},
		Scenes:   []Scene{{ID: "glow", Cues: []Cue{lit("fill", 0, 500), lit("jars", 250, 750)}}},
		Triggers: []Trigger{{ID: "t", Input: "mat", Scene: "glow", Latch: latch}},
	}
}

func play(t *testing.T, m Machine, until int, s ...[]Stimulus) Trace {
	require.NoError(t, m.Check())
	var all []Stimulus
	for _, x := range s {
		all = append(all, x...)
	}
	return m.Run(all, until)
}

// Worked by hand: the press counts 20 ms after the contact closes.
func TestOneShot(t *testing.T) {
	tr := play(t, machine(OneShot), 3000, Press("mat", 100, 200), Press("mat", 600, 100))
	assert.Equal(t, []Span{{120, 620}}, tr.Spans("fill"))
	assert.Equal(t, []Span{{370, 1120}}, tr.Spans("jars"))
	assert.Contains(t, tr.Events, Event{620, "ignored", "mat", "glow is still running", 0})
	assert.True(t, tr.On("fill", 120))
	assert.False(t, tr.On("fill", 620))
}

func TestRetriggerMomentaryToggle(t *testing.T) {
	tr := play(t, machine(Retrigger), 3000, Press("mat", 100, 50), Press("mat", 600, 50))
	assert.Equal(t, []Span{{120, 1120}}, join(tr.Spans("fill")), "starts afresh, with no dark gap to see")
	tr = play(t, machine(Momentary), 5000, Press("mat", 100, 700))
	assert.Equal(t, []Span{{120, 620}}, tr.Spans("fill"))
	assert.Equal(t, []Span{{370, 800}}, tr.Spans("jars"), "let go at 800")
	tr = play(t, machine(Toggle), 5000, Press("mat", 100, 50), Press("mat", 1300, 50))
	assert.Equal(t, []Span{{120, 620}, {1120, 1320}}, tr.Spans("fill"), "repeats from 1120, stopped at 1320")
}

// join merges spans that touch.
func join(s []Span) (out []Span) {
	for _, x := range s {
		if n := len(out); n > 0 && out[n-1].To >= x.From {
			out[n-1].To = x.To
			continue
		}
		out = append(out, x)
	}
	return
}

// The classic: a bouncing contact on a toggle turns it straight off again; a
// least pulse longer than the bounce mends it.
func TestBounceOnAToggle(t *testing.T) {
	bouncy := append(Press("mat", 100, 30), Press("mat", 140, 200)...)
	m := machine(Toggle)
	tr := play(t, m, 900, bouncy)
	assert.Equal(t, []Span{{120, 160}}, tr.Spans("fill"), "on at 120, toggled off at 160")
	m.Inputs[0].MinPulse = 50
	tr = play(t, m, 600, bouncy)
	assert.Equal(t, []Span{{190, 600}}, tr.Spans("fill"))
	m.Inputs[0].MinPulse, m.Inputs[0].HoldOff = 20, 1000
	tr = play(t, m, 600, bouncy)
	assert.Equal(t, []Span{{120, 600}}, tr.Spans("fill"))
}

func TestRestAfterAScene(t *testing.T) {
	m := machine(OneShot)
	m.Triggers[0].Rest = 2000
	tr := play(t, m, 6000, Press("mat", 0, 100), Press("mat", 2000, 100), Press("mat", 4000, 100))
	assert.Len(t, tr.Spans("fill"), 2)
}

func TestTwoScenesOnOneChannelOnWins(t *testing.T) {
	m := machine(OneShot)
	m.Inputs = append(m.Inputs, Input{ID: "button"})
	m.Scenes = append(m.Scenes, Scene{ID: "short", Cues: []Cue{lit("fill", 0, 100)}})
	m.Triggers = append(m.Triggers, Trigger{ID: "u", Input: "button", Scene: "short", Latch: OneShot})
	tr := play(t, m, 2000, Press("mat", 0, 100), Press("button", 200, 10))
	assert.Equal(t, []Span{{20, 520}}, tr.Spans("fill"))
}

func TestRefusals(t *testing.T) {
	for want, change := range map[string]func(*Machine){
		"no input":  func(m *Machine) { m.Triggers[0].Input = "x" },
		"no scene":  func(m *Machine) { m.Triggers[0].Scene = "x" },
		"no length": func(m *Machine) { m.Scenes[0].Cues[0].Length = 0 },
		"20 ms or":  func(m *Machine) { m.Scenes[0].Cues = []Cue{lit("fill", 0, 5)} },
		"no cues":   func(m *Machine) { m.Scenes[0].Cues = nil },
		"one-shot,": func(m *Machine) { m.Triggers[0].Latch = "sometimes" },
	} {
		m := machine(OneShot)
		change(&m)
		assert.ErrorContains(t, m.Check(), want)
	}
}

// Any stream of edges: the same trace twice, time never runs back, and every
// channel alternates on and off.
func TestDeterministicAndConsistent(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		m := machine(rapid.SampledFrom([]Latch{OneShot, Retrigger, Momentary, Toggle}).Draw(t, "latch"))
		var s []Stimulus
		for range rapid.IntRange(0, 30).Draw(t, "n") {
			s = append(s, Stimulus{rapid.IntRange(0, 4000).Draw(t, "at"), "mat", rapid.Bool().Draw(t, "down")})
		}
		a, b := m.Run(s, 5000), m.Run(s, 5000)
		require.Equal(t, a, b)
		on, last := map[string]bool{}, 0
		for _, e := range a.Events {
			require.GreaterOrEqual(t, e.At, last)
			last = e.At
			if e.What == "on" || e.What == "off" {
				require.Equal(t, e.What == "off", on[e.Who], "%v", e)
				on[e.Who] = e.What == "on"
			}
		}
	})
}

func BenchmarkRun(b *testing.B) {
	for _, presses := range []int{100, 2000} {
		m := machine(Retrigger)
		var s []Stimulus
		for i := range presses {
			s = append(s, Press("mat", i*300, 100)...)
		}
		b.Run(map[int]string{100: "100presses", 2000: "2000presses"}[presses], func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				m.Run(s, presses*300+2000)
			}
		})
	}
}
