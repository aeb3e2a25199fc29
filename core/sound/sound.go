// Package sound knows how loud things are: how level falls with distance and adds up, how
// long an ear bears it, and what a clip's samples come to.
package sound

import "math"

// Fall is the level in dB at so many metres of what has a level at one metre: 6 dB less
// with each doubling of the distance (inverse square, in the open).
func Fall(at1m, metres float64) float64 { return at1m - 20*math.Log10(math.Max(metres, 0.1)) }

// Together is the level of several that sound at once, dB: their powers add up.
func Together(levels ...float64) float64 {
	power := 0.0
	for _, l := range levels {
		power += math.Pow(10, l/10)
	}
	if power == 0 {
		return math.Inf(-1)
	}
	return 10 * math.Log10(power)
}

// Bears is how many hours a day an ear bears a level in dBA: 8 h at 85, half as long with
// every 3 dB more (NIOSH 98-126).
func Bears(dBA float64) float64 { return 8 / math.Pow(2, (dBA-85)/3) }

// Crowd is how loud guests are themselves, dBA (from memory: lively talk at a metre).
const Crowd = 65

// Over is how many dB a clip should be over the crowd to be heard (common practice, no
// source).
const Over = 10

// Clip is what a piece of sound comes to.
type Clip struct {
	Seconds float64
	Peak    float64 // dB below full scale, of the largest sample
	RMS     float64 // dB below full scale; a sine at full scale has -3.01
	Loud    float64 // LUFS: as it is heard, by ITU-R BS.1770
	Wave    []float64
}

// points is how many a clip's outline has.
const points = 240

// Measure works a clip out from its samples, -1 to 1, one list a channel, all as long, at a
// rate in Hz. Its loudness is that of ITU-R BS.1770: each channel weighted as the ear does (a
// shelf above 1.7 kHz, a cut below 40 Hz), the mean square of blocks of 0.4 s three quarters
// over one another, the quiet ones left out.
func Measure(channels [][]float64, rate float64) Clip {
	if len(channels) == 0 || len(channels[0]) == 0 || rate <= 0 {
		return Clip{Peak: math.Inf(-1), RMS: math.Inf(-1), Loud: math.Inf(-1)}
	}
	m := NewMeter(len(channels), len(channels[0]), rate)
	frame := make([]float64, len(channels))
	for i := range channels[0] {
		for k, ch := range channels {
			frame[k] = ch[i]
		}
		m.Frame(frame)
	}
	return m.Clip()
}

// biquad is a filter of second order.
type biquad struct{ b0, b1, b2, a1, a2 float64 }

// shelf is the first stage of BS.1770's weighting at any rate: 4 dB more above 1.68 kHz
// (its analogue prototype, from memory; at 48 kHz it has the standard's coefficients).
func shelf(rate float64) biquad {
	const f0, gain, q = 1681.974450955533, 3.999843853973347, 0.7071752369554196
	k := math.Tan(math.Pi * f0 / rate)
	vh := math.Pow(10, gain/20)
	vb := math.Pow(vh, 0.4996667741545416)
	a0 := 1 + k/q + k*k
	return biquad{(vh + vb*k/q + k*k) / a0, 2 * (k*k - vh) / a0, (vh - vb*k/q + k*k) / a0, 2 * (k*k - 1) / a0,
		(1 - k/q + k*k) / a0}
}

// highPass is the second stage: below 38 Hz nothing is heard.
func highPass(rate float64) biquad {
	const f0, q = 38.13547087602444, 0.5003270373238773
	k := math.Tan(math.Pi * f0 / rate)
	a0 := 1 + k/q + k*k
	return biquad{1, -2, 1, 2 * (k*k - 1) / a0, (1 - k/q + k*k) / a0}
}
