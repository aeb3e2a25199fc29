package formats

import (
	"bytes"
	"encoding/binary"
	"testing"

	"zapbarn/core/show"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// Read back by hand, after the Standard MIDI File's own layout: header, tracks, times of
// variable length, notes on and off.
func TestMIDIReadsBack(t *testing.T) {
	w := work.Do(demo.Apiary(today), shop.Kept, today)
	var b bytes.Buffer
	require.NoError(t, MIDI(&b, w, "keeper"))
	raw := b.Bytes()
	assert.Equal(t, "MThd", string(raw[:4]))
	assert.Equal(t, []byte{0, 0, 0, 6, 0, 1, 0, 2}, raw[4:12], "several tracks in one time: the head and one scene")
	assert.Equal(t, uint16(500), binary.BigEndian.Uint16(raw[12:]))
	tracks := raw[14:]
	var notes [][4]int // at, on or off, key, how loud
	for n := 0; len(tracks) > 0; n++ {
		require.Equal(t, "MTrk", string(tracks[:4]))
		long := int(binary.BigEndian.Uint32(tracks[4:]))
		body := tracks[8 : 8+long]
		tracks = tracks[8+long:]
		at, status := 0, byte(0)
		for len(body) > 0 {
			delta := 0
			for more := true; more; body = body[1:] {
				delta, more = delta<<7|int(body[0]&0x7f), body[0]&0x80 != 0
			}
			at += delta
			if body[0] == 0xff {
				if body[1] == 0x51 {
					assert.Equal(t, []byte{3, 0x07, 0xa1, 0x20}, body[2:6], "500,000 microseconds a beat")
				}
				body = body[3+int(body[2]):]
				continue
			}
			if body[0]&0x80 != 0 {
				status, body = body[0], body[1:]
			}
			require.Contains(t, []byte{0x90, 0x80}, status&0xf0)
			on := 0
			if status&0xf0 == 0x90 && body[1] > 0 {
				on = 1
			}
			notes = append(notes, [4]int{at, on, int(body[0]), int(body[1])})
			body = body[2:]
		}
	}
	// arm up, arm down, fog, glow are notes 36 to 39, in the plan's order
	assert.Equal(t, [][4]int{{0, 1, 36, 127}, {0, 1, 39, 88}, {1200, 1, 38, 127}, {2000, 0, 36, 0}, {4200, 0, 38, 0},
		{7000, 1, 37, 127}, {8200, 0, 37, 0}, {9000, 0, 39, 0}}, notes)
	assert.ErrorContains(t, MIDI(&b, w, "skep"), "no scenes yet")
}

// Of one output never two notes at once: over random cues, at every moment the note that
// sounds is as loud as the loudest cue there, and a note begins where a cue does that none goes
// before.
func TestNotesDoNotOverlap(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var cues []show.Cue
		for range rapid.IntRange(1, 8).Draw(t, "cues") {
			cues = append(cues, show.Cue{Start: rapid.IntRange(0, 50).Draw(t, "start"), Length: rapid.IntRange(1,
				30).Draw(t, "long"),
				Level: rapid.SampledFrom([]int{30, 70, 100}).Draw(t, "level")})
		}
		notes := sounding(cues)
		for i := 1; i < len(notes); i++ {
			require.LessOrEqual(t, notes[i-1].Start+notes[i-1].Length, notes[i].Start)
		}
		at := func(list []show.Cue, ms int) (level int) {
			for _, q := range list {
				if q.Start <= ms && ms < q.Start+q.Length {
					level = max(level, q.Level)
				}
			}
			return level
		}
		for ms := range 90 {
			require.Equal(t, at(cues, ms), at(notes, ms), "at %d of %v", ms, cues)
		}
	})
	// one after the other without a gap are two: a switch that is worked twice
	assert.Len(t, sounding([]show.Cue{{Start: 0, Length: 10, Level: 100}, {Start: 10, Length: 10, Level: 100}}), 2)
	assert.Len(t, sounding([]show.Cue{{Start: 0, Length: 10, Level: 100}, {Start: 5, Length: 10, Level: 100}}), 1)
}
