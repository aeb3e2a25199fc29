package pattern

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
)

// By hand: a round hole of 40 in a 100 x 60 plate leaves 60/2 - 20 - 6 above it when it
// sits 6 higher than the middle, whatever its corners; a square one turned on its tip
// leaves what is beyond the tip.
func TestStripBesideAHole(t *testing.T) {
	plate := Rect(100, 60)
	got, at := Strip(plate, Circle(50, 36, 40))
	assert.InDelta(t, 4, got, 0.02)
	assert.InDelta(t, 56, at.Y, 0.05)
	got, at = Strip(plate, []Point{{30, 30}, {50, 10}, {70, 30}, {50, 50}})
	assert.InDelta(t, 10, got, 1e-9)
	assert.InDelta(t, 50, at.X, 1e-9)
	// a corner of the outline that points at the middle of a side
	got, at = Strip([]Point{{0, 0}, {100, 0}, {100, 80}, {50, 30}, {0, 80}}, Rect(90, 20))
	assert.InDelta(t, 0, got, 1e-9)
	got, at = Strip(
		[]Point{{0, 0}, {100, 0}, {100, 80}, {50, 30}, {0, 80}},
		[]Point{{20, 5}, {80, 5}, {80, 20}, {20, 20}},
	)
	assert.InDelta(t, 5, got, 1e-9)
	assert.InDelta(t, 5, at.Y, 1e-9)
}

// Against brute force: points in plenty along both rings.
func TestStripAgainstSampling(t *testing.T) {
	along := func(ring []Point) (out []Point) {
		for i, a := range ring {
			b := ring[(i+1)%len(ring)]
			for k := range 400 {
				f := float64(k) / 400
				out = append(out, Point{a.X + f*(b.X-a.X), a.Y + f*(b.Y-a.Y)})
			}
		}
		return out
	}
	rng := rand.New(rand.NewPCG(5, 8))
	for range 40 {
		x, y, w := 20+60*rng.Float64(), 20+60*rng.Float64(), 5+12*rng.Float64()
		turn := rng.Float64() * math.Pi
		var hole []Point
		for k := range 4 {
			s, c := math.Sincos(turn + float64(k)*math.Pi/2)
			hole = append(hole, Point{x + w*c, y + w*s})
		}
		outline := []Point{{0, 0}, {100, -3}, {104, 99}, {-2, 101}}
		best := math.Inf(1)
		for _, p := range along(outline) {
			for _, q := range along(hole) {
				best = math.Min(best, math.Hypot(p.X-q.X, p.Y-q.Y))
			}
		}
		got, _ := Strip(outline, hole)
		assert.InDelta(t, best, got, 0.2)
		assert.LessOrEqual(t, got, best+1e-9)
	}
}
