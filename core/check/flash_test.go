package check

import (
	"math"
	"testing"

	"zapbarn/core/measure"
	"zapbarn/core/plan"

	"github.com/stretchr/testify/assert"
)

// A prop that fills less than a quarter of ten degrees of what guests see flashes unheard of:
// WCAG's 341 by 256 of 1024 by 768 pixels is that quarter, 0.006 of the square of the distance.
func TestFlashesFarOffAreNoFlashes(t *testing.T) {
	assert.InDelta(t, .006, flashSight, .0005)
	said := func(near string) bool {
		p := clean()
		setOut(func(p *plan.Plan) {
			p.Scenes()[0].Cues[0].Shape = "strobe"
			y := measure.Len("20 ft").Value() - measure.Len(near).Value()
			p.Plots()[0].Y = measure.OnTape(y, false)
		})(p)
		return find(snags(t, p), "flashes", "") != nil
	}
	// 3 ft by 4 ft count to sqrt(12 sq ft / 0.006), 44.7 ft
	assert.InDelta(t, 44.7, math.Sqrt(12/flashSight), 1)
	assert.True(t, said("14 ft"))
	assert.False(t, said("80 ft"))
}
