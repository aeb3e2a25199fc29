// Package draw makes the product's drawings as SVG: to scale, labelled, with
// every part a link. Colours come from classes, so that a drawing follows the
// theme; nothing is styled inline.
package draw

import (
	"fmt"
	"html"
	"math"
	"strconv"
	"strings"

	"zapbarn/core/measure"
)

// Canvas collects SVG in a fixed view box, in drawing units (CSS pixels at 1x).
type Canvas struct {
	b      strings.Builder
	W, H   float64
	Metric bool
	move   string // what the next Pick says of how it can be moved
	labels []label
}

// New is an empty canvas.
func New(w, h float64, metric bool) *Canvas { return &Canvas{W: w, H: h, Metric: metric} }

func (c *Canvas) f(format string, args ...any) { fmt.Fprintf(&c.b, format, args...) }

// n writes a coordinate short.
func n(v float64) string {
	r := math.Round(v * 10)
	if r != r || math.Abs(r) > 1e15 {
		return "0"
	}
	i := int64(r)
	if i%10 == 0 {
		return strconv.FormatInt(i/10, 10)
	}
	return strconv.FormatFloat(float64(i)/10, 'f', 1, 64)
}

func esc(s string) string { return html.EscapeString(s) }

// SVG closes the drawing; label and desc are its text equivalent.
func (c *Canvas) SVG(class, label, desc string) string {
	return fmt.Sprintf(
		`<svg class="drawing %s" viewBox="0 0 %s %s" role="group" aria-label="%s"><desc>%s</desc>%s%s</svg>`,
		class,
		n(c.W),
		n(c.H),
		esc(label),
		esc(desc),
		defs,
		c.drawn(),
	)
}

// Line, Text and Path are the strokes; class says which pen.
func (c *Canvas) Line(class string, x1, y1, x2, y2 float64) {
	for _, s := range [...]string{`<line class="`, class, `" x1="`, n(x1), `" y1="`, n(y1), `" x2="`, n(x2), `" y2="`,
		n(y2), `"/>`} {
		c.b.WriteString(s)
	}
}

// Text writes at an anchor: start, middle or end.
func (c *Canvas) Text(class, anchor string, x, y float64, s string) {
	c.say(label{class: class, anchor: anchor, x: x, y: y, text: s})
}

// TextAt writes turned by deg about its anchor.
func (c *Canvas) TextAt(class string, x, y, deg float64, s string) {
	if deg == 0 {
		c.say(label{class: class, anchor: "middle", x: x, y: y, text: s})
		return
	}
	c.say(label{class: class, x: x, y: y, text: s, turned: deg})
}

// Rect draws a rectangle.
func (c *Canvas) Rect(class string, x, y, w, h float64) {
	c.f(`<rect class="%s" x="%s" y="%s" width="%s" height="%s"/>`, class, n(x), n(y), n(w), n(h))
}

// XY is a place on the canvas.
type XY struct{ X, Y float64 }

func points(p []XY) string {
	var b strings.Builder
	for i, q := range p {
		if i > 0 {
			b.WriteByte(' ')
		}
		b.WriteString(n(q.X) + "," + n(q.Y))
	}
	return b.String()
}

// Poly draws a closed polygon.
func (c *Canvas) Poly(class string, p []XY) {
	c.b.WriteString(`<polygon class="`)
	c.b.WriteString(class)
	c.b.WriteString(`" points="`)
	for i, q := range p {
		if i > 0 {
			c.b.WriteByte(' ')
		}
		c.b.WriteString(n(q.X))
		c.b.WriteByte(',')
		c.b.WriteString(n(q.Y))
	}
	c.b.WriteString(`"/>`)
}

// Open draws an open line.
func (c *Canvas) Open(class string, p []XY) {
	c.f(`<polyline class="%s" points="%s"/>`, class, points(p))
}

// Pick opens a link to an element; Done closes it.
func (c *Canvas) Pick(href, key, label string, on bool) {
	class := "pick"
	if on {
		class += " on"
	}
	if label != "" { // else it is named by its own text
		label = ` aria-label="` + esc(label) + `"`
	}
	c.f(`<a class="%s" href="%s" data-key="%s"%s%s>`, class, esc(href), esc(key), label, c.move)
}

// Done closes a Pick or a Group.
func (c *Canvas) Done() { c.b.WriteString("</a>") }

// Dim draws a dimension line from a to b, off to its left by off, with text.
func (c *Canvas) Dim(a, b XY, off float64, text string) {
	dx, dy := b.X-a.X, b.Y-a.Y
	l := math.Hypot(dx, dy)
	if l < 1 {
		return
	}
	nx, ny := dy/l, -dx/l
	p, q := XY{a.X + nx*off, a.Y + ny*off}, XY{b.X + nx*off, b.Y + ny*off}
	c.Line("dim", p.X, p.Y, q.X, q.Y)
	for i, e := range []XY{p, q} {
		from := []XY{a, b}[i]
		s := math.Copysign(4, off)
		c.Line("dim", from.X+nx*s, from.Y+ny*s, e.X+nx*s, e.Y+ny*s)
		ux, uy := dx/l, dy/l
		c.Line("tick", e.X-ux*4+nx*4, e.Y-uy*4+ny*4, e.X+ux*4-nx*4, e.Y+uy*4-ny*4)
	}
	deg := math.Atan2(dy, dx) * 180 / math.Pi
	if deg > 89 || deg <= -91 { // reads from below or from the right
		deg += 180
	}
	if deg > 180 {
		deg -= 360
	}
	mx, my := (p.X+q.X)/2, (p.Y+q.Y)/2
	r := deg * math.Pi / 180
	c.TextAt("halo", mx+math.Sin(r)*4, my-math.Cos(r)*4, deg, text)
	c.TextAt("t", mx+math.Sin(r)*4, my-math.Cos(r)*4, deg, text)
}

// TapeSize is how wide the measuring tape along the edges is.
const TapeSize = 22.0

// Tape draws the measuring tape along the top and left edges, in the drawing's
// own scale (px per mm), zero at x0 and at y0 upwards from the ground.
func (c *Canvas) Tape(scale, x0, y0 float64, top bool) {
	c.Rect("tape", 0, 0, TapeSize, c.H)
	if top {
		c.Rect("tape", 0, 0, c.W, TapeSize)
	}
	step, sub, unit, per := measure.Foot, 4, " ft", measure.Foot
	if c.Metric {
		step, sub, unit, per = 500, 5, " m", 1000
	}
	for step*scale < 46 {
		step *= 2
	}
	for step*scale > 220 {
		step /= 2
		if !c.Metric {
			unit, per = " in", measure.Inch
		}
	}
	for k := 1; float64(k)*step*scale/float64(sub) < c.W+c.H; k++ {
		at := float64(k) * step * scale / float64(sub)
		long, label := 5.0, ""
		if k%sub == 0 {
			long, label = 12, measure.Decimal(float64(k/sub)*step/per, 2)+unit
		}
		if x := x0 + at; top && x < c.W {
			c.Line("tapetick", x, 0, x, long)
			if label != "" && x < c.W-44 {
				c.Text("tapetext", "start", x+3, 18, label)
			}
		}
		if y := y0 - at; y > TapeSize+8 || !top && y > 8 {
			c.Line("tapetick", 0, y, long, y)
			if label != "" {
				c.Text("tapetext", "start", 1, y-3, strings.TrimSpace(label))
			}
		}
	}
	if top {
		c.Rect("tapehook", 0, 0, TapeSize, TapeSize)
		c.Line("hookline", 6, 16, 16, 6)
	}
}

// Person draws a standing adult's outline, feet at (x, y): 5 ft 9 in.
func (c *Canvas) Person(x, y, scale float64) {
	u := measure.Inch * scale
	c.figure(x, y, u)
	if u > 1.1 {
		c.Text("t soft", "middle", x, y+14, map[bool]string{false: `5' 9"`, true: "1753 mm"}[c.Metric])
	}
}

// ChildFrom is how far beside an adult a child is drawn, mm.
const ChildFrom = 400

// Child draws a child of six years beside the adult: 3 ft 10 in.
func (c *Canvas) Child(x, y, scale float64) {
	u := measure.Inch * scale
	c.figure(x, y, u*46/69)
	if ChildFrom*scale >= 48 { // beside the adult's
		c.Text("t soft", "middle", x, y+14, map[bool]string{false: `3' 10"`, true: "1168 mm"}[c.Metric])
	}
}

// figure draws a person of 69 units.
func (c *Canvas) figure(x, y, u float64) {
	at := func(dx, dy float64) string { return n(x+dx*u) + " " + n(y+dy*u) }
	c.f(
		`<g class="person" aria-hidden="true"><circle cx="%s" cy="%s" r="%s"/><path d="M%s L%s Q%s %s Q%s %s L%s M%s L%s M%s L%s M%s L%s"/></g>`,
		n(x),
		n(y-65.4*u),
		n(3.5*u),
		at(-8, -32),
		at(-8, -50),
		at(-8, -59),
		at(0, -59),
		at(8, -59),
		at(8, -50),
		at(8, -32),
		at(-5, 0),
		at(-5, -46),
		at(5, 0),
		at(5, -46),
		at(0, 0),
		at(0, -31),
	)
}

// defs are the materials: foam stippled, wood plain with grain, EVA even,
// clear with two slashes; waiting hatched. Tones are top, front and side.
var defs = makeDefs()

func makeDefs() string {
	var b strings.Builder
	b.WriteString("<defs>")
	for _, tone := range []string{"1", "2", "3"} {
		fmt.Fprintf(
			&b,
			`<pattern id="foam%s" width="9" height="9" patternUnits="userSpaceOnUse"><rect class="foam%s" width="9" height="9"/><circle class="dot" cx="2" cy="2.5" r=".7"/><circle class="dot" cx="6.5" cy="6" r=".7"/></pattern>`,
			tone,
			tone,
		)
		fmt.Fprintf(
			&b,
			`<pattern id="wood%s" width="40" height="10" patternUnits="userSpaceOnUse"><rect class="wood%s" width="40" height="10"/><path class="grain" d="M0 5q10 -2 20 0t20 0"/></pattern>`,
			tone,
			tone,
		)
		fmt.Fprintf(
			&b,
			`<pattern id="clear%s" width="26" height="26" patternUnits="userSpaceOnUse"><rect class="clear%s" width="26" height="26"/><path class="slash" d="M8 16l8 -8M12 18l8 -8"/></pattern>`,
			tone,
			tone,
		)
	}
	b.WriteString(
		`<pattern id="wait" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)"><rect class="waitbg" width="6" height="6"/><line class="waitline" x1="0" y1="0" x2="0" y2="6"/></pattern>`,
	)
	b.WriteString(
		`<pattern id="ply" width="240" height="44" patternUnits="userSpaceOnUse"><rect class="board" width="240" height="44"/><path class="boardgrain" d="M0 12q30 -6 60 0t60 0 60 0 60 0M0 32q40 6 80 0t80 0 80 0"/></pattern>`,
	)
	b.WriteString(
		`<radialGradient id="halo"><stop class="halo0" offset="0"/><stop class="halo1" offset=".35"/><stop class="halo2" offset="1"/></radialGradient>`,
	)
	b.WriteString("</defs>")
	return b.String()
}
