package shell

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

// Worked is a plan worked out, or why it could not be.
type Worked struct {
	at    revision
	Plan  *plan.Plan
	Work  *work.Work
	found *check.Found // the snags, their mends untried; nil where it is heavy
	mends *check.Prover
	heavy *work.TooHeavy
}

// snags are those that were found.
func (w Worked) snags() []check.Snag {
	if w.found == nil {
		return nil
	}
	return w.found.Snags
}

// Weight is about what it holds, in bytes: measured on the demo and on plans
// of twenty times its size (work_test.go).
func (w Worked) Weight() int64 {
	n := int64(64 << 10)
	if w.Work != nil {
		n += int64(w.Work.Results().Len())*1600 + int64(len(w.snags()))*9000 // with what their mends are tried on
		for _, s := range w.Work.Shapes() {
			for _, b := range s.Bodies {
				n += int64(len(b.Faces)) * 250
			}
		}
	}
	return n + int64(len(w.Plan.Devices()))*1200
}

// Worst is the worst snag in words, for the list of displays.
func (w Worked) Worst() string {
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
	Version store.Version
	Day     string
}

// works works plans out: each once, few at a time, what was asked for last
// kept.
type works struct {
	held  *memo.Memo[string, Worked] // by display, as it was worked out last
	under singleflight.Group         // by display
	slots chan struct{}
	large chan struct{}
}

func newWorks() *works {
	return &works{
		held:  memo.New[string](heldBytes, Worked.Weight),
		slots: make(chan struct{}, max(2, runtime.GOMAXPROCS(0))),
		large: make(chan struct{}, 1),
	}
}

// look is a display as it was worked out at a moment.
func (w *works) look(m revision) (Worked, bool) {
	got, ok := w.held.Look(m.id)
	return got, ok && got.at == m
}

// at is the moment a plan is at now.
func (s *Site) at(ctx context.Context, id string) (revision, error) {
	v, err := s.Store.Version(ctx, id)
	return revision{id, v, s.Now().Format(time.DateOnly)}, err
}

// Worked is the plan worked out as it stands.
func (s *Site) Worked(ctx context.Context, id string) (Worked, revision, error) {
	for {
		m, err := s.at(ctx, id)
		if err != nil {
			return Worked{}, m, err
		}
		if got, ok := s.works.look(m); ok {
			return got, m, nil
		}
		working := s.works.under.DoChan(id, func() (any, error) { return s.workOut(id) })
		select {
		case r := <-working:
			if r.Err != nil {
				return Worked{}, m, r.Err
			}
			if got := r.Val.(Worked); got.at == m {
				return got, m, nil
			}
			// it was of a state before this one: look again
		case <-ctx.Done():
			return Worked{}, m, ctx.Err()
		}
	}
}

// workOut works a plan out and keeps it: to its end, whoever goes meanwhile, since the next who
// asks wants it too.
func (s *Site) workOut(id string) (got Worked, err error) {
	defer func() {
		if r := recover(); r != nil {
			err = logged(r, id)
		}
	}()
	ctx, cancel := context.WithTimeout(context.Background(), 4*s.WorkTime) // with waiting for its turn
	defer cancel()
	p, v, err := s.Store.Load(ctx, id)
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
	now := s.Now()
	m := revision{id, v, now.Format(time.DateOnly)}
	ctx, cancel = context.WithTimeout(ctx, s.WorkTime)
	defer cancel()
	got = Worked{at: m, Plan: p}
	s.Did.Solved.Add(1)
	before, _ := s.works.held.Look(id)
	w, err := work.DoFrom(before.Work, work.NewWatch(ctx, time.Now), p, s.Lib, now)
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
		got.Work, got.mends = w, check.NewProver(w, got.snags())
	}
	s.works.held.Keep(id, got)
	is := store.Summary{Rev: v.Rev, Day: m.Day, Worst: got.Worst()}
	return got, s.Store.Summarise(context.WithoutCancel(ctx), id, is)
}

// Work is the plan worked out; the error is *plan.TooHeavy when it cannot be.
func (s *Site) Work(ctx context.Context, id string) (*work.Work, []check.Snag, error) {
	got, _, err := s.Worked(ctx, id)
	if err == nil && got.heavy != nil {
		err = got.heavy
	}
	return got.Work, got.snags(), err
}
