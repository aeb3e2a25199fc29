package work

import "sync"

// derived are what others have worked out of a work, each once.
type derived struct {
	lock sync.Mutex
	of   map[string]*deriving
}

// deriving is one of them, which may still be under way.
type deriving struct {
	done chan struct{}
	v    any
	ok   bool // it was not broken off
}

// now is what it came to, if it has.
func (d *deriving) now() (any, bool) {
	select {
	case <-d.done:
		return d.v, d.ok
	default:
		return nil, false
	}
}

// standing are the kinds of element that what is derived stands on, by its name.
var standing = map[string][]string{}

// StandsOn says which kinds of element a thing that is derived stands on, besides the
// display: while they are as they were, so is it. For a package's own variables.
func StandsOn(name string, kinds ...string) string {
	standing[name] = kinds
	return name
}

// early are what others derive of parts, joints and coats alone.
var early []func(w *Work)

// Early says what is derived of parts, joints and coats alone, and of the plan, and wanted
// of most works: it is done while sheets are laid and the wiring is solved, of which it may
// read nothing. For a package's own variables.
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

// Derive is what is worked out of this work by a name, once, or taken over from the work
// it came of where that still stands. Who asks while it is under way waits for it.
func (w *Work) Derive(name string, make func() any) any {
	for {
		d, mine := w.deriving(name)
		if mine {
			w.derive(name, d, make)
		}
		if <-d.done; d.ok {
			return d.v
		}
	}
}

// deriving is what is derived by a name, and whether it is to be worked out here.
func (w *Work) deriving(name string) (d *deriving, mine bool) {
	w.derived.lock.Lock()
	defer w.derived.lock.Unlock()
	if d = w.derived.of[name]; d == nil {
		d, mine = &deriving{done: make(chan struct{})}, true
		w.derived.keep(name, d)
	}
	return d, mine
}

// derive works it out; it may derive others. Broken off, it is as if it had not begun.
func (w *Work) derive(name string, d *deriving, make func() any) {
	defer close(d.done)
	defer func() {
		if !d.ok {
			w.derived.lock.Lock()
			delete(w.derived.of, name)
			w.derived.lock.Unlock()
		}
	}()
	d.v = make()
	d.ok = true
}

// keep keeps what is derived by a name; its lock is held.
func (x *derived) keep(name string, d *deriving) {
	if x.of == nil {
		x.of = map[string]*deriving{}
	}
	x.of[name] = d
}

// derivedAs is what was worked out by a name already, or nil.
func (w *Work) derivedAs(name string) any {
	w.derived.lock.Lock()
	defer w.derived.lock.Unlock()
	if d := w.derived.of[name]; d != nil {
		v, _ := d.now()
		return v
	}
	return nil
}

// inherit takes over what was derived before and stands on nothing that changed.
func (w *Work) inherit(before *Work, changed func(kind string) bool) {
	if before == nil || before == w || changed("display") || before.Plan.Display.Opens != w.Plan.Display.Opens {
		return
	}
	before.derived.lock.Lock()
	defer before.derived.lock.Unlock()
	for name, d := range before.derived.of {
		_, stands := d.now()
		for _, kind := range standing[name] {
			stands = stands && !changed(kind)
		}
		if !stands {
			continue
		}
		w.derived.keep(name, d)
	}
}
