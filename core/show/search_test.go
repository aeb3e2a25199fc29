package show

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
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

// drawn is a small machine drawn by seed, with promises for it: two inputs or more, scenes
// that share outputs and begin with a wait, rests, hold-offs, states, chains, outputs that
// keep each other off.
func drawn(seed uint64, most int) (m Machine, own []Promise) {
	r := rand.New(rand.NewPCG(seed, 1))
	pick := func(v ...int) int { return v[r.IntN(len(v))] }
	has := map[string]bool{}
	for i := range 2 + r.IntN(most-1) {
		id := fmt.Sprint(i)
		m.Inputs = append(m.Inputs, Input{ID: "i" + id, MinPulse: pick(0, 30), HoldOff: pick(0, 0, 500)})
		s := Scene{ID: "s" + id}
		for range 1 + r.IntN(2) {
			ch := []string{"a", "b", "d"}[r.IntN(3)]
			s.Cues = append(s.Cues, lit(ch, pick(0, 0, 100, 200, 300, 400), pick(100, 100, 200, 300, 400)))
			has[ch] = true
		}
		if r.IntN(3) == 0 {
			s.Length = s.Duration() + pick(100, 300)
		}
		m.Scenes = append(m.Scenes, s)
		m.Triggers = append(m.Triggers, Trigger{ID: "t" + id, Input: "i" + id, Scene: "s" + id,
			Latch: []Latch{OneShot, OneShot, OneShot, Retrigger, Momentary, Toggle}[r.IntN(6)], Rest: pick(0, 0, 200, 400)})
	}
	if r.IntN(3) == 0 {
		m.Triggers[0].Scene = "s1"
	}
	if r.IntN(4) == 0 {
		m.State, m.Triggers[0].While, m.Triggers[0].Then = "x", "x", "y"
		m.Triggers[1].While, m.Triggers[1].Then = "y", "x"
	}
	if r.IntN(4) == 0 {
		m.Inputs = append(m.Inputs, Input{ID: "e", Kind: Ended, Scene: "s0"})
		m.Triggers = append(m.Triggers, Trigger{ID: "te", Input: "e", Scene: "s1", Latch: OneShot})
	}
	if r.IntN(4) == 0 {
		m.Channels = []Channel{{ID: "a", Never: "d"}}
	}
	if has["a"] && has["b"] {
		own = append(own, Promise{ID: "apart", Kind: Never, A: Term{"channel", "a"}, B: Term{"channel", "b"}})
	}
	if has["d"] {
		own = append(own, Promise{ID: "short", Kind: Longest, A: Term{"channel", "d"}, For: pick(350, 450, 650)})
	}
	return m, own
}

// What the search finds, against all sequences tried one by one with no memory of states:
// what breaks a promise is found in as few events, and what is found is so.
func TestSearchAgainstBruteForce(t *testing.T) {
	const depth = 2
	n := 0
	for seed := range uint64(250) {
		m, own := drawn(seed, 3)
		if len(own) == 0 || m.Check() != nil {
			continue
		}
		f, err := Search{Machine: m, Promises: own, Depth: depth}.Whole()
		require.NoError(t, err)
		require.True(t, f.Exhaustive)
		short := brute(m, own, depth)
		for _, p := range own {
			n++
			b := f.Of(p.ID)
			if least, ok := short[p.ID]; ok {
				require.NotNil(t, b, "seed %d: %s is broken by %d events", seed, p.ID, least)
				require.LessOrEqual(t, b.Events, least, "seed %d: %s", seed, p.ID)
			}
			if b != nil {
				tr := m.Run(b.Stimuli, b.At+3000)
				require.True(t, breaks(tr, p), "seed %d: %s by %v: %v", seed, p.ID, b.Steps, tr.Events)
			}
		}
	}
	assert.Greater(t, n, 250)
}

// What is left out as it cannot matter, and the parts a machine is looked at in, change
// nothing: the same promises are broken, in as few events, as when all is played.
func TestNothingThatMattersIsLeftOut(t *testing.T) {
	n := 0
	for seed := range uint64(140) {
		depth, inputs := 2, 3
		if seed >= 40 {
			depth, inputs = 3, 2
		}
		m, own := drawn(seed, inputs)
		r := rand.New(rand.NewPCG(seed, 2))
		has := func(ch string) bool {
			return slices.ContainsFunc(m.Scenes, func(s Scene) bool {
				return slices.ContainsFunc(s.Cues, func(c Cue) bool { return c.Channel == ch })
			})
		}
		if has("a") && has("b") && r.IntN(2) == 0 {
			m.Movers = append(m.Movers, Mover{ID: "m", Up: "a", Down: "b", UpTime: 300, Stops: r.IntN(2) == 0})
			if r.IntN(2) == 0 {
				m.Inputs = append(m.Inputs, Input{ID: "top", Mover: "m", At: 100})
				m.Triggers = append(
					m.Triggers,
					Trigger{ID: "tt", Input: "top", Scene: "s0", Latch: Latches[r.IntN(4)]},
				)
			}
			if has("d") {
				own = append(
					own,
					Promise{ID: "moves", Kind: OnWhile, A: Term{"channel", "d"}, B: Term{"mover", "m"}, For: 100},
				)
			}
		}
		if depth == 2 && r.IntN(3) == 0 {
			m.Inputs = append(m.Inputs, Input{ID: "clock", Kind: Timer, Every: 900})
			m.Triggers = append(m.Triggers, Trigger{ID: "tc", Input: "clock", Scene: "s0", Latch: OneShot})
		}
		if has("a") && has("d") {
			own = append(
				own,
				Promise{ID: "with", Kind: OnWhile, A: Term{"channel", "a"}, B: Term{"channel", "d"}, For: 100},
			)
		}
		own = append(own, Promise{ID: "scenes", Kind: Never, A: Term{"scene", "s0"}, B: Term{"scene", "s1"}})
		if m.Check() != nil {
			continue
		}
		say := func(f Found, err error) map[string]int {
			require.NoError(t, err)
			require.True(t, f.Exhaustive, "seed %d", seed)
			out := map[string]int{}
			for _, b := range f.Broken {
				out[b.Promise.ID] = b.Events
			}
			return out
		}
		if seed == 31 { // too many orders to play them all
			continue
		}
		all := say(Search{Machine: m, Promises: own, Depth: 2, Most: 3_000_000, plain: true}.Run())
		assert.Equal(
			t,
			all,
			say(Search{Machine: m, Promises: own, Depth: 2, Most: 3_000_000}.Whole()),
			"seed %d",
			seed,
		)
		n += len(all)
	}
	assert.Greater(t, n, 40)
}

// By hand: the one lights 100 ms after its press, the other 400 ms after, each for 100: they
// meet only when the second press comes 300 ms after the first, though nothing changes then.
func TestWhatIsSetGoingMeets(t *testing.T) {
	m := Machine{
		Inputs: []Input{{ID: "i"}, {ID: "j"}},
		Scenes: []Scene{
			{ID: "s", Cues: []Cue{lit("a", 100, 100), lit("b", 0, 100)}},
			{ID: "u", Cues: []Cue{lit("b", 400, 100)}},
		},
		Triggers: []Trigger{{ID: "t", Input: "i", Scene: "s", Latch: OneShot},
			{ID: "v", Input: "j", Scene: "u", Latch: OneShot}},
	}
	f, err := Search{Machine: m, Depth: 2, Promises: []Promise{
		{ID: "apart", Kind: Never, A: Term{"channel", "a"}, B: Term{"channel", "b"}}}}.Whole()
	require.NoError(t, err)
	b := f.Of("apart")
	require.NotNil(t, b)
	assert.Equal(t, []string{"press j", "press i"}, b.Steps)
	later := b.Stimuli[2].At
	assert.True(t, later > 200 && later < 400, "%v", b.Stimuli)
}

// By hand: each lights the horn for 3 s; begun the very moment the other ends, it is on for
// 6 s with no gap, which is what a limit of 5 s is for.
func TestWhatTouchesAddsUp(t *testing.T) {
	m := Machine{
		Inputs: []Input{{ID: "i"}, {ID: "j"}},
		Scenes: []Scene{{ID: "s", Cues: []Cue{lit("horn", 0, 3000)}}, {ID: "u", Cues: []Cue{lit("horn", 0, 3000)}}},
		Triggers: []Trigger{{ID: "t", Input: "i", Scene: "s", Latch: OneShot, Rest: 9000},
			{ID: "v", Input: "j", Scene: "u", Latch: OneShot, Rest: 9000}},
		Channels: []Channel{{ID: "horn", Longest: 5999}},
	}
	for limit, broken := range map[int]bool{5999: true, 6000: false} {
		m.Channels[0].Longest = limit
		f, err := Search{Machine: m, Depth: 3}.Whole()
		require.NoError(t, err)
		assert.Equal(t, broken, f.Of("longest:horn") != nil, "%d ms", limit)
	}
}

// A scene shorter than the tap that starts it is over when the contact is let go, and all is
// as it was: it was on for all that.
func TestWhatIsOverAtOnceCounts(t *testing.T) {
	m := Machine{
		Inputs: []Input{{ID: "i"}, {ID: "j"}},
		Scenes: []Scene{{ID: "s", Cues: []Cue{lit("a", 0, 40)}}, {ID: "u", Cues: []Cue{lit("b", 0, 40)}}},
		Triggers: []Trigger{
			{ID: "t", Input: "i", Scene: "s", Latch: OneShot},
			{ID: "v", Input: "j", Scene: "u", Latch: OneShot},
		},
	}
	f, err := Search{Machine: m, Depth: 2, Promises: []Promise{
		{ID: "apart", Kind: Never, A: Term{"channel", "a"}, B: Term{"channel", "b"}}}}.Whole()
	require.NoError(t, err)
	require.NotNil(t, f.Of("apart"))
	assert.Equal(t, 2, f.Of("apart").Events)
}

// One moment fewer than it takes is not all of them, whichever part of it they fall in.
func TestTheBoundIsTold(t *testing.T) {
	for seed := range uint64(30) {
		m, own := drawn(seed, 3)
		q := Search{Machine: m, Promises: own, Depth: 2}
		f, err := q.Run()
		if err != nil {
			continue
		}
		require.True(t, f.Exhaustive)
		for most, whole := range map[int]bool{f.Moments: true, f.Moments - 1: false} {
			q.Most = most
			g, err := q.Run()
			require.NoError(t, err)
			assert.Equal(t, whole, g.Exhaustive, "seed %d: %d of %d", seed, most, f.Moments)
		}
	}
}

// A press that is held breaks it alone, though two taps that do are come upon before.
func TestTheShortestIsTold(t *testing.T) {
	m := Machine{
		Inputs: []Input{{ID: "i"}, {ID: "j"}},
		Scenes: []Scene{
			{ID: "s", Cues: []Cue{lit("a", 200, 300), lit("b", 0, 400)}},
			{ID: "u", Cues: []Cue{lit("a", 0, 300)}},
		},
		Triggers: []Trigger{{ID: "t", Input: "i", Scene: "s", Latch: Momentary},
			{ID: "v", Input: "j", Scene: "u", Latch: OneShot}},
	}
	f, err := Search{Machine: m, Depth: 2, Promises: []Promise{
		{ID: "apart", Kind: Never, A: Term{"channel", "a"}, B: Term{"channel", "b"}}}}.Whole()
	require.NoError(t, err)
	assert.Equal(t, []string{"hold i"}, f.Of("apart").Steps)
}

// A promise is looked at in what it hangs on alone: of four inputs that share an output,
// whether one can be started again hangs on it alone, what the output does on all.
func TestWhatAPromiseHangsOn(t *testing.T) {
	m := sharing(4)
	var inputs []int
	for _, q := range (Search{Machine: m, Promises: []Promise{
		{ID: "own", Kind: Longest, A: Term{"channel", "d"}, For: 8000},
		{ID: "two", Kind: Never, A: Term{"channel", "c1"}, B: Term{"channel", "c2"}}}}).Parts() {
		inputs = append(inputs, len(q.Machine.Inputs))
		for _, s := range q.Machine.Scenes {
			assert.Equal(
				t,
				m.Scenes[slices.IndexFunc(m.Scenes, func(x Scene) bool { return x.ID == s.ID })].Duration(),
				s.Duration(),
				"it lasts as long with fewer cues",
			)
		}
	}
	assert.Equal(t, []int{1, 1, 1, 1, 4, 2}, inputs)
}

// Every order of six events over four inputs that share an output, with a promise about
// that output, which hangs on all four; how far it is is told, and a stop ends it.
func TestSixEventsOverFourInputs(t *testing.T) {
	q := Search{Machine: sharing(4), Depth: 6, Promises: []Promise{
		{ID: "own", Kind: Longest, A: Term{"channel", "d"}, For: 8000}}}
	told, share := 0, 0.0
	q.Progress = func(p Progress) bool {
		assert.GreaterOrEqual(t, p.Share, share-1e-9, "it never goes back")
		assert.Equal(t, 5, p.Parts)
		told, share = told+1, p.Share
		return true
	}
	f, err := q.Whole()
	require.NoError(t, err)
	assert.True(t, f.Exhaustive)
	assert.Equal(t, 6, f.Depth)
	assert.Greater(t, told, 10)
	assert.InDelta(t, 1, share, 1e-9)
	q.Progress = func(p Progress) bool { return p.Moments < 30_000 }
	f, err = q.Whole()
	require.NoError(t, err)
	assert.False(t, f.Exhaustive)
	assert.Less(t, f.Moments, 200_000)
	again, err := q.Whole()
	require.NoError(t, err)
	assert.Equal(t, f.Broken, again.Broken)
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

// sharing is a machine of so many inputs, each with a lamp of its own and a part in one
// output that they share.
func sharing(inputs int) (m Machine) {
	for i := range inputs {
		n := fmt.Sprint(i)
		m.Inputs = append(m.Inputs, Input{ID: "i" + n, MinPulse: 30, HoldOff: 500})
		m.Scenes = append(m.Scenes, Scene{ID: "s" + n, Cues: []Cue{lit("c"+n, 0, 2000), lit("d", 500*i, 700)}})
		m.Triggers = append(
			m.Triggers,
			Trigger{ID: "t" + n, Input: "i" + n, Scene: "s" + n, Latch: OneShot, Rest: 3000},
		)
	}
	return m
}

// Depth six over two and four inputs, with and without a promise that ties all together.
func BenchmarkSearch(b *testing.B) {
	for _, inputs := range []int{2, 4} {
		for _, tied := range []bool{false, true} {
			q := Search{Machine: sharing(inputs), Depth: 6}
			if tied {
				q.Promises = []Promise{{ID: "own", Kind: Longest, A: Term{"channel", "d"}, For: 8000}}
			}
			b.Run(fmt.Sprintf("%dinputs,tied=%v", inputs, tied), func(b *testing.B) {
				b.ReportAllocs()
				for b.Loop() {
					f, _ := q.Whole()
					b.ReportMetric(float64(f.Depth), "depth")
					b.ReportMetric(float64(f.States), "states")
				}
			})
		}
	}
}
