package pixel

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
)

// The eyes of a 64 by 32 matrix by hand: two discs of radius .46 of 32 rows are dark outside;
// within, an iris of .55 of that less a pupil of .25 is full, the white of the eye .15. The
// pupil stays within the eye; as the lids meet, nothing is lit.
func TestEyes(t *testing.T) {
	const columns, rows = 64, 32
	r := 32 * .46
	sum := 0.0
	for row := range rows {
		for col := range columns {
			v := Eye(col, row, columns, rows, 1000)
			sum += v
			if x := math.Mod(float64(col)+.5, 32) - 16; math.Hypot(x, float64(row)+.5-16) > r {
				assert.Zero(t, v)
			}
			assert.Zero(t, Eye(col, row, columns, rows, 5100), "lids shut, all of 0.1 s into a blink")
		}
	}
	disc := math.Pi * r * r
	want := 2 * disc * (.15*(1-.55*.55) + (.55*.55 - .25*.25))
	assert.InDelta(t, want, sum, .04*want)
	share := EyesShare(Colour{255, 255, 255}, columns, rows)
	assert.InDelta(t, want/(columns*rows), share, .05*share)
	assert.InDelta(t, share/3, EyesShare(Colour{255, 0, 0}, columns, rows), 1e-9)
	assert.Zero(t, EyesShare(Colour{255, 255, 255}, 0, 8))
}
