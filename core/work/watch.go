package work

import (
	"context"
	"fmt"
	"sync"
	"time"

	"zapbarn/core/plan"
)

// Watch bounds the working out of a plan: it ends when its context does, and
// then says which element took most. A nil Watch lets it take what it takes.
type Watch struct {
	ctx   context.Context
	now   func() time.Time
	lock  sync.Mutex // rules are asked side by side
	at    mark
	since time.Time
	spent map[mark]time.Duration
}

// mark is what is being worked on.
type mark struct{ kind, id string }

// NewWatch watches with a context that ends in time; now is the clock.
func NewWatch(ctx context.Context, now func() time.Time) *Watch {
	return &Watch{ctx: ctx, now: now, since: now(), spent: map[mark]time.Duration{}}
}

// tooLong ends the working out from wherever it is; Watched takes it in.
type tooLong struct{}

// At says that an element, by its kind and ID, is worked on from here on.
func (w *Watch) At(kind, id string) {
	if w == nil {
		return
	}
	w.lock.Lock()
	defer w.lock.Unlock()
	now := w.now()
	w.spent[w.at] += now.Sub(w.since)
	w.at, w.since = mark{kind, id}, now
	if w.ctx.Err() != nil {
		panic(tooLong{})
	}
}

// Go goes on with what is worked on, if there is time.
func (w *Watch) Go() {
	if w != nil {
		w.lock.Lock()
		at := w.at
		w.lock.Unlock()
		w.At(at.kind, at.id)
	}
}

// Watched runs work; the error is *TooHeavy when its time ran out.
func (w *Watch) Watched(p *plan.Plan, work func()) (err error) {
	if w == nil {
		work()
		return nil
	}
	defer func() {
		switch r := recover().(type) {
		case nil:
		case tooLong:
			err = w.heavy(p)
		default:
			panic(r)
		}
	}()
	w.Go()
	work()
	return nil
}

// heavy is the element most time was spent on.
func (w *Watch) heavy(p *plan.Plan) error {
	var worst mark
	most, all := time.Duration(-1), time.Duration(0)
	for m, d := range w.spent {
		all += d
		if d > most && m.id != "" || d == most && m.id < worst.id {
			worst, most = m, d
		}
	}
	h := &TooHeavy{Kind: worst.kind, ID: worst.id, Spent: max(0, most), After: all}
	if v, _ := p.Get(worst.kind, worst.id); v != nil {
		h.Name = plan.NameOf(v)
	}
	return h
}

// TooHeavy says that a plan could not be worked out in its time, and on which
// element most of that went.
type TooHeavy struct {
	Kind, ID, Name string
	Spent, After   time.Duration
}

func (h *TooHeavy) Error() string {
	if h.Name == "" {
		return fmt.Sprintf("this plan takes longer than %.0f s to work out", h.After.Seconds())
	}
	return fmt.Sprintf(
		"this plan takes longer than %.0f s to work out; %.1f s of it went into %s %s",
		h.After.Seconds(),
		h.Spent.Seconds(),
		h.Kind,
		h.Name,
	)
}
