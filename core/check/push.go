package check

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/source"
	"zapbarn/core/work"
	"zapbarn/core/yard"
)

// reachOut is how far a guest reaches from the path, m (from memory).
const reachOut = 0.9

var _ = rule("push-over", Mind, "A guest who leans on a prop beside the path tips it.",
	func(w *work.Work, say func(Snag)) {
		if len(w.Plan.Plots()) == 0 {
			return
		}
		for _, s := range w.Yard().Placed {
			if s.Mass == 0 || s.Holds() || s.Near > reachOut {
				continue
			}
			is := s.Sides.Pushed(s.Box.High)
			if is.Stands(s.Box.High) {
				continue
			}
			more := is.Pushed(s.Box.High)
			x, staked := *s.Of, *s.Of
			x.Ballast, x.Held, staked.Held = heavier(w, more), "ballast", "stakes"
			mends := []Mend{put(w, "Stakes hold it", "plot", x.ID, staked)}
			if more < 200 {
				mends = append([]Mend{put(w, "Ballast of "+x.Ballast.String()+" in the middle of its foot",
					"plot", x.ID, x)}, mends...)
			}
			say(Snag{Level: Mind, Place: "yard", At: []string{"plot:" + s.Of.ID},
				Title: "A guest can push " + s.Prop.Name + " over",
				Why: fmt.Sprintf("Guests pass %s from it. Leaning on it they push with some %d N; it weighs %s, and its "+
					"weight lies %s from the edge it goes over.", w.Run(s.Near*1000), int(yard.Push),
					measure.Kilograms(is.Mass+is.Ballast),
					w.Run(is.Foot*1000)),
				From: []source.Source{source.FromMemory("a guest pushes with 200 N at 1 m")}, Mends: mends})
		}
	})

// heavier is a weight rounded up to what a scale shows.
func heavier(w *work.Work, kg float64) measure.Mass {
	if w.Plan.Metric() {
		return measure.Must[measure.MassKind](measure.Decimal(float64(int(kg)+1), 0) + " kg")
	}
	return measure.Must[measure.MassKind](measure.Decimal(float64(int(kg/0.45359237)+1), 0) + " lb")
}
