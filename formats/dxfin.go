package formats

import (
	"bufio"
	"bytes"
	"math"
	"slices"
	"strconv"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
)

// notCut are the layers of our own files whose lines are no outlines.
var notCut = []string{"text", "mark", "score", "pocket"}

// dxfRings reads LINE, LWPOLYLINE, POLYLINE, CIRCLE, ARC, ELLIPSE and SPLINE and joins
// what meets end to end. Lines on the layers text and mark of our own files are no
// outlines.
func dxfRings(b *budget, data []byte) ([][]pattern.Point, error) {
	in := newDXFPairs(b, data)
	var open, rings [][]pattern.Point
	e := dxfEntity{b: b, first: map[int]float64{}}
	inEntities, section := false, false
	for in.next() {
		p := in.pair
		if section && p.code == 2 {
			inEntities = p.value == "ENTITIES"
		}
		section = p.code == 0 && p.value == "SECTION"
		if p.code != 0 || !inEntities {
			continue
		}
		if err := b.element(0); err != nil {
			return nil, err
		}
		corners, err := e.from(in, p.value)
		if err != nil {
			return nil, err
		}
		if len(corners) < 2 || slices.Contains(notCut, e.layer) {
			continue
		}
		if e.closed {
			rings = append(rings, corners)
		} else {
			open = append(open, corners)
		}
	}
	if in.err != nil {
		return nil, in.err
	}
	return append(rings, joined(open)...), nil
}

// dxfPair is a group code with its value, and the line it stands on.
type dxfPair struct {
	code  int
	value string
	line  int
}

// dxfPairs reads a DXF as text, pair by pair: a code on one line, its value on the next.
type dxfPairs struct {
	b    *budget
	in   *bufio.Scanner
	line int
	pair dxfPair
	held bool // the pair is to be read again
	err  error
}

func newDXFPairs(b *budget, data []byte) *dxfPairs {
	in := bufio.NewScanner(bytes.NewReader(data))
	in.Buffer(nil, 1<<20)
	return &dxfPairs{b: b, in: in}
}

// next reads the next pair; false at the end, or where err says why not.
func (d *dxfPairs) next() bool {
	if d.held {
		d.held = false
		return true
	}
	if d.err != nil || !d.in.Scan() {
		d.end()
		return false
	}
	text := strings.TrimSpace(d.in.Text())
	code, err := strconv.Atoi(text)
	if err != nil {
		d.err = measure.Bad("file", "is no DXF as text: line %d has %.40q where a group code belongs", d.line+1, text)
		return false
	}
	if !d.in.Scan() {
		d.end()
		return false
	}
	d.pair = dxfPair{code, strings.TrimSpace(d.in.Text()), d.line + 2}
	d.line += 2
	d.err = d.b.letter(len(d.pair.value) + 3)
	return d.err == nil
}

func (d *dxfPairs) end() {
	if d.err == nil && d.in.Err() != nil {
		d.err = measure.Bad("file", "is a DXF with a line longer than any DXF has; export it again")
	}
}

// dxfEntity is one entity as it is read.
type dxfEntity struct {
	b           *budget
	kind, layer string
	first       map[int]float64 // of each code, its first number
	corners     []pattern.Point
	bulges      []float64
	curve       spline
	closed      bool
}

// from reads the entity of a kind that begins after the pair read last, and makes corners
// of it.
func (e *dxfEntity) from(in *dxfPairs, kind string) ([]pattern.Point, error) {
	*e = dxfEntity{b: e.b, kind: kind, first: e.first}
	if err := e.read(in); err != nil {
		return nil, err
	}
	e.closed = int(e.first[70])&1 == 1
	var err error
	switch e.kind {
	case "LINE":
		err = e.b.point(2)
		e.corners = []pattern.Point{{X: e.first[10], Y: e.first[20]}, {X: e.first[11], Y: e.first[21]}}
	case "CIRCLE", "ARC":
		e.closed = e.kind == "CIRCLE"
		e.corners, err = dxfArc(e.b, e.first, e.closed)
	case "ELLIPSE":
		e.corners, e.closed, err = ellipse(e.b, e.first)
	case "SPLINE":
		e.corners, err = e.curve.points(e.b, int(e.first[71]))
		e.closed = e.closed && len(e.corners) > 2
	case "POLYLINE":
		err = e.vertices(in)
	}
	if err != nil || len(e.bulges) == 0 {
		return e.corners, err
	}
	return bulged(e.b, e.corners, e.bulges, e.closed)
}

// vertices are the corners of a polyline, which follow it as entities of their own.
func (e *dxfEntity) vertices(in *dxfPairs) error {
	layer := e.layer
	for in.next() {
		if in.pair.code != 0 || in.pair.value != "VERTEX" {
			in.held = true
			break
		}
		if err := e.b.point(1); err != nil {
			return err
		}
		if err := e.read(in); err != nil {
			return err
		}
		e.corners = append(e.corners, pattern.Point{X: e.first[10], Y: e.first[20]})
		e.bulges = append(e.bulges, e.first[42])
	}
	e.layer = layer
	return in.err
}

// read takes the pairs of one entity, up to where the next begins.
func (e *dxfEntity) read(in *dxfPairs) error {
	clear(e.first)
	drawn := slices.Contains([]string{
		"LINE", "CIRCLE", "ARC", "ELLIPSE", "SPLINE", "LWPOLYLINE", "POLYLINE",
	}, e.kind)
	for in.next() {
		p := in.pair
		if p.code == 0 {
			in.held = true
			return nil
		}
		if p.code == 8 {
			e.layer = strings.ToLower(p.value)
		}
		if !drawn || p.code < 10 || p.code > 79 {
			continue // no number of a shape
		}
		v, err := strconv.ParseFloat(p.value, 64)
		if err != nil || far(v) != nil {
			return measure.Bad("file", "line %d: %.40q is no number a drawing has; %.0g is the farthest read",
				p.line, p.value, MaxCoord)
		}
		if err := e.number(p.code, v); err != nil {
			return err
		}
	}
	return in.err
}

// number takes one number of the entity by its group code.
func (e *dxfEntity) number(code int, v float64) error {
	if _, seen := e.first[code]; !seen {
		e.first[code] = v
	}
	switch e.kind {
	case "SPLINE":
		return e.curve.take(e.b, code, v)
	case "LWPOLYLINE":
		n := len(e.corners)
		switch {
		case code == 10:
			if err := e.b.point(1); err != nil {
				return err
			}
			e.corners, e.bulges = append(e.corners, pattern.Point{X: v}), append(e.bulges, 0)
		case code == 20 && n > 0:
			e.corners[n-1].Y = v
		case code == 42 && n > 0:
			e.bulges[n-1] = v
		}
	}
	return nil
}

// arcEnd is where an arc from one angle ends that a file ends at another: anticlockwise, a
// turn at most.
func arcEnd(from, to float64) float64 {
	if to = from + math.Mod(to-from, 2*math.Pi); to <= from {
		to += 2 * math.Pi
	}
	return to
}

// dxfArc is an arc, or a circle, as corners two degrees apart.
func dxfArc(b *budget, first map[int]float64, whole bool) (corners []pattern.Point, err error) {
	from, to := 0.0, 2*math.Pi
	if !whole {
		from = first[50] * math.Pi / 180
		to = arcEnd(from, first[51]*math.Pi/180)
	}
	n := int(math.Ceil((to-from)/(2*math.Pi)*180)) + 1
	if err := b.point(n + 1); err != nil {
		return nil, err
	}
	for k := range n + 1 {
		s, c := math.Sincos(from + (to-from)*float64(k)/float64(n))
		corners = append(corners, pattern.Point{X: first[10] + first[40]*c, Y: first[20] + first[40]*s})
	}
	return corners, nil
}

// bulged puts in the arcs of a polyline: a bulge is the tangent of a quarter
// of the arc's angle.
func bulged(b *budget, p []pattern.Point, bulge []float64, closed bool) (out []pattern.Point, err error) {
	for i, a := range p {
		out = append(out, a)
		if i >= len(bulge) || bulge[i] == 0 || i == len(p)-1 && !closed {
			continue
		}
		z := p[(i+1)%len(p)]
		angle := 4 * math.Atan(bulge[i])
		chord := math.Hypot(z.X-a.X, z.Y-a.Y)
		if chord == 0 {
			continue
		}
		r := chord / 2 / math.Sin(angle/2)
		off := r * math.Cos(angle/2)
		mid := pattern.Point{X: (a.X + z.X) / 2, Y: (a.Y + z.Y) / 2}
		c := pattern.Point{X: mid.X - (z.Y-a.Y)/chord*off, Y: mid.Y + (z.X-a.X)/chord*off}
		from := math.Atan2(a.Y-c.Y, a.X-c.X)
		n := int(math.Ceil(math.Abs(angle) / (2 * math.Pi) * 180))
		if err := b.point(n); err != nil {
			return nil, err
		}
		for k := 1; k < n; k++ {
			s, cs := math.Sincos(from + angle*float64(k)/float64(n))
			out = append(out, pattern.Point{X: c.X + math.Abs(r)*cs, Y: c.Y + math.Abs(r)*s})
		}
	}
	return out, nil
}
