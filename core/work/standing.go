package work

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/source"
	"zapbarn/core/yard"
)

// Gale is the wind, m/s, that a display outdoors is held for when no stronger one is
// forecast: 45 mph, a strong gale's (from memory).
const Gale = 45 * 0.44704

// Wind is the wind that what stands outdoors is held for: the strongest that is forecast,
// or a gale.
func (w *Work) Wind() float64 {
	v := Gale
	for i := range w.Plan.Forecasts() {
		v = max(v, w.Plan.Forecasts()[i].Strongest())
	}
	return v
}

// Speed writes a wind the display's way.
func (w *Work) Speed(v float64) string { return measure.SpeedText(v, w.Plan.Metric()) }

// standings keeps the numbers of what stands in the yard, each with its working.
func (w *Work) standings() {
	if len(w.Plan.Plots())+len(w.Plan.Cords()) == 0 {
		return
	}
	y := w.Yard()
	for _, s := range y.Placed {
		if s.Mass > 0 {
			w.standing(s)
		}
		if path := y.Path(); path != nil {
			w.looked(s)
		}
		w.lightOn(y, s)
	}
	for i := range y.Cords {
		c := &y.Cords[i]
		if c.Needs == 0 {
			continue
		}
		text := w.Run(c.Needs * 1000)
		w.keep(source.KeyOf("cord", c.Of.ID, "needs"), source.Num("Cord it needs", c.Needs*1000, "mm", text).With(
			"L = (along the ground + up and down) × 1.1",
			fmt.Sprintf("(%s + %s) × 1.1", w.Run((yard.Path{Through: c.Route}).Long()*1000),
				w.Run(c.Of.Drops.Or(drops))),
			text, source.FromTrade("a tenth that never lies straight")),
		)
	}
}

// standing keeps what the wind and a guest do to one.
func (w *Work) standing(s *Placed) {
	of := func(what string) source.Key { return source.KeyOf("plot", s.Of.ID, what) }
	two := func(v float64) string { return measure.Decimal(v, 2) }
	from := []source.Source{source.Std("ASCE 7: q = 0.613 V2 Pa"),
		source.FromMemory("drag: flat 1.3, round 1.2, ball 0.5")}
	weighs := "its parts, bare"
	if !s.Bare {
		weighs = "as said"
	}
	ballast := s.Of.Ballast.Value()
	kg := s.Mass + ballast
	w.keep(of("mass"), source.Num("Weighs", kg, "kg", measure.Kilograms(kg)).With("parts + ballast",
		fmt.Sprintf("%s + %s, %s", measure.Kilograms(s.Mass), measure.Kilograms(ballast), weighs),
		measure.Kilograms(kg), source.Exact("")))
	is := s.Sides.Tips()
	tips := is.Tips()
	holds := fmt.Sprintf("%s kg × %s m", two(is.Mass), two(is.Foot))
	if ballast > 0 {
		holds = fmt.Sprintf("(%s + %s kg × %s m)", holds, two(ballast), two(is.Half))
	}
	w.keep(of("tips"), source.Num("Tips at", tips, "m/s", w.Speed(tips)).With("wind from "+is.From+" on its outline",
		fmt.Sprintf("%s m2, its middle %s m up, its weight %s m from the edge it tips over", two(is.Face),
			two(is.Middle),
			two(is.Foot)), "").
		With("V = √(Σ m a g / (0.613 A c h)), the least of four sides",
			fmt.Sprintf("√(%s × 9.81 / (0.613 × %s m2 × %s × %s m))", holds, two(is.Face),
				two(is.Drag), two(is.Middle)), w.Speed(tips), from...))
	is = s.Sides.Slides()
	slides := is.Slides()
	w.keep(of("slides"), source.Num("Slides at", slides, "m/s",
		w.Speed(slides)).With("V = √(µ m g / (0.613 A c)), wind from "+
		is.From,
		fmt.Sprintf("√(%s × %s kg × 9.81 / (0.613 × %s m2 × %s))", two(is.Rub), two(kg), two(is.Face), two(is.Drag)),
		w.Speed(slides), append(from, source.FromMemory("µ 0.4 on grass or paving"))...))
	v := w.Wind()
	is = s.Sides.Needs(v)
	needs := is.Needs(v)
	w.keep(of("ballast"), source.Num("Ballast for "+w.Speed(v), needs, "kg", measure.Kilograms(needs)).With(
		"1.5 times the wind, against tipping and sliding, from all four sides",
		fmt.Sprintf("from %s: max((1.5 q A c h / g - m a) / %s m, 1.5 q A c / µ g - m), q = 0.613 × %s² Pa", is.From,
			two(is.Half), two(v)),
		measure.Kilograms(needs)+", low in the middle of its foot", append(from,
			source.FromTrade("a factor of 1.5"))...))
	high := s.Box.High * 0.75
	is = s.Sides.Guys(v, high)
	pull := is.Guy(v, high)
	w.keep(of("guy"), source.Num("or each guy takes", pull, "N", measure.Decimal(pull, 0)+" N").With(
		"F = 1.5 q A c h / (z cos 45°), wind from "+is.From, fmt.Sprintf("q = 0.613 × %s² Pa, tied %s m up",
			two(v), two(high)),
		measure.Decimal(pull, 0)+" N, one guy each way", from...))
}

// FarOff is from how far guests see a prop at the nearest, m, and the finest they make out
// there, mm; ok is false where that is not known.
func (w *Work) FarOff(prop string) (far, fine float64, ok bool) {
	if len(w.Plan.Plots()) == 0 || len(w.Plan.Walkways()) == 0 {
		return 0, 0, false
	}
	y := w.Yard()
	s := y.Of(prop)
	if s == nil || y.Path() == nil {
		return 0, 0, false
	}
	return s.Near, yard.Detail(s.Near) * 1000, true
}

// looked keeps how near guests come to one, and what their eyes make out there.
func (w *Work) looked(s *Placed) {
	of := func(what string) source.Key { return source.KeyOf("plot", s.Of.ID, what) }
	near := w.Run(s.Near * 1000)
	w.keep(of("near"), source.Num("Nearest guest", s.Near*1000, "mm", near).With("path's edge to its outline",
		"", near, source.Exact("the plan")))
	far := max(s.Near, 0.3) // nobody's eye comes nearer
	fine := yard.Detail(far)
	text := measure.Decimal(fine*1000, 1) + " mm"
	w.keep(of("detail"), source.Num("Finest detail worth making", fine*1000, "mm", text).With("one arc minute at "+
		w.Run(far*1000), fmt.Sprintf("2 × %s m × tan(1/120°)", measure.Decimal(far, 2)), text,
		source.Std("20/20 acuity: one arc minute; by day, the dark hides more")))
	well, least := yard.Letters(far)
	rule, trade := "1 in for 10 ft; 1 in for 30 ft at the least", "1 in of letter for 10 ft"
	if w.Plan.Metric() {
		rule, trade = "8.3 mm for 1 m; 2.8 mm for 1 m at the least", "8.3 mm of letter for 1 m"
	}
	metric := w.Plan.Metric()
	w.keep(of("letters"), source.Num("Letters read well from", well*1000, "mm", measure.TapeUp(well*1000, metric)).With(
		rule, "", measure.TapeUp(well*1000, metric)+"; at least "+measure.TapeUp(least*1000,
			metric), source.FromTrade(trade)))
}

// lightOn keeps how light a prop's front is, lamp by lamp.
func (w *Work) lightOn(y *Yard, s *Placed) {
	if !s.Known || len(y.Lamps) == 0 {
		return
	}
	at, front := y.FaceOf(s)
	r := source.Num("Light on its front", 0, "lx", "")
	for i, l := range y.Lamps {
		of := l.Onto(at, front, y.Hides)
		if of.Lux < 0.005 {
			continue
		}
		r.Value += of.Lux
		r = r.With("I cos(a) / d2, "+y.Lit[i].Name,
			fmt.Sprintf("%s cd x %s / (%s m)2", measure.Decimal(of.Candela, 1), measure.Decimal(of.Cos, 2),
				measure.Decimal(of.Far, 2)), measure.Decimal(of.Lux, 2)+" lx",
			source.Std("inverse square and cosine law; candela from lumens over the beam's solid angle"))
	}
	r.Text = measure.Decimal(r.Value, 1) + " lx"
	w.keep(source.KeyOf("plot", s.Of.ID, "lux"), r)
}
