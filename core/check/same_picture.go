package check

import (
	"fmt"
	"strings"

	"zapbarn/core/plan"
	"zapbarn/core/work"
)

var _ = rule(
	"same-picture",
	Note,
	"Pixel strips share one data pin, so all show the same picture.",
	func(w *work.Work, say func(Snag)) {
		groups := map[string][]plan.Device{}
		var order []string
		for _, d := range w.Plan.Devices() {
			if d.Data == "" {
				continue
			}
			key := fmt.Sprintf("%s/%d", d.Data, d.Pin)
			if groups[key] == nil {
				order = append(order, key)
			}
			groups[key] = append(groups[key], d)
		}
		for _, key := range order {
			g := groups[key]
			if len(g) < 2 {
				continue
			}
			var names []string
			s := Snag{Level: Note, Place: "loom"}
			for _, d := range g {
				names, s.At = append(names, d.Name), append(s.At, "device:"+d.ID)
			}
			s.Title = fmt.Sprintf("%d strips show one picture", len(g))
			s.Why = strings.Join(
				names,
				", ",
			) + " hang on the same data wire: each shows what the others show. Chain them when each should show its own."
			m := Mend{Label: "Chain them"}
			m.Edit.Label = m.Label
			for i := 1; i < len(g); i++ {
				next := g[i]
				next.Data, next.Pin, next.Shifter = g[i-1].ID, 0, false
				m.Edit.Changes = append(m.Edit.Changes, w.Plan.Put("device", next.ID, next))
			}
			s.Mends = []Mend{m}
			say(s)
		}
	},
)
