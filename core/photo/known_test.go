package photo

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// A line in a picture of a prop is a metre or ten, a house's front at most: up to 100 m is taken.
func TestAKnownLineIsNoRoad(t *testing.T) {
	_, err := ByLine(Spot{0, 0}, Spot{100, 0}, 100_000, false)
	assert.NoError(t, err)
	for _, known := range []float64{0, -1, 100_001, 1e9} {
		_, err = ByLine(Spot{0, 0}, Spot{100, 0}, known, false)
		assert.ErrorContains(t, err, "known", "%g", known)
	}
	_, err = ByLine(Spot{0, 0}, Spot{4.9, 0}, 1000, false)
	assert.ErrorContains(t, err, "further apart")
}
