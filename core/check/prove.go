package check

import (
	"crypto/sha256"
	"encoding/json"
	"fmt"
	"strings"

	"zapbarn/core/memo"
	"zapbarn/core/plan"
)

// A mend is offered only when it was taken, on a copy: the snag is then gone,
// none new came at fix or stop, nor at the mended snag's own level or above,
// and none that was there got worse in level. So pressing mends, one after the
// other, comes to an end: each makes the list of snags shorter, worst first.
// What a mend promises is read off that copy as well, never guessed.
//
// The copy is the part of the plan that the mend can reach: what hangs on the
// same supplies, or the solids of the same prop with their joints and coats.

// proven keeps how mends came out, by the part of the plan they were taken on.
var proven = memo.New[[32]byte, outcome](20_000, nil)

type outcome struct {
	ok     bool
	effect string
	label  string
	edit   plan.Edit
}

// prove leaves the mends that cure. Where none of a snag's does alone, it is
// tried with the mends of what it raises: a fuse may want thicker wire as well.
func prove(w *plan.Work, snags []Snag) {
	whole := &bench{work: w, levels: levelsOf(snags)}
	benches := map[string]*bench{}
	for i := range snags {
		s := &snags[i]
		var kept []Mend
		keep := func(m Mend, o outcome) {
			m.Label, m.Effect, m.Edit = o.label, o.effect, o.edit
			m.price(w)
			kept = append(kept, m)
		}
		for _, m := range s.Mends {
			if o := tried(w, *s, m, whole, benches, 0); o.ok {
				keep(m, o)
			}
		}
		for k, m := range s.Mends {
			if len(kept) == 0 && k < 3 && s.Level >= Mind {
				if o := tried(w, *s, m, whole, benches, moreMends); o.ok {
					keep(m, o)
				}
			}
		}
		s.Mends = kept
	}
}

// moreMends is how many mends of what a mend raises may be taken with it.
const moreMends = 2

// bench is a part of the plan that mends are tried on, worked out as it is.
type bench struct {
	work   *plan.Work
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

// benchOf works a part of a plan out, its mends left alone.
func benchOf(w *plan.Work, p *plan.Plan) *bench {
	q := w.Try(p, true)
	return &bench{work: q, levels: levelsOf(run(q)), sum: sha256.Sum256(p.Encode())}
}

func tried(w *plan.Work, s Snag, m Mend, whole *bench, benches map[string]*bench, more int) outcome {
	if kind, id, ok := strings.Cut(s.At[0], ":"); ok {
		w.Watch.At(kind, id)
	}
	near, name := reach(w, s, m)
	b := whole
	if near != nil {
		if b = benches[name]; b == nil {
			b = benchOf(w, near)
			benches[name] = b
		}
		if b.levels[s.ID()] != s.Level { // it takes more of the plan to see it
			b = whole
		}
	}
	if b == whole && b.sum == [32]byte{} {
		b.sum = sha256.Sum256(w.Plan.Encode())
	}
	edit, err := json.Marshal(m.Edit)
	if err != nil {
		return outcome{}
	}
	h := sha256.New()
	h.Write(b.sum[:])
	h.Write(edit)
	fmt.Fprint(h, s.ID(), m.Label, m.Effect, more, w.Today.Format("2006-01-02"))
	o := proven.Get([32]byte(h.Sum(nil)), func() outcome { return take(b, s, m, more) })
	for _, c := range o.edit.Changes {
		if v, _ := w.Plan.Get(c.Kind, c.ID); c.Before == nil && v != nil {
			return take(b, s, m, more) // a name it made up then is taken by now
		}
	}
	return o
}

// take takes a mend on a copy of its bench, and up to more mends of what that
// raises.
func take(b *bench, s Snag, m Mend, more int) outcome {
	p, err := b.work.Plan.Apply(m.Edit)
	if err != nil {
		return outcome{}
	}
	after := b.work.Try(p, more == 0)
	raised := run(after)
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
				both := Mend{Label: m.Label + ", and " + lowerFirst(also.Label), gives: m.gives, Effect: m.Effect}
				both.Edit = plan.Edit{Label: both.Label, Changes: append(append([]plan.Change(nil), m.Edit.Changes...), also.Edit.Changes...)}
				if o := take(b, s, both, more-1); o.ok {
					return o
				}
			}
			return outcome{}
		}
	}
	o := outcome{ok: true, effect: m.Effect, label: m.Label, edit: m.Edit}
	if m.gives != nil {
		was, then := m.gives(b.work), m.gives(after)
		if i := strings.IndexAny(was, "0123456789"); i > 0 { // the same words are said once
			then = strings.TrimPrefix(then, was[:i])
		}
		o.effect = was + ", then " + then
	}
	return o
}

// reach is the part of the plan a mend can change, and its name; nil when that
// is all of it.
func reach(w *plan.Work, s Snag, m Mend) (*plan.Plan, string) {
	devices, props := map[string]bool{}, map[string]bool{}
	touch := func(key string) bool {
		kind, id, _ := strings.Cut(key, ":")
		switch kind {
		case "device":
			if d := w.Device(id); d != nil {
				devices[w.Root(d.ID)] = true
			}
		case "solid", "joint", "finish", "prop", "part":
			if p := w.Plan.PropOf(key); p != "" {
				props[p] = true
			}
		default:
			return false
		}
		return true
	}
	if !touch(s.At[0]) {
		return nil, ""
	}
	for _, c := range m.Edit.Changes {
		if !touch(c.Kind + ":" + c.ID) {
			return nil, ""
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
	return w.Portion(devices, props)
}
