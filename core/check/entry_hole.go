package check

import (
	"fmt"
	"strings"

	"zapbarn/core/plan"
	"zapbarn/core/work"
)

var _ = rule(
	"entry-hole",
	Fix,
	"Wires enter a closed part through no hole that their plug fits.",
	func(w *work.Work, say func(Snag)) {
		closed := map[string]bool{} // props that have something in a part that is closed up
		for i := range w.Plan.Devices() {
			d := &w.Plan.Devices()[i]
			if s := w.Solid(d.In); s != nil && s.Sealed {
				closed[d.Prop] = true
				for _, k := range w.Kids(d.ID) {
					closed[k.Prop] = true
				}
			}
		}
		for _, p := range w.Plan.Props() {
			if !closed[p.ID] {
				continue
			}
			for _, e := range w.Harness(p.ID).Entries {
				if s := w.Solid(e.Solid); !e.Fits && s.Sealed {
					say(noHole(w, p.ID, s, e))
				}
			}
		}
	},
)

// noHole is of wires that lead into a closed solid.
func noHole(w *work.Work, prop string, s *plan.Solid, e work.Entry) Snag {
	snag := Snag{
		Level:  Fix,
		Place:  "loom",
		Prop:   prop,
		At:     []string{"solid:" + s.ID},
		Title:  "No hole into " + s.Name + " for the plug",
		weight: e.Hole,
		Why: fmt.Sprintf("%s must go in; the plug is %s across, so the hole wants %s, not just the wire's width.",
			strings.Join(e.Wires, ", "), w.Len(e.Plug), w.Len(e.Hole)),
	}
	if e.Plug == 0 {
		snag.Title = "No hole into " + s.Name + " for its wires"
		snag.Why = fmt.Sprintf("%s must go in, %s thick together; the hole wants %s.",
			strings.Join(e.Wires, ", "), w.Len(e.Bundle), w.Len(e.Hole))
	}
	if s.Kind != "box" || s.Length("h").IsZero() {
		return snag
	}
	next := *s
	next.Openings = append(append([]plan.Opening(nil), s.Openings...),
		plan.Opening{Name: "Wire hole", Face: "back", Kind: "round", W: tape(w, e.Hole), Y: tape(w, e.Hole/2+50)})
	if _, err := next.Shape(w.Lib); err == nil {
		snag.Mends = append(snag.Mends, put(w, "Drill a hole of "+w.Len(e.Hole)+" in the back", "solid", s.ID, next))
	}
	return snag
}
