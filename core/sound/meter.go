package sound

import "math"

// Meter measures a sound as its samples come, keeping none of them but the last 0.4 s: what
// Measure says of a whole.
type Meter struct {
	rate    float64
	frames  int // of the whole, to lay its outline out
	at      int
	peak    float64
	square  float64
	samples int
	wave    []float64
	ears    []ear
	// the powers of blocks of 0.4 s, three quarters over one another
	block, hop int
	ring       []float64 // of the last block, each frame's weighted square
	power      []float64
}

// ear weights a channel as the ear does: a shelf, then a cut.
type ear struct{ shelf, cut filter }

// NewMeter measures so many channels of a sound of so many frames at a rate in Hz.
func NewMeter(channels, frames int, rate float64) *Meter {
	m := &Meter{rate: rate, frames: frames, wave: make([]float64, min(points, frames)), ears: make([]ear, channels)}
	for i := range m.ears {
		m.ears[i] = ear{filter{biquad: shelf(rate)}, filter{biquad: highPass(rate)}}
	}
	m.block = max(1, min(int(0.4*rate), frames))
	m.hop = max(1, m.block/4)
	m.ring = make([]float64, m.block)
	return m
}

// Frame takes the next sample of each channel, -1 to 1.
func (m *Meter) Frame(samples []float64) {
	if m.at >= m.frames {
		return
	}
	k, heard := m.at*len(m.wave)/m.frames, 0.0
	for i, v := range samples {
		a := math.Abs(v)
		m.peak = math.Max(m.peak, a)
		m.wave[k] = math.Max(m.wave[k], a)
		m.square += v * v
		w := m.ears[i].cut.next(m.ears[i].shelf.next(v))
		heard += w * w
	}
	m.samples += len(samples)
	r := m.at % m.block
	m.ring[r] = heard
	m.at++
	if m.at >= m.block && (m.at-m.block)%m.hop == 0 {
		sum := 0.0 // afresh, so that no rounding adds up
		for _, v := range m.ring {
			sum += v
		}
		m.power = append(m.power, sum/float64(m.block))
	}
}

// Clip is what the sound came to.
func (m *Meter) Clip() Clip {
	if m.samples == 0 || m.rate <= 0 {
		return Clip{Peak: math.Inf(-1), RMS: math.Inf(-1), Loud: math.Inf(-1)}
	}
	return Clip{
		Seconds: float64(m.at) / m.rate,
		Peak:    20 * math.Log10(m.peak),
		RMS:     10 * math.Log10(m.square/float64(m.samples)),
		Loud:    gated(m.power),
		Wave:    m.wave,
	}
}

// gated is the integrated loudness of blocks by ITU-R BS.1770: those below -70 LUFS, and
// then those 10 below the mean, left out.
func gated(power []float64) float64 {
	mean := func(gate float64) (float64, int) {
		sum, k := 0.0, 0
		for _, p := range power {
			if -0.691+10*math.Log10(p) > gate {
				sum, k = sum+p, k+1
			}
		}
		return sum / math.Max(1, float64(k)), k
	}
	m, k := mean(-70)
	if k == 0 {
		return math.Inf(-1)
	}
	m, k = mean(-0.691 + 10*math.Log10(m) - 10)
	if k == 0 {
		return math.Inf(-1)
	}
	return -0.691 + 10*math.Log10(m)
}

// filter is a biquad with what it remembers.
type filter struct {
	biquad
	x1, x2, y1, y2 float64
}

func (f *filter) next(x float64) float64 {
	y := f.b0*x + f.b1*f.x1 + f.b2*f.x2 - f.a1*f.y1 - f.a2*f.y2
	if math.Abs(y) < 1e-30 { // what dies away would end in numbers that a processor is slow with
		y = 0
	}
	f.x2, f.x1, f.y2, f.y1 = f.x1, x, f.y1, y
	return y
}
