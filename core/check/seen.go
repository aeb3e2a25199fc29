package check

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/work"
	"zapbarn/core/yard"
)

var eyes = []source.Source{source.FromMemory("an adult's eye at 1.6 m, a child's at 1.1 m, 120 degrees wide")}

var _ = yardRule("fill-seen", Fix, "A lamp that only lights the scene is itself seen from the path.",
	func(w *work.Work, say func(Snag)) {
		fixtures(w, "fill", func(y *work.Yard, p *work.Walked, i int) {
			x, l := y.Lit[i], y.Lamps[i]
			who, longest := "", 0.0
			var from yard.Stretch
			for _, eye := range []struct {
				who  string
				high float64
			}{{"adults", yard.AdultEye}, {"children", yard.ChildEye}} {
				s := yard.Seen(p.Path, eye.high, yard.Field, l.Spot, y.Hides, x.Prop, yard.Steps)
				if long := yard.Total(s, p.Long()/yard.Steps); long > longest {
					longest, who, from = long, eye.who, s[0]
				}
			}
			if longest == 0 {
				return
			}
			say(
				Snag{
					Level:  Fix,
					Place:  "yard",
					At:     []string{"fixture:" + x.ID, "walkway:" + p.Of.ID},
					weight: longest,
					Title:  x.Name + does(x.Name, " is", " are") + " seen",
					From:   eyes,
					Why: fmt.Sprintf(
						"%s see it from %s of the path, first %s along it. A bare lamp blinds them for the scene.",
						measure.Capital(who),
						w.Run(longest*1000),
						w.Run(from.From*1000),
					),
					Mends: hide(w, y, p, x, l),
				},
			)
		})
	})

// fixtures are those of a use, where there is a path to see them from.
func fixtures(w *work.Work, use string, do func(y *work.Yard, p *work.Walked, i int)) {
	y := w.Yard()
	p := y.Path()
	if p == nil || len(p.Through) < 2 {
		return
	}
	for i := range y.Lit {
		if y.Lit[i].Use == use {
			do(y, p, i)
		}
	}
}

// hide moves a lamp to the nearest place from where nobody sees it, makes a screen that
// hides it in part higher, or sets one up before it.
func hide(w *work.Work, y *work.Yard, p *work.Walked, x *plan.Fixture, l yard.Lamp) (out []Mend) {
	if x.Prop == "" && !x.Fixed {
		free := func(q yard.Pt) bool {
			_, far := p.Near(q)
			return far > p.Wide/2+0.3
		}
		if at, ok := yard.Hidden(p.Path, l.Spot, y.Hides, "", 2, free); ok {
			next := *x
			next.X, next.Y = tape(w, at.X*1000), tape(w, at.Y*1000)
			out = append(
				out,
				put(w, "Move it "+w.Run(at.Sub(l.Pt).Len()*1000)+", where nobody sees it", "fixture", x.ID, next),
			)
		}
	}
	for i := range y.Walls {
		wall := w.Plan.Walls()[i]
		if wall.Kind != "screen" || wall.Fixed {
			continue
		}
		for _, high := range []float64{0.3, 0.6, 0.9, 1.2} {
			hides := append([]yard.Wall(nil), y.Hides...)
			hides[i].High += high
			if yard.Unseen(p.Path, l.Spot, hides, x.Prop) {
				wall.High = tape(w, math.Ceil(hides[i].High*1000/25.4)*25.4)
				out = append(
					out,
					put(w, "Make "+measure.Uncapital(wall.Name)+" "+wall.High.String()+" high", "wall", wall.ID, wall),
				)
				break
			}
		}
	}
	return append(out, screened(w, y, p, x, l)...)
}

// screened sets a screen up between a lamp and the middle of what sees it.
func screened(w *work.Work, y *work.Yard, p *work.Walked, x *plan.Fixture, l yard.Lamp) []Mend {
	along, _ := p.Near(l.Pt)
	at, _ := p.At(along)
	to := at.Sub(l.Pt)
	if to.Len() < 1 {
		return nil
	}
	to = to.Times(1 / to.Len())
	for _, wide := range []float64{0.6, 1.2, 1.8, 2.4} {
		mid, side := l.Pt.Plus(to.Times(0.3)), yard.Pt{X: -to.Y, Y: to.X}.Times(wide/2)
		wall := yard.Wall{A: mid.Sub(side), B: mid.Plus(side), High: math.Max(1.2, l.Z+0.3)}
		if !yard.Unseen(p.Path, l.Spot, append(y.Hides[:len(y.Hides):len(y.Hides)], wall), x.Prop) {
			continue
		}
		next := plan.Wall{
			ID:   w.FreshID("wall", "screen"),
			Name: "Screen before " + measure.Uncapital(x.Name),
			Kind: "screen",
			X:    tape(w, wall.A.X*1000),
			Y:    tape(w, wall.A.Y*1000),
			ToX:  tape(w, wall.B.X*1000),
			ToY:  tape(w, wall.B.Y*1000),
			High: tape(w, math.Ceil(wall.High*1000/25.4)*25.4),
		}
		return []Mend{put(w, fmt.Sprintf("A screen of %s before it", w.Run(wide*1000)), "wall", next.ID, next)}
	}
	return nil
}

var _ = yardRule("practical-unseen", Mind, "A lamp that guests are to see is hidden from all of the path.",
	func(w *work.Work, say func(Snag)) {
		fixtures(w, "practical", func(y *work.Yard, p *work.Walked, i int) {
			x, l := y.Lit[i], y.Lamps[i]
			if !yard.Unseen(p.Path, l.Spot, y.Hides, x.Prop) {
				return
			}
			fill := *x
			fill.Use = "fill"
			say(
				Snag{
					Level: Mind,
					Place: "yard",
					At:    []string{"fixture:" + x.ID},
					Title: "Nobody sees " + measure.Uncapital(x.Name),
					Why:   "It is to be seen, but walls or props stand before it all along the path.",
					From:  eyes,
					Mends: []Mend{put(w, "It only lights the scene", "fixture", x.ID, fill)},
				},
			)
		})
	})
