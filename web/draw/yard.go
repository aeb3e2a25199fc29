package draw

import (
	"fmt"
	"math"
	"strings"

	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/core/yard"
)

// YardView is how the yard is looked at.
type YardView struct {
	Way  string // yard, sight, light, wind, walk
	Sel  string
	Href func(key string) string
	Far  float64 // m along the path where a guest stands

	Photos string // where pictures are had, by their sums
	Lamps  string // fill or practical: those alone are lit; "" all
}

// alone is a yard with the lamps of one use alone.
func alone(y *work.Yard, use string) *work.Yard {
	if use == "" {
		return y
	}
	some := *y
	some.Lamps, some.Lit = nil, nil
	for i, x := range y.Lit {
		if x.Use == use {
			some.Lamps, some.Lit = append(some.Lamps, y.Lamps[i]), append(some.Lit, x)
		}
	}
	return &some
}

// yardPen draws in metres.
type yardPen struct {
	*Canvas
	w      *work.Work
	y      *work.Yard
	v      YardView
	scale  float64 // units a metre
	x0, y0 float64 // of the plan's corner
}

func (p *yardPen) xy(q yard.Pt) XY { return XY{p.x0 + q.X*p.scale, p.y0 + q.Y*p.scale} }

const (
	yardWide = 986.0
	yardHigh = 548.0
)

// bounds are what is set out, m, from the plan's corner on.
func bounds(w *work.Work, y *work.Yard) (lo, hi yard.Pt) {
	hi = yard.Pt{X: 12, Y: 7}
	take := func(q yard.Pt) {
		lo.X, lo.Y = math.Min(lo.X, q.X), math.Min(lo.Y, q.Y)
		hi.X, hi.Y = math.Max(hi.X, q.X), math.Max(hi.Y, q.Y)
	}
	for _, s := range y.Placed {
		for _, c := range s.Box.Corners() {
			take(c)
		}
	}
	for _, x := range y.Walls {
		take(x.A)
		take(x.B)
	}
	for _, x := range y.Paths {
		for _, q := range x.Through {
			take(q.Plus(yard.Pt{X: x.Wide / 2, Y: x.Wide / 2}))
			take(q.Sub(yard.Pt{X: x.Wide / 2, Y: x.Wide / 2}))
		}
	}
	for _, x := range y.Lamps {
		take(x.Pt)
	}
	for _, x := range y.Cords {
		for _, q := range x.Route {
			take(q)
		}
	}
	for i := range w.Plan.Viewpoints() {
		take(yard.Pt{X: w.Plan.Viewpoints()[i].X.Value() / 1000, Y: w.Plan.Viewpoints()[i].Y.Value() / 1000})
	}
	return lo, hi
}

// Yard draws the display in plan, to scale.
func Yard(w *work.Work, v YardView) string {
	y := alone(w.Yard(), v.Lamps)
	lo, hi := bounds(w, y)
	p := &yardPen{Canvas: New(yardWide, yardHigh, w.Plan.Metric()), w: w, y: y, v: v}
	p.scale = math.Min((yardWide-TapeSize-40)/(hi.X-lo.X+1), (yardHigh-TapeSize-40)/(hi.Y-lo.Y+1.4))
	p.x0, p.y0 = TapeSize+20+(0.5-lo.X)*p.scale, TapeSize+16+(0.5-lo.Y)*p.scale
	p.x0 += math.Max(0, p.W-TapeSize-40-(hi.X-lo.X+1)*p.scale) / 2
	p.H = p.y0 + (hi.Y+0.9)*p.scale
	p.Rect("night", 0, 0, p.W, p.H)
	metric := ""
	if p.w.Plan.Metric() {
		metric = ` data-metric="1"`
	}
	p.f(`<g data-yard-scale="%s"%s></g>`, n(p.scale*100), metric)
	p.sketches()
	p.grid()
	for i := range y.Paths {
		p.path(&y.Paths[i])
	}
	if v.Way == "light" {
		p.pools()
		for i := range y.Paths {
			p.darkness(&y.Paths[i])
		}
	}
	if v.Way == "sight" {
		p.sight()
	}
	for i := range y.Cords {
		p.cord(&y.Cords[i])
	}
	for i := range y.Walls {
		p.wall(i)
	}
	for _, s := range y.Placed {
		p.prop(s)
	}
	p.outlets()
	for i := range y.Lamps {
		p.lamp(i)
	}
	p.viewpoints()
	p.sensors()
	p.guest()
	p.tapes()
	if v.Way == "wind" {
		p.wind()
	}
	return p.SVG("stage yard", "The yard in plan", fmt.Sprintf("%d props, %d lamps.", len(y.Placed), len(y.Lamps)))
}

// sketches lie beneath all else, each as wide as was said; a picked one is dragged.
func (p *yardPen) sketches() {
	for i := range p.w.Plan.Sketches() {
		x := &p.w.Plan.Sketches()[i]
		v, _ := p.w.Plan.Get("photo", x.Photo)
		ph, ok := v.(*plan.Photo)
		if !ok || x.Hidden || x.Across.IsZero() {
			continue
		}
		at := p.xy(yard.Pt{X: x.X.Value() / 1000, Y: x.Y.Value() / 1000})
		wide := x.Across.Value() / 1000 * p.scale
		move := ""
		if p.v.Sel == "sketch:"+x.ID {
			move = fmt.Sprintf(
				` data-yard="sketch:%s" tabindex="0" role="button" aria-label="%s"`,
				esc(x.ID),
				esc(x.Name),
			)
		}
		p.f(
			`<image class="yardsketch" href="%s%s" x="%s" y="%s" width="%s" height="%s"%s/>`,
			esc(p.v.Photos),
			esc(ph.Sum),
			n(at.X),
			n(at.Y),
			n(wide),
			n(wide*float64(x.Tall)/float64(x.Wide)),
			move,
		)
	}
}

// grid is a line for every five feet, or each metre.
func (p *yardPen) grid() {
	step := 5 * 0.3048
	if p.Metric {
		step = 1
	}
	for x := math.Mod(p.x0-TapeSize, step*p.scale) + TapeSize; x < p.W; x += step * p.scale {
		p.Line("yardgrid", x, TapeSize, x, p.H)
	}
	for y := p.y0; y < p.H; y += step * p.scale {
		p.Line("yardgrid", TapeSize, y, p.W, y)
	}
}

// tapes lie along the top and the left edge.
func (p *yardPen) tapes() {
	step, unit, of := 5*0.3048, 5.0, " ft"
	if p.Metric {
		step, unit, of = 1, 1, " m"
	}
	p.Rect("tape", 0, 0, p.W, TapeSize)
	p.Rect("tape", 0, 0, TapeSize, p.H)
	for k := -int((p.x0 - TapeSize) / step / p.scale); p.x0+float64(k)*step*p.scale < p.W-4; k++ {
		x := p.x0 + float64(k)*step*p.scale
		p.Line("tapetick", x, TapeSize-8, x, TapeSize)
		if (k%2 == 0 || step*p.scale > 60) && x < p.W-30 {
			p.Text("tapetext", "start", x+3, 12, measure.Decimal(float64(k)*unit, 0)+of)
		}
	}
	for k := 0; p.y0+float64(k)*step*p.scale < p.H-4; k++ {
		y := p.y0 + float64(k)*step*p.scale
		p.Line("tapetick", TapeSize-8, y, TapeSize, y)
		if y > TapeSize+12 {
			p.Text("tapetext", "start", 2, y-3, measure.Decimal(float64(k)*unit, 0))
		}
	}
}

// pick opens a thing that can be dragged; fixed ones cannot.
func (p *yardPen) pick(kind, id, name string, fixed bool) {
	key := kind + ":" + id
	if !fixed {
		p.move = fmt.Sprintf(` data-yard="%s"`, esc(key))
	}
	p.Pick(p.v.Href(key), key, name, p.v.Sel == key)
	p.move = ""
}

// grip is a place of a thing that is dragged by itself, where it is picked.
func (p *yardPen) grip(kind, id string, k int, at yard.Pt) {
	if p.v.Sel != kind+":"+id {
		return
	}
	q := p.xy(at)
	p.f(
		`<circle class="yardgrip" data-yard="%s#%d" tabindex="0" role="button" aria-label="Place %d" cx="%s" cy="%s" r="8"/>`,
		esc(kind+":"+id),
		k,
		k+1,
		n(q.X),
		n(q.Y),
	)
}

func (p *yardPen) line(class string, pts []yard.Pt) {
	out := make([]XY, len(pts))
	for i, q := range pts {
		out[i] = p.xy(q)
	}
	p.Open(class, out)
}

func (p *yardPen) path(x *work.Walked) {
	if len(x.Through) < 2 {
		return
	}
	p.pick("walkway", x.Of.ID, "", x.Of.Fixed)
	var pts []XY
	for _, q := range x.Through {
		pts = append(pts, p.xy(q))
	}
	p.f(`<polyline class="yardpath yp-%s" points="%s" stroke-width="%s"/>`, esc(x.Of.Kind[:3]), points(pts),
		n(x.Wide*p.scale))
	p.line("yardmid", x.Through)
	at, way := x.At(x.Long() * 0.55)
	tip := p.xy(at)
	p.Poly("yardarrow", []XY{{tip.X + way.X*8, tip.Y + way.Y*8}, {tip.X - way.Y*5, tip.Y + way.X*5},
		{tip.X + way.Y*5, tip.Y - way.X*5}})
	end, _ := x.At(x.Long() * 0.12)
	q := p.xy(end)
	p.Text("t soft", "start", q.X+4, q.Y-x.Wide*p.scale/2-4, x.Of.Name)
	p.Done()
	for k, at := range x.Through {
		p.grip("walkway", x.Of.ID, k, at)
	}
}

func (p *yardPen) wall(i int) {
	x, is := &p.w.Plan.Walls()[i], p.y.Walls[i]
	p.pick("wall", x.ID, "", x.Fixed)
	a, b := p.xy(is.A), p.xy(is.B)
	p.Line("yardtouch", a.X, a.Y, b.X, b.Y)
	p.Line("yardwall yw-"+x.Kind, a.X, a.Y, b.X, b.Y)
	if math.Abs(b.Y-a.Y) > math.Abs(b.X-a.X) { // beside one that runs down the plan
		p.Text("t soft", "start", (a.X+b.X)/2+8, (a.Y+b.Y)/2+4, x.Name+", "+p.w.Run(is.High*1000))
	} else {
		p.Text("t soft", "middle", (a.X+b.X)/2, (a.Y+b.Y)/2-7, x.Name+", "+p.w.Run(is.High*1000))
	}
	p.Done()
	p.grip("wall", x.ID, 0, is.A)
	p.grip("wall", x.ID, 1, is.B)
}

func (p *yardPen) prop(s *work.Placed) {
	p.pick("plot", s.Of.ID, "", s.Of.Fixed)
	c := s.Box.Corners()
	if !s.Known {
		b := yard.Box{
			At:   s.Box.At,
			Wide: math.Max(0.3, s.Box.Wide),
			Deep: math.Max(0.3, s.Box.Deep),
			Turn: s.Box.Turn,
		}
		c = b.Corners()
	}
	var pts []XY
	for _, q := range c {
		pts = append(pts, p.xy(q))
	}
	class := "yardprop"
	if !s.Known {
		class += " unknown"
	}
	p.Poly(class, pts)
	p.Line("yardfront", pts[2].X, pts[2].Y, pts[3].X, pts[3].Y)
	if p.speaks(s.Prop.ID) {
		p.speaker(XY{(pts[2].X + pts[3].X) / 2, (pts[2].Y + pts[3].Y) / 2}, s.Box.Front())
	}
	top := math.Min(math.Min(pts[0].Y, pts[1].Y), math.Min(pts[2].Y, pts[3].Y))
	mid := p.xy(s.Box.At)
	if says := p.says(s); says != "" {
		p.Text("t soft", "middle", mid.X, top-7, says)
		top -= 15
	}
	p.Text("t lbl", "middle", mid.X, top-7, s.Prop.Name)
	p.Done()
}

// speaks is whether a prop has a speaker.
func (p *yardPen) speaks(prop string) bool {
	for i := range p.w.Plan.Devices() {
		if d := &p.w.Plan.Devices()[i]; d.Prop == prop && p.w.Lib.Lamps[d.Product].Kind == "amplifier" {
			return true
		}
	}
	return false
}

// speaker is a horn that looks the way its prop does, with two waves before it.
func (p *yardPen) speaker(at XY, front yard.Pt) {
	a := math.Atan2(front.Y, front.X) * 180 / math.Pi
	p.f(`<g class="yardspeaker" transform="translate(%s %s) rotate(%s)"><title>a speaker</title>`+
		`<path d="M-7 -3h5l5 -4v14l-5 -4h-5z"/><path class="wave" d="M7 -5q4 5 0 10M11 -8q6 8 0 16"/></g>`,
		n(at.X), n(at.Y), n(a))
}

// says is what of a prop matters as the yard is looked at.
func (p *yardPen) says(s *work.Placed) string {
	switch p.v.Way {
	case "wind":
		switch {
		case s.Mass == 0:
			return "its size or weight is not known"
		case s.Of.Inside:
			return "under a roof"
		case s.Holds():
			return "held by " + map[string]string{"stakes": "stakes", "guys": "guys", "wall": "the wall"}[s.Of.Held]
		}
		tips, slides := s.Sides.Tips().Tips(), s.Sides.Slides().Slides()
		if slides < tips {
			return "slides at " + p.w.Speed(slides)
		}
		return "tips at " + p.w.Speed(tips)
	case "light":
		if !s.Known {
			return ""
		}
		return measure.Decimal(p.y.Face(s), 1) + " lx on its face"
	case "sight":
		if !math.IsInf(s.Near, 1) {
			return p.w.Run(s.Near*1000) + " from guests"
		}
	}
	return ""
}

func (p *yardPen) lamp(i int) {
	x, l := p.y.Lit[i], p.y.Lamps[i]
	named := p.v.Sel == "fixture:"+x.ID || p.v.Way == "sight" && l.Fill // the others have their names on them only
	label := x.Name
	if named {
		label = ""
	}
	p.pick("fixture", x.ID, label, x.Fixed)
	q := p.xy(l.Pt)
	if l.Beam < 2*math.Pi && l.Lumens > 0 {
		a, b := l.Aim-l.Beam/2, l.Aim+l.Beam/2
		r := 26.0
		p.f(`<path class="yardbeam" d="M%s %sL%s %sA%s %s 0 %d 1 %s %sz"/>`, n(q.X), n(q.Y), n(q.X+r*math.Cos(a)),
			n(q.Y+r*math.Sin(a)), n(r), n(r), map[bool]int{true: 1}[l.Beam > math.Pi], n(q.X+r*math.Cos(b)),
			n(q.Y+r*math.Sin(b)))
	}
	p.f(
		`<circle class="yardtouch0" cx="%s" cy="%s" r="12"/><circle class="yardlamp %s" cx="%s" cy="%s" r="6"/>`,
		n(q.X),
		n(q.Y),
		x.Use,
		n(q.X),
		n(q.Y),
	)
	if x.Use == "fill" {
		p.Line("yardcross", q.X-6, q.Y, q.X+6, q.Y)
		p.Line("yardcross", q.X, q.Y-6, q.X, q.Y+6)
	}
	if named {
		p.Text("t soft", "start", q.X+10, q.Y+4, x.Name)
	}
	p.Done()
}

func (p *yardPen) cord(c *work.Laid) {
	if len(c.Route) < 2 {
		return
	}
	p.pick("cord", c.Of.ID, c.Of.Name, true)
	p.line("yardtouch", c.Route)
	p.line("yardcord", c.Route)
	p.Done()
	if c.Path != nil && c.Of.Over == "" {
		for _, s := range c.Over {
			at, way := c.Path.At((s.From + s.To) / 2)
			a, b := p.xy(at.Plus(yard.Pt{X: -way.Y, Y: way.X}.Times(c.Path.Wide/2))),
				p.xy(at.Plus(yard.Pt{X: way.Y, Y: -way.X}.Times(c.Path.Wide/2)))
			p.Line("yardbad", a.X, a.Y, b.X, b.Y)
			p.Text("t bad", "start", a.X+6, a.Y, "cord on the "+c.Path.Of.Kind)
		}
	}
	for k, q := range c.Route {
		if k > 0 && k < len(c.Route)-1 {
			p.grip("cord", c.Of.ID, k-1, q)
		}
	}
}

func (p *yardPen) outlets() {
	for i := range p.w.Plan.Outlets() {
		o := &p.w.Plan.Outlets()[i]
		at, ok := p.y.Outlets[o.ID]
		if !ok {
			continue
		}
		q := p.xy(at)
		p.pick("outlet", o.ID, "", false)
		p.Rect("yardoutlet", q.X-7, q.Y-9, 14, 18)
		p.Line("yardpin", q.X-2.500, q.Y-4, q.X-2.500, q.Y+2)
		p.Line("yardpin", q.X+2.500, q.Y-4, q.X+2.500, q.Y+2)
		p.Text("t soft", "start", q.X+11, q.Y+5, o.Name)
		p.Done()
	}
}

func (p *yardPen) viewpoints() {
	for i := range p.w.Plan.Viewpoints() {
		x := &p.w.Plan.Viewpoints()[i]
		q := p.xy(yard.Pt{X: x.X.Value() / 1000, Y: x.Y.Value() / 1000})
		a := x.Look.Value() * math.Pi / 180
		p.pick("viewpoint", x.ID, "", x.Fixed)
		p.f(`<circle class="yardtouch0" cx="%s" cy="%s" r="12"/>`, n(q.X), n(q.Y))
		p.Poly("yardview", []XY{q, {q.X + 22*math.Cos(a-.5), q.Y + 22*math.Sin(a-.5)},
			{q.X + 22*math.Cos(a+.5), q.Y + 22*math.Sin(a+.5)}})
		p.Text("t soft", "start", q.X+8, q.Y-9, x.Name)
		p.Done()
	}
}

// sensors lie across the path, where guests work them.
func (p *yardPen) sensors() {
	path := p.y.Path()
	if path == nil || p.v.Way != "plan" && p.v.Way != "walk" {
		return
	}
	for i := range p.w.Plan.Inputs() {
		x := &p.w.Plan.Inputs()[i]
		if !x.ByGuests() || x.Far.IsZero() {
			continue
		}
		at, way := path.At(x.Far.Value() / 1000)
		side := yard.Pt{X: -way.Y, Y: way.X}.Times(path.Wide / 2)
		a, b := p.xy(at.Plus(side)), p.xy(at.Sub(side))
		p.Line("yardsensor", a.X, a.Y, b.X, b.Y)
		p.Text("t soft", "start", a.X+4, a.Y+14, x.Name)
	}
}

// guest is one on the path, where the eye looks from.
func (p *yardPen) guest() {
	path := p.y.Path()
	if path == nil || p.v.Way != "walk" {
		return
	}
	at, way := path.At(p.v.Far)
	q := p.xy(at)
	a := math.Atan2(way.Y, way.X)
	r := 120.0
	p.f(
		`<path class="yardfan" d="M%s %sL%s %sA%s %s 0 0 1 %s %sz"/>`,
		n(q.X),
		n(q.Y),
		n(q.X+r*math.Cos(a-yard.Field/2)),
		n(
			q.Y+r*math.Sin(a-yard.Field/2),
		),
		n(r),
		n(r),
		n(q.X+r*math.Cos(a+yard.Field/2)),
		n(q.Y+r*math.Sin(a+yard.Field/2)),
	)
	p.f(`<circle class="yardguest" cx="%s" cy="%s" r="7"/>`, n(q.X), n(q.Y))
}

// sight paints the stretches of the path from which a lamp to be hidden is seen.
func (p *yardPen) sight() {
	path := p.y.Path()
	if path == nil {
		return
	}
	for i, l := range p.y.Lamps {
		if !l.Fill {
			continue
		}
		for k, eye := range []float64{yard.AdultEye, yard.ChildEye} {
			for _, s := range yard.Seen(path.Path, eye, yard.Field, l.Spot, p.y.Hides, p.y.Lit[i].Prop, yard.Steps) {
				var pts []XY
				for f := s.From; ; f += 0.25 {
					at, _ := path.At(math.Min(f, s.To))
					pts = append(pts, p.xy(at))
					if f >= s.To {
						break
					}
				}
				if k == 0 {
					p.Poly("yardsees", append(pts, p.xy(l.Pt)))
				}
				p.Open("yardseen", pts)
				if k == 0 {
					mid := pts[len(pts)/2]
					p.Text(
						"t bad",
						"start",
						mid.X+8,
						mid.Y-10,
						"seen from here: "+p.w.Run(math.Max(0.1, s.To-s.From)*1000),
					)
				}
			}
		}
	}
}

// Lux are the levels that pools of light are drawn at.
var Lux = [4]float64{0.2, 0.5, 2, 8}

// pools is how light the ground is, in steps: one outline of runs of cells a step.
func (p *yardPen) pools() {
	const cell = 9.0
	var runs [len(Lux) + 1]strings.Builder
	for cy := TapeSize + cell/2; cy < p.H; cy += cell {
		was, from := 0, 0.0
		end := func(x float64) {
			if was > 0 {
				fmt.Fprintf(&runs[was], "M%s %sh%sv%sh-%sz", n(from), n(cy-cell/2), n(x-from), n(cell), n(x-from))
			}
		}
		for cx := TapeSize + cell/2; cx < p.W; cx += cell {
			level := 0
			e := yard.Ground(p.y.Lamps, yard.Pt{X: (cx - p.x0) / p.scale, Y: (cy - p.y0) / p.scale}, p.y.Hides)
			for k, l := range Lux {
				if e >= l {
					level = k + 1
				}
			}
			if level != was {
				end(cx - cell/2)
				was, from = level, cx-cell/2
			}
		}
		end(p.W)
	}
	for k := range runs {
		if runs[k].Len() > 0 {
			p.f(`<path class="lx%d" d="%s"/>`, k, runs[k].String())
		}
	}
}

// darkness marks where a way is too dark.
func (p *yardPen) darkness(x *work.Walked) {
	if x.Of.Kind == "street" || len(x.Through) < 2 || len(p.y.Lamps) == 0 {
		return
	}
	dark, least := check.DarkOn(p.y, x)
	for _, s := range dark {
		if s.To-s.From < 0.3 {
			continue
		}
		var pts []XY
		for f := s.From; f < s.To; f += 0.25 {
			at, _ := x.At(f)
			pts = append(pts, p.xy(at))
		}
		at, _ := x.At(s.To)
		p.Open("yardseen", append(pts, p.xy(at)))
		mid := pts[len(pts)/2]
		p.Text(
			"t bad",
			"start",
			mid.X+8,
			mid.Y-10,
			fmt.Sprintf("under %g lx: %s", least, p.w.Run((s.To-s.From)*1000)),
		)
	}
}

// wind is what is forecast.
func (p *yardPen) wind() {
	x, y := p.W-250, p.H-8
	today := p.w.Today.Format("2006-01-02")
	var next *plan.Forecast
	for i := range p.w.Plan.Forecasts() {
		if f := &p.w.Plan.Forecasts()[i]; f.On >= today && (next == nil || f.On < next.On) {
			next = f
		}
	}
	if next == nil {
		p.Text("t soft", "start", x, y, "no forecast yet: say wind 2026-10-31 22 mph")
		return
	}
	p.Line("yardwind", x-70, y-4, x-14, y-4)
	p.Poly("yardwindtip", []XY{{x - 6, y - 4}, {x - 18, y - 10}, {x - 18, y + 2}})
	text := next.On + ": " + p.w.Speed(next.Wind.Value())
	if next.Gusts.Value() > 0 {
		text += ", gusts " + p.w.Speed(next.Gusts.Value())
	}
	p.Text("t live", "start", x, y, text)
}
