package pixel

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func TestColours(t *testing.T) {
	for text, want := range map[string]Colour{"Amber": {255, 120, 0}, "#ff7a00": {255, 122, 0}, "0000ff": {0, 0, 255},
		" warm white ": {255, 180, 100}} {
		c, err := Read(text)
		require.NoError(t, err, text)
		assert.Equal(t, want, c, text)
	}
	for _, text := range []string{"", "mauve", "ff7a0", "ff7a00f", "gg0000"} {
		_, err := Read(text)
		assert.ErrorContains(t, err, "is no colour; write amber, blue", text)
	}
}

// By hand: all white is all of it, pure red a third, amber 375 of 765.
func TestShares(t *testing.T) {
	assert.Equal(t, 1.0, Solid.Share(Colour{255, 255, 255}, 60))
	assert.InDelta(t, 1.0/3, Solid.Share(Colour{255, 0, 0}, 60), 1e-9)
	assert.InDelta(t, 375.0/765, Solid.Share(Colour{255, 120, 0}, 9), 1e-9)
	assert.InDelta(t, 1, Breathe.Share(Colour{255, 255, 255}, 10), .01, "at its height as much as solid")
	// a chase's tail falls evenly: over n/4 pixels their levels add up to some n/8
	assert.InDelta(t, .125, Chase.Share(Colour{255, 255, 255}, 80), .01)
	assert.Less(t, Embers.Share(Colour{255, 120, 0}, 72), .3)
	assert.Less(t, Swarm.Share(Colour{255, 150, 20}, 72), .12)
	assert.Zero(t, Solid.Share(Colour{255, 0, 0}, 0))
}

// Any picture: within its colour, the same each time, never more than solid, and none
// jumps by more than a bee's own step within a fiftieth of a second.
func TestPicturesAreSteady(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := rapid.SampledFrom(Pictures).Draw(t, "picture")
		c := Colour{rapid.Byte().Draw(t, "r"), rapid.Byte().Draw(t, "g"), rapid.Byte().Draw(t, "b")}
		n := rapid.IntRange(1, 200).Draw(t, "n")
		i, ms := rapid.IntRange(0, n-1).Draw(t, "i"), rapid.IntRange(0, 600_000).Draw(t, "ms")
		a := p.At(c, i, n, ms)
		require.Equal(t, a, p.At(c, i, n, ms))
		require.LessOrEqual(t, a.R, c.R)
		require.LessOrEqual(t, a.G, c.G)
		require.LessOrEqual(t, a.B, c.B)
	})
	lit := func(p Picture, ms int) (sum int) {
		for i := range 72 {
			if q := p.At(Colour{255, 255, 255}, i, 72, ms); q.R > 30 {
				sum++
			}
		}
		return sum
	}
	assert.Positive(t, lit(Swarm, 5000))
	assert.Less(t, lit(Swarm, 5000), 30, "a few bright ones")
	first := func(ms int) int {
		for i := range 72 {
			if Chase.At(Colour{255, 255, 255}, i, 72, ms).R == 255 {
				return i
			}
		}
		return -1
	}
	assert.Equal(t, first(0)+10, first(1000), "ten pixels a second")
}

// Worked by hand: 64 x 16 on one bit at 1 MHz is 976.6 Hz, each row a sixteenth of the
// time; four bits take fifteen steps.
func TestMatrix(t *testing.T) {
	m := Matrix{Columns: 64, Rows: 16, Bits: 1, Clock: 1e6, Amps: .01}
	assert.InDelta(t, 976.56, m.Refresh(), .01)
	assert.InDelta(t, .0625, m.Duty(), 1e-9)
	assert.InDelta(t, .64, m.RowAmps(), 1e-9)
	m.Bits = 4
	assert.InDelta(t, 65.1, m.Refresh(), .01)
}

func BenchmarkShare(b *testing.B) {
	b.ReportAllocs()
	for b.Loop() {
		Swarm.Share(Colour{255, 150, 20}, 72)
	}
}
