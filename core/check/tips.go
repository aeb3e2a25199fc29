package check

import (
	"fmt"
	"math"
	"slices"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/work"
)

// outdoors are the props that stand in the wind, held by nothing.
func outdoors(w *work.Work) (out []*work.Placed) {
	if len(w.Plan.Plots()) == 0 {
		return nil
	}
	for _, s := range w.Yard().Placed {
		if w.Plan.Display().Outdoors && s.Mass > 0 && !s.Of.Inside && !s.Holds() {
			out = append(out, s)
		}
	}
	return out
}

// windy are the nights to come of which the wind is known.
func windy(w *work.Work) (out []plan.Forecast) {
	today := w.Today.Format("2006-01-02")
	for _, f := range w.Plan.Forecasts() {
		if f.On >= today && f.Strongest() > 0 {
			out = append(out, f)
		}
	}
	slices.SortFunc(out, func(a, b plan.Forecast) int {
		if a.Strongest() != b.Strongest() {
			return int(math.Copysign(1, b.Strongest()-a.Strongest()))
		}
		return 0
	})
	return out
}

var _ = rule("tips", Fix, "A prop goes over or slides in the wind that is forecast.",
	func(w *work.Work, say func(Snag)) {
		nights := windy(w)
		if len(nights) == 0 {
			return
		}
		worst := nights[0]
		for _, s := range outdoors(w) {
			goes := s.Sides.Goes()
			if goes > worst.Strongest() {
				continue
			}
			does := "Wind tips " + s.Prop.Name + " over at "
			if s.Sides.Slides().Slides() < s.Sides.Tips().Tips() {
				does = "Wind pushes " + s.Prop.Name + " along at "
			}
			say(Snag{Level: Fix, Place: "yard", At: []string{"plot:" + s.Of.ID, "forecast:" + worst.ID},
				weight: worst.Strongest() - goes,
				Title:  does + w.Speed(goes),
				Why: fmt.Sprintf(
					"%s is forecast for %s. It weighs %s; what holds it should take one and a half times the "+
						"wind.",
					w.Speed(worst.Strongest()),
					worst.On,
					measure.Kilograms(s.Mass+s.Of.Ballast.Value()),
				),
				From:  []source.Source{source.Std("ASCE 7: q = 0.613 V2 Pa")},
				Mends: stood(w, s, worst.Strongest())})
		}
	})

// stood are the ways to keep a prop standing: weight on its foot, stakes, or out of the wind.
func stood(w *work.Work, s *work.Placed, v float64) []Mend {
	kg := s.Sides.Needs(v).Needs(v)
	x, in, staked := *s.Of, *s.Of, *s.Of
	x.Ballast = heavier(w, kg)
	if x.Held == "" {
		x.Held = "ballast"
	}
	staked.Held, in.Inside = "stakes", true
	out := []Mend{}
	if kg <= 200 { // more than that nobody carries there
		m := put(w, "Ballast of "+x.Ballast.String()+" in the middle of its foot", "plot", x.ID, x)
		m.gives = goesAt(s.Prop.ID)
		out = append(out, m)
	}
	return append(
		out,
		put(w, "Stakes hold it", "plot", x.ID, staked),
		put(w, "It stands under a roof", "plot", x.ID, in),
	)
}

// goesAt is at which wind a prop moves first.
func goesAt(prop string) func(*work.Work) string {
	return func(w *work.Work) string {
		if s := w.Yard().Of(prop); s != nil && s.Mass > 0 {
			return "moves at " + w.Speed(s.Sides.Goes())
		}
		return "not known"
	}
}
