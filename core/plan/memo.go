package plan

import "sync"

// memo keeps what was worked out for a value, by the value's hash: a plan is
// worked out again at each edit, and most of it stands as it was.
type memo[V any] struct {
	most int // it starts afresh when it holds more
	lock sync.Mutex
	of   map[[32]byte]V
}

// get is what was worked out for a key, or what work now finds.
func (m *memo[V]) get(key [32]byte, work func() V) V {
	m.lock.Lock()
	v, ok := m.of[key]
	m.lock.Unlock()
	if ok {
		return v
	}
	v = work()
	m.lock.Lock()
	defer m.lock.Unlock()
	if m.of == nil || len(m.of) > m.most {
		m.of = map[[32]byte]V{}
	}
	m.of[key] = v
	return v
}
