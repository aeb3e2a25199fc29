package draw

import (
	"fmt"
	"math"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/motion"
	"zapbarn/core/work"
)

// moverPath is a mechanism's figure at so many thousandths of its travel, as a path about
// its hinge or slide, at px a millimetre.
func moverPath(m *work.Moved, at int, scale float64) string {
	if len(m.Rows) == 0 {
		return ""
	}
	r := m.Rows[max(0, min(len(m.Rows)-1, at*(len(m.Rows)-1)/1000))]
	k := scale * 1000
	p := func(v motion.Pt) string { return n(v.X*k) + " " + n(-v.Y*k) }
	var b strings.Builder
	switch m.Of.Kind {
	case "slide", "winch":
		base := m.Rows[0].Place.Rise
		y := -(r.Place.Rise - base) * k
		w := math.Max(10, 0.22*k)
		for _, x := range []float64{-1, -.2, .6} {
			fmt.Fprintf(&b, "M%s 0V%sH%sV0", n(x*w/2), n(y-2), n((x+.4)*w/2))
		}
		return b.String()
	case "turntable":
		s, c := math.Sincos(r.Q)
		rad := math.Max(m.Is.Tip, m.Is.Reach) * k
		fmt.Fprintf(
			&b,
			"M%s 0A%s %s 0 1 0 %s 0A%s %s 0 1 0 %s 0M0 0L%s %s",
			n(-rad),
			n(rad),
			n(rad*.3),
			n(rad),
			n(rad),
			n(rad*.3),
			n(-rad),
			n(rad*c),
			n(rad*.3*s),
		)
		return b.String()
	}
	for _, bar := range m.Is.Bars() {
		fmt.Fprintf(&b, "M%sL%s", p(r.Place.Joints[bar[0]]), p(r.Place.Joints[bar[1]]))
	}
	fmt.Fprintf(&b, "M0 0L%s", p(r.Tip))
	return b.String()
}

// spanOf is the box a mechanism keeps within over all of its travel, m.
func spanOf(m *work.Moved) (lo, hi motion.Pt) {
	lo, hi = motion.Pt{X: math.Inf(1), Y: math.Inf(1)}, motion.Pt{X: math.Inf(-1), Y: math.Inf(-1)}
	add := func(p motion.Pt) {
		lo.X, lo.Y = math.Min(lo.X, p.X), math.Min(lo.Y, p.Y)
		hi.X, hi.Y = math.Max(hi.X, p.X), math.Max(hi.Y, p.Y)
	}
	for _, r := range m.Rows {
		for _, j := range r.Place.Joints {
			add(j)
		}
		if m.Is.Turns() {
			add(motion.Pt{})
			add(r.Tip)
			add(r.COM)
		} else {
			add(motion.Pt{X: -.12, Y: r.Place.Rise})
			add(motion.Pt{X: .12, Y: r.Place.Rise + .1})
		}
	}
	return lo, hi
}

// Mechanism draws one over its travel, to scale, at so many thousandths of it: where it
// goes, what torque it asks for at each angle, and what its motor has. Its motor's shaft
// carries data-pivot, to be dragged.
func Mechanism(w *work.Work, m *work.Moved, at int) string {
	const wide, tall, left = 986.0, 400.0, 430.0
	c := New(wide, tall, w.Plan.Metric())
	lo, hi := spanOf(m)
	if m.Of.Kind == "turntable" {
		r := math.Max(m.Is.Tip, m.Is.Reach)
		lo, hi = motion.Pt{X: -r, Y: -r}, motion.Pt{X: r, Y: r}
	}
	guests := m.Of.Guests.Value() / 1000
	far := hi.X
	if guests > 0 {
		far = math.Max(far, math.Min(guests, hi.X+.25))
	}
	scale := math.Min((left-70)/math.Max(.05, far-lo.X), (tall-100)/math.Max(.05, hi.Y-lo.Y))
	ox, oy := 40-lo.X*scale, 52+hi.Y*scale
	xy := func(p motion.Pt) XY { return XY{ox + p.X*scale, oy - p.Y*scale} }
	row := m.Rows[max(0, min(len(m.Rows)-1, at*(len(m.Rows)-1)/1000))]
	c.Text("t lbl", "start", 16, 26, m.Of.Name+", over its travel")
	c.swept(m, xy)
	for _, k := range []int{0, 250, 500, 750, 1000} {
		c.pose(m, m.Rows[k*(len(m.Rows)-1)/1000], xy, "ghost")
	}
	c.pose(m, row, xy, "mech")
	c.sizes(w, m, row, xy)
	if guests > 0 {
		x := ox + math.Min(guests, far)*scale
		text := "guests, " + w.Len(guests*1000)
		if guests > far {
			text += " →"
		}
		c.Line("limitline", x, 44, x, tall-34)
		c.Text("t bad", "end", x-4, tall-38, text)
	}
	c.torque(m, at, left+50, 46, wide-left-90, tall-110)
	return c.SVG("motion", m.Of.Name+" over its travel", motionSays(w, m))
}

// motionSays is the drawing in words.
func motionSays(w *work.Work, m *work.Moved) string {
	text := fmt.Sprintf("It asks for %s at most, at %.0f degrees of the shaft.", measure.NewtonMetres(m.Need()),
		m.Peak.Q*180/math.Pi)
	if m.Motor != nil {
		text += fmt.Sprintf(" Its motor stalls at %s.", measure.NewtonMetres(m.Motor.Stall))
	}
	return text
}

// swept is where the load passes through.
func (c *Canvas) swept(m *work.Moved, xy func(motion.Pt) XY) {
	if !m.Is.Turns() || m.Of.Kind == "turntable" {
		return
	}
	pts := []XY{xy(motion.Pt{})}
	for _, r := range m.Rows {
		pts = append(pts, xy(r.Tip))
	}
	c.Poly("sweptspace", pts)
}

// pose is a mechanism at one place of its travel.
func (c *Canvas) pose(m *work.Moved, r motion.Row, xy func(motion.Pt) XY, class string) {
	line := func(cl string, a, b motion.Pt) {
		p, q := xy(a), xy(b)
		c.Line(cl, p.X, p.Y, q.X, q.Y)
	}
	if m.Of.Kind == "turntable" {
		rad := math.Max(m.Is.Tip, m.Is.Reach)
		s, co := math.Sincos(r.Q)
		var ring []XY
		for k := range 60 {
			a := float64(k) / 60 * 2 * math.Pi
			ring = append(ring, xy(motion.Pt{X: rad * math.Cos(a), Y: rad * math.Sin(a)}))
		}
		if class == "mech" {
			c.Poly("turning", ring)
		}
		line(class, motion.Pt{}, motion.Pt{X: rad * co, Y: rad * s})
		return
	}
	for _, bar := range m.Is.Bars() {
		line(class+" bar", r.Place.Joints[bar[0]], r.Place.Joints[bar[1]])
	}
	if m.Is.Turns() {
		line(class+" load", motion.Pt{}, r.Tip)
	} else {
		a, b := xy(motion.Pt{X: -.1, Y: r.Place.Rise + .09}), xy(motion.Pt{X: .1, Y: r.Place.Rise})
		c.Rect(class+" load", a.X, a.Y, b.X-a.X, b.Y-a.Y)
	}
	if class != "mech" {
		return
	}
	for _, j := range r.Place.Joints {
		p := xy(j)
		c.f(`<circle class="joint" cx="%s" cy="%s" r="4"/>`, n(p.X), n(p.Y))
	}
	com := xy(r.COM)
	c.f(
		`<g class="balance"><circle cx="%s" cy="%s" r="7"/><path d="M%s %sv12m-4 -5l4 5l4 -5"/></g>`,
		n(com.X),
		n(com.Y),
		n(com.X),
		n(com.Y),
	)
}

// sizes writes the lengths on the bars, and lets the motor's shaft be taken hold of.
func (c *Canvas) sizes(w *work.Work, m *work.Moved, r motion.Row, xy func(motion.Pt) XY) {
	named := map[int]string{0: "crank " + w.Len(m.Of.Crank.Value()), 1: "pull arm " + w.Len(m.Of.Link.Value())}
	if m.Of.Kind == "lid" || m.Of.Kind == "slide" {
		for k, bar := range m.Is.Bars() {
			if text := named[k]; text != "" {
				a, b := xy(r.Place.Joints[bar[0]]), xy(r.Place.Joints[bar[1]])
				c.Text("t soft", "start", (a.X+b.X)/2+14, (a.Y+b.Y)/2+4, text)
			}
		}
		p := xy(r.Place.Joints[0])
		one := xy(motion.Pt{X: .001})
		zero := xy(motion.Pt{})
		c.f(
			`<g class="pivot" tabindex="0" role="button" data-pivot="%s" data-scale="%s" data-x="%s" data-y="%s" data-slides="%t" `+
				`aria-label="Motor's shaft: arrow keys move it"><circle class="touch" cx="%s" cy="%s" r="22"/>`+
				`<circle class="lampbox" cx="%s" cy="%s" r="11"/><path class="edge" d="M%s %sh10m-5 -5v10"/></g>`,
			esc(
				m.Of.ID,
			),
			fmt.Sprint(one.X-zero.X),
			n(m.Of.PivotX.Value()),
			n(m.Of.PivotY.Value()),
			m.Of.Kind == "slide",
			n(p.X),
			n(p.Y),
			n(p.X),
			n(p.Y),
			n(p.X-5),
			n(p.Y),
		)
	}
}

// torque draws what a travel asks for of the shaft, and what the motor has.
func (c *Canvas) torque(m *work.Moved, at int, x, y, wide, tall float64) {
	top, low := m.Need()*1.15, 0.0
	if m.Motor != nil {
		top = math.Max(top, math.Min(m.Motor.Stall*1.1, m.Need()*3.2))
	}
	for _, r := range m.Rows {
		top, low = math.Max(top, math.Max(r.Up, r.Back)), math.Min(low, math.Min(r.Up, r.Back))
	}
	top = math.Max(top, 1e-3)
	px := func(i int) float64 { return x + wide*float64(i)/float64(len(m.Rows)-1) }
	py := func(t float64) float64 { return y + tall*(top-t)/(top-low) }
	c.Text("t lbl", "start", x, y-20, "Torque at the shaft")
	c.Line("gridline", x, py(0), x+wide, py(0))
	c.Line("gridline", x, y, x, y+tall)
	unit := 180 / math.Pi
	for _, i := range []int{0, (len(m.Rows) - 1) / 2, len(m.Rows) - 1} {
		c.Line("gridline", px(i), y, px(i), y+tall)
		c.Text("t soft", "middle", px(i), y+tall+18, measure.Decimal(m.Rows[i].Q*unit, 0)+"°")
	}
	var up, back []XY
	for i, r := range m.Rows {
		up, back = append(up, XY{px(i), py(r.Up)}), append(back, XY{px(i), py(r.Back)})
	}
	if m.Motor != nil {
		for _, l := range []struct {
			at    float64
			class string
			text  string
		}{{m.Motor.Stall, "limitline", "motor stalls, "},
			{m.Motor.Stall / motion.Margin, "limitline half", "half of that, "}} {
			if l.at <= top {
				c.Line(l.class, x, py(l.at), x+wide, py(l.at))
				c.Text("t bad", "end", x+wide, py(l.at)-5, l.text+measure.NewtonMetres(l.at))
			}
		}
	}
	c.Open("back", back)
	c.Open("amps", up)
	i := max(0, min(len(m.Rows)-1, at*(len(m.Rows)-1)/1000))
	c.Line("cursorline", px(i), y, px(i), y+tall)
	c.f(`<circle class="bead" cx="%s" cy="%s" r="5"/>`, n(px(i)), n(py(m.Rows[i].Up)))
	c.Text(
		"t live",
		"start",
		math.Min(px(i)+8, x+wide-70),
		math.Max(y+14, py(m.Rows[i].Up)-8),
		measure.NewtonMetres(m.Rows[i].Up),
	)
	c.Text("t soft", "start", x, y+tall+36, "solid: asked for going on · dashed: what turns it back when let go")
}
