package formats

import (
	"bytes"
	"encoding/xml"
	"errors"
	"io"
	"math"
	"strconv"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"

	"golang.org/x/net/html/charset"
)

// svgNode is an element of an SVG with what is needed of it.
type svgNode struct {
	name   string
	at     map[string]string // of svgRead alone
	kids   []*svgNode
	hidden bool
	own    affine // its own transform
	bad    error  // why that cannot be read
}

// maxAttributes is how many attributes a drawing may have: an element is read with all its
// own.
const maxAttributes = 400_000

// svgRead are the attributes that say what is drawn, and where.
var svgRead = map[string]bool{
	"id": true, "d": true, "points": true, "x": true, "y": true, "width": true, "height": true, "rx": true, "ry": true,
	"r": true, "cx": true, "cy": true, "href": true,
}

// affine is a transform: x' = a x + c y + e, y' = b x + d y + f (SVG 1.1, 7.5).
type affine [6]float64

func (m affine) mapped(p pattern.Point) pattern.Point {
	return pattern.Point{X: m[0]*p.X + m[2]*p.Y + m[4], Y: m[1]*p.X + m[3]*p.Y + m[5]}
}

// then is m after n: n first.
func (m affine) then(n affine) affine {
	return affine{
		m[0]*n[0] + m[2]*n[1],
		m[1]*n[0] + m[3]*n[1],
		m[0]*n[2] + m[2]*n[3],
		m[1]*n[2] + m[3]*n[3],
		m[0]*n[4] + m[2]*n[5] + m[4],
		m[1]*n[4] + m[3]*n[5] + m[5],
	}
}

// cubic is a Bezier curve; a straight line has its inner points on its ends.
type cubic [4]pattern.Point

func (c cubic) straight() bool { return c[0] == c[1] && c[2] == c[3] }

// svgPath is one subpath in the drawing's own place.
type svgPath struct {
	curves []cubic
	closed bool
}

// svgReader walks an SVG and collects its subpaths within a budget.
type svgReader struct {
	*budget
	ids   map[string]*svgNode
	paths []svgPath
}

// svgRings reads the closed outlines of an SVG, Y up: path, rect, circle,
// ellipse, polygon, groups, transforms and uses (SVG 1.1, chapters 7 to 9).
func svgRings(b *budget, data []byte) ([][]pattern.Point, error) {
	r := &svgReader{budget: b, ids: map[string]*svgNode{}}
	root, err := r.parse(data)
	if err != nil {
		return nil, err
	}
	if err := r.walk(root, affine{1, 0, 0, -1, 0, 0}, 0); err != nil {
		return nil, err
	}
	lo, hi := pattern.Point{X: math.Inf(1), Y: math.Inf(1)}, pattern.Point{X: math.Inf(-1), Y: math.Inf(-1)}
	for _, p := range r.paths {
		for _, c := range p.curves {
			for _, q := range c {
				lo.X, lo.Y, hi.X, hi.Y = math.Min(lo.X, q.X), math.Min(lo.Y, q.Y), math.Max(hi.X, q.X), math.Max(hi.Y, q.Y)
			}
		}
	}
	tolerance := math.Max(hi.X-lo.X, hi.Y-lo.Y) / 2000
	var out [][]pattern.Point
	for _, p := range r.paths {
		if !p.closed {
			continue
		}
		var ring []pattern.Point
		for _, c := range p.curves {
			n := 1
			if !c.straight() {
				n = flatSteps(c, tolerance)
			}
			if err := b.point(n); err != nil {
				return nil, err
			}
			for i := range n {
				ring = append(ring, c.at(float64(i)/float64(n)))
			}
		}
		out = append(out, ring)
	}
	return out, nil
}

// flatSteps is how many chords keep a cubic within a tolerance: its second
// difference bounds the error, |B”| / 8 n^2 (Wang 1984).
func flatSteps(c cubic, tolerance float64) int {
	bend := 0.0
	for i := range 2 {
		bend = math.Max(bend, math.Hypot(c[i].X-2*c[i+1].X+c[i+2].X, c[i].Y-2*c[i+1].Y+c[i+2].Y))
	}
	n := math.Ceil(math.Sqrt(6 * bend / (8 * math.Max(tolerance, 1e-12))))
	return int(math.Min(200, math.Max(1, n)))
}

func (c cubic) at(t float64) pattern.Point {
	s := 1 - t
	a, b, d, e := s*s*s, 3*s*s*t, 3*s*t*t, t*t*t
	return pattern.Point{X: a*c[0].X + b*c[1].X + d*c[2].X + e*c[3].X, Y: a*c[0].Y + b*c[1].Y + d*c[2].Y + e*c[3].Y}
}

// parse reads the elements of the file as a tree.
func (r *svgReader) parse(data []byte) (*svgNode, error) {
	bad := func(err error) error {
		return measure.Bad("file", "is an SVG that cannot be read: %s", err)
	}
	if bytes.Count(data, []byte("=")) > maxAttributes {
		return nil, measure.Bad("file", "has more than %d attributes; make it simpler", maxAttributes)
	}
	d := xml.NewDecoder(bytes.NewReader(data))
	d.CharsetReader = charset.NewReaderLabel
	top := &svgNode{own: affine{1, 0, 0, 1, 0, 0}}
	stack := []*svgNode{top}
	for {
		t, err := d.Token()
		if errors.Is(err, io.EOF) {
			return top, nil
		}
		if err != nil {
			return nil, bad(err)
		}
		switch x := t.(type) {
		case xml.StartElement:
			if err := r.element(len(stack)); err != nil {
				return nil, err
			}
			n, err := r.node(x)
			if err != nil {
				return nil, err
			}
			if id := n.at["id"]; id != "" {
				r.ids[id] = n
			}
			up := stack[len(stack)-1]
			up.kids = append(up.kids, n)
			stack = append(stack, n)
		case xml.EndElement:
			stack = stack[:len(stack)-1]
		}
	}
}

// node is an element as it begins.
func (r *svgReader) node(x xml.StartElement) (*svgNode, error) {
	n := &svgNode{name: x.Name.Local, at: map[string]string{}, own: affine{1, 0, 0, 1, 0, 0}}
	for _, a := range x.Attr {
		if err := r.letter(len(a.Value)); err != nil {
			return nil, err
		}
		switch name := a.Name.Local; {
		case svgRead[name]:
			n.at[name] = a.Value
		case name == "display":
			n.hidden = n.hidden || a.Value == "none"
		case name == "style":
			n.hidden = n.hidden || strings.Contains(strings.ReplaceAll(a.Value, " ", ""), "display:none")
		case name == "transform":
			n.own, n.bad = readTransform(a.Value)
		}
	}
	return n, nil
}

// notDrawn are elements whose contents are drawn only when something names them.
var notDrawn = map[string]bool{
	"defs":           true,
	"symbol":         true,
	"clipPath":       true,
	"mask":           true,
	"marker":         true,
	"pattern":        true,
	"linearGradient": true,
	"radialGradient": true,
	"metadata":       true,
}

func (r *svgReader) walk(n *svgNode, m affine, depth int) error {
	if err := r.element(depth); err != nil {
		return err
	}
	if n.hidden || notDrawn[n.name] && depth > 0 {
		return nil
	}
	if n.bad != nil {
		return n.bad
	}
	m = m.then(n.own)
	if err := r.letter(len(n.at["d"]) + len(n.at["points"])); err != nil {
		return err
	}
	if err := r.shape(n, m); err != nil {
		return err
	}
	if n.name == "use" {
		if to := r.ids[strings.TrimPrefix(n.at["href"], "#")]; to != nil {
			x, y := svgNumber(n.at["x"]), svgNumber(n.at["y"])
			if to.name == "symbol" {
				to = &svgNode{name: "g", kids: to.kids, own: affine{1, 0, 0, 1, 0, 0}}
			}
			return r.walk(to, m.then(affine{1, 0, 0, 1, x, y}), depth+1)
		}
	}
	for _, k := range n.kids {
		if err := r.walk(k, m, depth+1); err != nil {
			return err
		}
	}
	return nil
}

// svgNumber is the number a length begins with; 0 when there is none.
func svgNumber(s string) float64 {
	v, _, _ := cutNumber(strings.TrimSpace(s))
	return v
}

// cutNumber takes a number off the front of a text.
func cutNumber(s string) (v float64, rest string, ok bool) {
	i, dot, digits := 0, false, 0
	if i < len(s) && (s[i] == '+' || s[i] == '-') {
		i++
	}
	for i < len(s) && (s[i] >= '0' && s[i] <= '9' || s[i] == '.' && !dot) {
		dot = dot || s[i] == '.'
		if s[i] != '.' {
			digits++
		}
		i++
	}
	if digits == 0 {
		return 0, s, false
	}
	if i < len(s) && (s[i] == 'e' || s[i] == 'E') {
		k := i + 1
		if k < len(s) && (s[k] == '+' || s[k] == '-') {
			k++
		}
		if k < len(s) && s[k] >= '0' && s[k] <= '9' {
			for k < len(s) && s[k] >= '0' && s[k] <= '9' {
				k++
			}
			i = k
		}
	}
	v, err := strconv.ParseFloat(s[:i], 64)
	return v, s[i:], err == nil || errors.Is(err, strconv.ErrRange)
}

func skipCommas(s string) string { return strings.TrimLeft(s, " ,\t\r\n\f") }

// readTransform reads a transform list (SVG 1.1, 7.6).
func readTransform(text string) (affine, error) {
	m := affine{1, 0, 0, 1, 0, 0}
	for {
		text = skipCommas(text)
		if text == "" {
			return m, nil
		}
		name, rest, ok := strings.Cut(text, "(")
		inner, after, ok2 := strings.Cut(rest, ")")
		if !ok || !ok2 {
			return m, measure.Bad("file", "is an SVG with a transform that cannot be read: %.40q", text)
		}
		text = after
		var v []float64
		for inner = skipCommas(inner); inner != "" && len(v) < 7; inner = skipCommas(inner) {
			x, rest, ok := cutNumber(inner)
			if !ok || far(x) != nil {
				return m, measure.Bad("file", "is an SVG with a transform that cannot be read: %.40q", inner)
			}
			v, inner = append(v, x), rest
		}
		at := func(i int, or float64) float64 {
			if i < len(v) {
				return v[i]
			}
			return or
		}
		rad := at(0, 0) * math.Pi / 180
		switch strings.TrimSpace(name) {
		case "matrix":
			m = m.then(affine{at(0, 1), at(1, 0), at(2, 0), at(3, 1), at(4, 0), at(5, 0)})
		case "translate":
			m = m.then(affine{1, 0, 0, 1, at(0, 0), at(1, 0)})
		case "scale":
			m = m.then(affine{at(0, 1), 0, 0, at(1, at(0, 1)), 0, 0})
		case "rotate":
			s, c := math.Sincos(rad)
			x, y := at(1, 0), at(2, 0)
			m = m.then(affine{1, 0, 0, 1, x, y}).then(affine{c, s, -s, c, 0, 0}).then(affine{1, 0, 0, 1, -x, -y})
		case "skewX":
			m = m.then(affine{1, 0, math.Tan(rad), 1, 0, 0})
		case "skewY":
			m = m.then(affine{1, math.Tan(rad), 0, 1, 0, 0})
		default:
			return m, measure.Bad("file", "is an SVG with a transform %q that is not known", strings.TrimSpace(name))
		}
	}
}

// shape adds what an element draws itself.
func (r *svgReader) shape(n *svgNode, m affine) error {
	p := &pen{reader: r, m: m}
	num := func(name string) float64 { return svgNumber(n.at[name]) }
	switch n.name {
	case "path":
		return p.path(n.at["d"])
	case "rect":
		x, y, w, h := num("x"), num("y"), num("width"), num("height")
		rx, ry := num("rx"), num("ry")
		if rx <= 0 {
			rx = ry
		}
		if ry <= 0 {
			ry = rx
		}
		rx, ry = math.Min(rx, w/2), math.Min(ry, h/2)
		if w <= 0 || h <= 0 {
			return nil
		}
		if rx <= 0 || ry <= 0 {
			return p.corners([]float64{x, y, x + w, y, x + w, y + h, x, y + h}, true)
		}
		p.move(pattern.Point{X: x + rx, Y: y})
		for _, s := range [][4]float64{{x + w - rx, y, x + w, y + ry}, {x + w, y + h - ry, x + w - rx, y + h},
			{x + rx, y + h, x, y + h - ry}, {x, y + ry, x + rx, y}} {
			p.line(pattern.Point{X: s[0], Y: s[1]})
			p.arc(rx, ry, 0, false, true, pattern.Point{X: s[2], Y: s[3]})
		}
		p.close()
	case "circle", "ellipse":
		rx, ry := num("rx"), num("ry")
		if n.name == "circle" {
			rx, ry = num("r"), num("r")
		}
		if rx <= 0 || ry <= 0 {
			return nil
		}
		cx, cy := num("cx"), num("cy")
		p.move(pattern.Point{X: cx - rx, Y: cy})
		p.arc(rx, ry, 0, false, true, pattern.Point{X: cx + rx, Y: cy})
		p.arc(rx, ry, 0, false, true, pattern.Point{X: cx - rx, Y: cy})
		p.close()
	case "polygon", "polyline":
		var v []float64
		for s := skipCommas(n.at["points"]); s != ""; s = skipCommas(s) {
			x, rest, ok := cutNumber(s)
			if !ok || len(v) > 2*MaxPoints {
				break // what follows an error is not drawn; as many corners are refused
			}
			v, s = append(v, x), rest
		}
		return p.corners(v, n.name == "polygon")
	}
	return p.end()
}

// pen draws subpaths; the first error stays and ends the drawing.
type pen struct {
	reader   *svgReader
	m        affine
	at, from pattern.Point // now, and where the subpath began
	curves   []cubic
	err      error
	handle   pattern.Point // of the last curve, for the smooth ones
	handleOf byte          // C or Q
}

func (p *pen) add(c cubic) {
	if p.err != nil {
		return
	}
	if p.err = p.reader.point(1); p.err != nil {
		return
	}
	p.at = c[3]
	for i := range c {
		c[i] = p.m.mapped(c[i])
		for _, v := range []float64{c[i].X, c[i].Y} {
			if p.err = far(v); p.err != nil {
				return
			}
		}
	}
	p.curves = append(p.curves, c)
}

func (p *pen) line(to pattern.Point) { p.add(cubic{p.at, p.at, to, to}) }

func (p *pen) move(to pattern.Point) {
	p.flush(false)
	p.at, p.from = to, to
}

// flush ends a subpath. One that comes back to where it began is closed.
func (p *pen) flush(closed bool) {
	if len(p.curves) > 0 {
		closed = closed || p.at == p.from && len(p.curves) > 1
		p.reader.paths = append(p.reader.paths, svgPath{p.curves, closed})
	}
	p.curves = nil
}

func (p *pen) close() {
	if p.at != p.from {
		p.line(p.from)
	}
	p.flush(true)
	p.at = p.from
}

func (p *pen) end() error {
	p.flush(false)
	return p.err
}

func (p *pen) corners(v []float64, closed bool) error {
	for i := 0; i+1 < len(v) && p.err == nil; i += 2 {
		q := pattern.Point{X: v[i], Y: v[i+1]}
		if i == 0 {
			p.move(q)
			continue
		}
		p.line(q)
	}
	if closed && len(v) > 3 {
		p.close()
	}
	return p.end()
}

// arc is the elliptical arc of SVG 1.1, F.6, as cubics of a quarter turn at most.
func (p *pen) arc(rx, ry, turn float64, large, sweep bool, to pattern.Point) {
	rx, ry = math.Abs(rx), math.Abs(ry)
	if rx == 0 || ry == 0 || p.at == to {
		if p.at != to {
			p.line(to)
		}
		return
	}
	sn, cs := math.Sincos(turn * math.Pi / 180)
	dx, dy := (p.at.X-to.X)/2, (p.at.Y-to.Y)/2
	x, y := cs*dx+sn*dy, cs*dy-sn*dx
	if l := x*x/(rx*rx) + y*y/(ry*ry); l > 1 {
		rx, ry = rx*math.Sqrt(l), ry*math.Sqrt(l)
	}
	den := rx*rx*y*y + ry*ry*x*x
	f := math.Sqrt(math.Max(0, (rx*rx*ry*ry-den)/den))
	if large == sweep {
		f = -f
	}
	cx, cy := f*rx*y/ry, -f*ry*x/rx
	mid := pattern.Point{X: cs*cx - sn*cy + (p.at.X+to.X)/2, Y: sn*cx + cs*cy + (p.at.Y+to.Y)/2}
	a := math.Atan2((y-cy)/ry, (x-cx)/rx)
	b := math.Atan2((-y-cy)/ry, (-x-cx)/rx)
	switch {
	case sweep && b < a:
		b += 2 * math.Pi
	case !sweep && b > a:
		b -= 2 * math.Pi
	}
	n := math.Ceil(math.Abs(b-a)/(math.Pi/2) - 1e-9)
	if n < 1 || n > 4 || math.IsNaN(n) {
		p.line(to)
		return
	}
	step := (b - a) / n
	k := 4.0 / 3 * math.Tan(step/4)
	on := func(t, ox, oy float64) pattern.Point { // on the ellipse at t, moved along its tangent
		s, c := math.Sincos(t)
		ex, ey := rx*(c+ox*-s), ry*(s+oy*c)
		return pattern.Point{X: mid.X + cs*ex - sn*ey, Y: mid.Y + sn*ex + cs*ey}
	}
	for i := range int(n) {
		t := a + step*float64(i)
		end := on(t+step, 0, 0)
		if i == int(n)-1 {
			end = to
		}
		p.add(cubic{p.at, on(t, k, k), on(t+step, -k, -k), end})
	}
}

// path reads path data (SVG 1.1, 8.3). What follows an error in it is not drawn.
func (p *pen) path(d string) error {
	var cmd byte
	for d = skipCommas(d); d != "" && p.err == nil; d = skipCommas(d) {
		if c := d[0]; c >= 'A' && c <= 'Z' || c >= 'a' && c <= 'z' {
			cmd, d = c, d[1:]
			if cmd == 'Z' || cmd == 'z' {
				p.close()
				p.handleOf = 0
				continue
			}
		} else if cmd == 0 || cmd == 'Z' || cmd == 'z' {
			break
		}
		up := cmd &^ 0x20
		want := numbersOf(up)
		if want == 0 {
			break
		}
		var v [7]float64
		ok := true
		for i := 0; i < want && ok; i++ {
			d = skipCommas(d)
			if up == 'A' && (i == 3 || i == 4) { // a flag is one digit and may stand close
				if ok = d != "" && (d[0] == '0' || d[0] == '1'); ok {
					v[i], d = float64(d[0]-'0'), d[1:]
				}
				continue
			}
			v[i], d, ok = cutNumber(d)
			if ok && p.err == nil {
				p.err = far(v[i])
			}
		}
		if !ok || p.err != nil {
			break
		}
		p.command(up, cmd != up, v)
		if up == 'M' { // further pairs are lines
			cmd = cmd&0x20 | 'L'
		}
	}
	return p.end()
}

// numbersOf is how many numbers a command of path data takes; 0 for none that is known.
func numbersOf(command byte) int {
	switch command {
	case 'H', 'V':
		return 1
	case 'M', 'L', 'T':
		return 2
	case 'S', 'Q':
		return 4
	case 'C':
		return 6
	case 'A':
		return 7
	}
	return 0
}

func (p *pen) command(up byte, relative bool, v [7]float64) {
	o := pattern.Point{}
	if relative {
		o = p.at
	}
	pt := func(i int) pattern.Point { return pattern.Point{X: o.X + v[i], Y: o.Y + v[i+1]} }
	mirrored := func(of byte) pattern.Point {
		if p.handleOf != of {
			return p.at
		}
		return pattern.Point{X: 2*p.at.X - p.handle.X, Y: 2*p.at.Y - p.handle.Y}
	}
	curve := func(of byte, a, b, handle, to pattern.Point) {
		p.add(cubic{p.at, a, b, to})
		p.handle, p.handleOf = handle, of
	}
	quadratic := func(q, to pattern.Point) {
		a := pattern.Point{X: p.at.X + 2.0/3*(q.X-p.at.X), Y: p.at.Y + 2.0/3*(q.Y-p.at.Y)}
		b := pattern.Point{X: to.X + 2.0/3*(q.X-to.X), Y: to.Y + 2.0/3*(q.Y-to.Y)}
		curve('Q', a, b, q, to)
	}
	was := p.handleOf
	p.handleOf = 0
	switch up {
	case 'M':
		p.move(pt(0))
	case 'L':
		p.line(pt(0))
	case 'H':
		p.line(pattern.Point{X: o.X + v[0], Y: p.at.Y})
	case 'V':
		p.line(pattern.Point{X: p.at.X, Y: o.Y + v[0]})
	case 'C':
		curve('C', pt(0), pt(2), pt(2), pt(4))
	case 'S':
		p.handleOf = was
		curve('C', mirrored('C'), pt(0), pt(0), pt(2))
	case 'Q':
		quadratic(pt(0), pt(2))
	case 'T':
		p.handleOf = was
		quadratic(mirrored('Q'), pt(0))
	case 'A':
		p.arc(v[0], v[1], v[2], v[3] != 0, v[4] != 0, pt(5))
	}
}
