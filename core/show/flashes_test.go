package show

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// blinking is a machine with a channel for each list of a cue's start, length pairs, all in one
// scene, worked by a trigger.
func blinking(latch Latch, rest, long int, of ...[]Cue) Machine {
	m := Machine{Triggers: []Trigger{{ID: "t", Input: "i", Scene: "s", Latch: latch, Rest: rest}},
		Inputs: []Input{{ID: "i"}}, Scenes: []Scene{{ID: "s", Length: long}}}
	for k, cues := range of {
		ch := string(rune('a' + k))
		m.Channels = append(m.Channels, Channel{ID: ch})
		for _, c := range cues {
			c.Channel = ch
			m.Scenes[0].Cues = append(m.Scenes[0].Cues, c)
		}
	}
	return m
}

// Each way of making flashes is counted, by WCAG's definition: a pair of opposing changes.
func TestEveryWayOfFlashing(t *testing.T) {
	rate := func(m Machine) Flash {
		require.NoError(t, m.Check())
		return m.Worked([]string{"t"}, 3000).Flashes(map[string]float64{"a": 1, "b": 1, "c": 1})
	}
	every := func(ms int, on int, from int) (out []Cue) {
		for at := from; at < 3000; at += ms {
			out = append(out, Cue{Start: at, Length: on})
		}
		return out
	}
	steady := Cue{Length: 3000}
	strobe, blink, flicker, pulse := steady, steady, steady, steady
	strobe.Shape, blink.Shape, flicker.Shape, pulse.Shape = Strobe, Blink, Flicker, Pulse
	assert.InDelta(t, 8, rate(blinking(OneShot, 9000, 0, []Cue{strobe})).Rate, .5)
	assert.InDelta(t, 1, rate(blinking(OneShot, 9000, 0, []Cue{blink})).Rate, .01)
	assert.InDelta(t, 1, rate(blinking(OneShot, 9000, 0, []Cue{pulse})).Rate, .01)
	assert.Greater(t, rate(blinking(OneShot, 9000, 0, []Cue{flicker})).Rate, 4.0,
		"it scatters by up to three fifths, twenty times a second")
	assert.LessOrEqual(t, rate(blinking(OneShot, 10_000, 0, []Cue{steady})).Rate, .5)
	assert.InDelta(t, 5, rate(blinking(OneShot, 9000, 0, every(200, 100, 0))).Rate, .01, "cues one after the other")
	assert.InDelta(t, 3, rate(blinking(OneShot, 9000, 0, every(334, 100, 0))).Rate, .01, "three are none too many")
	assert.InDelta(t, 5, rate(blinking(Momentary, 0, 200, []Cue{{Length: 100}})).Rate, .01, "a short scene repeats")
	assert.InDelta(t, 5, rate(blinking(Toggle, 0, 200, []Cue{{Length: 100}})).Rate, .01)
	assert.InDelta(t, 5, rate(blinking(Set, 0, 200, []Cue{{Length: 100}})).Rate, .01)
	assert.Greater(t, rate(blinking(OneShot, 0, 200, []Cue{{Length: 100}})).Rate, 3.0, "pressed again at once")
	assert.LessOrEqual(t, rate(blinking(OneShot, 2000, 200, []Cue{{Length: 100}})).Rate, 1.0, "a rest keeps it slow")
	assert.Zero(t, rate(blinking(Reset, 0, 200, []Cue{{Length: 100}})).Rate)
	// two lamps, two flashes a second each, in one view: four
	two := rate(blinking(OneShot, 9000, 0, every(500, 100, 0), every(500, 100, 250)))
	assert.InDelta(t, 4, two.Rate, .01)
	assert.Empty(t, two.Channel)
	assert.InDelta(t, 2, rate(blinking(OneShot, 9000, 0, every(500, 100, 0), every(500, 100, 0))).Rate, .01,
		"at once they are one")
	// a dim one beside a bright one is a tenth of the view at least, or does not count there
	m := blinking(OneShot, 9000, 0, every(500, 100, 0), every(500, 100, 250))
	got := m.Worked([]string{"t"}, 3000).Flashes(map[string]float64{"a": 1, "b": .05})
	assert.InDelta(t, 2, got.Rate, .01)
	assert.Zero(t, m.Worked([]string{"t"}, 3000).Flashes(map[string]float64{"a": 0}).Rate, "no light")
	// between 85 and 100 per cent nothing is dark
	bright := []Cue{{Length: 3000, Level: 85}}
	assert.LessOrEqual(t, rate(blinking(OneShot, 9000, 0, append(bright, every(200, 100, 0)...))).Rate, .5)
	assert.InDelta(t, 5, rate(blinking(OneShot, 9000, 0, append([]Cue{{Length: 3000, Level: 70}}, every(200, 100,
		0)...))).Rate, .51)
}

// Counted afresh from the levels: in no second are there more changes than twice the rate, and
// in one there are as many.
func TestFlashesByCounting(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var tr Trace
		at := 0
		for range rapid.IntRange(1, 60).Draw(t, "events") {
			at += rapid.IntRange(1, 400).Draw(t, "later")
			level := rapid.SampledFrom([]int{0, 5, 12, 40, 75, 85, 100}).Draw(t, "level")
			what := "level"
			if level == 0 {
				what = "off"
			}
			tr.Events = append(tr.Events, Event{At: at, What: what, Who: "a", Level: level})
		}
		got := tr.Flashes(map[string]float64{"a": 1})
		best := 0 // in the second from each event on, whichever way the light goes first
		for i := range tr.Events {
			last := 0.0
			if i > 0 {
				last = float64(tr.Events[i-1].Level) / 100
			}
			for _, start := range []bool{true, false} {
				rising, n, edge := start, 0, last
				for k := i; k < len(tr.Events) && tr.Events[k].At < tr.Events[i].At+1000; k++ {
					l := float64(tr.Events[k].Level) / 100
					if rising && l-edge >= .1-1e-9 && edge < .8 || !rising && edge-l >= .1-1e-9 && l < .8 {
						n, rising, edge = n+1, !rising, l
					} else if rising {
						edge = min(edge, l)
					} else {
						edge = max(edge, l)
					}
				}
				best = max(best, n)
			}
		}
		require.LessOrEqual(t, got.Rate, float64(best+1)/2) // the light before that second counts as well
		require.GreaterOrEqual(t, got.Rate, float64(best-1)/2)
	})
}
