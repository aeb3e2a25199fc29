package pattern

import (
	"fmt"
	"math"
	"sort"
	"strconv"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/source"
)

// Outline is a silhouette: closed rings in any unit, stretched to a known size.
// A ring inside another is a hole in it, one inside that a part again.
type Outline struct {
	Rings   [][]Point
	W, H, T float64 // W or H may be 0: the other follows in proportion
	Copies  int
	Pair    bool    // as many again, mirrored: a left and a right
	Lying   bool    // on the floor, not standing
	Around  float64 // the copies stand out from a circle of this diameter, like petals; 0 does not
	Pitch   float64 // from one copy to the next; 4 T when 0
}

// MaxOutline is how many corners an outline may have.
const MaxOutline = 6000

// ReadRings reads rings as a plan keeps them: x,y pairs, rings parted by ;.
func ReadRings(text string) ([][]Point, error) {
	var out [][]Point
	n := 0
	for _, ring := range strings.Split(text, ";") {
		var p []Point
		for _, w := range strings.Fields(ring) {
			a, b, ok := strings.Cut(w, ",")
			x, e1 := strconv.ParseFloat(a, 64)
			y, e2 := strconv.ParseFloat(b, 64)
			if !ok || e1 != nil || e2 != nil || math.Abs(x) > 1e6 || math.Abs(y) > 1e6 || x != x || y != y {
				return nil, measure.Bad(
					"path",
					"%q is not a corner; write x,y pairs such as 0,0 36,0 18,60, rings parted by ;",
					w,
				)
			}
			if n++; n > MaxOutline {
				return nil, measure.Bad("path", "has more than %d corners; make it simpler", MaxOutline)
			}
			p = append(p, Point{x, y})
		}
		if p == nil {
			continue
		}
		if p = tidy(p); len(p) < 3 || Area(p) == 0 {
			return nil, measure.Bad("path", "a ring of %d corners has no area; write at least three", len(p))
		}
		out = append(out, p)
	}
	if out == nil {
		return nil, measure.Bad("path", "is empty; write x,y pairs such as 0,0 36,0 18,60, or bring in an SVG or DXF")
	}
	return out, nil
}

// Mirrored is rings seen from behind: left and right change places.
func Mirrored(rings [][]Point) [][]Point {
	out := make([][]Point, len(rings))
	for i, r := range rings {
		for k := range r {
			q := r[len(r)-1-k] // and still anticlockwise
			out[i] = append(out[i], Point{-q.X, q.Y})
		}
	}
	return out
}

// WriteRings is the text that ReadRings reads, to a hundredth of the unit.
func WriteRings(rings [][]Point) string {
	var b strings.Builder
	for i, r := range rings {
		if i > 0 {
			b.WriteString("; ")
		}
		for k, p := range r {
			if k > 0 {
				b.WriteByte(' ')
			}
			b.WriteString(measure.Decimal(p.X, 2) + "," + measure.Decimal(p.Y, 2))
		}
	}
	return b.String()
}

// crossing is a place where the outline meets itself.
func crossing(rings [][]Point) (Point, bool) {
	type side struct {
		a, b    Point
		ring, i int
		n       int
	}
	var sides []side
	for r, p := range rings {
		for i := range p {
			sides = append(sides, side{p[i], p[(i+1)%len(p)], r, i, len(p)})
		}
	}
	low := func(s side) float64 { return math.Min(s.a.X, s.b.X) }
	high := func(s side) float64 { return math.Max(s.a.X, s.b.X) }
	sort.Slice(sides, func(i, j int) bool { return low(sides[i]) < low(sides[j]) })
	for i, s := range sides {
		for _, t := range sides[i+1:] {
			if low(t) > high(s) {
				break
			}
			if s.ring == t.ring && ((s.i+1)%s.n == t.i || (t.i+1)%t.n == s.i) {
				continue // neighbours share a corner
			}
			d := (s.b.X-s.a.X)*(t.b.Y-t.a.Y) - (s.b.Y-s.a.Y)*(t.b.X-t.a.X)
			if d == 0 {
				continue
			}
			u := ((t.a.X-s.a.X)*(t.b.Y-t.a.Y) - (t.a.Y-s.a.Y)*(t.b.X-t.a.X)) / d
			v := ((t.a.X-s.a.X)*(s.b.Y-s.a.Y) - (t.a.Y-s.a.Y)*(s.b.X-s.a.X)) / d
			if u >= 0 && u <= 1 && v >= 0 && v <= 1 {
				return Point{s.a.X + u*(s.b.X-s.a.X), s.a.Y + u*(s.b.Y-s.a.Y)}, true
			}
		}
	}
	return Point{}, false
}

// Inside reports whether a point lies in the rings by the even-odd rule.
func Inside(rings [][]Point, c Point) bool {
	in := false
	for _, p := range rings {
		for i := range p {
			a, b := p[i], p[(i+1)%len(p)]
			if (a.Y > c.Y) != (b.Y > c.Y) && c.X < (b.X-a.X)*(c.Y-a.Y)/(b.Y-a.Y)+a.X {
				in = !in
			}
		}
	}
	return in
}

// reversed is a ring the other way round.
func reversed(p []Point) []Point {
	out := make([]Point, len(p))
	for i := range p {
		out[i] = p[len(p)-1-i]
	}
	return out
}

// parts sorts rings into parts: an outer ring anticlockwise with its holes.
func parts(rings [][]Point) (out [][][]Point) {
	depth := make([]int, len(rings))
	for i, r := range rings {
		for k, q := range rings {
			if i != k && Inside([][]Point{q}, r[0]) {
				depth[i]++
			}
		}
	}
	order := make([]int, len(rings))
	for i := range order {
		order[i] = i
	}
	sort.SliceStable(order, func(a, b int) bool { return Area(rings[order[a]]) > Area(rings[order[b]]) })
	at := map[int]int{}
	for _, i := range order {
		r := rings[i]
		if (SignedArea(r) < 0) != (depth[i]%2 == 1) {
			r = reversed(r)
		}
		if depth[i]%2 == 0 {
			at[i] = len(out)
			out = append(out, [][]Point{r})
			continue
		}
		for k, n := range at { // the ring just round it
			if depth[k] == depth[i]-1 && Inside([][]Point{rings[k]}, rings[i][0]) {
				out[n] = append(out[n], r)
			}
		}
	}
	return out
}

// Lay stretches the outline and makes a panel of each separate piece.
func (o Outline) Lay() (*Shape, error) {
	if err := positive("thickness", o.T); err != nil {
		return nil, err
	}
	if err := copies(o.Copies); err != nil {
		return nil, err
	}
	if len(o.Rings) == 0 {
		return nil, measure.Bad("path", "is empty; write x,y pairs such as 0,0 36,0 18,60")
	}
	rings, scale, err := o.stretched()
	if err != nil {
		return nil, err
	}
	if at, yes := crossing(rings); yes {
		return nil, measure.Bad(
			"path",
			"meets itself %s from the left, %s up; a saw cannot cut that",
			inches(at.X),
			inches(at.Y),
		)
	}
	s := &Shape{}
	sides := []string{""}
	if o.Pair {
		sides = []string{"left", "right"}
	}
	list := parts(rings)
	no := 0
	for _, side := range sides {
		for k, part := range list {
			p := Panel{ID: "shape", Name: "Shape", Copies: o.Copies, Thick: o.T, Grain: "up", Hand: side}
			if len(list) > 1 {
				p.ID, p.Name = fmt.Sprintf("shape%d", k+1), fmt.Sprintf("Shape %d", k+1)
			}
			if side != "" {
				p.ID, p.Name = p.ID+"-"+side, p.Name+", "+side
			}
			corner := p.outlined(part, scale.wide)
			s.Panels = append(s.Panels, p)
			s.Bodies = append(s.Bodies, o.copies(p, corner, scale, no, o.Copies*len(sides))...)
		}
		no += o.Copies
	}
	s.Size = extent(s.Bodies)
	area := 0.0
	for _, p := range s.Panels {
		area += p.Area() * float64(p.Copies)
	}
	s.Results = append(s.Results,
		result("scale", "Scale of the drawing", scale.x, "mm", measure.Decimal(scale.x, 3)+" mm a unit").
			With("known size / size in the drawing", fmt.Sprintf("%s / %s", inches(scale.wide), measure.Decimal(scale.drawn, 2)),
				measure.Decimal(scale.x, 4)+" mm a unit across, "+measure.Decimal(scale.y, 4)+" up",
				source.Exact("proportion")),
		result("face", "Face of all copies", area/1e6, "m2", measure.MarkedArea(area/1e6)).
			With("outlines less holes, x copies", fmt.Sprintf("%d pieces", len(s.Panels)*o.Copies),
				measure.Decimal(area/1e6, 3)+" m2", source.Exact("shoelace formula")),
	)
	return s, nil
}

// stretch is how a drawing becomes a part: mm a unit across and up, the part's size, and
// how wide it is drawn.
type stretch struct{ x, y, wide, tall, drawn float64 }

// stretched are the rings at their size, from 0,0 on.
func (o Outline) stretched() ([][]Point, stretch, error) {
	lo, hi := Point{math.Inf(1), math.Inf(1)}, Point{math.Inf(-1), math.Inf(-1)}
	for _, r := range o.Rings {
		for _, q := range r {
			lo, hi = Point{math.Min(lo.X, q.X), math.Min(lo.Y, q.Y)}, Point{math.Max(hi.X, q.X), math.Max(hi.Y, q.Y)}
		}
	}
	if hi.X <= lo.X || hi.Y <= lo.Y {
		return nil, stretch{}, measure.Bad("path", "has no area")
	}
	f := stretch{x: o.W / (hi.X - lo.X), y: o.H / (hi.Y - lo.Y), drawn: hi.X - lo.X}
	if o.W == 0 {
		f.x = f.y
	}
	if o.H == 0 {
		f.y = f.x
	}
	f.wide, f.tall = f.x*f.drawn, f.y*(hi.Y-lo.Y)
	rings := make([][]Point, len(o.Rings))
	for i, r := range o.Rings {
		for _, q := range r {
			rings[i] = append(rings[i], Point{(q.X - lo.X) * f.x, (q.Y - lo.Y) * f.y})
		}
	}
	return rings, f, sizes("width", f.wide, "height", f.tall)
}

// outlined gives a panel its outline and holes, mirrored for a right hand in a drawing so
// wide, and says where its corner was.
func (p *Panel) outlined(part [][]Point, wide float64) Point {
	for i, r := range part {
		if p.Hand == "right" {
			m := make([]Point, len(r))
			for j, q := range r {
				m[len(r)-1-j] = Point{wide - q.X, q.Y}
			}
			r = m
		}
		if i == 0 {
			p.Outline = r
		} else {
			p.Holes = append(p.Holes, r)
		}
	}
	corner, _ := p.Bounds()
	shift := func(r []Point) []Point {
		out := make([]Point, len(r))
		for i, q := range r {
			out[i] = Point{q.X - corner.X, q.Y - corner.Y}
		}
		return out
	}
	p.Outline = shift(p.Outline)
	for i := range p.Holes {
		p.Holes[i] = shift(p.Holes[i])
	}
	return corner
}

// copies are a panel's copies where they stand, from number no on of so many in all.
func (o Outline) copies(p Panel, corner Point, f stretch, no, of int) (out []Body) {
	pitch := o.Pitch
	if pitch <= 0 {
		pitch = o.T * 4
	}
	for c := range min(o.Copies, 40) {
		at := float64(no+c) * pitch
		if o.Around > 0 {
			at = float64((no+c)%2) * o.T // every other one behind its neighbours
		}
		b := cutout(p, c, Point{corner.X - f.wide/2, corner.Y}, at, o.Lying, f.tall)
		if o.Around > 0 {
			b.petal(2*math.Pi*float64(no+c)/float64(of), o.Around/2, o.Lying, f.tall)
		}
		out = append(out, b)
	}
	return out
}

// petal turns a copy about the middle of a circle, its foot on the circle.
func (b *Body) petal(angle, r float64, lying bool, tall float64) {
	sn, cs := math.Sincos(angle)
	b.moved(func(p Vec) Vec {
		if lying {
			x, y := p.X, p.Y+tall/2+r
			return Vec{x*cs + y*sn, y*cs - x*sn, p.Z}
		}
		x, z := p.X, p.Z+r
		return Vec{x*cs + z*sn, p.Y, z*cs - x*sn + r + tall}
	})
	b.Explode = Vec{sn, 0, cs}
	if lying {
		b.Explode = Vec{sn, cs, 0}
	}
}

// cutout is one flat copy in space: standing with its front at depth at, or
// lying with its underside at that height.
func cutout(p Panel, no int, o Point, at float64, lying bool, tall float64) Body {
	to := func(q Point, back bool) Vec {
		x, y := o.X+q.X, o.Y+q.Y
		if lying {
			z := at + p.Thick
			if back {
				z = at
			}
			return Vec{x, y - tall/2, z}
		}
		d := at - p.Thick/2
		if back {
			d = at + p.Thick/2
		}
		return Vec{x, d, y}
	}
	space := func(r []Point, back bool) []Vec {
		out := make([]Vec, len(r))
		for i, q := range r {
			out[i] = to(q, back)
		}
		return out
	}
	ex := Vec{0, 1, 0}
	if lying {
		ex = Vec{0, 0, 1}
	}
	b := prism(p.ID, no, space(p.Outline, false), space(p.Outline, true), ex)
	for _, h := range p.Holes {
		outer, inner := space(h, false), space(h, true)
		b.Faces[0].Holes = append(b.Faces[0].Holes, append([]Vec(nil), outer...))
		for i := range outer {
			j := (i + 1) % len(outer)
			b.Faces = append(b.Faces, Face{Points: []Vec{outer[j], outer[i], inner[i], inner[j]}})
		}
	}
	if len(p.Outline) > 24 { // a curve's facets have no edges between them
		edge := make([]Vec, 0, len(p.Outline)+1)
		edge = append(append(edge, b.Faces[0].Points...), b.Faces[0].Points[0])
		b.Faces[0].Edges = [][]Vec{edge}
		for i := 2; i < len(b.Faces); i++ {
			b.Faces[i].Curved = true
		}
	}
	return b
}

// LabelAt is where a shape (its outline and holes) takes a label: its middle,
// or, when that is not on it, the middle of its widest stretch along one of a
// few level lines.
func LabelAt(rings [][]Point) Point {
	var mid Point
	low, high := math.Inf(1), math.Inf(-1)
	for _, q := range rings[0] {
		k := float64(len(rings[0]))
		mid.X, mid.Y = mid.X+q.X/k, mid.Y+q.Y/k
		low, high = math.Min(low, q.Y), math.Max(high, q.Y)
	}
	if Inside(rings, mid) {
		return mid
	}
	widest := 0.0
	for i := 1.0; i < 16; i++ {
		y := low + (high-low)*(i-.01)/16 // past corners at even shares
		var xs []float64
		for _, r := range rings {
			for k, a := range r {
				if b := r[(k+1)%len(r)]; (a.Y > y) != (b.Y > y) {
					xs = append(xs, a.X+(b.X-a.X)*(y-a.Y)/(b.Y-a.Y))
				}
			}
		}
		sort.Float64s(xs)
		for k := 0; k+1 < len(xs); k += 2 {
			if w := xs[k+1] - xs[k]; w > widest {
				widest, mid = w, Point{(xs[k] + xs[k+1]) / 2, y}
			}
		}
	}
	return mid
}
