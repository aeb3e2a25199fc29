package work

import (
	"fmt"
	"sort"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
)

// Portion is the part of the plan that hangs together with some trees of the
// wiring and some props, for trying a change on: those trees and all that a
// wire, a shared ground or a data line ties to them, what else is on their
// outlets as one load, the solids of those props with their joints and coats,
// and what is built into them. Its name tells which part it is; it is nil when
// that is the whole plan.
func (w *Work) Portion(roots, props map[string]bool) (*plan.Plan, string) {
	p := w.Plan
	rootOf := make(map[string]string, len(p.Devices))
	for i := range p.Devices {
		rootOf[p.Devices[i].ID] = w.wires.Root(p.Devices[i].ID)
	}
	for grown := true; grown; { // until nothing more is tied to them
		grown = false
		tie := func(a, b string) {
			if a != "" && b != "" && roots[a] != roots[b] {
				roots[a], roots[b], grown = true, true, true
			}
		}
		for i := range p.Devices {
			d := &p.Devices[i]
			tie(rootOf[d.ID], rootOf[d.To])
			tie(rootOf[d.ID], rootOf[d.Data])
			if s := p.Solid(d.In); s != nil && props[s.Prop] && !roots[rootOf[d.ID]] {
				roots[rootOf[d.ID]], grown = true, true
			}
		}
	}
	q := &plan.Plan{Format: p.Format, Display: p.Display, Lots: p.Lots, Offcuts: p.Offcuts, Goods: p.Goods}
	q.Display.Name = "a portion" // a display's name changes nothing that is worked out
	need, solids, outlets := map[string]bool{}, map[string]bool{}, map[string]bool{}
	for k := range props {
		need[k] = true
	}
	for i := range p.Devices {
		if d := p.Devices[i]; roots[rootOf[d.ID]] {
			q.Devices = append(q.Devices, d)
			need[d.Prop], solids[d.In], outlets[d.Outlet] = true, true, true
		}
	}
	for _, s := range p.Solids {
		if props[s.Prop] || solids[s.ID] {
			q.Solids = append(q.Solids, s)
			need[s.Prop], solids[s.ID] = true, true
		}
	}
	here := func(ref string) bool {
		id, _, _ := strings.Cut(ref, "/")
		return strings.HasPrefix(ref, "=") || solids[id]
	}
	for _, j := range p.Joints {
		if here(j.A) && here(j.B) {
			q.Joints = append(q.Joints, j)
			need[j.Prop] = true
		}
	}
	for _, f := range p.Finishes {
		if solids[f.Solid] {
			q.Finishes = append(q.Finishes, f)
		}
	}
	for _, x := range p.Props {
		if need[x.ID] {
			q.Props = append(q.Props, x)
		}
	}
	q.Layouts = p.Layouts
	for _, o := range p.Outlets {
		if !outlets[o.ID] {
			continue
		}
		q.Outlets = append(q.Outlets, o)
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
			q.Plugs = append(q.Plugs, rest)
		}
	}
	return q, fmt.Sprint(sorted(roots), sorted(props))
}

// Root is the device that the tree of the wiring a device is in begins with.
func (w *Work) Root(id string) string { return w.wires.Root(id) }

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
	changed := map[string]bool{}
	if e == nil {
		w = nil
	} else {
		for _, c := range e.Changes {
			changed[c.Kind] = true
		}
	}
	t.workFrom(w, func(kind string) bool { return changed[kind] })
	return t
}
