package check

import (
	"fmt"
	"math"

	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/work"
	"zapbarn/core/yard"
)

// leastClear is the least width, m, that people are left to walk: 36 in.
const leastClear = 36 * 0.0254

var _ = rule("path-narrow", Fix, "A way that people walk is too narrow for a wheelchair, or two who meet.",
	func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Walkways() {
			x := &w.Plan.Walkways()[i]
			if wide := x.Wide.Or(4 * 304.8); x.Kind != "street" && wide < leastClear*1000-0.5 {
				next := *x
				next.Wide = tape(w, math.Ceil(leastClear*1000/25.4)*25.4)
				say(
					Snag{
						Level: Fix,
						Place: "yard",
						At:    []string{"walkway:" + x.ID},
						Title: x.Name + does(x.Name, " is", " are") + " narrow",
						Why: fmt.Sprintf(
							"It is %s wide; %s is the least that lets everybody through. What your own authority asks "+
								"comes first.",
							w.Len(wide),
							w.Len(leastClear*1000),
						),
						From:  []source.Source{source.Std("ADA Standards 403.5.1: 36 in clear")},
						Mends: []Mend{put(w, "Make it "+next.Wide.String()+" wide", "walkway", x.ID, next)},
					},
				)
			}
		}
	})

var _ = rule("on-path", Stop, "A prop stands in a way that people walk.",
	func(w *work.Work, say func(Snag)) {
		if len(w.Plan.Plots()) == 0 || len(w.Plan.Walkways()) == 0 {
			return
		}
		y := w.Yard()
		for i := range y.Paths {
			p := &y.Paths[i]
			if p.Of.Kind == "street" {
				continue
			}
			for _, s := range y.Placed {
				if in := within(s.Box, p.Path); s.Known && in > 0.02 {
					say(
						Snag{
							Level:  Stop,
							Place:  "yard",
							At:     []string{"plot:" + s.Of.ID, "walkway:" + p.Of.ID},
							weight: in,
							Title:  s.Prop.Name + " stands in " + theWay(p.Of),
							Why: fmt.Sprintf("It reaches %s into it. Ways out stay clear for their whole width.",
								w.Run(in*1000)),
							Mends: aside(w, s, p),
						},
					)
				}
			}
		}
	})

// theWay is a walkway in a sentence.
func theWay(x *plan.Walkway) string { return "the " + x.Kind }

// within is how far a box reaches into a path, m.
func within(b yard.Box, p yard.Path) float64 {
	deep := 0.0
	sides := b.Walls()
	for i := range p.Through {
		if b.Far(p.Through[i]) == 0 {
			return p.Wide
		}
	}
	for _, c := range sides {
		for k := range 17 {
			_, far := p.Near(c.A.Plus(c.B.Sub(c.A).Times(float64(k) / 16)))
			deep = math.Max(deep, p.Wide/2-far)
		}
	}
	return deep
}

// aside moves a prop off a path, the shorter way square to it.
func aside(w *work.Work, s *work.Placed, p *work.Walked) []Mend {
	along, _ := p.Near(s.Box.At)
	_, way := p.At(along)
	for step := 0.15; step < 4; step += 0.15 {
		for _, side := range []float64{1, -1} {
			b := s.Box
			b.At = b.At.Plus(yard.Pt{X: -way.Y * side * step, Y: way.X * side * step})
			if within(b, p.Path) > 0.01 {
				continue
			}
			x := *s.Of
			x.X, x.Y = tape(w, b.At.X*1000), tape(w, b.At.Y*1000)
			return []Mend{put(w, "Move it "+w.Run(step*1000)+" aside", "plot", x.ID, x)}
		}
	}
	return nil
}

var _ = rule("no-way-out", Mind, "The guests' path has no way out drawn.",
	func(w *work.Work, say func(Snag)) {
		var path *plan.Walkway
		for i := range w.Plan.Walkways() {
			switch x := &w.Plan.Walkways()[i]; x.Kind {
			case "way out":
				return
			case "path":
				path = x
			}
		}
		if path == nil || len(w.Plan.Plots()) == 0 {
			return
		}
		say(Snag{Level: Mind, Place: "yard", At: []string{"walkway:" + path.ID}, Title: "No way out is drawn",
			Why: "Guests must get out when the power fails or something burns. Draw where, keep it clear and lit, and ask " +
				"your fire authority what they want: this tool does not know your local code."})
	})
