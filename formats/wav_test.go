package formats

import (
	"bytes"
	"context"
	"encoding/binary"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// wavOf is a sine as a WAV file has it, by hand: RIFF, fmt, data.
func wavOf(bits, channels, rate int, amp float64, seconds float64) []byte {
	n := int(float64(rate) * seconds)
	var data bytes.Buffer
	for i := range n {
		v := amp * math.Sin(2*math.Pi*997*float64(i)/float64(rate))
		for range channels {
			whole := int32(math.Round(v * (math.Pow(2, float64(bits-1)) - 1)))
			if bits == 8 {
				data.WriteByte(byte(whole + 128))
				continue
			}
			var b [4]byte
			binary.LittleEndian.PutUint32(b[:], uint32(whole))
			data.Write(b[:bits/8])
		}
	}
	var out bytes.Buffer
	le := binary.LittleEndian
	put := func(v any) { binary.Write(&out, le, v) }
	out.WriteString("RIFF")
	put(uint32(36 + data.Len()))
	out.WriteString("WAVEfmt ")
	put(uint32(16))
	put(uint16(1))
	put(uint16(channels))
	put(uint32(rate))
	put(uint32(rate * channels * bits / 8))
	put(uint16(channels * bits / 8))
	put(uint16(bits))
	out.WriteString("data")
	put(uint32(data.Len()))
	out.Write(data.Bytes())
	return out.Bytes()
}

func TestWAVIsMeasured(t *testing.T) {
	for _, bits := range []int{8, 16, 24, 32} {
		c, err := WAV(context.Background(), bytes.NewReader(wavOf(bits, 2, 22050, .5, 2)))
		require.NoError(t, err, "%d bit", bits)
		assert.InDelta(t, 2, c.Seconds, .001)
		assert.InDelta(t, -6.02, c.Peak, .2)
		assert.InDelta(t, -9.03, c.RMS, .2)
		assert.InDelta(t, -6.02, c.Loud, .25, "a full sine in two channels is 0")
	}
}

func TestWhatIsNoWAV(t *testing.T) {
	whole := wavOf(16, 1, 8000, .5, .1)
	rapid.Check(t, func(t *rapid.T) {
		b := append([]byte(nil), whole...)
		for range rapid.IntRange(1, 8).Draw(t, "n") {
			b[rapid.IntRange(0, 60).Draw(t, "at")] = rapid.Byte().Draw(t, "is")
		}
		_, _ = WAV(context.Background(), bytes.NewReader(b[:rapid.IntRange(0, len(b)).Draw(t, "cut")])) // it answers
	})
	for _, b := range [][]byte{nil, []byte("hello"), whole[:30]} {
		_, err := WAV(context.Background(), bytes.NewReader(b))
		assert.ErrorContains(t, err, "file")
	}
}
