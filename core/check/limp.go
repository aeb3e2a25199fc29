package check

import (
	"fmt"

	"zapbarn/core/stock"
	"zapbarn/core/work"
)

var _ = rule("limp", Stop, "A form that must stand by itself is cut from cloth.", func(w *work.Work, say func(Snag)) {
	for i := range w.Plan.Solids() {
		s := &w.Plan.Solids()[i]
		m := w.Lib.Materials[s.Stock]
		if m.Family != "cloth" || m.Form != "sheet" || s.Kind == "skin" || w.Shapes()[s.ID] == nil {
			continue
		}
		snag := Snag{
			Level:  Stop,
			Place:  "bench",
			At:     []string{"solid:" + s.ID},
			Title:  s.Name + does(s.Name, " is", " are") + " cut from cloth",
			weight: 5,
			Why: fmt.Sprintf(
				"%s does not stand. Build it of foam or board, and lay a skin of cloth over it.",
				m.Name,
			),
		}
		for _, id := range stock.IDs(w.Lib.Materials) {
			if o := w.Lib.Materials[id]; o.Form == "sheet" && o.Family != "cloth" && len(snag.Mends) < 2 {
				next := *s
				next.Stock = id
				if _, err := next.Shape(w.Lib); err == nil {
					snag.Mends = append(snag.Mends, put(w, "Make it of "+o.Name, "solid", s.ID, next))
				}
			}
		}
		say(snag)
	}
})
