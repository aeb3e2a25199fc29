package show

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// Eyes that hold still while the jaw moves: the jaw's piece wins the eyes for a second,
// waits for them, or follows.
func TestMerge(t *testing.T) {
	eyes := Scene{ID: "eyes", Cues: []Cue{lit("eye", 0, 4000), lit("brow", 3000, 500)}}
	jaw := Scene{ID: "jaw", Cues: []Cue{lit("jaw", 0, 1000), {Channel: "eye", Start: 1000, Length: 1000, Level: 20}}}
	got, err := Merge(eyes, jaw, Wins)
	require.NoError(t, err)
	assert.Equal(
		t,
		[]Cue{lit("eye", 0, 1000), lit("jaw", 0, 1000), {Channel: "eye", Start: 1000, Length: 1000, Level: 20},
			lit("eye", 2000, 2000), lit("brow", 3000, 500)},
		got.Cues,
	)
	got, _ = Merge(eyes, jaw, Follows)
	assert.Equal(t, 4000, got.Cues[2].Start)
	assert.Equal(t, 6000, got.Duration())
	got, _ = Merge(eyes, jaw, Waits)
	assert.Equal(t, 6000, got.Duration(), "the eyes are free at 4 s")
	got, _ = Merge(eyes, Scene{Cues: []Cue{lit("jaw", 0, 1000)}}, Waits)
	assert.Equal(t, 4000, got.Duration(), "nothing is shared: at once")
	_, err = Merge(eyes, jaw, "hopes")
	assert.ErrorContains(t, err, "choose wins, follows or waits")
}

// Any two pieces by any rule: no channel is wanted twice at a time, all of the second is
// there, and of the first all that the second does not win.
func TestMergeLosesNothing(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		piece := func(name string) Scene {
			s, at := Scene{ID: name}, map[string]int{}
			for range rapid.IntRange(0, 6).Draw(t, name) {
				ch := rapid.SampledFrom([]string{"a", "b", "c"}).Draw(t, "ch")
				at[ch] += rapid.IntRange(0, 300).Draw(t, "gap")
				long := rapid.IntRange(1, 500).Draw(t, "long")
				s.Cues = append(s.Cues, lit(ch, at[ch], long))
				at[ch] += long
			}
			return s
		}
		a, b := piece("first"), piece("second")
		rule := rapid.SampledFrom(Rules).Draw(t, "rule")
		got, err := Merge(a, b, rule)
		require.NoError(t, err)
		on := map[string]map[int]int{}
		for _, q := range got.Cues {
			require.Positive(t, q.Length)
			for ms := q.Start; ms < q.Start+q.Length; ms++ {
				if on[q.Channel] == nil {
					on[q.Channel] = map[int]int{}
				}
				on[q.Channel][ms]++
				require.Equal(t, 1, on[q.Channel][ms], "%s twice at %d", q.Channel, ms)
			}
		}
		total := func(s Scene) (sum int) {
			for _, q := range s.Cues {
				sum += q.Length
			}
			return sum
		}
		lost := 0
		if rule == Wins {
			for _, p := range a.Cues {
				for _, q := range b.Cues {
					if p.Channel == q.Channel {
						lost += max(0, min(p.Start+p.Length, q.Start+q.Length)-max(p.Start, q.Start))
					}
				}
			}
		}
		require.Equal(t, total(a)+total(b)-lost, total(got))
	})
}

func TestPerform(t *testing.T) {
	got := Perform("jaw", []float64{0, 0, .5, .5, 1, 1, .02, .02}, 800, 100, .1)
	assert.Equal(
		t,
		[]Cue{{Channel: "jaw", Start: 200, Length: 200, Level: 50}, {Channel: "jaw", Start: 400, Length: 200,
			Level: 100}},
		got,
	)
	assert.Empty(t, Perform("jaw", nil, 800, 100, .1))
	rapid.Check(t, func(t *rapid.T) {
		curve := rapid.SliceOfN(rapid.Float64Range(0, 1), 1, 300).Draw(t, "curve")
		long := rapid.IntRange(50, 20_000).Draw(t, "long")
		last := 0
		for _, q := range Perform("x", curve, long, 100, .1) {
			require.GreaterOrEqual(t, q.Start, last)
			last = q.Start + q.Length
			require.LessOrEqual(t, last, long)
			require.True(t, q.Level >= 10 && q.Level <= 100)
		}
	})
}

// A copy taken at any moment and played on comes to what playing through does, and so does
// playing again from the start: rewind is replay.
func TestRewindIsReplay(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		m := riser()
		m.Scenes[1].Cues[0].Shape = rapid.SampledFrom(Shapes).Draw(t, "shape")
		m.Inputs[1].Bounce = rapid.SampledFrom([]int{0, 12}).Draw(t, "bounce")
		var stim []Stimulus
		at := 0
		for range rapid.IntRange(0, 6).Draw(t, "n") {
			at += rapid.IntRange(1, 4000).Draw(t, "gap")
			if rapid.IntRange(0, 4).Draw(t, "power") == 0 {
				stim = append(stim, Stimulus{at, Mains, false}, Stimulus{at + 500, Mains, true})
				at += 500
			} else {
				stim = append(stim, Press("mat", at, 80)...)
				at += 80
			}
		}
		const until = 30_000
		whole := m.Run(stim, until)
		require.Equal(t, whole, m.Run(stim, until))
		mid := rapid.IntRange(0, until).Draw(t, "mid")
		p := compile(m)
		s := &sim{p: p, snapshot: p.start(), trace: &Trace{Until: until}}
		s.woken()
		s.settled()
		var early, late []Stimulus
		for _, x := range stim {
			if x.At <= mid {
				early = append(early, x)
			} else {
				late = append(late, x)
			}
		}
		s.play(early, mid)
		kept := s.copy() // a snapshot
		s.play(late, until)
		require.Equal(t, whole.Events, s.trace.Events)
		again := &sim{p: p, snapshot: kept, trace: &Trace{Until: until}}
		again.play(late, until)
		n := 0
		for n < len(whole.Events) && whole.Events[n].At <= mid {
			n++
		}
		require.Equal(t, append([]Event(nil), whole.Events[n:]...), append([]Event(nil), again.trace.Events...))
	})
}

// Two outputs that are never on together never are, whatever is pressed: the first holds.
func TestInterlock(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		m := Machine{Inputs: []Input{{ID: "i"}, {ID: "j"}},
			Channels: []Channel{{ID: "a", Never: "b"}, {ID: "b"}},
			Scenes: []Scene{{ID: "s", Cues: []Cue{lit("a", 0, 500), lit("a", 700, 300)}},
				{ID: "u", Cues: []Cue{lit("b", 100, 800)}}},
			Triggers: []Trigger{
				{ID: "t", Input: "i", Scene: "s", Latch: Retrigger},
				{ID: "v", Input: "j", Scene: "u", Latch: Toggle},
			}}
		var stim []Stimulus
		for range rapid.IntRange(0, 12).Draw(t, "n") {
			stim = append(
				stim,
				Stimulus{rapid.IntRange(0, 4000).Draw(t, "at"), rapid.SampledFrom([]string{"i", "j"}).Draw(t, "in"),
					rapid.Bool().Draw(t, "down")},
			)
		}
		tr := m.Run(stim, 6000)
		for _, a := range tr.Spans("a") {
			for _, b := range tr.Spans("b") {
				require.False(t, a.From < b.To && b.From < a.To, "%v %v", a, b)
			}
		}
	})
}
