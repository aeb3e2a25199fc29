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
		if len(w.Plan.Plots) == 0 {
			return
		}
		for _, s := range w.Yard().Stands {
			if s.Is.Mass == 0 || s.Holds() || s.Near > reachOut || s.Is.Stands(s.Box.High) {
				continue
			}
			// m g a = push: the ballast that makes up for it
			more := yard.Push*min(yard.PushHigh, s.Box.High)/yard.G/s.Is.Foot - s.Is.Mass
			x, staked := *s.Of, *s.Of
			x.Ballast, x.Held, staked.Held = heavier(w, more), "ballast", "stakes"
			mends := []Mend{put(w, "Stakes hold it", "plot", x.ID, staked)}
			if more < 200 {
				mends = append([]Mend{put(w, "Ballast of "+x.Ballast.String()+" on its foot", "plot", x.ID, x)}, mends...)
			}
			say(Snag{Level: Mind, Place: "yard", At: []string{"plot:" + s.Of.ID},
				Title: "A guest can push " + s.Prop.Name + " over",
				Why: fmt.Sprintf("Guests pass %s from it. Leaning on it they push with some %d N; it weighs %s and its foot "+
					"reaches %s out.", w.Run(s.Near*1000), int(yard.Push), measure.Kilograms(s.Is.Mass+s.Is.Ballast),
					w.Run(s.Is.Foot*1000)),
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
