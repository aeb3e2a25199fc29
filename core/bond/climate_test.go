package bond

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// Waits stretch at most six times and shrink to half (from memory); in
// between they follow the air: at 12 C and 85 % the deficit is
// 6.1094 exp(17.625 x 12 / 255.04) x 0.15 = 2.10 hPa against 12.43 at 21 C, 50 %.
func TestDryingIsBounded(t *testing.T) {
	assert.Equal(t, 6., DryFactor(10, 99))
	assert.Equal(t, 6., DryFactor(5, 100))
	assert.Equal(t, .5, DryFactor(40, 10))
	assert.InEpsilon(t, 12.43/2.10, DryFactor(12, 85), .005)
	assert.InDelta(t, 1, DryFactor(21, 50), 1e-9)
}
