// Package memo remembers what was worked out from a value, so that the like is not worked out
// again. What is remembered belongs to a Bench, which the caller makes and closes.
package memo

import (
	"sync"

	"github.com/jellydator/ttlcache/v3"
)

// Bench is what somebody remembers: caches by their names. It is safe for use from several
// goroutines; the nil Bench remembers nothing.
type Bench struct {
	lock   sync.RWMutex
	caches map[string]interface{ Forget() }
}

// NewBench remembers nothing yet.
func NewBench() *Bench { return &Bench{caches: map[string]interface{ Forget() }{}} }

// Close forgets all.
func (b *Bench) Close() {
	b.lock.Lock()
	defer b.lock.Unlock()
	for _, c := range b.caches {
		c.Forget()
	}
	clear(b.caches)
}

// At is the bench's cache of a name, made when it is first asked for: it holds values up to a
// weight in all, by a weigher that says what each weighs (1 each where weigh is nil). A name
// has one type of key and value.
func At[K comparable, V any](b *Bench, name string, most int64, weigh func(V) int64) *Memo[K, V] {
	if b == nil {
		return nil
	}
	b.lock.RLock()
	c, ok := b.caches[name]
	b.lock.RUnlock()
	if ok {
		return c.(*Memo[K, V])
	}
	b.lock.Lock()
	defer b.lock.Unlock()
	if c, ok := b.caches[name]; ok {
		return c.(*Memo[K, V])
	}
	m := New[K](most, weigh)
	b.caches[name] = m
	return m
}

// Memo keeps values by key, the most recently used, within a weight in all. The nil Memo
// keeps nothing.
type Memo[K comparable, V any] struct {
	most  int64
	weigh func(V) int64
	cache *ttlcache.Cache[K, V]
}

// New makes a memo that holds values up to a weight in all, as At does.
func New[K comparable, V any](most int64, weigh func(V) int64) *Memo[K, V] {
	if weigh == nil {
		weigh = func(V) int64 { return 1 }
	}
	cost := func(x ttlcache.CostItem[K, V]) uint64 { return uint64(max(1, weigh(x.Value))) }
	return &Memo[K, V]{most, weigh, ttlcache.New(ttlcache.WithMaxCost(uint64(most), cost))}
}

// Look returns what is kept for a key.
func (m *Memo[K, V]) Look(key K) (v V, ok bool) {
	if m == nil {
		return v, false
	}
	if x := m.cache.Get(key); x != nil {
		return x.Value(), true
	}
	return v, false
}

// Keep keeps a value. One heavier than all that may be held is not kept.
func (m *Memo[K, V]) Keep(key K, v V) {
	if m == nil {
		return
	}
	if m.weigh(v) > m.most {
		m.cache.Delete(key)
		return
	}
	m.cache.Set(key, v, ttlcache.NoTTL)
}

// Get is what is kept for a key, or what work now finds, which is then kept.
func (m *Memo[K, V]) Get(key K, work func() V) V {
	if v, ok := m.Look(key); ok {
		return v
	}
	v := work()
	m.Keep(key, v)
	return v
}

// Forget forgets all.
func (m *Memo[K, V]) Forget() { m.cache.DeleteAll() }

// Holds is the weight of all that is kept, and how many.
func (m *Memo[K, V]) Holds() (weight int64, n int) {
	for _, x := range m.cache.Items() {
		weight, n = weight+m.weigh(x.Value()), n+1
	}
	return weight, n
}
