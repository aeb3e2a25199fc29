// Package check reads a worked-out plan and says what is wrong: the snags,
// worst first, each with what, where, why in numbers, and mends that are edits
// ready to apply. Each rule is one small file that bears its name.
package check

import (
	"fmt"
	"sort"
	"strings"

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
	Label  string                  `json:"label"`
	Effect string                  `json:"effect,omitempty"` // before and after, and what it costs
	Edit   plan.Edit               `json:"edit"`
	gives  func(*work.Work) string // what it changes, read off a plan worked out; may be nil
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
	From   []source.Source `json:"from,omitempty"` // where the limits it judges by are from
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

// rule registers a rule; each file does it once.
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

// Find runs every rule within the work's own watch and leaves the mends
// untried, for a Prover; the error is *plan.TooHeavy when its time ran out.
func Find(w *work.Work) (out []Snag, err error) {
	err = w.Watch.Watched(w.Plan, func() { out = run(w) })
	return out, err
}

// run runs every rule; its mends are not proven yet.
func run(w *work.Work) []Snag {
	waivers := map[string]*plan.Waiver{}
	for i := range w.Plan.Waivers {
		waivers[w.Plan.Waivers[i].ID] = &w.Plan.Waivers[i]
	}
	var out []Snag
	seen := map[string]int{}
	for _, r := range Rules() {
		w.Watch.At("rule", r.Code)
		r.run(w, func(s Snag) {
			if len(s.At) > 0 {
				kind, id, _ := strings.Cut(s.At[0], ":")
				w.Watch.At(kind, id)
			}
			if s.Code == "" {
				s.Code = r.Code
			}
			if s.Prop == "" && len(s.At) > 0 {
				s.Prop = w.Plan.PropOf(s.At[0])
			}
			if !speaks(w, s.Code, s.Prop) {
				return
			}
			if seen[s.ID()]++; seen[s.ID()] > 1 { // no two share an ID
				s.key = strings.TrimPrefix(s.ID(), s.Code+"@") + fmt.Sprintf("~%d", seen[s.ID()])
			}
			if v := waivers[s.ID()]; v != nil &&
				(v.Level == "" || s.Level <= levelNamed(v.Level)) { // what got worse comes back
				s.Waived = v
			}
			out = append(out, s)
		})
	}
	sort.SliceStable(out, func(i, j int) bool {
		a, b := out[i], out[j]
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
	})
	return out
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

// put is a mend of one element.
func put(w *work.Work, label, kind, id string, v any) Mend {
	return Mend{Label: label, Edit: plan.Edit{Label: label, Changes: []plan.Change{w.Plan.Put(kind, id, v)}}}
}

// plural is "1 lead" or "15 leads".
func plural(n int, one string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %ss", n, one)
}
