package work

import (
	"fmt"
	"maps"
	"sort"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
)

// Portion is the part of the plan that hangs together with some trees of the
// wiring and some props, for trying a change on: those trees and all that a
// wire, a shared ground, a data line or a scene ties to them, what else is on the
// outlets as one load, the solids of those props with their joints and coats,
// what is built into them, and what they do. Its name tells which part it is; it is nil when
// that is the whole plan.
func (w *Work) Portion(roots, props map[string]bool) (*plan.Plan, string) {
	p := w.Plan
	rootOf := make(map[string]string, len(p.Devices()))
	for i := range p.Devices() {
		rootOf[p.Devices()[i].ID] = w.index().Root(p.Devices()[i].ID)
	}
	w.grow(roots, props, rootOf)
	q := plan.Of(plan.Document{Format: p.Format(), Display: p.Display(), Lots: p.Lots(), Offcuts: p.Offcuts(),
		Goods: p.Goods()})
	q.Doc().Display.Name = "a portion" // a display's name changes nothing that is worked out
	need := w.things(q, roots, props, rootOf)
	w.behaviourIn(q, need)
	for _, x := range p.Props() {
		if need[x.ID] {
			q.Doc().Props = append(q.Props(), x)
		}
	}
	for _, x := range p.Plots() {
		if need[x.Prop] {
			q.Doc().Plots = append(q.Plots(), x)
		}
	}
	q.Doc().Layouts, q.Doc().Forecasts = p.Layouts(), p.Forecasts()
	for _, o := range p.Outlets() {
		q.Doc().Outlets = append(q.Outlets(), o)
		rest := plan.Plug{ID: "rest-" + o.ID, Name: "The rest on " + o.Name, Outlet: o.ID}
		watts := 0.0
		for _, l := range w.OnOutlet(o.ID) {
			if l.Kind == "plug" || !roots[rootOf[l.ID]] {
				watts += l.Watts
				rest.Heater = rest.Heater || l.Heater
			}
		}
		if watts > 0 {
			rest.Watts = measure.Of[measure.WattKind](min(watts, 5000))
			q.Doc().Plugs = append(q.Plugs(), rest)
		}
	}
	return q, fmt.Sprint(sorted(roots), sorted(props))
}

// grow adds the trees that are tied to those there are, until nothing more is.
func (w *Work) grow(roots, props map[string]bool, rootOf map[string]string) {
	p := w.Plan
	for grown := true; grown; {
		grown = w.behaving(roots, props, rootOf)
		tie := func(a, b string) {
			if a != "" && b != "" && roots[a] != roots[b] {
				roots[a], roots[b], grown = true, true, true
			}
		}
		for i := range p.Devices() {
			d := &p.Devices()[i]
			tie(rootOf[d.ID], rootOf[d.To])
			tie(rootOf[d.ID], rootOf[d.Data])
			tie(rootOf[d.ID], rootOf[d.Never])
			if s := p.Solid(d.In); s != nil && props[s.Prop] && !roots[rootOf[d.ID]] {
				roots[rootOf[d.ID]], grown = true, true
			}
		}
	}
}

// things puts into a portion the devices of some trees, the solids of some props and those
// the devices are built into, with their joints and coats; it returns the props they are of.
func (w *Work) things(q *plan.Plan, roots, props map[string]bool, rootOf map[string]string) map[string]bool {
	p := w.Plan
	need, solids := maps.Clone(props), map[string]bool{}
	if need == nil {
		need = map[string]bool{}
	}
	for i := range p.Devices() {
		if d := p.Devices()[i]; roots[rootOf[d.ID]] {
			q.Doc().Devices = append(q.Devices(), d)
			need[d.Prop], solids[d.In] = true, true
		}
	}
	for _, s := range p.Solids() {
		if props[s.Prop] || solids[s.ID] {
			q.Doc().Solids = append(q.Solids(), s)
			need[s.Prop], solids[s.ID] = true, true
		}
	}
	here := func(ref string) bool {
		id, _, _ := strings.Cut(ref, "/")
		return strings.HasPrefix(ref, "=") || solids[id]
	}
	for _, j := range p.Joints() {
		if here(j.A) && here(j.B) {
			q.Doc().Joints = append(q.Joints(), j)
			need[j.Prop] = true
		}
	}
	for _, f := range p.Finishes() {
		if solids[f.Solid] {
			q.Doc().Finishes = append(q.Finishes(), f)
		}
	}
	return need
}

// behaving adds the trees of the wiring that one scene or one mechanism works together, or
// that those of a prop work; it says whether there were any more.
func (w *Work) behaving(roots, props map[string]bool, rootOf map[string]string) (grown bool) {
	together := func(prop string, devices ...string) {
		in := props[prop]
		for _, d := range devices {
			in = in || roots[rootOf[d]]
		}
		for _, d := range devices {
			if r := rootOf[d]; in && r != "" && !roots[r] {
				roots[r], grown = true, true
			}
		}
	}
	for i := range w.Plan.Scenes() {
		s := &w.Plan.Scenes()[i]
		var devices []string
		for _, q := range s.Cues {
			devices = append(devices, q.Channel)
		}
		together(s.Prop, devices...)
	}
	for i := range w.Plan.Mechanisms() {
		m := &w.Plan.Mechanisms()[i]
		together(m.Prop, m.Up, m.Down, m.Motor)
	}
	return grown
}

// behaviourIn puts into a portion what its devices do: mechanisms, scenes and clips all of
// whose devices it has, what works those, and the promises that can be read there.
func (w *Work) behaviourIn(q *plan.Plan, need map[string]bool) {
	p := w.Plan
	here := map[string]bool{"": true}
	for i := range q.Devices() {
		here[q.Devices()[i].ID] = true
	}
	movers, scenes, inputs := map[string]bool{"": true}, map[string]bool{"": true}, map[string]bool{}
	for _, m := range p.Mechanisms() {
		if here[m.Up] && here[m.Down] && here[m.Motor] && (m.Motor+m.Up+m.Down != "" || need[m.Prop]) &&
			(m.Carries == "" || q.Solid(m.Carries) != nil) {
			q.Doc().Mechanisms = append(q.Mechanisms(), m)
			movers[m.ID], need[m.Prop] = true, true
		}
	}
	for _, s := range p.Scenes() {
		all := len(s.Cues) > 0 || need[s.Prop]
		for _, c := range s.Cues {
			all = all && here[c.Channel]
		}
		if all {
			q.Doc().Scenes = append(q.Scenes(), s)
			scenes[s.ID], need[s.Prop] = true, true
		}
	}
	works := map[string]bool{}
	for _, t := range p.Triggers() {
		works[t.Input] = works[t.Input] || scenes[t.Scene]
	}
	for _, x := range p.Inputs() {
		if (works[x.ID] || need[x.Prop]) && movers[x.Mover] && scenes[x.Scene] {
			q.Doc().Inputs = append(q.Inputs(), x)
			inputs[x.ID], need[x.Prop] = true, true
		}
	}
	for _, t := range p.Triggers() {
		if inputs[t.Input] && scenes[t.Scene] {
			q.Doc().Triggers = append(q.Triggers(), t)
		}
	}
	for _, c := range p.Clips() {
		if need[c.Prop] && here[c.Channel] {
			q.Doc().Clips = append(q.Clips(), c)
		}
	}
	for _, x := range p.Promises() {
		if _, err := q.Promise(x.ID, x.Says); need[x.Prop] && err == nil {
			q.Doc().Promises = append(q.Promises(), x)
		}
	}
}

// Root is the device that the tree of the wiring a device is in begins with.
func (w *Work) Root(id string) string { return w.index().Root(id) }

func sorted(m map[string]bool) (out []string) {
	for k, in := range m {
		if in {
			out = append(out, k)
		}
	}
	sort.Strings(out)
	return out
}

// Try works out another plan as this one is, for trying a change on. Plain, it
// leaves out what is only shown: no search for tighter layouts, and rules may
// leave their mends alone. Names of this plan stay taken in it. With the edit
// that led from this plan to that one, what it cannot change is not done again.
func (w *Work) Try(p *plan.Plan, e *plan.Edit, plain bool) *Work {
	t := begun(w.Watch, p, w.Lib, w.Today)
	t.Plain, t.taken = plain, w.Plan
	if w.taken != nil {
		t.taken = w.taken
	}
	if e != nil {
		t.inherit(w, e.KindsOf())
	}
	return t
}
