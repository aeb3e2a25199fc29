package web

import (
	"context"
	"errors"
	"log/slog"
	"runtime"
	"sync"
	"time"

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
	plan  *plan.Plan
	work  *work.Work
	snags []check.Snag // their mends untried
	mends *check.Prover
	heavy *work.TooHeavy
}

// weight is about what it holds, in bytes: measured on the demo and on plans
// of twenty times its size (work_test.go).
func (w worked) weight() int64 {
	n := int64(64 << 10)
	if w.work != nil {
		n += int64(w.work.Results.Len())*1600 + int64(len(w.snags))*9000 // with what their mends are tried on
		for _, s := range w.work.Shapes {
			for _, b := range s.Bodies {
				n += int64(len(b.Faces)) * 250
			}
		}
	}
	return n + int64(len(w.plan.Devices))*1200
}

// worst is the worst snag in words, for the list of displays.
func (w worked) worst() string {
	if w.heavy != nil {
		return "stop: " + w.heavy.Error()
	}
	for _, sn := range w.snags {
		if sn.Waived == nil {
			return sn.Level.String() + ": " + sn.Title
		}
	}
	return "no snags"
}

// moment names a state of a plan: which, at what revision, on what day.
type moment struct {
	id      string
	version store.Version
	day     string
}

// flight is one working out under way; those who want the same wait for it.
// It ends when the last of them has gone.
type flight struct {
	done    chan struct{}
	waiters int
	cancel  context.CancelFunc
	err     error
}

// works works plans out: each once, few at a time, what was asked for last
// kept.
type works struct {
	held  *memo.Memo[moment, worked]
	last  *memo.Memo[string, *check.Found] // by display, to take over from it what an edit left as it was
	lock  sync.Mutex
	under map[string]*flight // by display
	slots chan struct{}
	large chan struct{}
}

func newWorks() *works {
	return &works{
		held: memo.New[moment](heldBytes, worked.weight),
		last: memo.New[string](
			heldBytes/4,
			func(f *check.Found) int64 { return worked{f.Work().Plan, f.Work(), f.Snags, nil, nil}.weight() },
		),
		under: map[string]*flight{},
		slots: make(chan struct{}, max(2, runtime.GOMAXPROCS(0))),
		large: make(chan struct{}, 1),
	}
}

// before is what was found in the display as it was worked out last, or nil.
func (w *works) before(id string) *check.Found {
	b, _ := w.last.Look(id)
	return b
}

// at is the moment a plan is at now.
func (s *Server) at(ctx context.Context, id string) (moment, error) {
	v, err := s.store.Version(ctx, id)
	return moment{id, v, s.now().Format(time.DateOnly)}, err
}

// worked is the plan worked out as it stands.
func (s *Server) worked(ctx context.Context, id string) (worked, moment, error) {
	for {
		m, err := s.at(ctx, id)
		if err != nil {
			return worked{}, m, err
		}
		if got, ok := s.works.held.Look(m); ok {
			return got, m, nil
		}
		f, mine := s.works.join(ctx, id)
		if mine {
			go s.fly(f, id)
		}
		select {
		case <-f.done:
			s.works.leave(f)
			if f.err != nil {
				return worked{}, m, f.err
			}
			// it may have been of a state before this one: look again
		case <-ctx.Done():
			s.works.leave(f)
			return worked{}, m, ctx.Err()
		}
	}
}

// join is the flight of a display, a new one when there is none.
func (w *works) join(ctx context.Context, id string) (f *flight, mine bool) {
	w.lock.Lock()
	defer w.lock.Unlock()
	if f = w.under[id]; f == nil {
		f, mine = &flight{done: make(chan struct{})}, true
		w.under[id] = f
	}
	f.waiters++
	return f, mine
}

func (w *works) leave(f *flight) {
	w.lock.Lock()
	defer w.lock.Unlock()
	if f.waiters--; f.waiters == 0 && f.cancel != nil {
		f.cancel()
	}
}

// fly works a plan out and keeps it.
func (s *Server) fly(f *flight, id string) {
	ctx, cancel := context.WithCancel(context.Background())
	defer cancel()
	s.works.lock.Lock()
	f.cancel = cancel
	gone := f.waiters == 0
	s.works.lock.Unlock()
	defer func() {
		if r := recover(); r != nil {
			f.err = logged(r, id)
		}
		s.works.lock.Lock()
		delete(s.works.under, id)
		s.works.lock.Unlock()
		close(f.done)
	}()
	if gone {
		f.err = context.Canceled
		return
	}
	f.err = s.work1(ctx, id)
}

func (s *Server) work1(ctx context.Context, id string) error {
	p, v, err := s.store.Load(ctx, id)
	if err != nil {
		return err
	}
	lane := s.works.slots
	if p.Count() > largePlan {
		lane = s.works.large
	}
	select {
	case lane <- struct{}{}:
		defer func() { <-lane }()
	case <-ctx.Done():
		return ctx.Err()
	}
	now := s.now()
	m := moment{id, v, now.Format(time.DateOnly)}
	ctx, cancel := context.WithTimeout(ctx, s.workTime)
	defer cancel()
	got := worked{plan: p}
	s.did.solved.Add(1)
	before := s.works.before(id)
	var found *check.Found
	w, err := work.DoFrom(before.Work(), work.NewWatch(ctx, time.Now), p, s.lib, now)
	if err == nil {
		found, err = check.Find(before, w)
		got.snags = found.Snags
		w.Watch = nil // it is shared from here on, and stands
	}
	switch heavy, ok := errors.AsType[*work.TooHeavy](err); {
	case ok && errors.Is(ctx.Err(), context.DeadlineExceeded):
		got.snags, got.heavy = nil, heavy
		slog.Warn("too heavy", "plan", id, "what", heavy.Error())
	case err != nil:
		return context.Cause(ctx) // whoever asked has gone
	default:
		got.work, got.mends = w, check.NewProver(w, got.snags)
		s.works.last.Keep(id, found)
	}
	s.works.held.Keep(m, got)
	return s.store.Summarise(context.WithoutCancel(ctx), id, store.Summary{Rev: v.Rev, Day: m.day, Worst: got.worst()})
}

// work is the plan worked out; the error is *plan.TooHeavy when it cannot be.
func (s *Server) work(ctx context.Context, id string) (*work.Work, []check.Snag, error) {
	got, _, err := s.worked(ctx, id)
	if err == nil && got.heavy != nil {
		err = got.heavy
	}
	return got.work, got.snags, err
}
