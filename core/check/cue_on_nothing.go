package check

import (
	"fmt"
	"slices"

	"zapbarn/core/plan"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

var _ = rule(
	"cue-on-nothing",
	Mind,
	"A scene works a switch that nothing hangs on.",
	func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Scenes() {
			s := &w.Plan.Scenes()[i]
			told := map[string]bool{}
			for _, q := range s.Cues {
				d := w.Device(q.Channel)
				if d == nil || told[d.ID] || works(w, d) {
					continue
				}
				told[d.ID] = true
				next := *s
				next.Cues = slices.DeleteFunc(slices.Clone(s.Cues), func(c plan.Cue) bool { return c.Channel == d.ID })
				next.Made = false
				away := plan.Edit{Label: "Take its cues out, and " + d.Name + " away",
					Changes: []plan.Change{w.Plan.Put("scene", s.ID, next), w.Plan.Drop("device", d.ID)}}
				say(Snag{
					Level: Mind,
					Place: "rehearsal",
					At:    []string{"scene:" + s.ID, "device:" + d.ID},
					key:   s.ID + "+" + d.ID,
					Title: fmt.Sprintf("“%s” works %s, and nothing hangs on it", s.Name, d.Name),
					Why: "The cue does nothing: hang a lamp, a motor or a player on the switch, tie a sound to it, or take the " +
						"cue out.",
					Mends: []Mend{put(w, "Take its cues out", "scene", s.ID, next), {Label: away.Label, Edit: away}},
				})
			}
		}
	},
)

// works is whether a switch works anything: something that takes current hangs on it, however
// far, a sound is played by it, or a mechanism driven.
func works(w *work.Work, d *plan.Device) bool {
	if d.Is(wiring.Load | wiring.Controller) {
		return true
	}
	for i := range w.Plan.Clips() {
		if w.Plan.Clips()[i].Channel == d.ID {
			return true
		}
	}
	for i := range w.Plan.Mechanisms() {
		if x := &w.Plan.Mechanisms()[i]; x.Up == d.ID || x.Down == d.ID {
			return true
		}
	}
	return slices.ContainsFunc(w.Kids(d.ID), func(k *plan.Device) bool { return works(w, k) })
}
