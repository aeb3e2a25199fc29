package check

import (
	"fmt"

	"zapbarn/core/plan"
	"zapbarn/core/work"
)

// burns is the stock of a prop that burns fast where it is not treated; "" for none.
func burns(w *work.Work, prop string) string {
	for i := range w.Plan.Solids() {
		s := &w.Plan.Solids()[i]
		if m := w.Lib.Materials[s.Stock]; s.Prop == prop && m.Burns && (m.Foam() || m.Form == "fabric") {
			return m.Name
		}
	}
	return ""
}

var _ = rule("flame", Mind, "Foam or fabric stands beside guests and no flame treatment is noted.",
	func(w *work.Work, say func(Snag)) {
		if len(w.Plan.Plots()) == 0 || len(w.Plan.Walkways()) == 0 {
			return
		}
		for _, s := range w.Yard().Placed {
			if s.Of.Treated != "" || w.StageOf(s.Prop) < plan.Closed {
				continue
			}
			if what := burns(w, s.Prop.ID); what != "" {
				say(Snag{Level: Mind, Place: "yard", At: []string{"plot:" + s.Of.ID},
					Title: "No flame treatment is noted of " + s.Prop.Name,
					Why: fmt.Sprintf("%s burns and drips. In a public display the fire authority comes first: ask them, treat "+
						"it with a product made for it, and note the day and its sheet on its ticket. Nothing here says that it "+
						"complies.", what)})
			}
		}
	})
