// Package pattern turns solids into flat parts that can be cut: outlines of
// the outside face, bevels, blade tilts, cut angles and joints, with the
// stock's thickness counted, and the same parts assembled in space.
//
// Lengths are millimetres, angles degrees. In the flat, X runs right and Y up
// the part as seen from outside. In space, X is width, Y depth (front is
// negative), Z up from the floor.
package pattern

import (
	"math"
	"slices"

	"zapbarn/core/measure"
	"zapbarn/core/source"
)

// Point is a place in the flat; Vec one in space.
type (
	Point struct{ X, Y float64 }
	Vec   struct{ X, Y, Z float64 }
)

// Edge is one side of a panel, from Outline[i] to the next point.
type Edge struct {
	Name   string
	Tilt   float64 // blade tilt from square; positive makes the inside face smaller
	Joint  string  // butt, mitre, rabbet, level or ""
	Width  float64 // of a rabbet, mm from the edge
	Depth  float64 // of a rabbet, mm into the inside face
	Reason string  // what the edge meets
}

// Panel is one flat part, seen from outside.
type Panel struct {
	ID       string // stable within its solid: front, face, ring3
	Name     string
	Copies   int
	Thick    float64
	Outline  []Point   // outside face, anticlockwise
	Inside   []Point   // inside face, seen through; nil when the same
	Holes    [][]Point // through the part
	Pockets  []Pocket  // not through it
	Edges    []Edge
	CutAngle float64    // of the slanted sides against square on the face (mitre gauge)
	Round    float64    // diameter when the outline is a circle
	Slant    float64    // degrees it is turned to the left, to fit its sheet
	Bore     float64    // diameter of a concentric hole
	Grain    string     // "", "up" or "any": how it must lie on grained stock
	Bevel    float64    // blade tilt of both long edges where there are no named ones
	Marks    [][2]Point // lines to draw on the part: ticks, kerfs, a lap
	Notes    []string   // what to do at the saw and after
	Hand     string     // left or right of a mirrored pair
}

// Pocket is a recess in a panel's outside face: for a board, a pack, a magnet, or a
// groove that another part stands in.
type Pocket struct {
	Name string
	Ring []Point
	Deep float64
}

// Body is one copy of a panel standing in the assembled solid.
type Body struct {
	Panel   string
	Copy    int
	Faces   []Face
	Explode Vec // direction it moves when the drawing is pulled apart
}

// Face is a flat polygon in space, anticlockwise seen from outside the body.
type Face struct {
	Points []Vec
	Holes  [][]Vec
	Skin   bool    // the panel's outside face
	Edges  [][]Vec // the lines to draw where not the whole border is an edge
	Curved bool    // a facet of a round face: its seams are no edges
}

// Cut is pipe cut to length.
type Cut struct {
	Name   string
	Length float64
	Count  int
}

// Shape is a solid worked out.
type Shape struct {
	Panels  []Panel
	Bodies  []Body
	Cuts    []Cut
	Size    Vec // overall, in space
	Results []source.Result
	Lines   []Line    // where its own parts meet
	Mass    float64   // kg of what is bought or built up, not cut
	Outside float64   // mm2 of that
	Rims    float64   // mm2 of edges of its walls that can be seen, besides its faces
	Walls   []string  // its faces, to be drilled but not cut flat
	Drilled []Opening // through them
	layers  [][]Panel // of a pile, from the bottom up, before any is split
}

// Opening is a hole through one face.
type Opening struct {
	Name string
	Face string // panel ID
	Kind string // rect, slot, round, shape or text
	W, H float64
	X, Y float64 // centre, from the face's middle and from its bottom edge
	Path []Point // of a shape: its corners, fitted into W x H
	Text string  // of a text: its letters, H high
	Deep float64 // of a pocket or groove: how far in; 0 goes through
}

// Area is a polygon's area (shoelace).
func Area(p []Point) float64 {
	a := 0.0
	for i := range p {
		j := (i + 1) % len(p)
		a += p[i].X*p[j].Y - p[j].X*p[i].Y
	}
	return math.Abs(a) / 2
}

// Area is the panel's outside face less its holes, in mm2.
func (p Panel) Area() float64 {
	a := Area(p.Outline)
	if p.Round > 0 {
		a = math.Pi / 4 * (p.Round*p.Round - p.Bore*p.Bore)
	}
	for _, h := range p.Holes {
		a -= Area(h)
	}
	return a
}

// Around is how long the saw's way round one copy is, in mm: its outside face, its holes and
// the hole in its middle.
func (p Panel) Around() float64 {
	sum := around(p.Outline) + math.Pi*p.Bore
	for _, h := range p.Holes {
		sum += around(h)
	}
	return sum
}

// around is a closed outline's length.
func around(p []Point) (sum float64) {
	for i, a := range p {
		b := p[(i+1)%len(p)]
		sum += math.Hypot(b.X-a.X, b.Y-a.Y)
	}
	return sum
}

// Volume is one copy's volume in mm3, bevels counted: every section between
// the two faces is linear in depth, so Simpson's rule is exact.
func (p Panel) Volume() float64 {
	out := p.Area()
	v := out * p.Thick
	if p.Inside != nil {
		mid := make([]Point, len(p.Outline))
		for i := range mid {
			mid[i] = Point{(p.Outline[i].X + p.Inside[i].X) / 2, (p.Outline[i].Y + p.Inside[i].Y) / 2}
		}
		holes := Area(p.Outline) - out
		v = p.Thick / 6 * (Area(p.Outline) + 4*Area(mid) + Area(p.Inside) - 6*holes)
	}
	for _, k := range p.Pockets {
		v -= Area(k.Ring) * k.Deep
	}
	for i, e := range p.Edges {
		if e.Depth > 0 {
			a, b := p.Outline[i], p.Outline[(i+1)%len(p.Outline)]
			v -= e.Depth * e.Width * math.Hypot(b.X-a.X, b.Y-a.Y)
		}
	}
	return v
}

// Bounds is the panel's extent, both faces counted: what the stock must hold.
func (p Panel) Bounds() (minimum, maximum Point) {
	minimum, maximum = Point{math.Inf(1), math.Inf(1)}, Point{math.Inf(-1), math.Inf(-1)}
	for _, face := range [][]Point{p.Outline, p.Inside} {
		for _, q := range face {
			minimum = Point{math.Min(minimum.X, q.X), math.Min(minimum.Y, q.Y)}
			maximum = Point{math.Max(maximum.X, q.X), math.Max(maximum.Y, q.Y)}
		}
	}
	return
}

// Inward is edge i moved into the panel by d: where a rabbet ends.
func (p Panel) Inward(i int, d float64) (a, b Point) {
	a, b = p.Outline[i], p.Outline[(i+1)%len(p.Outline)]
	l := math.Hypot(b.X-a.X, b.Y-a.Y)
	dx, dy := -(b.Y-a.Y)/l*d, (b.X-a.X)/l*d
	return Point{a.X + dx, a.Y + dy}, Point{b.X + dx, b.Y + dy}
}

// Rect is an upright rectangle with its lower left corner at the origin.
func Rect(w, h float64) []Point { return []Point{{0, 0}, {w, 0}, {w, h}, {0, h}} }

// ArcTrue is how far a chord may lie off the arc it stands for, in mm: less
// than a fine blade's wobble.
const ArcTrue = 0.04

// arcSteps is how many chords keep an arc of a radius and an angle that true: a
// chord of angle a lies r (1 - cos(a/2)) inside.
func arcSteps(r, angle float64) int {
	step := math.Pi / 12
	if r > ArcTrue {
		step = math.Min(step, 2*math.Acos(1-ArcTrue/r))
	}
	return int(math.Ceil(math.Abs(angle)/step - 1e-9))
}

// Circle is a polygon standing for a circle about (x, y), true to ArcTrue.
func Circle(x, y, d float64) []Point {
	n := (arcSteps(d/2, 2*math.Pi) + 3) / 4 * 4 // its extremes are corners
	c := make([]Point, n)
	for i := range c {
		s, k := math.Sincos(2 * math.Pi * float64(i) / float64(n))
		c[i] = Point{x + d/2*k, y + d/2*s}
	}
	return c
}

// outline is an opening's polygon on a face of width w.
func (o Opening) outline(w float64) []Point {
	cx, cy := w/2+o.X, o.Y
	switch o.Kind {
	case "round":
		return Circle(cx, cy, o.W)
	case "shape":
		return o.fitted(cx, cy)
	case "slot":
		r := o.H / 2
		n := (arcSteps(r, math.Pi) + 1) / 2 * 2
		var p []Point
		for i := 0; i <= n; i++ {
			s, k := math.Sincos(-math.Pi/2 + math.Pi*float64(i)/float64(n))
			p = append(p, Point{cx + o.W/2 - r + r*k, cy + r*s})
		}
		for i := 0; i <= n; i++ {
			s, k := math.Sincos(math.Pi/2 + math.Pi*float64(i)/float64(n))
			p = append(p, Point{cx - o.W/2 + r + r*k, cy + r*s})
		}
		return p
	}
	return []Point{
		{cx - o.W/2, cy - o.H/2},
		{cx + o.W/2, cy - o.H/2},
		{cx + o.W/2, cy + o.H/2},
		{cx - o.W/2, cy + o.H/2},
	}
}

// fitted is a shape's corners stretched into its box round a centre.
func (o Opening) fitted(cx, cy float64) []Point {
	lo, hi := extentOf(o.Path)
	out := make([]Point, len(o.Path))
	for i, q := range o.Path {
		out[i] = Point{cx + o.W*((q.X-lo.X)/(hi.X-lo.X)-.5), cy + o.H*((q.Y-lo.Y)/(hi.Y-lo.Y)-.5)}
	}
	if SignedArea(out) < 0 {
		slices.Reverse(out)
	}
	return out
}

// overlap reports whether two closed outlines share any area: a side of one
// crosses one of the other, or one lies inside the other.
func overlap(a, b []Point) bool {
	if _, crosses := crossing([][]Point{a, b}); crosses {
		return true
	}
	return Inside([][]Point{a}, b[0]) || Inside([][]Point{b}, a[0])
}

// Turned is the panel turned to the left by some degrees, its box again at the
// origin.
func (p Panel) Turned(deg float64) Panel {
	sn, cs := math.Sincos(deg * math.Pi / 180)
	lo := Point{math.Inf(1), math.Inf(1)}
	turn := func(q Point) Point { return Point{q.X*cs - q.Y*sn, q.X*sn + q.Y*cs} }
	for _, ring := range [][]Point{p.Outline, p.Inside} {
		for _, q := range ring {
			t := turn(q)
			lo = Point{math.Min(lo.X, t.X), math.Min(lo.Y, t.Y)}
		}
	}
	ring := func(in []Point) []Point {
		if in == nil {
			return nil
		}
		out := make([]Point, len(in))
		for i, q := range in {
			t := turn(q)
			out[i] = Point{t.X - lo.X, t.Y - lo.Y}
		}
		return out
	}
	q := p
	q.Slant = deg
	q.Outline, q.Inside, q.Holes, q.Marks = ring(p.Outline), ring(p.Inside), nil, nil
	for _, h := range p.Holes {
		q.Holes = append(q.Holes, ring(h))
	}
	q.Pockets = nil
	for _, k := range p.Pockets {
		q.Pockets = append(q.Pockets, Pocket{k.Name, ring(k.Ring), k.Deep})
	}
	for _, m := range p.Marks {
		r := ring(m[:])
		q.Marks = append(q.Marks, [2]Point{r[0], r[1]})
	}
	return q
}

// positive refuses sizes that cannot be built.
func positive(field string, mm float64) error {
	switch {
	case math.IsNaN(mm) || mm <= 0:
		return measure.Bad(field, "must be more than nothing; write a length such as 22 in")
	case mm > 30_000:
		return measure.Bad(field, "%s is larger than any prop; the limit is 98 ft (30 m)", measure.MarkedRun(mm))
	}
	return nil
}

// sizes checks name, value pairs.
func sizes(pairs ...any) error {
	for i := 0; i < len(pairs); i += 2 {
		if err := positive(pairs[i].(string), pairs[i+1].(float64)); err != nil {
			return err
		}
	}
	return nil
}

// prism joins an outer and an inner polygon of equal count into a body.
func prism(panel string, copyNo int, outer, inner []Vec, explode Vec) Body {
	b := Body{Panel: panel, Copy: copyNo, Explode: explode}
	b.Faces = append(b.Faces, Face{Points: outer, Skin: true})
	back := make([]Vec, len(inner))
	for i := range inner {
		back[i] = inner[len(inner)-1-i]
	}
	b.Faces = append(b.Faces, Face{Points: back})
	for i := range outer {
		j := (i + 1) % len(outer)
		b.Faces = append(b.Faces, Face{Points: []Vec{outer[j], outer[i], inner[i], inner[j]}})
	}
	return b
}

// At is the body moved by v.
func (b Body) At(v Vec) Body {
	out := Body{Panel: b.Panel, Copy: b.Copy, Explode: b.Explode}
	move := func(p []Vec) []Vec {
		q := make([]Vec, len(p))
		for i := range p {
			q[i] = Vec{p[i].X + v.X, p[i].Y + v.Y, p[i].Z + v.Z}
		}
		return q
	}
	for _, f := range b.Faces {
		g := Face{Points: move(f.Points), Skin: f.Skin, Curved: f.Curved}
		for _, h := range f.Holes {
			g.Holes = append(g.Holes, move(h))
		}
		if f.Edges != nil { // none to draw is not all to draw
			g.Edges = [][]Vec{}
		}
		for _, e := range f.Edges {
			g.Edges = append(g.Edges, move(e))
		}
		out.Faces = append(out.Faces, g)
	}
	return out
}

// moved maps every point of the body, in place.
func (b *Body) moved(to func(Vec) Vec) {
	for f := range b.Faces {
		for i, p := range b.Faces[f].Points {
			b.Faces[f].Points[i] = to(p)
		}
		for _, e := range append(append([][]Vec(nil), b.Faces[f].Edges...), b.Faces[f].Holes...) {
			for i, p := range e {
				e[i] = to(p)
			}
		}
	}
}

func inches(mm float64) string { return measure.Marked(mm) }

func result(key, label string, v float64, unit, text string) source.Result {
	return source.Result{Key: source.What(key), Label: label, Value: v, Unit: unit, Text: text}
}
