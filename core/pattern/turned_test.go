package pattern

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"
)

// A panel turned by any angle lies with its box at the origin, as large as it was,
// its holes in it; turned back it is as wide and high as before.
func TestTurnedLiesAtTheOrigin(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		w, h := rapid.Float64Range(50, 900).Draw(t, "w"), rapid.Float64Range(50, 900).Draw(t, "h")
		p := Panel{
			Outline: []Point{{0, 0}, {w, 0}, {w, h}, {0, h}},
			Holes:   [][]Point{{{w * .4, h * .4}, {w * .6, h * .4}, {w * .6, h * .6}, {w * .4, h * .6}}},
		}
		deg := rapid.Float64Range(-180, 180).Draw(t, "deg")
		q := p.Turned(deg)
		lo, hi := extentOf(q.Outline)
		assert.InDelta(t, 0, lo.X, 1e-9)
		assert.InDelta(t, 0, lo.Y, 1e-9)
		sn, cs := math.Sincos(deg * math.Pi / 180)
		assert.InDelta(t, w*math.Abs(cs)+h*math.Abs(sn), hi.X, 1e-6)
		assert.InDelta(t, w*math.Abs(sn)+h*math.Abs(cs), hi.Y, 1e-6)
		assert.InEpsilon(t, p.Area(), q.Area(), 1e-9)
		for _, c := range q.Holes[0] {
			assert.True(t, Inside([][]Point{q.Outline}, c))
		}
		back, end := extentOf(q.Turned(-deg).Outline)
		assert.InDelta(t, w, end.X-back.X, 1e-6)
		assert.InDelta(t, h, end.Y-back.Y, 1e-6)
	})
}
