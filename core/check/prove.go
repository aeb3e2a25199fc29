package check

import (
	"crypto/sha256"
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"sync"
	"sync/atomic"
	"time"

	"zapbarn/core/calendar"
	"zapbarn/core/measure"
	"zapbarn/core/memo"
	"zapbarn/core/order"
	"zapbarn/core/plan"
	"zapbarn/core/work"
)

// A mend is offered only when it was taken, on a copy: the snag is then gone,
// none new came at fix or stop, nor at the mended snag's own level or above,
// and none that was there got worse in level. So pressing mends, one after the
// other, comes to an end: each makes the list of snags shorter, worst first.
// What a mend promises is read off that copy as well, never guessed.
//
// The copy is the part of the plan that the mend can reach: what hangs on the
// same supplies, or the solids of the same prop with their joints and coats.

type outcome struct {
	ok     bool
	effect string
	label  string
	edit   plan.Edit
}

// Prover tries the mends of one plan's snags, each snag's when it is asked for,
// and keeps what it found. It may be asked from several sides at once.
type Prover struct {
	lock    sync.Mutex
	work    *work.Work
	whole   *trial
	benches map[string]*trial
	near    map[string]portion
	done    map[string][]Mend
	tries   atomic.Int32 // snags in done
}

// portion is a part of the plan by what it must hold, and its name.
type portion struct {
	plan *plan.Plan
	name string
}

// NewProver tries mends of the snags that were found in a worked-out plan.
func NewProver(w *work.Work, snags []Snag) *Prover {
	own := *w // its watch is the prover's
	return &Prover{
		work:    &own,
		whole:   &trial{work: &own, levels: levelsOf(snags)},
		benches: map[string]*trial{},
		near:    map[string]portion{},
		done:    map[string][]Mend{},
	}
}

// Known are a snag's mends that cure, where they were tried already.
func (p *Prover) Known(s Snag) ([]Mend, bool) {
	p.lock.Lock()
	defer p.lock.Unlock()
	kept, ok := p.done[s.ID()]
	return kept, ok || len(s.Mends) == 0
}

// Tried is of how many snags the mends were tried.
func (p *Prover) Tried() int { return int(p.tries.Load()) }

// Mends are a snag's mends that cure. Where none does alone, it is tried with
// the mends of what it raises: a fuse may want thicker wire as well. The error
// is *plan.TooHeavy when the watch ran out first; what was tried by then is kept.
func (p *Prover) Mends(watch *work.Watch, s Snag) (kept []Mend, err error) {
	p.lock.Lock()
	defer p.lock.Unlock()
	if kept, ok := p.done[s.ID()]; ok || len(s.Mends) == 0 {
		return kept, nil
	}
	p.work.Watch = watch
	for _, b := range p.benches {
		if b.work != nil {
			b.work.Watch = watch
		}
	}
	err = watch.Watched(p.work.Plan, func() { kept = p.prove(s) })
	if err == nil {
		p.done[s.ID()] = kept
		p.tries.Add(1)
	}
	return kept, err
}

func (p *Prover) prove(s Snag) (kept []Mend) {
	keep := func(m Mend, o outcome) {
		m.Label, m.Effect, m.Edit = o.label, o.effect, p.work.Plan.Placed(o.edit)
		m.price(p.work)
		kept = append(kept, m)
	}
	s.Mends = slices.Clone(s.Mends)
	for i := range s.Mends {
		s.Mends[i] = s.Mends[i].made(p.work)
	}
	for _, m := range s.Mends {
		if o := p.tried(s, m, 0); o.ok {
			keep(m, o)
		}
	}
	for k, m := range s.Mends {
		if len(kept) == 0 && k < 3 && s.Level >= Mind {
			if o := p.tried(s, m, moreMends); o.ok {
				keep(m, o)
			}
		}
	}
	return kept
}

// moreMends is how many mends of what a mend raises may be taken with it.
const moreMends = 2

// bench is a part of the plan that mends are tried on. It is worked out as it is when
// a mend is tried on it that was not tried before.
type trial struct {
	from   *work.Work // that it is a part of
	plan   *plan.Plan
	work   *work.Work       // nil until it is asked for
	levels map[string]Level // of its snags
	sum    [32]byte
}

func levelsOf(snags []Snag) map[string]Level {
	out := make(map[string]Level, len(snags))
	for _, s := range snags {
		out[s.ID()] = max(s.Level, out[s.ID()])
	}
	return out
}

// benchOf is a part of a plan, its snags known; its mends are left alone.
func trialOf(w *work.Work, p *plan.Plan) *trial {
	b := &trial{from: w, plan: p, sum: p.Sum()}
	h := sha256.New()
	h.Write(b.sum[:])
	fmt.Fprint(h, w.Today.Format(time.DateOnly))
	found := memo.At[[32]byte, map[string]Level](w.Lib.Bench(), "snags of portions", 2000, nil)
	b.levels = found.Get([32]byte(h.Sum(nil)), func() map[string]Level {
		return levelsOf(run(b.out()))
	})
	return b
}

// out is the bench worked out.
func (b *trial) out() *work.Work {
	if b.work == nil {
		b.work = b.from.Try(b.plan, nil, true)
	}
	return b.work
}

func (p *Prover) tried(s Snag, m Mend, more int) outcome {
	w := p.work
	if kind, id, ok := strings.Cut(s.At[0], ":"); ok {
		w.Watch.At(kind, id)
	}
	near := p.reach(s, m)
	b := p.whole
	if near.plan != nil && !(p.tight() && makesWork(m.Edit)) {
		if b = p.benches[near.name]; b == nil {
			b = trialOf(w, near.plan)
			p.benches[near.name] = b
		}
		if b.levels[s.ID()] != s.Level { // it takes more of the plan to see it
			b = p.whole
		}
	}
	if b == p.whole && b.sum == [32]byte{} {
		q := *w.Plan
		q.Doc().Display.Name = "" // changes nothing that is worked out
		b.sum = q.Sum()
	}
	edit, err := json.Marshal(m.Edit)
	if err != nil {
		return outcome{}
	}
	h := sha256.New()
	h.Write(b.sum[:])
	h.Write(edit)
	fmt.Fprint(h, s.ID(), m.Label, m.Effect, more, w.Today.Format("2006-01-02"))
	proven := memo.At[[32]byte, outcome](w.Lib.Bench(), "mends", 20_000, nil)
	o := proven.Get([32]byte(h.Sum(nil)), func() outcome { return take(b, s, m, more) })
	for _, c := range o.edit.Changes {
		if v, _ := w.Plan.Get(c.Kind, c.ID); c.Before == nil && v != nil {
			return take(b, s, m, more) // a name it made up then is taken by now
		}
	}
	return o
}

// days is how near the opening all must be done for a mend that makes work to be tried on
// all of the plan: it takes the whole order of work to see that it comes too late.
const days = 3

// tight reports that all is done in time, and hardly so.
func (p *Prover) tight() bool {
	t := order.In(p.work)
	return t.Deadline > 0 && t.Loop == nil && t.Late() == 0 && t.Deadline-t.End < days*calendar.Day
}

// makesWork reports that an edit can change what is to be done, or how long it takes.
func makesWork(e plan.Edit) bool {
	for _, c := range e.Changes {
		switch c.Kind {
		case "solid", "joint", "finish", "job", "delivery", "person":
			return true
		case "device":
			if c.Before == nil || c.After == nil {
				return true
			}
		}
	}
	return false
}

// take takes a mend on a copy of its bench, and up to more mends of what that
// raises.
func take(b *trial, s Snag, m Mend, more int) outcome {
	w := b.out()
	p, err := w.Plan.Apply(w.Plan.Settled(m.Edit)) // as the store keeps it
	if err != nil {
		return outcome{}
	}
	after := w.Try(p, &m.Edit, more == 0)
	least := Note
	if s.Level > Note {
		least = Mind // a note that is new or stays is no harm to it, and cannot get worse
	}
	raised, _ := look(after, nil, least, 1)
	for i := range raised {
		x := &raised[i]
		was, there := b.levels[x.ID()]
		if x.ID() == s.ID() {
			return outcome{}
		}
		if !there && (x.Level >= Fix || x.Level >= s.Level) || there && x.Level > was {
			if more == 0 {
				return outcome{}
			}
			for k, also := range x.Mends {
				if k == 2 {
					break
				}
				also = also.made(after)
				both := Mend{Label: m.Label + ", and " + measure.Uncapital(also.Label), gives: m.gives, Effect: m.Effect}
				both.Edit = plan.Edit{
					Label:   both.Label,
					Changes: append(append([]plan.Change(nil), m.Edit.Changes...), also.Edit.Changes...),
				}
				if o := take(b, s, both, more-1); o.ok {
					return o
				}
			}
			return outcome{}
		}
	}
	o := outcome{ok: true, effect: m.Effect, label: m.Label, edit: m.Edit}
	if m.gives != nil {
		was, then := m.gives(w), m.gives(after)
		if i := strings.IndexAny(was, "0123456789"); i > 0 { // the same words are said once
			then = strings.TrimPrefix(then, was[:i])
		}
		o.effect = was + ", then " + then
	}
	return o
}

// reach is the part of the plan a mend can change; none when that is all of it.
func (p *Prover) reach(s Snag, m Mend) portion {
	w := p.work
	devices, props := map[string]bool{}, map[string]bool{}
	touch := func(key string) bool {
		kind, id, _ := strings.Cut(key, ":")
		switch kind {
		case "device":
			if d := w.Device(id); d != nil {
				devices[w.Root(d.ID)] = true
			}
		case "solid", "joint", "finish", "prop", "part":
			if prop := w.Plan.PropOf(key); prop != "" {
				props[prop] = true
			}
		case "scene", "trigger", "input", "mechanism", "promise", "clip":
			prop := w.Plan.PropOf(key)
			if prop == "" {
				return false
			}
			props[prop] = true // with all that its scenes and mechanisms work
		default:
			return false
		}
		return true
	}
	if !touch(s.At[0]) {
		return portion{}
	}
	for _, c := range m.Edit.Changes {
		if !touch(c.Kind + ":" + c.ID) {
			return portion{}
		}
		var d plan.Device
		if c.Kind == "device" && c.After != nil && json.Unmarshal(c.After, &d) == nil {
			for _, feeds := range []string{d.From, d.To, d.Data} {
				if f := w.Device(feeds); f != nil {
					devices[w.Root(f.ID)] = true
				}
			}
		}
	}
	key := fmt.Sprint(devices, props) // maps are printed in order
	near, ok := p.near[key]
	if !ok {
		near.plan, near.name = w.Portion(devices, props)
		p.near[key] = near
	}
	return near
}
