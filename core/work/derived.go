package work

import (
	"time"

	"zapbarn/core/bond"
	"zapbarn/core/cutting"
	"zapbarn/core/lanes"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/show"
	"zapbarn/core/source"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
)

// DoFrom is DoWithin for a plan that came of the one that was worked out before, by whatever
// edits: what was derived there from nothing that changed is not done again. before may be nil.
func DoFrom(before *Work, watch *Watch, p *plan.Plan, lib *stock.Library, today time.Time) (*Work, error) {
	w := begun(watch, p, lib, today)
	w.inherit(before, w.Since(before))
	return w, watch.Watched(p, w.work)
}

// work works out what most ask for: sheets and wiring beside joints, coats and what others
// derive of those.
func (w *Work) work() {
	w.laid()
	lanes.Do(2, 2, func(lane int) {
		if lane > 0 {
			w.bonded()
			w.early()
			return
		}
		w.nested()
		w.barred()
		w.powered()
	})
	w.Results()
	w.shown()
}

// newNumbers are no numbers yet.
func newNumbers() *source.Results { return source.Over() }

// laid is what the solids come to: their shapes and parts, and what they weigh.
type laid struct {
	shapes  map[string]*pattern.Shape
	lacking map[string]error
	parts   []*Part
	partBy  map[string]*Part
	mass    map[string]float64
	bare    map[string]float64
	numbers *source.Results
}

func (w *Work) laid() *laid { return Derive(w, "parts", (*Work).lay) }

// Shapes are those of the solids by their IDs; one that lacks sizes has none.
func (w *Work) Shapes() map[string]*pattern.Shape { return w.laid().shapes }

// Parts are the cut parts, in the order of the solids.
func (w *Work) Parts() []*Part { return w.laid().parts }

// nested is how the parts lie on sheets.
type nested struct {
	sheets  []*cutting.Sheets
	numbers *source.Results
}

func (w *Work) nested() *nested { return Derive(w, "sheets", (*Work).nest) }

// Sheets are the layouts, a stock each.
func (w *Work) Sheets() []*cutting.Sheets { return w.nested().sheets }

// barred is how pipes are cut.
type barred struct {
	bars    []*cutting.Bars
	numbers *source.Results
}

func (w *Work) barred() *barred { return Derive(w, "bars", (*Work).cutBars) }

// Bars are the lengths that pipes are cut from, a stock each.
func (w *Work) Bars() []*cutting.Bars { return w.barred().bars }

// bonded is what joints and coats come to.
type bonded struct {
	joints   map[string]bond.Advice
	finishes map[string]bond.Finish
	numbers  *source.Results
}

func (w *Work) bonded() *bonded { return Derive(w, "joints and coats", (*Work).bonds) }

// Joints are the verdicts on the joints, by their IDs.
func (w *Work) Joints() map[string]bond.Advice { return w.bonded().joints }

// Finishes are the verdicts on the stacks of coats, by their IDs.
func (w *Work) Finishes() map[string]bond.Finish { return w.bonded().finishes }

// powered is the wiring solved, the outlets and the cells.
type powered struct {
	rig       *wiring.Rig
	demand    map[string]float64 // what each source is asked for, in A
	all, rest *wiring.State
	plugged   map[string][]MainsLoad // by outlet
	numbers   *source.Results
}

// Twin is the same with a network of its own: it is solved in place, and another may be
// solving this one.
func (x *powered) Twin() any {
	y := *x
	y.rig = x.rig.Twin()
	return &y
}

func (w *Work) powered() *powered { return Derive(w, "wiring", (*Work).power) }

// Rig is the network of all that is wired.
func (w *Work) Rig() *wiring.Rig { return w.powered().rig }

// All is the wiring with everything on.
func (w *Work) All() *wiring.State { return w.powered().all }

// Rest is the wiring with the scenes off.
func (w *Work) Rest() *wiring.State { return w.powered().rest }

// shown is the show as it is played.
type shown struct {
	machine show.Machine
	err     error
}

func (w *Work) shown() *shown {
	return Derive(w, "show", func(w *Work) *shown {
		m := w.Plan.Machine(w.travel)
		return &shown{m, m.Check()}
	})
}

// Machine is the show as the simulator plays it.
func (w *Work) Machine() show.Machine { return w.shown().machine }

// ShowErr is why the show cannot be played, or nil.
func (w *Work) ShowErr() error { return w.shown().err }

// travel is how a mechanism moves, for the simulator.
func (w *Work) travel(x *plan.Mechanism) (up, down int, falls bool) {
	if m := w.Moved(x.ID); m != nil {
		return m.UpMS, m.DownMS, m.Drops
	}
	return 0, 0, false
}

// Results are all numbers, each with its working.
func (w *Work) Results() *source.Results {
	return Derive(w, "numbers", func(w *Work) *source.Results {
		return source.Over(w.laid().numbers, w.nested().numbers, w.barred().numbers, w.bonded().numbers,
			w.powered().numbers, w.keeping("totals", (*Work).totals), w.keeping("motions", (*Work).motions),
			w.keeping("clips", (*Work).clips), w.keeping("yard numbers", (*Work).standings))
	})
}

// keeping are the numbers that something keeps.
func (w *Work) keeping(name string, work func(w *Work)) *source.Results {
	return Derive(w, name, func(w *Work) *source.Results {
		work(w)
		return w.numbers
	})
}

// At is a thing's number, an empty one when there is none: looked for where the numbers of its
// kind are kept, so that nothing else is read for it.
func (w *Work) At(kind, id, what string) source.Result {
	switch kind {
	case "solid", "part", "prop":
		return w.laid().numbers.At(kind, id, what)
	case "joint", "finish":
		return w.bonded().numbers.At(kind, id, what)
	case "device", "outlet":
		return w.powered().numbers.At(kind, id, what)
	}
	return w.Results().At(kind, id, what)
}
