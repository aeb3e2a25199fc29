package nest

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The last cut of a bar needs no kerf behind it: two of 50 and a blade of 3 are 103 long. What is
// left over has lost the blade that parts it.
func TestKerfAtABarsEnd(t *testing.T) {
	c := Lengths([]float64{50, 50}, 103, 3)
	require.Len(t, c.Bars, 1)
	assert.Zero(t, c.Bars[0].Left)
	assert.True(t, c.Proven)
	c = Lengths([]float64{50, 50}, 102.9, 3)
	assert.Len(t, c.Bars, 2)
	assert.True(t, c.Proven, "two of more than half a bar each")
	c = Lengths([]float64{50}, 103, 3)
	require.Len(t, c.Bars, 1)
	assert.InDelta(t, 50, c.Bars[0].Left, 1e-9, "103 less 50 less the cut of 3")
	assert.Len(t, Lengths([]float64{103}, 103, 3).Bars, 1, "as long as the bar: no cut at all")
	assert.Equal(t, []float64{103.1}, Lengths([]float64{103.1}, 103, 3).TooLong)
}
