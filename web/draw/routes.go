package draw

import (
	"fmt"
	"math"

	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

// Routes draws where a prop's runs lie in it, in isometric and from the front;
// "" when no run has a path.
func Routes(w *work.Work, prop string) string {
	var routes []route
	for i := range w.Plan.Devices() {
		d := &w.Plan.Devices()[i]
		if c, err := wiring.ParsePath(d.Path, w.Plan.Metric()); d.Prop == prop && d.Is(wiring.Wire) && err == nil &&
			len(c) > 1 {
			routes = append(routes, route{d, c})
		}
	}
	if routes == nil {
		return ""
	}
	const wide, high = 480.0, 380.0
	c := New(2*wide, high+24, w.Plan.Metric())
	for k, view := range []func(scale, x, y float64) View{Iso, Front} {
		lo, hi := boxIn(w, prop, view(1, 0, 0))
		for _, r := range routes { // the wires may lie outside the parts
			for _, q := range r.corners {
				p := view(1, 0, 0).At(pattern.Vec{X: q[0], Y: q[1], Z: q[2]})
				lo.X, lo.Y, hi.X, hi.Y = math.Min(
					lo.X,
					p.X,
				), math.Min(
					lo.Y,
					p.Y,
				), math.Max(
					hi.X,
					p.X,
				), math.Max(
					hi.Y,
					p.Y,
				)
			}
		}
		scale := math.Min((wide-80)/math.Max(hi.X-lo.X, 1), (high-50)/math.Max(hi.Y-lo.Y, 1))
		v := view(scale, float64(k)*wide+(wide-(lo.X+hi.X)*scale)/2, high/2-(lo.Y+hi.Y)*scale/2)
		c.f(`<g class="faded">`)
		c.Prop(w, prop, v, "", nil)
		c.f(`</g>`)
		for _, r := range routes {
			c.route(w, v, r)
		}
		c.Text("t soft", "middle", float64(k)*wide+wide/2, high+16, []string{"isometric", "front"}[k])
	}
	return c.SVG(
		"routes",
		w.Plan.Prop(prop).Name+", where the wires lie",
		fmt.Sprintf("%d runs along their corners through the prop.", len(routes)),
	)
}

// route is a run with the corners it is led along.
type route struct {
	d       *plan.Device
	corners []wiring.Corner
}

// route draws one, with its name and length at its longest piece.
func (c *Canvas) route(w *work.Work, v View, r route) {
	var ps []XY
	long, at := 0.0, XY{}
	for i, q := range r.corners {
		ps = append(ps, v.At(pattern.Vec{X: q[0], Y: q[1], Z: q[2]}))
		if i > 0 {
			if l := math.Hypot(ps[i].X-ps[i-1].X, ps[i].Y-ps[i-1].Y); l > long {
				long, at = l, XY{(ps[i].X + ps[i-1].X) / 2, (ps[i].Y + ps[i-1].Y) / 2}
			}
		}
	}
	c.Open("routehalo", ps)
	c.Open("route", ps)
	for _, p := range ps {
		c.f(`<circle class="splice" cx="%s" cy="%s" r="4"/>`, n(p.X), n(p.Y))
	}
	says := fmt.Sprintf("%s  %s", r.d.Name, w.Len(wiring.PathLength(r.corners)))
	c.Text("t lbl halo", "start", at.X+8, at.Y-6, says)
	c.Text("t lbl", "start", at.X+8, at.Y-6, says)
}
