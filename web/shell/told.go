package shell

import (
	"encoding/json"
	"fmt"
	"hash/fnv"
	"math"

	"zapbarn/core/check"
	"zapbarn/core/work"
)

// tally is what an edit's effect is told by: every open snag by a short mark of
// its ID and level, and what the display's sheets and pipe cost. The page that
// follows an edit is compared with the one before it where both are: in the
// browser.
type tally struct {
	Snags []string `json:"s"`
	Cost  float64  `json:"c"`
}

// tallied writes a plan's tally.
func tallied(w *work.Work, snags []check.Snag) string {
	t := tally{Snags: []string{}, Cost: math.Round(w.Results().At("display", "", "cost").Value*100) / 100}
	for _, s := range snags {
		if s.Waived == nil && s.Level > check.Note {
			h := fnv.New32a()
			_, _ = fmt.Fprint(h, s.ID(), s.Level)
			t.Snags = append(t.Snags, fmt.Sprintf("%06x", h.Sum32()&0xffffff))
		}
	}
	b, err := json.Marshal(t)
	if err != nil {
		return "{}"
	}
	return string(b)
}
