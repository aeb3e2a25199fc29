// Package check reads a worked-out plan and says what is wrong: the snags,
// worst first, each with what, where, why in numbers, and mends that are edits
// ready to apply. Each rule is one small file that bears its name.
package check

import (
	"fmt"
	"runtime"
	"slices"
	"sort"
	"strings"

	"zapbarn/core/lanes"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/work"
)

// Level is how bad a snag is.
type Level int

// The levels, worst last.
const (
	Note Level = iota
	Mind
	Fix
	Stop
)

func (l Level) String() string { return [...]string{"note", "mind", "fix", "stop"}[l] }

func levelNamed(name string) Level {
	for l := Note; l <= Stop; l++ {
		if l.String() == name {
			return l
		}
	}
	return Stop
}

// MarshalText writes the level by name.
func (l Level) MarshalText() ([]byte, error) { return []byte(l.String()), nil }

// Mend is one press that mends a snag.
type Mend struct {
	Label  string                     `json:"label"`
	Effect string                     `json:"effect,omitempty"` // before and after, and what it costs
	Edit   plan.Edit                  `json:"edit"`
	gives  func(*work.Work) string    // what it changes, read off a plan worked out; may be nil
	make   func(*work.Work) plan.Edit // the edit, where it costs much to write: of the plan it is tried on
}

// made is the mend with its edit written, of a plan worked out.
func (m Mend) made(w *work.Work) Mend {
	if m.make != nil {
		m.Edit, m.make = m.make(w), nil
	}
	return m
}

// Snag is one finding.
type Snag struct {
	Code   string          `json:"code"`
	Level  Level           `json:"level"`
	Title  string          `json:"title"`
	Why    string          `json:"why"`   // one sentence with the numbers
	At     []string        `json:"at"`    // elements concerned, kind:id, the first to go to
	Place  string          `json:"place"` // barn, bench, loom or rehearsal
	Prop   string          `json:"prop,omitempty"`
	Mends  []Mend          `json:"mends,omitempty"`
	Replay string          `json:"replay,omitempty"` // the events that lead there, as the Stage plays them
	From   []source.Source `json:"from,omitempty"`   // where the limits it judges by are from
	Waived *plan.Waiver    `json:"waived,omitempty"`
	weight float64
	key    string // what it is about, when that is not the first element concerned
}

// ID names the snag in its plan: what a waiver refers to.
func (s Snag) ID() string {
	switch {
	case s.key != "":
		return s.Code + "@" + s.key
	case len(s.At) == 0:
		return s.Code
	}
	return s.Code + "@" + s.At[0]
}

// Rule is one thing that is looked for.
type Rule struct {
	Code  string
	Level Level // the worst it reports
	Doc   string
	run   func(w *work.Work, say func(Snag))
}

var rules []Rule

// rule registers a rule; each file does it once. What it reads is recorded as it runs: while
// that is as it was, so is what it said.
func rule(code string, level Level, doc string, run func(w *work.Work, say func(Snag))) bool {
	rules = append(rules, Rule{code, level, doc, run})
	return true
}

// Rules lists all rules by code.
func Rules() []Rule {
	out := append([]Rule(nil), rules...)
	sort.Slice(out, func(i, j int) bool { return out[i].Code < out[j].Code })
	return out
}

// Check runs every rule and tries every mend. Waived snags come last; the rest
// worst first.
func Check(w *work.Work) []Snag {
	out := run(w)
	p := NewProver(w, out)
	for i := range out {
		out[i].Mends, _ = p.Mends(w.Watch, out[i])
	}
	return out
}

// Found is what the rules found in a work, its mends untried.
type Found struct {
	Snags []Snag
	work  *work.Work
	said  map[string]said // by rule
}

// said is what a rule said, and what it read to say it.
type said struct {
	snags []Snag
	read  plan.KindSet
}

// Work is the work it was found in; nil of nothing.
func (f *Found) Work() *work.Work {
	if f == nil {
		return nil
	}
	return f.work
}

// saidBy is what a rule said.
func (f *Found) saidBy(code string) (s said, ok bool) {
	if f != nil {
		s, ok = f.said[code]
	}
	return s, ok
}

// Find runs every rule within the work's own watch and leaves the mends
// untried, for a Prover; the error is *plan.TooHeavy when its time ran out. What
// was found before, in the work this one came of, is taken over where it stands;
// it may be nil.
func Find(before *Found, w *work.Work) (f *Found, err error) {
	f = &Found{work: w}
	err = w.Watch.Watched(w.Plan, func() { f.Snags, f.said = look(w, before, Note, runtime.GOMAXPROCS(0)) })
	return f, err
}

// run runs every rule; its mends are not proven yet.
func run(w *work.Work) []Snag {
	out, _ := look(w, nil, Note, 1)
	return out
}

// look is run that takes over what stands of what was found before, and leaves out
// rules that never say anything as bad as a level.
func look(w *work.Work, before *Found, least Level, many int) (out []Snag, all map[string]said) {
	asked := slices.DeleteFunc(Rules(), func(r Rule) bool { return r.Level < least })
	says := make([]said, len(asked))
	changed := w.Since(before.Work())
	lanes.Do(many, len(asked), func(i int) {
		r := asked[i]
		w.Watch.At("rule", r.Code)
		if was, ok := before.saidBy(r.Code); ok && !was.read.Has(changed) {
			says[i] = was
			return
		}
		read := &plan.Reads{}
		r.run(w.Recorded(read), func(s Snag) {
			if len(s.At) > 0 {
				kind, id, _ := strings.Cut(s.At[0], ":")
				w.Watch.At(kind, id)
			}
			says[i].snags = append(says[i].snags, s)
		})
		says[i].read = read.Close()
	})
	all = map[string]said{}
	f := filter{w: w, waivers: map[string]*plan.Waiver{}, seen: map[string]int{}}
	for i := range w.Plan.Waivers() {
		f.waivers[w.Plan.Waivers()[i].ID] = &w.Plan.Waivers()[i]
	}
	for i, r := range asked {
		all[r.Code] = says[i]
		for _, s := range says[i].snags {
			f.take(r, s)
		}
	}
	sort.SliceStable(f.out, func(i, j int) bool { return worse(f.out[i], f.out[j]) })
	return f.out, all
}

// filter makes of what rules say the snags that are told.
type filter struct {
	w       *work.Work
	waivers map[string]*plan.Waiver
	seen    map[string]int
	out     []Snag
}

func (f *filter) take(r Rule, s Snag) {
	if s.Code == "" {
		s.Code = r.Code
	}
	if s.Prop == "" && len(s.At) > 0 {
		s.Prop = propOf(f.w, s.At[0])
	}
	if !speaks(f.w, s.Code, s.Prop) {
		return
	}
	if f.seen[s.ID()]++; f.seen[s.ID()] > 1 { // no two share an ID
		s.key = strings.TrimPrefix(s.ID(), s.Code+"@") + fmt.Sprintf("~%d", f.seen[s.ID()])
	}
	if v := f.waivers[s.ID()]; v != nil &&
		(v.Level == "" || s.Level <= levelNamed(v.Level)) { // what got worse comes back
		s.Waived = v
	}
	f.out = append(f.out, s)
}

// propOf is the prop that an element at hand, kind:id, belongs to; "" for none.
func propOf(w *work.Work, at string) string {
	kind, id, _ := strings.Cut(at, ":")
	switch kind { // of these there are many: their index knows
	case "device":
		if d := w.Device(id); d != nil {
			return d.Prop
		}
	case "solid":
		if s := w.Solid(id); s != nil {
			return s.Prop
		}
	}
	return w.Plan.PropOf(at)
}

// worse is the order snags are told in: waived ones last.
func worse(a, b Snag) bool {
	if (a.Waived != nil) != (b.Waived != nil) {
		return b.Waived != nil
	}
	if a.Level != b.Level {
		return a.Level > b.Level
	}
	if a.weight != b.weight {
		return a.weight > b.weight
	}
	return a.ID() < b.ID()
}

// Worst is the worst level not waived, and false when there is none.
func Worst(snags []Snag) (Level, bool) {
	for _, s := range snags {
		if s.Waived == nil {
			return s.Level, true
		}
	}
	return Note, false
}

// Count counts open snags of a level.
func Count(snags []Snag, l Level) (n int) {
	for _, s := range snags {
		if s.Waived == nil && s.Level == l {
			n++
		}
	}
	return
}

// put is a mend of one element; v is not changed after. Its edit is written when it is
// tried, or made.
func put(w *work.Work, label, kind, id string, v any) Mend {
	w.Plan.Elements(kind) // it will be an edit of what is there now
	return Mend{Label: label, make: func(w *work.Work) plan.Edit {
		return plan.Edit{Label: label, Changes: []plan.Change{w.Plan.Put(kind, id, v)}}
	}}
}
