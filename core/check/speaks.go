package check

import (
	"zapbarn/core/plan"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

// speaksFrom is from which stage of its prop on a rule speaks that misses what is
// not planned yet, and what was planned of its trade that makes it speak at once.
var speaksFrom = map[string]struct {
	stage plan.Stage
	begun func(w *work.Work, prop string) bool
}{
	"unjoined":      {plan.Cut, joining},
	"seams-open":    {plan.Cut, joining},
	"uncoated-foam": {plan.Cut, coating},
	"overlap":       {plan.Cut, joining},
	"light-leak":    {plan.Cut, joining},
	"indoor-goods":  {plan.Wired, never},
	"no-wire":       {plan.Wired, wired},
	"open-run":      {plan.Wired, wired},
	"no-motor":      {plan.Wired, never},
}

// never is for what is of no account before that stage.
func never(*work.Work, string) bool { return false }

// joining is true of a prop with a joint.
func joining(w *work.Work, prop string) bool {
	for i := range w.Plan.Joints() {
		if w.Plan.Joints()[i].Prop == prop {
			return true
		}
	}
	return false
}

// wired is true of a prop with a run of wire that something hangs on.
func wired(w *work.Work, prop string) bool {
	for i := range w.Plan.Devices() {
		if d := &w.Plan.Devices()[i]; d.Is(wiring.Wire) && d.Prop == prop && len(w.Kids(d.ID)) > 0 {
			return true
		}
	}
	return false
}

// coating is true of a prop with a coat on any of its solids.
func coating(w *work.Work, prop string) bool {
	for _, f := range w.Plan.Finishes() {
		if s := w.Solid(f.Solid); s != nil && s.Prop == prop {
			return true
		}
	}
	return false
}

// speaks reports whether a snag of a prop is to be told yet.
func speaks(w *work.Work, code, prop string) bool {
	from, ok := speaksFrom[code]
	p := w.Plan.Prop(prop)
	return !ok || p == nil || w.StageOf(p) >= from.stage || from.begun(w, prop)
}
