package work_test

import (
	"testing"

	"zapbarn/core/wiring"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The same seed hides the same fault; levels keep to their kinds; all lamps
// and readings tell the truth within the meter's error.
func TestDrills(t *testing.T) {
	p := healthy(t)
	kinds := map[int]map[string]bool{1: {}, 2: {}, 3: {}}
	best := 0
	for seed := range uint64(14) {
		for level := 1; level <= 3; level++ {
			d, err := wiring.NewDrill(p.Wiring(shop.Kept), "S1", level, seed)
			require.NoError(t, err)
			again, _ := wiring.NewDrill(p.Wiring(shop.Kept), "S1", level, seed)
			g, say := d.Truth()
			g2, _ := again.Truth()
			require.Equal(t, g, g2)
			require.NotEmpty(t, say)
			kinds[level][g[:3]] = true
			groups, says := d.Choices()
			require.Contains(t, groups, g, "the truth can be named")
			require.Len(t, says, len(groups))
			v, ok := d.Measure("W2")
			w, _ := again.Measure("W2")
			require.True(t, ok)
			require.Equal(t, v, w)
			if level == 2 && seed < 10 {
				best += d.Best()
			}
		}
	}
	assert.NotContains(t, kinds[1], "bad")
	assert.NotContains(t, kinds[1], "ope")
	assert.NotContains(t, kinds[2], "bad")
	assert.Contains(t, kinds[3], "bad")
	assert.LessOrEqual(t, best, 30, "about three readings a fault at the most")
	_, err := wiring.NewDrill(p.Wiring(shop.Kept), "S1", 4, 1)
	assert.ErrorContains(t, err, "choose 1, 2 or 3")
	_, err = wiring.NewDrill(p.Wiring(shop.Kept), "K1", 1, 1)
	assert.ErrorContains(t, err, "no supply")
}

func TestScore(t *testing.T) {
	assert.Equal(t, 100, wiring.Score(true, 2, 2))
	assert.Equal(t, 100, wiring.Score(true, 1, 2), "luck is no fault")
	assert.Equal(t, 50, wiring.Score(true, 5, 2))
	assert.Equal(t, 0, wiring.Score(false, 0, 2))
}
