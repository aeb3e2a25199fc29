// Package memo keeps what was worked out for a value, so that what did not
// change is not worked out again. It holds what was asked for last, within a
// weight: the least recently used goes first, never all at once.
package memo

import (
	"container/list"
	"sync"
)

// Memo keeps values by key. It is safe for use from several goroutines.
type Memo[K comparable, V any] struct {
	most, holds int64
	weigh       func(V) int64
	lock        sync.Mutex
	of          map[K]*list.Element
	used        *list.List // the most recently used in front
}

type entry[K comparable, V any] struct {
	key    K
	value  V
	weight int64
}

// New makes a memo that holds values up to a weight in all, by a weigher that
// says what each weighs (1 each where weigh is nil).
func New[K comparable, V any](most int64, weigh func(V) int64) *Memo[K, V] {
	if weigh == nil {
		weigh = func(V) int64 { return 1 }
	}
	return &Memo[K, V]{most: most, weigh: weigh, of: map[K]*list.Element{}, used: list.New()}
}

// Look returns what is kept for a key.
func (m *Memo[K, V]) Look(key K) (v V, ok bool) {
	m.lock.Lock()
	defer m.lock.Unlock()
	e, ok := m.of[key]
	if !ok {
		return v, false
	}
	m.used.MoveToFront(e)
	return e.Value.(*entry[K, V]).value, true
}

// Keep keeps a value. One heavier than all that may be held is not kept.
func (m *Memo[K, V]) Keep(key K, v V) {
	w := m.weigh(v)
	m.lock.Lock()
	defer m.lock.Unlock()
	if e, ok := m.of[key]; ok {
		m.drop(e)
	}
	if w > m.most {
		return
	}
	m.of[key] = m.used.PushFront(&entry[K, V]{key, v, w})
	for m.holds += w; m.holds > m.most; {
		m.drop(m.used.Back())
	}
}

func (m *Memo[K, V]) drop(e *list.Element) {
	x := e.Value.(*entry[K, V])
	m.used.Remove(e)
	delete(m.of, x.key)
	m.holds -= x.weight
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

// Holds is the weight of all that is kept, and how many.
func (m *Memo[K, V]) Holds() (weight int64, n int) {
	m.lock.Lock()
	defer m.lock.Unlock()
	return m.holds, len(m.of)
}
