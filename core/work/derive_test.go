package work

import (
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
)

// What many ask for at once is worked out once; broken off, by whoever asks next.
func TestDerivedOnce(t *testing.T) {
	w := &Work{derived: &derived{}}
	var made atomic.Int64
	var all sync.WaitGroup
	for range 8 {
		all.Go(func() {
			got := w.Derive("deep", func() any {
				return w.Derive("x", func() any {
					time.Sleep(5 * time.Millisecond)
					return made.Add(1)
				})
			})
			assert.EqualValues(t, 1, got)
		})
	}
	all.Wait()
	assert.EqualValues(t, 1, w.derivedAs("x"))
	assert.Nil(t, w.derivedAs("never"))

	assert.Panics(t, func() { w.Derive("late", func() any { panic("over") }) })
	assert.Nil(t, w.derivedAs("late"))
	assert.Equal(t, "now", w.Derive("late", func() any { return "now" }))
}
