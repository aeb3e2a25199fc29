package sound

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
)

// NIOSH 98-126's own table: 85 dBA 8 h, 88 4 h, 91 2 h, 94 1 h, 97 30 min, 100 15 min.
func TestExposureTable(t *testing.T) {
	for db, h := range map[float64]float64{85: 8, 88: 4, 91: 2, 94: 1, 97: .5, 100: .25, 82: 16} {
		assert.InDelta(t, h, Bears(db), 1e-9, "%g dBA", db)
	}
}

func TestLevels(t *testing.T) {
	assert.InDelta(t, 86, Fall(92, 2), .021, "6 dB less at twice the distance")
	assert.InDelta(t, 72, Fall(92, 10), 1e-9)
	assert.InDelta(t, 93.01, Together(90, 90), .001, "two alike are 3 dB more")
	assert.InDelta(t, 90.41, Together(90, 80), .01)
	assert.True(t, math.IsInf(Together(), -1))
}

func sine(rate, hz, amp, seconds float64) []float64 {
	out := make([]float64, int(rate*seconds))
	for i := range out {
		out[i] = amp * math.Sin(2*math.Pi*hz*float64(i)/rate)
	}
	return out
}

// ITU-R BS.1770: a sine of 997 Hz at full scale in one channel is -3.01 LKFS, at any rate;
// its coefficients at 48 kHz stand in the standard's tables 1 and 2.
func TestLoudnessOfTheStandard(t *testing.T) {
	for _, rate := range []float64{48000, 44100, 22050} {
		c := Measure([][]float64{sine(rate, 997, 1, 5)}, rate)
		assert.InDelta(t, -3.01, c.Loud, .03, "%g Hz", rate)
		assert.InDelta(t, 0, c.Peak, .001)
		assert.InDelta(t, -3.01, c.RMS, .001)
		assert.InDelta(t, 5, c.Seconds, 1e-9)
	}
	s, h := shelf(48000), highPass(48000)
	for i, want := range []float64{1.53512485958697, -2.69169618940638, 1.19839281085285, -1.69065929318241,
		0.73248077421585} {
		assert.InDelta(t, want, []float64{s.b0, s.b1, s.b2, s.a1, s.a2}[i], 1e-8)
	}
	assert.InDelta(t, -1.99004745483398, h.a1, 1e-8)
	assert.InDelta(t, 0.99007225036621, h.a2, 1e-8)
	two := Measure([][]float64{sine(48000, 997, 1, 3), sine(48000, 997, 1, 3)}, 48000)
	assert.InDelta(t, 0, two.Loud, .03, "two channels add up")
	// silence after the sound is gated out
	quiet := append(sine(48000, 997, .1, 3), make([]float64, 48000*9)...)
	assert.InDelta(t, -23.01, Measure([][]float64{quiet}, 48000).Loud, .4)
	deep := Measure([][]float64{sine(48000, 25, 1, 4)}, 48000)
	assert.Less(t, deep.Loud, -6.0, "a rumble is heard less than it shows")
	assert.True(t, math.IsInf(Measure(nil, 48000).Loud, -1))
	assert.True(t, math.IsInf(Measure([][]float64{make([]float64, 48000)}, 48000).Loud, -1))
}

func TestWave(t *testing.T) {
	c := Measure([][]float64{append(make([]float64, 4800), sine(48000, 440, .5, .1)...)}, 48000)
	assert.Len(t, c.Wave, points)
	assert.Zero(t, c.Wave[10])
	assert.InDelta(t, .5, c.Wave[200], .05)
}

func BenchmarkMeasure(b *testing.B) {
	s := sine(44100, 440, .5, 10)
	b.ReportAllocs()
	for b.Loop() {
		Measure([][]float64{s}, 44100)
	}
}
