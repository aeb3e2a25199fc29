package work

import (
	"fmt"
	"math"

	"zapbarn/core/source"
)

// counted is what a mover's cycles are read off: a night of so many groups of two, by one
// seed.
const countGroups, countSize = 60, 2

// Counter is how often something has moved in the season so far, as near as the night book
// tells: what a guest sets off, by a night that is played, times the guests that were noted.
type Counter struct {
	ID, Name string
	Runs     int
	Result   source.Result
}

// Counters are those of all that moves; none where no guest was noted or none sets it off.
func (w *Work) Counters() (out []Counter) {
	guests := 0
	for i := range w.Plan.NightBook() {
		guests += w.Plan.NightBook()[i].Guests
	}
	if guests == 0 || len(w.Plan.Mechanisms()) == 0 {
		return nil
	}
	per := Derive(w, "cycles of a night", func(w *Work) map[string]int {
		r, ok, err := w.Evening(EveningOf{Groups: countGroups, Size: countSize, Dwell: 4, Seed: 1})
		if !ok || err != nil {
			return map[string]int{}
		}
		return r.Cycles
	})
	for i := range w.Plan.Mechanisms() {
		m := &w.Plan.Mechanisms()[i]
		n := per[m.ID]
		if n == 0 {
			continue
		}
		runs := int(math.Round(float64(n) / (countGroups * countSize) * float64(guests)))
		text := fmt.Sprintf("about %d runs", runs)
		r := source.Num(m.Name+" so far", float64(runs), "", text).With(
			"runs of a night that is played / its guests x guests noted",
			fmt.Sprintf("%d / %d x %d", n, countGroups*countSize, guests), text,
			source.Exact("the show, played with groups of two; the night book"))
		out = append(out, Counter{m.ID, m.Name, runs, r})
	}
	return out
}
