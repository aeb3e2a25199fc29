package check

import (
	"fmt"

	"zapbarn/core/plan"
	"zapbarn/core/work"
)

var _ = rule(
	"no-motor",
	Mind,
	"A mechanism has no motor.",
	func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Mechanisms() {
			x := &w.Plan.Mechanisms()[i]
			if x.Motor != "" {
				continue
			}
			s := Snag{
				Level: Mind,
				Place: "rehearsal",
				At:    []string{"mechanism:" + x.ID},
				Title: x.Name + does(x.Name, " has", " have") + " no motor",
				Why:   "Nothing is known of whether it moves, how fast, and what it draws, until something drives it.",
			}
			s.Mends = motorsFor(w, x)
			say(s)
		}
	},
)

// motorsFor are the prop's motors that drive nothing yet, each as what drives a mechanism.
func motorsFor(w *work.Work, x *plan.Mechanism) (out []Mend) {
	taken := map[string]bool{}
	for i := range w.Plan.Mechanisms() {
		taken[w.Plan.Mechanisms()[i].Motor] = true
	}
	for i := range w.Plan.Devices() {
		d := &w.Plan.Devices()[i]
		l := w.Lib.Lamps[d.Product]
		if d.Prop != x.Prop || taken[d.ID] || l.Torque == 0 || len(out) == 3 {
			continue
		}
		next := *x
		next.Motor = d.ID
		out = append(out, put(w, fmt.Sprintf("Drive it by %s", d.Name), "mechanism", x.ID, next))
	}
	return out
}
