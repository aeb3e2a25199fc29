package check

import (
	"fmt"

	"zapbarn/core/work"
)

var _ = rule("offcut", Note, "A sheet leaves a piece worth keeping.", func(w *work.Work, say func(Snag)) {
	for _, s := range w.Sheets() {
		n := len(s.Layout.Sheets)
		if n == 0 || len(s.Layout.Sheets[n-1].Offcuts) == 0 {
			continue
		}
		o := s.Layout.Sheets[n-1].Offcuts[0]
		part := s.Pieces[s.Layout.Sheets[n-1].Placed[0].Part].Ref
		say(
			Snag{
				Level:  Note,
				Place:  "bench",
				At:     []string{"part:" + part},
				Title:  fmt.Sprintf("Offcut %s x %s", w.Len(o.W), w.Len(o.H)),
				Why:    fmt.Sprintf("Left of %s, sheet %d of %d. Label it and use it first.", s.Stock.Name, n, n),
				weight: o.W * o.H,
			},
		)
	}
})
