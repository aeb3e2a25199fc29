package formats

import (
	"bufio"
	"bytes"
	"context"
	"math"
	"slices"
	"sort"
	"strconv"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
)

// MaxOutlineFile is the largest SVG or DXF read, in bytes.
const MaxOutlineFile = 4 << 20

// Rings reads the closed outlines of an SVG or a DXF, Y up. Units are the
// file's own: a plan stretches them to one known size. Curves are flattened to
// within a two-thousandth of the drawing. What reading may cost is bounded
// while it is read; it ends early when ctx does.
func Rings(ctx context.Context, data []byte) ([][]pattern.Point, error) {
	b, done := newBudget(ctx)
	defer done()
	data = bytes.TrimPrefix(data, []byte("\ufeff"))
	if len(data) > MaxOutlineFile {
		return nil, measure.Bad("file", "is %d MB; an outline is at most %d MB", len(data)>>20, MaxOutlineFile>>20)
	}
	var rings [][]pattern.Point
	var err error
	head := bytes.ToLower(data[:min(len(data), 4096)])
	switch {
	case bytes.Contains(head, []byte("<svg")) || bytes.Contains(head, []byte("<?xml")):
		rings, err = svgRings(b, data)
	case bytes.Contains(data, []byte("SECTION")):
		rings, err = dxfRings(b, data)
	default:
		return nil, measure.Bad("file", "is neither an SVG nor a DXF as text; export the outline as one of these")
	}
	if err != nil {
		return nil, err
	}
	kept := rings[:0]
	n := 0
	for _, r := range rings {
		if len(r) > 2 && r[0] == r[len(r)-1] {
			r = r[:len(r)-1]
		}
		if len(r) > 2 && pattern.Area(r) > 0 {
			kept, n = append(kept, r), n+len(r)
		}
	}
	if len(kept) == 0 {
		return nil, measure.Bad("file", "has no closed outline; join the lines to a closed path and export again")
	}
	if n > pattern.MaxOutline {
		return nil, measure.Bad("file", "has %d corners; %d at most, so make the curves simpler", n, pattern.MaxOutline)
	}
	return kept, nil
}

// dxfRings reads LINE, LWPOLYLINE, POLYLINE, CIRCLE, ARC, ELLIPSE and SPLINE and joins
// what meets end to end. Lines on the layers text and mark of our own files are no
// outlines.
func dxfRings(b *budget, data []byte) ([][]pattern.Point, error) {
	pairs, err := dxfPairs(b, data)
	if err != nil {
		return nil, err
	}
	var open, rings [][]pattern.Point
	inEntities := false
	for i := 0; i < len(pairs); i++ {
		if pairs[i].code == 2 && i > 0 && pairs[i-1].value == "SECTION" {
			inEntities = pairs[i].value == "ENTITIES"
		}
		if pairs[i].code != 0 || !inEntities {
			continue
		}
		e := dxfEntity{kind: pairs[i].value}
		next := e.read(pairs, i+1)
		if err := b.element(0); err != nil {
			return nil, err
		}
		next = e.shape(pairs, next)
		i = next - 1
		if len(e.corners) < 2 || slices.Contains([]string{"text", "mark", "score", "pocket"}, e.layer) {
			continue
		}
		corners := bulged(e.corners, e.bulges, e.closed)
		if err := b.point(len(corners)); err != nil {
			return nil, err
		}
		if e.closed {
			rings = append(rings, corners)
		} else {
			open = append(open, corners)
		}
	}
	return append(rings, joined(open)...), nil
}

// dxfPair is a group code with its value.
type dxfPair struct {
	code  int
	value string
}

// dxfPairs reads a DXF as text: a code on one line, its value on the next.
func dxfPairs(b *budget, data []byte) (pairs []dxfPair, err error) {
	in := bufio.NewScanner(bytes.NewReader(data))
	in.Buffer(nil, 1<<20)
	for in.Scan() {
		text := strings.TrimSpace(in.Text())
		code, err := strconv.Atoi(text)
		if err != nil {
			return nil, measure.Bad("file", "is no DXF as text: %q stands where a group code should", text)
		}
		if !in.Scan() {
			break
		}
		pairs = append(pairs, dxfPair{code, strings.TrimSpace(in.Text())})
		if len(pairs)%5000 == 0 {
			if err := b.look(); err != nil {
				return nil, err
			}
		}
	}
	if err := in.Err(); err != nil {
		return nil, measure.Bad("file", "is a DXF with a line longer than any DXF has; export it again")
	}
	return pairs, nil
}

// dxfEntity is one entity as it is read.
type dxfEntity struct {
	kind, layer string
	first       map[int]float64 // of each code, its first number
	corners     []pattern.Point
	bulges      []float64
	curve       spline
	closed      bool
}

// read takes the pairs of one entity, from k on, and returns where the next begins.
func (e *dxfEntity) read(pairs []dxfPair, k int) int {
	e.first = map[int]float64{}
	for ; k < len(pairs) && pairs[k].code != 0; k++ {
		p := pairs[k]
		v, err := strconv.ParseFloat(p.value, 64)
		if p.code == 8 {
			e.layer = strings.ToLower(p.value)
		}
		if err != nil || far(v) != nil {
			continue
		}
		if _, seen := e.first[p.code]; !seen {
			e.first[p.code] = v
		}
		switch e.kind {
		case "SPLINE":
			e.curve.take(p.code, v)
		case "LWPOLYLINE":
			e.corner(p.code, v)
		}
	}
	return k
}

// corner takes a number of a polyline's corners.
func (e *dxfEntity) corner(code int, v float64) {
	n := len(e.corners)
	switch {
	case code == 10:
		e.corners, e.bulges = append(e.corners, pattern.Point{X: v}), append(e.bulges, 0)
	case code == 20 && n > 0:
		e.corners[n-1].Y = v
	case code == 42 && n > 0:
		e.bulges[n-1] = v
	}
}

// shape makes corners of what was read; a polyline's vertices follow it, from next on.
func (e *dxfEntity) shape(pairs []dxfPair, next int) int {
	first := e.first
	e.closed = int(first[70])&1 == 1
	switch e.kind {
	case "LINE":
		e.corners = []pattern.Point{{X: first[10], Y: first[20]}, {X: first[11], Y: first[21]}}
	case "CIRCLE", "ARC":
		e.corners, e.closed = dxfArc(first, e.kind == "CIRCLE"), e.kind == "CIRCLE"
	case "ELLIPSE":
		e.corners, e.closed = ellipse(first)
	case "SPLINE":
		e.corners = e.curve.points(int(first[71]))
		e.closed = e.closed && len(e.corners) > 2
	case "POLYLINE":
		layer := e.layer
		for next < len(pairs) && pairs[next].value == "VERTEX" {
			next = e.read(pairs, next+1)
			e.corners = append(e.corners, pattern.Point{X: e.first[10], Y: e.first[20]})
			e.bulges = append(e.bulges, e.first[42])
		}
		e.layer = layer
	}
	return next
}

// dxfArc is an arc, or a circle, as corners two degrees apart.
func dxfArc(first map[int]float64, whole bool) (corners []pattern.Point) {
	from, to := 0.0, 2*math.Pi
	if !whole {
		from, to = first[50]*math.Pi/180, first[51]*math.Pi/180
		if to = from + math.Mod(to-from, 2*math.Pi); to <= from { // anticlockwise, a turn at most
			to += 2 * math.Pi
		}
	}
	n := int(math.Ceil((to-from)/(2*math.Pi)*180)) + 1
	for k := range n + 1 {
		s, c := math.Sincos(from + (to-from)*float64(k)/float64(n))
		corners = append(corners, pattern.Point{X: first[10] + first[40]*c, Y: first[20] + first[40]*s})
	}
	return corners
}

// bulged puts in the arcs of a polyline: a bulge is the tangent of a quarter
// of the arc's angle.
func bulged(p []pattern.Point, bulge []float64, closed bool) []pattern.Point {
	var out []pattern.Point
	for i, a := range p {
		out = append(out, a)
		if i >= len(bulge) || bulge[i] == 0 || i == len(p)-1 && !closed {
			continue
		}
		b := p[(i+1)%len(p)]
		angle := 4 * math.Atan(bulge[i])
		chord := math.Hypot(b.X-a.X, b.Y-a.Y)
		if chord == 0 {
			continue
		}
		r := chord / 2 / math.Sin(angle/2)
		off := r * math.Cos(angle/2)
		mid := pattern.Point{X: (a.X + b.X) / 2, Y: (a.Y + b.Y) / 2}
		c := pattern.Point{X: mid.X - (b.Y-a.Y)/chord*off, Y: mid.Y + (b.X-a.X)/chord*off}
		from := math.Atan2(a.Y-c.Y, a.X-c.X)
		n := int(math.Ceil(math.Abs(angle) / (2 * math.Pi) * 180))
		for k := 1; k < n; k++ {
			s, cs := math.Sincos(from + angle*float64(k)/float64(n))
			out = append(out, pattern.Point{X: c.X + math.Abs(r)*cs, Y: c.Y + math.Abs(r)*s})
		}
	}
	return out
}

// joined makes rings of lines that meet end to end, to a ten-thousandth of the
// drawing.
func joined(lines [][]pattern.Point) (rings [][]pattern.Point) {
	size := 0.0
	for _, l := range lines {
		for _, p := range l {
			size = math.Max(size, math.Max(math.Abs(p.X), math.Abs(p.Y)))
		}
	}
	snap := math.Max(size*1e-4, 1e-9)
	type key [2]int64
	keyOf := func(p pattern.Point) key {
		return key{int64(math.Round(p.X / snap)), int64(math.Round(p.Y / snap))}
	}
	ends := map[key][]int{}
	for i, l := range lines {
		ends[keyOf(l[0])] = append(ends[keyOf(l[0])], i)
		ends[keyOf(l[len(l)-1])] = append(ends[keyOf(l[len(l)-1])], i)
	}
	for _, list := range ends {
		sort.Ints(list)
	}
	used := make([]bool, len(lines))
	for i := range lines {
		if used[i] {
			continue
		}
		used[i] = true
		ring := append([]pattern.Point(nil), lines[i]...)
		start := keyOf(ring[0])
		for keyOf(ring[len(ring)-1]) != start {
			at, found := keyOf(ring[len(ring)-1]), false
			list := ends[at]
			for len(list) > 0 && used[list[0]] { // looked at once, not again by each line that ends here
				list = list[1:]
			}
			ends[at] = list
			if len(list) > 0 {
				k := list[0]
				used[k], found = true, true
				l := lines[k]
				if keyOf(l[0]) != at {
					for n := len(l) - 2; n >= 0; n-- {
						ring = append(ring, l[n])
					}
				} else {
					ring = append(ring, l[1:]...)
				}
			}
			if !found {
				ring = nil
				break
			}
		}
		if len(ring) > 3 {
			rings = append(rings, ring[:len(ring)-1])
		}
	}
	return rings
}
