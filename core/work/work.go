// Package work works a whole plan out, the way a compiler reads a program: parts,
// sheets, verdicts, circuits and behaviour, each number with its working. Each is derived when it
// is asked for, and again only when something changed that it was made from.
package work

import (
	"errors"
	"fmt"
	"strings"
	"time"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
)

// Work is the whole plan worked out: every part, layout, verdict, voltage and
// behaviour, and each number with its working. Each is derived when it is asked for.
type Work struct {
	Plan    *plan.Plan
	Lib     *stock.Library
	Today   time.Time
	Plain   bool   // for trying a change on: nothing is searched for, no mends are sought
	Watch   *Watch // bounds what is worked out of it; nil does not
	wires   wiring.Index
	solidBy map[string]*plan.Solid
	taken   *plan.Plan      // the whole that this is a portion of: names used there are taken
	shop    plan.KindSet    // what the shop was read from
	numbers *source.Results // kept by what is being derived
	derived *derived
}

// Do works the plan out as of a day (which tells how old a glue is).
func Do(p *plan.Plan, lib *stock.Library, today time.Time) *Work {
	w, _ := DoWithin(nil, p, lib, today)
	return w
}

// DoWithin is Do within a watch; the error is *TooHeavy when its time ran out.
func DoWithin(watch *Watch, p *plan.Plan, lib *stock.Library, today time.Time) (*Work, error) {
	return DoFrom(nil, watch, p, lib, today)
}

func begun(watch *Watch, p *plan.Plan, lib *stock.Library, today time.Time) *Work {
	shop := &plan.Reads{}
	p = p.In(lib)
	w := &Work{
		Plan:    p,
		Lib:     p.Recorded(shop).Shop(lib),
		Today:   today,
		Watch:   watch,
		wires:   wiring.IndexOf(p.Devices()),
		derived: &derived{},
		numbers: newNumbers(),
		solidBy: make(map[string]*plan.Solid, len(p.Solids())),
	}
	w.shop = shop.Seen()
	for i := range p.Solids() {
		w.solidBy[p.Solids()[i].ID] = &p.Solids()[i]
	}
	return w
}

// Part returns the part with a reference such as box/front, or nil. A part that
// was split answers by its first piece.
func (w *Work) Part(ref string) *Part {
	by := w.laid().partBy
	if p := by[ref]; p != nil {
		return p
	}
	return by[ref+"-1"]
}

// Mass is what a prop weighs, bare, in kg.
func (w *Work) Mass(prop string) float64 { return w.laid().mass[prop] }

// MassOf is what a solid weighs, bare, in kg; 0 while it lacks sizes.
func (w *Work) MassOf(solid string) float64 { return w.laid().bare[solid] }

// Takes is how much glue a joint takes, as package bond tells it; the zero result where that
// is not known.
func (w *Work) Takes(joint string) source.Result { return w.At("joint", joint, "takes") }

// Device returns the device with that ID, or nil, at once.
func (w *Work) Device(id string) *plan.Device { return w.index().Device(id) }

// index finds devices by their IDs and by what feeds them.
func (w *Work) index() wiring.Index {
	w.Plan.Devices() // it was made from these
	return w.wires
}

// Solid returns the solid with that ID, or nil, at once.
func (w *Work) Solid(id string) *plan.Solid {
	w.Plan.Solids() // the index was made from these
	return w.solidBy[id]
}

// FedBy is Plan.FedBy at the cost of that supply's own devices alone.
func (w *Work) FedBy(supply string) *plan.Plan {
	return w.Plan.OfDevices(w.index().FedBy(w.Plan.Devices(), supply))
}

// Kids lists what a device feeds, in the plan's order.
func (w *Work) Kids(id string) []*plan.Device { return w.index().Kids(id) }

// Len writes a length the display's way.
func (w *Work) Len(mm float64) string { return measure.Tape(mm, w.Plan.Metric()) }

// Stocked writes what a stock comes in: its sheet's two sides or its length, as the shop's
// list has them, in a metric display in millimetres.
func (w *Work) Stocked(m stock.Material) string {
	size := func(l measure.Length) string {
		if w.Plan.Metric() {
			return w.Len(l.Value())
		}
		return l.String()
	}
	if m.Form == "pipe" {
		return size(m.Length)
	}
	return size(m.Sheet[0]) + " x " + size(m.Sheet[1])
}

// Run writes a long length the display's way, in feet and inches or metres.
func (w *Work) Run(mm float64) string { return measure.InUnits(measure.MarkedRun(mm), w.Plan.Metric()) }

// FreshName is Plan.FreshName, clear of the whole plan that this is a portion of.
func (w *Work) FreshName(prefix string) string {
	for n := 1; ; n++ {
		id := fmt.Sprintf("%s%d", prefix, n)
		if w.Device(id) == nil && (w.taken == nil || w.taken.Device(id) == nil) {
			return id
		}
	}
}

// FreshID is Plan.FreshID, clear of the whole as well.
func (w *Work) FreshID(kind, name string) string {
	id := w.Plan.FreshID(kind, name)
	if w.taken == nil {
		return id
	}
	base := id
	for n := 2; ; n++ {
		a, _ := w.Plan.Get(kind, id)
		b, _ := w.taken.Get(kind, id)
		if a == nil && b == nil {
			return id
		}
		id = plan.Numbered(base, n)
	}
}

func (w *Work) keep(key source.Key, r source.Result) {
	r.Key = key
	w.numbers.Keep(r.InUnits(w.Plan.Metric()))
}

// Lacks reports the sizes a solid still needs.
func (w *Work) Lacks(solid string) []string {
	var m *plan.Missing
	if errors.As(w.laid().lacking[solid], &m) {
		return m.Fields
	}
	return nil
}

// Part is one cut part with its number in its prop.
type Part struct {
	Ref    string // solid/panel
	Solid  *plan.Solid
	Panel  pattern.Panel
	No, Of int     // number among the prop's parts
	Mass   float64 // kg, one copy
	measured
}

// Name is what the part is called on sheets and lists.
func (p *Part) Name() string { return p.Solid.Name + ", " + strings.ToLower(p.Panel.Name) }

// Face is what the drawn face of a part is called, and where its upper edge
// points: a part that lies flat shows its top.
func (p *Part) Face() (face, up string) {
	if p.Panel.Slant != 0 {
		return "OUTSIDE", "up, turned " + measure.Degrees(p.Panel.Slant)
	}
	if form.Lies(p.Solid.Form) {
		return "TOP", "back"
	}
	return "OUTSIDE", "up"
}
