package web

import (
	"context"
	"errors"
	"log/slog"
	"runtime"
	"time"

	"golang.org/x/sync/singleflight"

	"zapbarn/core/check"
	"zapbarn/core/memo"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/store"
)

// workTime is how long working out one plan may take; past it the plan opens
// in a plain view.
const workTime = 10 * time.Second

// mendTime is how long a page may try the mends of the snags it shows, when it is asked
// for them; firstMends how long before it answers at all: not, what is known is shown and
// the page asks for the rest by itself (web/static/page/mends.js).
const mendTime, firstMends = 2 * time.Second, 0

// heldBytes bounds what is kept of plans worked out, and pageBytes of pages.
const heldBytes, pageBytes = 256 << 20, 48 << 20

// largePlan is from how many elements on a plan waits for other large ones
// rather than for a core: it slows only its like.
const largePlan = 800

// worked is a plan worked out, or why it could not be.
type worked struct {
	at    revision
	plan  *plan.Plan
	work  *work.Work
	found *check.Found // the snags, their mends untried; nil where it is heavy
	mends *check.Prover
	heavy *work.TooHeavy
}

// snags are those that were found.
func (w worked) snags() []check.Snag {
	if w.found == nil {
		return nil
	}
	return w.found.Snags
}

// weight is about what it holds, in bytes: measured on the demo and on plans
// of twenty times its size (work_test.go).
func (w worked) weight() int64 {
	n := int64(64 << 10)
	if w.work != nil {
		n += int64(w.work.Results().Len())*1600 + int64(len(w.snags()))*9000 // with what their mends are tried on
		for _, s := range w.work.Shapes() {
			for _, b := range s.Bodies {
				n += int64(len(b.Faces)) * 250
			}
		}
	}
	return n + int64(len(w.plan.Devices()))*1200
}

// worst is the worst snag in words, for the list of displays.
func (w worked) worst() string {
	if w.heavy != nil {
		return "stop: " + w.heavy.Error()
	}
	for _, sn := range w.snags() {
		if sn.Waived == nil {
			return sn.Level.String() + ": " + sn.Title
		}
	}
	return "no snags"
}

// moment names a state of a plan: which, at what revision, on what day.
type revision struct {
	id      string
	version store.Version
	day     string
}

// works works plans out: each once, few at a time, what was asked for last
// kept.
type works struct {
	held  *memo.Memo[string, worked] // by display, as it was worked out last
	under singleflight.Group         // by display
	slots chan struct{}
	large chan struct{}
}

func newWorks() *works {
	return &works{
		held:  memo.New[string](heldBytes, worked.weight),
		slots: make(chan struct{}, max(2, runtime.GOMAXPROCS(0))),
		large: make(chan struct{}, 1),
	}
}

// look is a display as it was worked out at a moment.
func (w *works) look(m revision) (worked, bool) {
	got, ok := w.held.Look(m.id)
	return got, ok && got.at == m
}

// at is the moment a plan is at now.
func (s *Server) at(ctx context.Context, id string) (revision, error) {
	v, err := s.store.Version(ctx, id)
	return revision{id, v, s.now().Format(time.DateOnly)}, err
}

// worked is the plan worked out as it stands.
func (s *Server) worked(ctx context.Context, id string) (worked, revision, error) {
	for {
		m, err := s.at(ctx, id)
		if err != nil {
			return worked{}, m, err
		}
		if got, ok := s.works.look(m); ok {
			return got, m, nil
		}
		working := s.works.under.DoChan(id, func() (any, error) { return s.workOut(id) })
		select {
		case r := <-working:
			if r.Err != nil {
				return worked{}, m, r.Err
			}
			if got := r.Val.(worked); got.at == m {
				return got, m, nil
			}
			// it was of a state before this one: look again
		case <-ctx.Done():
			return worked{}, m, ctx.Err()
		}
	}
}

// workOut works a plan out and keeps it: to its end, whoever goes meanwhile, since the next who
// asks wants it too.
func (s *Server) workOut(id string) (got worked, err error) {
	defer func() {
		if r := recover(); r != nil {
			err = logged(r, id)
		}
	}()
	ctx, cancel := context.WithTimeout(context.Background(), 4*s.workTime) // with waiting for its turn
	defer cancel()
	p, v, err := s.store.Load(ctx, id)
	if err != nil {
		return got, err
	}
	lane := s.works.slots
	if p.Count() > largePlan {
		lane = s.works.large
	}
	select {
	case lane <- struct{}{}:
		defer func() { <-lane }()
	case <-ctx.Done():
		return got, ctx.Err()
	}
	now := s.now()
	m := revision{id, v, now.Format(time.DateOnly)}
	ctx, cancel = context.WithTimeout(ctx, s.workTime)
	defer cancel()
	got = worked{at: m, plan: p}
	s.did.solved.Add(1)
	before, _ := s.works.held.Look(id)
	w, err := work.DoFrom(before.work, work.NewWatch(ctx, time.Now), p, s.lib, now)
	if err == nil {
		got.found, err = check.Find(before.found, w)
		w.Watch = nil // it is shared from here on, and stands
	}
	switch heavy, ok := errors.AsType[*work.TooHeavy](err); {
	case ok && errors.Is(ctx.Err(), context.DeadlineExceeded):
		got.found, got.heavy = nil, heavy
		slog.Warn("too heavy", "plan", id, "what", heavy.Error())
	case err != nil:
		return got, err
	default:
		got.work, got.mends = w, check.NewProver(w, got.snags())
	}
	s.works.held.Keep(id, got)
	is := store.Summary{Rev: v.Rev, Day: m.day, Worst: got.worst()}
	return got, s.store.Summarise(context.WithoutCancel(ctx), id, is)
}

// work is the plan worked out; the error is *plan.TooHeavy when it cannot be.
func (s *Server) work(ctx context.Context, id string) (*work.Work, []check.Snag, error) {
	got, _, err := s.worked(ctx, id)
	if err == nil && got.heavy != nil {
		err = got.heavy
	}
	return got.work, got.snags(), err
}
