package check

import "zapbarn/core/work"

// laidOut are the kinds of element that sight and light stand on.
var laidOut = []string{"plot", "wall", "walkway", "fixture", "solid", "good", "offcut", "layout"}

// yardRule registers a rule of sight or light. What it says is worked out once, and taken
// over while what is set out is as it was: nothing else may be in it, no prop's name.
func yardRule(code string, level Level, doc string, run func(w *work.Work, say func(Snag))) bool {
	name := work.StandsOn("said: "+code, laidOut...)
	return rule(code, level, doc, func(w *work.Work, say func(Snag)) {
		if len(w.Plan.Walkways) == 0 || len(w.Plan.Fixtures) == 0 {
			return
		}
		for _, s := range w.Derive(name, func() any {
			var said []Snag
			run(w, func(s Snag) { said = append(said, s) })
			return said
		}).([]Snag) {
			say(s)
		}
	})
}
