package formats

import (
	"bytes"
	"encoding/binary"
	"testing"

	"zapbarn/core/stock"
	"zapbarn/core/work"
	"zapbarn/demo"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Read back by hand, after the Standard MIDI File's own layout: header, tracks, times of
// variable length, notes on and off.
func TestMIDIReadsBack(t *testing.T) {
	w := work.Do(demo.Apiary(today), stock.Shop, today)
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
