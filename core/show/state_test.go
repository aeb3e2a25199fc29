package show

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// states are how a machine of one scene stands at moments after the press that started it:
// the key that tells states apart, and the gates of its input and its trigger.
func states(t *testing.T, latch Latch, own []Promise, ended bool, at ...int) (keys []string, gates [][]int) {
	m := Machine{
		Inputs: []Input{{ID: "i", HoldOff: 800}},
		// on for 500 ms, runs for 2 s, rests for 300 ms more
		Scenes: []Scene{
			{ID: "s", Length: 2000, Cues: []Cue{lit("a", 200, 300)}},
			{ID: "u", Cues: []Cue{lit("b", 0, 100)}},
		},
		Triggers: []Trigger{{ID: "t", Input: "i", Scene: "s", Latch: latch, Rest: 300}},
	}
	if ended {
		m.Inputs = append(m.Inputs, Input{ID: "e", Kind: Ended, Scene: "s"})
		m.Triggers = append(m.Triggers, Trigger{ID: "te", Input: "e", Scene: "u", Latch: OneShot})
	}
	r := &searcher{Search: Search{Machine: m, Promises: own}, p: compile(m)}
	var err error
	r.watch, err = r.p.monitors(own)
	require.NoError(t, err)
	r.gates = r.p.gates(r.watch, false)
	for _, now := range at {
		s := &sim{p: r.p, snapshot: r.p.start(), coarse: true}
		s.play(Press("i", 0, 100), now)
		st := &state{snapshot: s.snapshot, closed: fill(2, never), since: fill(len(r.watch), -1), pressed: true}
		keys, gates = append(keys, r.key(st)), append(gates, r.gatesOf(st))
	}
	return keys, gates
}

// By hand: from 500 ms on nothing more comes of the scene than that it cannot be started
// until 2300 ms; the press holds off others until 800 ms.
func TestGatesOpen(t *testing.T) {
	keys, gates := states(t, OneShot, nil, false, 300, 450, 600, 1200, 2100, 9000)
	assert.NotEqual(t, keys[0], keys[1], "its lamp is on, and for less long")
	for _, k := range keys[3:] {
		assert.Equal(t, keys[2], k)
	}
	assert.NotEqual(t, keys[1], keys[2])
	assert.Equal(t, [][]int{{200, 1700}, {0, 1100}, {0, 200}, {0, 0}}, gates[2:])
	for k := 3; k < len(gates); k++ {
		assert.True(t, above(gates[k], gates[k-1]), "later is more able")
		assert.False(t, above(gates[k-1], gates[k]))
	}
	keys, _ = states(t, Toggle, nil, false, 600, 1200, 1900)
	assert.Len(t, unlike(keys), 3, "a press ends it, so when it plays out still counts")
	keys, _ = states(t, OneShot, []Promise{{ID: "p", Kind: Longest, A: Term{"scene", "s"}}}, false, 600, 1200, 2100)
	assert.Len(t, unlike(keys), 3, "that it runs is promised about")
	keys, _ = states(
		t,
		OneShot,
		[]Promise{{ID: "p", Kind: Never, A: Term{"channel", "a"}, B: Term{"scene", "s"}}},
		false,
		600,
		1200,
		2100,
	)
	assert.Len(t, unlike(keys), 3)
	keys, _ = states(t, OneShot, nil, true, 600, 1200)
	assert.Len(t, unlike(keys), 2, "its end starts something")
}

func unlike(keys []string) map[string]bool {
	out := map[string]bool{}
	for _, k := range keys {
		out[k] = true
	}
	return out
}
