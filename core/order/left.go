package order

import (
	"fmt"

	"zapbarn/core/work"
)

// Next is what is to be done first of what a key names: the first part that is left of a
// task done in parts, the other of one that is done with another. It is nil when nothing
// of it is left.
func (o *Order) Next(key string) *Task {
	for n, t := 1, o.by[key]; t != nil; t = o.by[fmt.Sprintf("%s/%d", key, n)] {
		if !t.Done && !t.Out {
			return t
		}
		n++
	}
	return nil
}

// Uncut are the props of which something is still to be cut, by their IDs: as Next tells
// of the whole order, without making it.
func Uncut(w *work.Work) map[string]bool {
	b := begun(w)
	b.each([]kind{cutting})
	b.split()
	b.spoken()
	out := map[string]bool{}
	for i := range w.Plan.Props() {
		if id := w.Plan.Props()[i].ID; b.o.Next("cut:"+id) != nil {
			out[id] = true
		}
	}
	return out
}
