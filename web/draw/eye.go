package draw

import (
	"fmt"
	"math"
	"sort"

	"zapbarn/core/work"
	"zapbarn/core/yard"
)

const (
	eyeWide = 560.0
	eyeHigh = 330.0
)

// eyeView is the picture: 75 degrees wide, the horizon at 45 % from the top.
const eyeField = 75 * math.Pi / 180

type eyePen struct {
	*Canvas
	w *work.Work
	y *work.Yard
	e yard.Eye
}

// at is where a place comes to lie; ok is false behind the eye.
func (p *eyePen) at(s yard.Spot) (q XY, deep float64, ok bool) {
	x, up, deep, ok := p.e.Seen(s)
	return XY{p.W/2 + x*p.W/2, p.H*0.45 - up*p.W/2}, deep, ok
}

// Eye draws what one who stands somewhere sees of the display, in perspective, each thing as
// light as the lamps that are set out make it.
func Eye(w *work.Work, e yard.Eye, name string) string {
	e.Wide = eyeField
	p := &eyePen{Canvas: New(eyeWide, eyeHigh, w.Plan.Metric()), w: w, y: w.Yard(), e: e}
	p.Rect("night", 0, 0, p.W, p.H)
	p.f(`<svg x="0" y="0" width="%s" height="%s" viewBox="0 0 %s %s">`, n(p.W), n(p.H), n(p.W), n(p.H))
	p.Rect("eyeground", 0, p.H*0.45, p.W, p.H)
	for i := range p.y.Paths {
		p.path(&p.y.Paths[i])
	}
	p.things()
	p.f(`</svg>`)
	p.Line("horizon", 0, p.H*0.45, p.W, p.H*0.45)
	p.Text("t soft", "start", 12, 20, name)
	return p.SVG("stage eye", "What a guest sees", "The display in perspective.")
}

// path is the ground that is walked, in pieces: each that is before the eye.
func (p *eyePen) path(x *work.Walked) {
	const step = 0.4
	for far := 0.0; far < x.Long(); far += step {
		a, wa := x.At(far)
		b, wb := x.At(far + step)
		side := func(at, way yard.Pt, k float64) yard.Spot {
			return yard.Spot{Pt: at.Plus(yard.Pt{X: -way.Y, Y: way.X}.Times(k * x.Wide / 2))}
		}
		var pts []XY
		all := true
		for _, s := range []yard.Spot{side(a, wa, -1), side(b, wb, -1), side(b, wb, 1), side(a, wa, 1)} {
			q, deep, ok := p.at(s)
			all = all && ok && deep > 0.3
			pts = append(pts, q)
		}
		if all {
			p.Poly("eyepath", pts)
		}
	}
}

// thing is something that stands there, with how far it is.
type thing struct {
	far  float64
	draw func()
}

// things draws what stands there, the farthest first.
func (p *eyePen) things() {
	var all []thing
	far := func(q yard.Pt) float64 { return q.Sub(p.e.Pt).Len() }
	for i := range p.y.Walls {
		w := p.y.Walls[i]
		kind := p.w.Plan.Walls()[i].Kind
		for k := range 8 { // in pieces, so that near and far of it sort
			a := w.A.Plus(w.B.Sub(w.A).Times(float64(k) / 8))
			b := w.A.Plus(w.B.Sub(w.A).Times(float64(k+1) / 8))
			mid := a.Plus(b.Sub(a).Times(.5))
			all = append(all, thing{far(mid), func() { p.upright("eyewall yw-"+kind, a, b, w.High) }})
		}
	}
	for _, s := range p.y.Placed {
		if s.Known {
			all = append(all, thing{far(s.Box.At), func() { p.prop(s) }})
		}
	}
	for i, l := range p.y.Lamps {
		all = append(all, thing{far(l.Pt), func() { p.lamp(i) }})
	}
	sort.SliceStable(all, func(i, j int) bool { return all[i].far > all[j].far })
	for _, t := range all {
		t.draw()
	}
}

// upright is a face that stands on the ground from a to b.
func (p *eyePen) upright(class string, a, b yard.Pt, high float64) {
	var pts []XY
	for _, s := range []yard.Spot{{Pt: a}, {Pt: b}, {Pt: b, Z: high}, {Pt: a, Z: high}} {
		q, _, ok := p.at(s)
		if !ok {
			return
		}
		pts = append(pts, q)
	}
	p.Poly(class, pts)
}

// prop is its box, and on a front that is turned to the eye its own drawing.
func (p *eyePen) prop(s *work.Placed) {
	level := 0
	lux := p.y.Face(s)
	for k, l := range Lux {
		if lux >= l {
			level = k + 1
		}
	}
	front := s.Box.Front()
	mid := s.Box.At.Plus(front.Times(s.Box.Deep / 2))
	foot, deep, ok := p.at(yard.Spot{Pt: mid})
	if !ok {
		return
	}
	top, _, _ := p.at(yard.Spot{Pt: mid, Z: s.Box.High})
	to := p.e.Sub(mid)
	p.f(`<g class="eyeprop el%d"><title>%s, %.1f lx</title>`, level, esc(s.Prop.Name), lux)
	if cos := front.Dot(to) / math.Max(1e-9, to.Len()); cos > 0.35 && len(p.w.Plan.Solids()) > 0 && deep > 0.5 {
		scale := (foot.Y - top.Y) / math.Max(1e-9, s.Box.High*1000)
		if svg := frontOf(p.w, s.Prop.ID, 0.1); svg != "" && scale > 0 {
			p.f(
				`<g transform="translate(%s %s) scale(%.4f %.4f)">%s</g>`,
				n(foot.X),
				n(foot.Y),
				scale/0.1*cos,
				scale/0.1,
				svg,
			)
		}
	} else {
		c := s.Box.Corners()
		for k := range c {
			a, b := c[k], c[(k+1)%4]
			out := a.Plus(b).Times(.5).Sub(s.Box.At)
			if out.Dot(p.e.Sub(a)) > 0 { // only faces that look this way
				p.upright("eyeface", a, b, s.Box.High)
			}
		}
	}
	p.f(`</g>`)
}

// lamp is a light that is seen from here: its glow, and a bare fill as the mistake it is.
func (p *eyePen) lamp(i int) {
	x, l := p.y.Lit[i], p.y.Lamps[i]
	q, deep, ok := p.at(l.Spot)
	if !ok || yard.Blocked(p.e.Spot, l.Spot, p.y.Hides, x.Prop) {
		return
	}
	r := math.Max(5, math.Min(60, 16*math.Sqrt(math.Max(1, l.Lumens))/math.Max(1, deep)/2))
	p.f(
		`<circle class="stageglow lv3" cx="%s" cy="%s" r="%s"><title>%s</title></circle>`,
		n(q.X),
		n(q.Y),
		n(r*2),
		esc(x.Name),
	)
	p.f(`<circle class="eyelamp" cx="%s" cy="%s" r="%s"/>`, n(q.X), n(q.Y), n(math.Max(1.5, r/8)))
	if x.Use == "fill" && q.X > 0 && q.X < p.W {
		p.Text("t bad", "start", q.X+10, q.Y-8, fmt.Sprintf("bare %s", x.Name))
	}
}
