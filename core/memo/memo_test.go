package memo

import (
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestTheLeastUsedGoesFirst(t *testing.T) {
	m := New[string](10, func(v int) int64 { return int64(v) })
	for _, k := range []string{"a", "b", "c"} {
		m.Keep(k, 3)
	}
	_, ok := m.Look("a") // used again
	assert.True(t, ok)
	m.Keep("d", 4)
	_, b := m.Look("b")
	_, a := m.Look("a")
	assert.False(t, b, "the one not asked for longest gave way")
	assert.True(t, a)
	w, n := m.Holds()
	assert.EqualValues(t, 10, w)
	assert.Equal(t, 3, n)
	m.Keep("huge", 11)
	_, ok = m.Look("huge")
	assert.False(t, ok, "what is heavier than all is not kept")
	m.Keep("a", 1) // kept again, lighter
	w, n = m.Holds()
	assert.EqualValues(t, 8, w)
	assert.Equal(t, 3, n)
}

func TestWorkedOutOnce(t *testing.T) {
	m, n := New[int, int](5, nil), 0
	work := func() int { n++; return 7 }
	assert.Equal(t, 7, m.Get(1, work))
	assert.Equal(t, 7, m.Get(1, work))
	assert.Equal(t, 1, n)
	var wg sync.WaitGroup
	for i := range 50 {
		wg.Go(func() { m.Get(i%8, func() int { return i }) })
	}
	wg.Wait()
	w, k := m.Holds()
	assert.LessOrEqual(t, k, 5)
	assert.EqualValues(t, k, w)
}
