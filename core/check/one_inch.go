package check

import (
	"fmt"

	"zapbarn/core/work"
)

var _ = rule("one-inch", Note, "One more inch of sheet would save a whole one.", func(w *work.Work, say func(Snag)) {
	for _, s := range w.Sheets() {
		n := s.New()
		if n < 2 || len(s.Pieces) > 120 {
			continue
		}
		if less := w.Cutting().WithMore(s, 25.4); less < n {
			last := s.Layout.Sheets[len(s.Layout.Sheets)-1]
			part := w.Part(s.Pieces[last.Placed[0].Part].Ref)
			saved := float64(n-less) * s.Stock.Price
			say(
				Snag{
					Level:  Note,
					Place:  "bench",
					At:     []string{"part:" + part.Ref},
					Title:  fmt.Sprintf("An inch would save a sheet of %s", s.Stock.Name),
					weight: saved,
					Why: fmt.Sprintf(
						"%d sheets hold the parts; on sheets an inch larger %d would, $%.2f less. Take a little off a part, or off "+
							"the margin of %s.",
						n,
						less,
						saved,
						w.Len(w.Plan.Margin()),
					),
				},
			)
		}
	}
})
