// Package lanes does independent things side by side.
package lanes

import (
	"sync"
	"sync/atomic"
)

// Do does things 0 to n-1, so many at once as there are lanes, and comes back when all are
// done. Where one ends by a panic, as a watch does whose time is over, none is begun after
// it, and Do panics with the same.
func Do(lanes, n int, do func(i int)) {
	var next atomic.Int64
	var ended atomic.Pointer[any]
	lane := func() {
		defer func() {
			if r := recover(); r != nil {
				ended.CompareAndSwap(nil, &r)
			}
		}()
		for ended.Load() == nil {
			i := int(next.Add(1)) - 1
			if i >= n {
				return
			}
			do(i)
		}
	}
	var all sync.WaitGroup
	for range min(lanes, n) - 1 {
		all.Go(lane)
	}
	lane()
	all.Wait()
	if r := ended.Load(); r != nil {
		panic(*r)
	}
}
