package check

import "zapbarn/core/work"

// yardRule registers a rule of sight or light: it is asked where there is a path and a lamp.
func yardRule(code string, level Level, doc string, run func(w *work.Work, say func(Snag))) bool {
	return rule(code, level, doc, func(w *work.Work, say func(Snag)) {
		if len(w.Plan.Walkways()) > 0 && len(w.Plan.Fixtures()) > 0 {
			run(w, say)
		}
	})
}
