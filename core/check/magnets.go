package check

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/work"
)

// A magnet lets go sideways at about a quarter of what it takes straight off, and a
// panel that hangs on magnets wants twice its weight: it is bumped and slammed.
const (
	magnetSlides = 0.25
	magnetSpare  = 2.0
)

var magnetFrom = source.FromMemory("magnets on smooth faces slide at about a quarter of their rated pull")

// magnetHold is what pairs of magnets hold hanging on a face that stands, in kg.
func magnetHold(s *plan.Solid) float64 { return float64(s.Magnets) * s.Pull.Or(1) * magnetSlides }

var _ = rule("magnet-weak", Fix, "A panel is heavier than its magnets hold.", func(w *work.Work, say func(Snag)) {
	for i := range w.Plan.Solids() {
		s := &w.Plan.Solids()[i]
		mass := w.MassOf(s.ID)
		if s.Magnets == 0 || mass == 0 || magnetHold(s) >= magnetSpare*mass {
			continue
		}
		snag := Snag{
			Level: Fix, Place: "bench", At: []string{"solid:" + s.ID}, weight: magnetSpare * mass / magnetHold(s),
			Title: s.Name + " slides off its magnets", From: []source.Source{magnetFrom},
			Why: fmt.Sprintf(
				"%d pairs of %s straight off hold %s as the panel hangs; it weighs %s, and wants twice that. "+
					"Mark north on one of each pair before gluing.",
				s.Magnets,
				measure.Kilograms(s.Pull.Or(1)),
				measure.Kilograms(magnetHold(s)),
				measure.Kilograms(mass),
			),
		}
		next := *s
		if next.Magnets = int(math.Ceil(magnetSpare*mass/(s.Pull.Or(1)*magnetSlides) - 1e-9)); next.Magnets <= 40 {
			m := put(w, fmt.Sprintf("Use %d pairs", next.Magnets), "solid", s.ID, next)
			m.Effect = "holds " + measure.Kilograms(magnetHold(&next))
			snag.Mends = append(snag.Mends, m)
		}
		say(snag)
	}
})
