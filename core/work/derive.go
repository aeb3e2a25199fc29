package work

import (
	"sync"
	"time"

	"zapbarn/core/plan"
)

// derived are what was worked out of a work so far, each once, by its name.
type derived struct{ of sync.Map }

// deriving is one of them, which may still be under way.
type deriving struct {
	done  chan struct{}
	value any
	read  plan.KindSet // what it was worked out from, all that it rests on included
	ok    bool         // it was not broken off
}

// now is whether it has come to something.
func (d *deriving) now() bool {
	select {
	case <-d.done:
		return d.ok
	default:
		return false
	}
}

// twin is something derived that is worked on in place: another work gets its own.
type twin interface{ Twin() any }

// Derive is what is worked out of this work by a name, once, or taken over from the work it
// came of when nothing changed that it was made from. What work reads of the plan, and of what
// else is derived, is recorded as it runs: it must read through the work it is given, and what
// it returns must read nothing later. Who asks while it is under way waits for it.
func Derive[T any](w *Work, name string, work func(w *Work) T) T {
	for {
		d := &deriving{done: make(chan struct{})}
		if v, known := w.derived.of.LoadOrStore(name, d); known {
			d = v.(*deriving)
		} else {
			w.derive(name, d, func(view *Work) any { return work(view) })
		}
		if <-d.done; d.ok {
			w.Plan.Saw(d.read)
			return d.value.(T)
		}
	}
}

// derive works it out. Broken off, it is as if it had not begun.
func (w *Work) derive(name string, d *deriving, work func(view *Work) any) {
	defer close(d.done)
	defer func() {
		if !d.ok {
			w.derived.of.Delete(name)
		}
	}()
	read := &plan.Reads{}
	d.value = work(w.Recorded(read))
	d.read = read.Close()
	d.ok = true
}

// Recorded is the work with what is read of it recorded there.
func (w *Work) Recorded(read *plan.Reads) *Work {
	view := *w
	view.Plan = w.Plan.Recorded(read)
	view.Plan.Saw(w.shop) // the shop is at hand
	view.numbers = newNumbers()
	return &view
}

// Known is what was derived by a name already; ok is false where it was not.
func Known[T any](w *Work, name string) (value T, ok bool) {
	if v, found := w.derived.of.Load(name); found {
		if d := v.(*deriving); d.now() {
			w.Plan.Saw(d.read)
			return d.value.(T), true
		}
	}
	return value, false
}

// early is what others want derived beside the wiring.
var early []func(w *Work)

// Early says what is wanted of most works and needs no wiring solved: it is worked out beside
// that. For a package's own variables.
func Early(derive func(w *Work)) bool {
	early = append(early, derive)
	return true
}

// early derives that, but not of what is only tried.
func (w *Work) early() {
	if w.Plain || w.taken != nil {
		return
	}
	for _, derive := range early {
		derive(w)
	}
}

// Since is which kinds of element differ from those of a work that was done before; all of
// them where its shop or its day is another, or where it was only tried.
func (w *Work) Since(before *Work) plan.KindSet {
	if before == nil || before.taken != nil || before.Plain || before.Lib.Base() != w.Lib.Base() ||
		before.Today.Format(time.DateOnly) != w.Today.Format(time.DateOnly) {
		return plan.All
	}
	return plan.Changed(before.Plan, w.Plan)
}

// inherit takes over what was derived before from nothing that changed.
func (w *Work) inherit(before *Work, changed plan.KindSet) {
	if before == nil || changed == plan.All {
		return
	}
	before.derived.of.Range(func(name, v any) bool {
		d := v.(*deriving)
		if !d.now() || d.read.Has(changed) {
			return true
		}
		if t, ok := d.value.(twin); ok {
			d = &deriving{done: d.done, value: t.Twin(), read: d.read, ok: true}
		}
		w.derived.of.Store(name, d)
		return true
	})
}
