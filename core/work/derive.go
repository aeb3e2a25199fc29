package work

import "sync"

// derived are what others have worked out of a work, each once.
type derived struct {
	lock sync.Mutex
	of   map[string]any
}

// standing are the kinds of element that what is derived stands on, by its name.
var standing = map[string][]string{}

// StandsOn says which kinds of element a thing that is derived stands on, besides the
// display: while they are as they were, so is it. For a package's own variables.
func StandsOn(name string, kinds ...string) string {
	standing[name] = kinds
	return name
}

// Derive is what is worked out of this work by a name, once, or taken over from the work
// it came of where that still stands.
func (w *Work) Derive(name string, make func() any) any {
	w.derived.lock.Lock()
	v, ok := w.derived.of[name]
	w.derived.lock.Unlock()
	if ok {
		return v
	}
	v = make() // it may derive others: nothing is held meanwhile
	w.derived.lock.Lock()
	defer w.derived.lock.Unlock()
	if first, ok := w.derived.of[name]; ok {
		return first
	}
	if w.derived.of == nil {
		w.derived.of = map[string]any{}
	}
	w.derived.of[name] = v
	return v
}

// derivedAs is what was worked out by a name already, or nil.
func (w *Work) derivedAs(name string) any {
	w.derived.lock.Lock()
	defer w.derived.lock.Unlock()
	return w.derived.of[name]
}

// inherit takes over what was derived before and stands on nothing that changed.
func (w *Work) inherit(before *Work, changed func(kind string) bool) {
	if before == nil || before == w || changed("display") || before.Plan.Display.Opens != w.Plan.Display.Opens {
		return
	}
	before.derived.lock.Lock()
	defer before.derived.lock.Unlock()
	for name, v := range before.derived.of {
		stands := true
		for _, kind := range standing[name] {
			stands = stands && !changed(kind)
		}
		if !stands {
			continue
		}
		if w.derived.of == nil {
			w.derived.of = map[string]any{}
		}
		w.derived.of[name] = v
	}
}
