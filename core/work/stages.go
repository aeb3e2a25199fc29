package work

import (
	"time"

	"zapbarn/core/lanes"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/stock"
)

// Stage is a part of the work that stands on elements of some kinds only: what
// an edit of others cannot change is taken over from the work before.
type Stage int

const (
	Cut     Stage = iota // shapes, parts, sheets, bars
	Bonded               // joints and coats, on what is cut
	Powered              // the wiring solved, the mains, the cells
	stages
)

// wired stands for the entries of the shop that the wiring is made of: lamps and supplies.
const wired = "good, wired"

// standsOn are the kinds of element a stage is worked out from.
var standsOn = [stages][]string{
	Cut:     {"display", "good", "prop", "solid", "offcut", "layout"},
	Bonded:  {"display", "good", "prop", "solid", "offcut", "layout", "joint", "finish", "lot"},
	Powered: {"display", wired, "device", "outlet", "plug"},
}

// DoFrom is DoWithin for a plan that came of the one that was worked out before,
// by whatever edits: stages whose elements are as they were are not done again.
// before may be nil.
func DoFrom(before *Work, watch *Watch, p *plan.Plan, lib *stock.Library, today time.Time) (*Work, error) {
	w := begun(watch, p, lib, today)
	changed := func(string) bool { return true }
	if before != nil && before.taken == nil && !before.Plain && before.Lib.Base() == w.Lib.Base() &&
		before.Today.Format(time.DateOnly) == today.Format(time.DateOnly) {
		seen := map[string]bool{}
		changed = func(kind string) bool {
			is, ok := seen[kind]
			if !ok {
				is = !same(kind, before.Plan, p)
				seen[kind] = is
			}
			return is
		}
	}
	return w, watch.Watched(p, func() { w.workFrom(before, changed) })
}

// same reports whether two plans have the same elements of a kind.
func same(kind string, a, b *plan.Plan) bool {
	if kind == wired {
		return plan.SameGoods(a, b, "lamp", "supply")
	}
	return plan.SameOf(kind, a, b)
}

// workFrom works out what changed, and takes the rest over. Sheets and wiring are worked out
// beside joints, coats and what others derive of those.
func (w *Work) workFrom(before *Work, changed func(kind string) bool) {
	w.inherit(before, changed)
	var again [stages]bool
	for s := range again {
		again[s] = before == nil
		for _, kind := range standsOn[s] {
			again[s] = again[s] || changed(kind)
		}
		if !again[s] {
			w.takeOver(before, Stage(s))
		}
	}
	if w.under = Cut; again[Cut] {
		w.lay()
	}
	w.Results = nil // not to be read while two write: each reads what it wrote itself
	bonds := *w     // as far as it has come: it fills the lists it has been given
	bonds.under = Bonded
	lanes.Do(2, 2, func(lane int) {
		if lane > 0 {
			if again[Bonded] {
				bonds.bonds()
			}
			w.early()
			return
		}
		if again[Cut] {
			w.nest()
			w.bars()
		}
		if w.under = Powered; again[Powered] {
			if changed("display") || changed(wired) {
				w.power(nil)
			} else {
				w.power(before)
			}
		}
	})
	w.Results = source.Over(w.of[:]...)
	w.under = stages // totals stand on all of them
	w.totals()
	w.motions()
	w.clips()
	w.standings()
	w.Machine = w.Plan.Machine(w.travel)
	w.ShowErr = w.Machine.Check()
}

// Stands reports whether a stage is just as it was in the work before: this one took
// it over.
func (w *Work) Stands(before *Work, s Stage) bool { return before != nil && w.of[s] == before.of[s] }

// takeOver takes a stage as it was worked out before. Of the network it takes a twin:
// it is solved in place, and another may be solving the old one.
func (w *Work) takeOver(b *Work, s Stage) {
	switch s {
	case Cut:
		w.Shapes, w.Lacking, w.Parts, w.partBy = b.Shapes, b.Lacking, b.Parts, b.partBy
		w.mass, w.bare, w.Sheets, w.Bars = b.mass, b.bare, b.Sheets, b.Bars
	case Bonded:
		w.Joints, w.Finishes = b.Joints, b.Finishes
	case Powered:
		w.Rig = b.Rig.Twin()
		w.demand, w.All, w.Rest = b.demand, b.All, b.Rest
	}
	w.of[s] = b.of[s]
}

// travel is how a mechanism moves, for the simulator.
func (w *Work) travel(x *plan.Mechanism) (up, down int, falls bool) {
	if m := w.Moved(x.ID); m != nil {
		return m.UpMS, m.DownMS, m.Drops
	}
	return 0, 0, false
}
