package show

import (
	"fmt"
	"math/rand/v2"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// instant is a small machine drawn by seed, of those in which a scene may begin and end in one
// moment: inputs that start, stop and toggle several scenes at once, and beginnings and ends
// of scenes that do; scenes that go on until they are stopped, and that rest.
func instant(seed uint64) (m Machine, own []Promise) {
	r := rand.New(rand.NewPCG(seed, 77))
	pick := func(v ...int) int { return v[r.IntN(len(v))] }
	scenes := 1 + r.IntN(2)
	for i := range scenes {
		m.Scenes = append(m.Scenes, Scene{ID: fmt.Sprint("s", i), Cues: []Cue{lit([]string{"a", "b"}[i], pick(0,
			0, 100),
			pick(100, 200, 400))}})
		if r.IntN(4) == 0 {
			m.Scenes[i].Length = m.Scenes[i].Duration() + 200
		}
	}
	tie := func(input string) {
		m.Triggers = append(m.Triggers, Trigger{ID: fmt.Sprint("t", len(m.Triggers)), Input: input,
			Scene: m.Scenes[r.IntN(scenes)].ID, Latch: []Latch{OneShot, Retrigger, Toggle, Set, Reset}[r.IntN(5)],
			Rest: pick(0, 0, 200, 500, 2000)})
	}
	for i := range 1 + r.IntN(2) {
		id := fmt.Sprint("i", i)
		m.Inputs = append(m.Inputs, Input{ID: id, MinPulse: pick(0, 30), HoldOff: pick(0, 0, 300)})
		for range 1 + r.IntN(3) {
			tie(id)
		}
	}
	for range r.IntN(3) {
		id := fmt.Sprint("e", len(m.Inputs))
		m.Inputs = append(m.Inputs, Input{ID: id, Kind: []Source{Began, Ended}[r.IntN(2)],
			Scene: m.Scenes[r.IntN(scenes)].ID})
		tie(id)
	}
	if r.IntN(4) == 0 {
		m.State = "x"
		t := &m.Triggers[r.IntN(len(m.Triggers))]
		t.While, t.Then = "x", "y"
		u := &m.Triggers[r.IntN(len(m.Triggers))]
		u.Then = "x"
	}
	own = append(own, Promise{ID: "short", Kind: Longest, A: Term{"channel", "a"}, For: pick(250, 450, 1500)})
	if scenes == 2 {
		own = append(own, Promise{ID: "apart", Kind: Never, A: Term{"channel", "a"}, B: Term{"channel", "b"}})
	}
	return m, own
}

// What the search calls exhaustive finds whatever two presses break, tried one by one at every
// tenth of a second: over machines in which scenes begin and end in one moment. 5,000 in make
// slow.
func TestBegunAndEndedInOneMoment(t *testing.T) {
	first, machines, known := uint64(570), uint64(150), 0 // some of which were missed once
	if os.Getenv("ZAPBARN_SLOW") != "" {
		first, machines = 0, 5000
	}
	for seed := first; seed < first+machines; seed++ {
		m, own := instant(seed)
		if m.Check() != nil {
			continue
		}
		f, err := Search{Machine: m, Promises: own, Depth: 2}.Whole()
		require.NoError(t, err)
		require.True(t, f.Exhaustive, "seed %d", seed)
		for id, least := range brute(m, own, 2) {
			known++
			b := f.Of(id)
			if assert.NotNil(t, b, "seed %d: %s is broken by %d events: %+v", seed, id, least, m) {
				assert.LessOrEqual(t, b.Events, least, "seed %d: %s", seed, id)
			}
		}
		for _, b := range f.Broken {
			if b.Promise.Kind == Longest || b.Promise.Kind == Never {
				require.True(t, breaks(m.Run(b.Stimuli, b.At+3000), b.Promise), "seed %d: %v does not break %s",
					seed, b.Steps,
					b.Promise.ID)
			}
		}
	}
	assert.Greater(t, known, int(machines)/4)
}
