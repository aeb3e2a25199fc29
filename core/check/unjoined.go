package check

import (
	"fmt"
	"strings"

	"zapbarn/core/bond"
	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/words"
	"zapbarn/core/work"
)

// flat is true of a form whose pieces meet nothing of their own.
func flat(s *plan.Solid) bool {
	k, _ := form.Of(s.Kind)
	return k.Flat || k.Form == "pipe"
}

var _ = rule(
	"unjoined",
	Mind,
	"A solid of several parts has no joint yet: nothing says how it holds together.",
	func(w *work.Work, say func(Snag)) {
		joined := map[string]bool{}
		for _, j := range w.Plan.Joints() { // what holds it to another says nothing of its own seams
			a, _, _ := strings.Cut(j.A, "/")
			if b, _, _ := strings.Cut(j.B, "/"); a == b {
				joined[a] = true
			}
		}
		for i := range w.Plan.Solids() {
			s := &w.Plan.Solids()[i]
			shape := w.Shapes()[s.ID]
			if shape == nil || joined[s.ID] || flat(s) && s.Seam == "" || len(shape.Lines) == 0 && s.Seam == "" {
				continue
			}
			m := w.Lib.Materials[s.Stock]
			c := bond.Joint{A: m, B: m, Sun: w.Plan.Display().Outdoors}
			c.Temp, c.RH = w.Plan.Air(s.Prop)
			snag := Snag{
				Level: Mind,
				Place: "bench",
				At:    []string{"solid:" + s.ID},
				Title: "No glue yet for " + measure.Uncapital(s.Name),
			}
			if flat(s) { // split: its pieces meet
				snag.Title = "No glue yet for the seam of " + measure.Uncapital(s.Name)
			}
			n := 0
			for _, p := range shape.Panels {
				n += p.Copies
			}
			snag.Why = fmt.Sprintf("%s, and nothing says how they meet.", words.Count(n, "part"))
			if n == 1 {
				snag.Why = "Its own edges meet, and nothing says how."
			}
			for _, g := range w.Suggest(c) {
				if len(snag.Mends) == 2 {
					break
				}
				mend := Mend{Label: "Glue with " + measure.Uncapital(g.Name)}
				mend.Edit.Label = mend.Label
				lines := shape.Lines
				if s.Seam != "" && flat(s) {
					lines = []pattern.Line{{}}
				}
				for _, l := range lines { // their lengths follow the form
					j := plan.Joint{Prop: s.Prop, A: s.ID + "/" + l.A, B: s.ID + "/" + l.B, Glue: g.ID}
					if l.A == "" {
						j.A, j.B = s.ID, s.ID
					}
					if l.Length == 0 {
						j.Length = s.Length("h")
					}
					j.ID = w.FreshID("joint", j.A+" "+j.B)
					mend.Edit.Changes = append(mend.Edit.Changes, w.Plan.Put("joint", j.ID, j))
				}
				snag.Mends = append(snag.Mends, mend)
			}
			say(snag)
		}
	},
)
