package lanes

import (
	"sync/atomic"
	"testing"

	"github.com/stretchr/testify/assert"
)

// Each is done once, however many lanes there are, and none of nothing.
func TestEachOnce(t *testing.T) {
	for _, lanes := range []int{0, 1, 2, 7, 100} {
		for _, n := range []int{0, 1, 50} {
			did := make([]atomic.Int64, n)
			Do(lanes, n, func(i int) { did[i].Add(1) })
			for i := range did {
				assert.EqualValues(t, 1, did[i].Load(), "%d lanes, %d of %d", lanes, i, n)
			}
		}
	}
}

// What ends one ends them all, and is told.
func TestLanesEndTogether(t *testing.T) {
	var did atomic.Int64
	assert.PanicsWithValue(t, "enough", func() {
		Do(4, 1000, func(i int) {
			if did.Add(1); i == 20 {
				panic("enough")
			}
		})
	})
	assert.Less(t, did.Load(), int64(1000))
}
