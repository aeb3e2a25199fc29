package pattern

import (
	"fmt"
	"math"
	"sort"

	"zapbarn/core/measure"
)

// Seam says how a part too large for its sheet is put together from pieces.
type Seam struct {
	Kind  string  // butt or half-lap
	At    float64 // of the first seam, from the part's lower or left edge; 0 shares evenly
	Lap   float64 // of a half-lap: how far the pieces lie over each other
	W, H  float64 // the largest piece the stock holds: across its grain and along it
	Grain bool    // the stock has a grain: a part that minds it is not turned
}

// Split cuts the shape's panels that are larger than the stock into pieces
// that are not, with a seam between; the rest stays as it is.
func (s *Shape) Split(seam Seam) error {
	if seam.Kind != "butt" && seam.Kind != "half-lap" {
		return measure.Bad("seam", "%q is not known; choose butt or half-lap", seam.Kind)
	}
	if seam.Kind == "butt" {
		seam.Lap = 0
	}
	long, short := math.Max(seam.W, seam.H), math.Min(seam.W, seam.H)
	if seam.Lap < 0 || seam.Lap > short/3 {
		return measure.Bad("lap", "%s is out of range; write up to %s", inches(seam.Lap), inches(short/3))
	}
	var panels []Panel
	var bodies []Body
	pieces := map[string]bool{}
	for _, p := range s.Panels {
		lo, hi := p.Bounds()
		w, h := hi.X-lo.X, hi.Y-lo.Y
		// the longer side is cut to what the sheet's longer side holds, the other
		// to its shorter one; where the grain must run up, as the sheet lies
		alongX, alongY := long, short
		switch {
		case seam.Grain && p.Grain != "":
			alongX, alongY = seam.W, seam.H
		case h > w:
			alongX, alongY = short, long
		}
		if w <= alongX+1e-6 && h <= alongY+1e-6 {
			panels = append(panels, p)
			continue
		}
		p = p.unround()
		xs, ys := lines(lo.X, w, alongX, seam), lines(lo.Y, h, alongY, seam)
		list, err := p.pieces(xs, ys, seam)
		if err != nil {
			return err
		}
		pieces[p.ID] = true
		panels = append(panels, list...)
		for _, b := range s.Bodies {
			if b.Panel != p.ID {
				continue
			}
			for _, piece := range apart(p, b, xs, ys, list) {
				if piece.Faces != nil {
					bodies = append(bodies, piece)
				}
			}
		}
	}
	for _, b := range s.Bodies {
		if !pieces[b.Panel] {
			bodies = append(bodies, b)
		}
	}
	s.Panels, s.Bodies = panels, bodies
	return nil
}

// unround is a round panel as an outline like any other: its pieces are not round.
func (p Panel) unround() Panel {
	if p.Round > 0 && p.Bore > 0 {
		p.Holes = append(append([][]Point(nil), p.Holes...), Circle(p.Round/2, p.Round/2, p.Bore))
	}
	p.Round, p.Bore = 0, 0
	return p
}

// pieces cuts a panel along lines across and up, row by row.
func (p Panel) pieces(xs, ys []float64, seam Seam) (list []Panel, err error) {
	for i := range len(ys) + 1 {
		for k := range len(xs) + 1 {
			q, err := p.between(1, ys, i, seam)
			if err == nil {
				q, err = q.between(0, xs, k, seam)
			}
			if err != nil {
				return nil, err
			}
			no := len(list) + 1
			q.ID, q.Name = fmt.Sprintf("%s-%d", p.ID, no), fmt.Sprintf("%s, piece %d", p.Name, no)
			q.tick()
			note := "Butt seam: glue a brace behind it."
			if seam.Kind == "half-lap" {
				note = fmt.Sprintf(
					"Half-lap: the lower or left piece loses half its thickness, %s wide, on the inside, "+
						"its neighbour on the outside. Dry-fit before glue.",
					inches(seam.Lap),
				)
			}
			q.Notes = append(append([]string(nil), q.Notes...), note)
			list = append(list, q)
		}
	}
	return list, nil
}

// between is what lies of a panel between line n-1 and line n.
func (p Panel) between(axis int, lines []float64, n int, seam Seam) (q Panel, err error) {
	q = p
	if n > 0 {
		q, err = q.cut(axis, lines[n-1]-seam.Lap/2, 1, seam, true)
	}
	if err == nil && n < len(lines) {
		q, err = q.cut(axis, lines[n]+seam.Lap/2, -1, seam, false)
	}
	return q, err
}

// lines is where a side of length l from lo is cut to pieces of at most most.
func lines(lo, l, most float64, seam Seam) []float64 {
	if l <= most+1e-6 {
		return nil
	}
	if seam.At > 0 && seam.At+seam.Lap/2 <= most && l-seam.At+seam.Lap/2 <= most {
		return []float64{lo + seam.At}
	}
	n := int(math.Ceil((l-seam.Lap)/(most-seam.Lap) - 1e-9))
	out := make([]float64, n-1)
	for i := range out {
		out[i] = lo + seam.Lap/2 + (l-seam.Lap)*float64(i+1)/float64(n) // pieces of one length, laps counted
	}
	return out
}

// cut keeps the side of a line across the panel (axis 0: X is at, 1: Y is at)
// where sign says; the new edge is a seam.
func (p Panel) cut(axis int, at, sign float64, seam Seam, outside bool) (Panel, error) {
	dist := func(q Point) float64 {
		if axis == 0 {
			return sign * (q.X - at)
		}
		return sign * (q.Y - at)
	}
	edge := Edge{Name: "seam", Joint: "butt", Reason: "the next piece"}
	if seam.Kind == "half-lap" {
		edge.Joint, edge.Width, edge.Depth = "half-lap", seam.Lap, p.Thick/2
		if outside {
			edge.Reason = "the piece before; cut away on the outside"
		}
	}
	q := p
	rings, edges := p.rings()
	out, kept := halved(rings, edges, dist, edge)
	list := parts(out)
	if len(list) != 1 {
		return q, measure.Bad("seam", "cuts %s into loose bits; put the seam elsewhere", p.Name)
	}
	for i, r := range out { // parts may turn a ring; edges go with the outline
		if Area(r) == Area(list[0][0]) {
			q.Outline, q.Edges = r, kept[i]
		}
	}
	if p.Edges == nil && seam.Kind == "butt" {
		q.Edges = nil
	}
	q.fromLowerLeft()
	q.Holes = nil
	q.Holes = append(q.Holes, list[0][1:]...)
	if p.Inside != nil {
		var ok bool
		if q.Inside, ok = insideOf(p.Inside, q.Outline, dist); !ok {
			return q, measure.Bad(
				"seam",
				"%s is bevelled so that it cannot be cut there; put the seam elsewhere",
				p.Name,
			)
		}
	}
	q.Pockets = nil
	for _, k := range p.Pockets {
		low, high := math.Inf(1), math.Inf(-1)
		for _, c := range k.Ring {
			low, high = math.Min(low, dist(c)), math.Max(high, dist(c))
		}
		switch {
		case low < -1e-6 && high > 1e-6:
			return q, measure.Bad("seam", "the seam of %s runs through %s; put it elsewhere", p.Name, k.Name)
		case high > 1e-6:
			q.Pockets = append(q.Pockets, k)
		}
	}
	q.Marks = cutMarks(p.Marks, dist)
	return q, nil
}

// rings are the outline and the holes, round holes the other way, so that what is left of a
// side is material; and the edge that starts at each corner.
func (p Panel) rings() (rings [][]Point, edges [][]Edge) {
	rings, edges = [][]Point{p.Outline}, [][]Edge{p.Edges}
	if len(p.Edges) != len(p.Outline) {
		edges[0] = make([]Edge, len(p.Outline))
	}
	for _, h := range p.Holes {
		if (SignedArea(h) > 0) == (SignedArea(p.Outline) > 0) {
			h = reversed(h)
		}
		rings, edges = append(rings, h), append(edges, make([]Edge, len(h)))
	}
	return rings, edges
}

// fromLowerLeft turns the outline so that it begins at its lower left, as panels do.
func (p *Panel) fromLowerLeft() {
	first := 0
	for i, c := range p.Outline {
		if f := p.Outline[first]; c.Y < f.Y-1e-6 || c.Y < f.Y+1e-6 && c.X < f.X {
			first = i
		}
	}
	p.Outline = append(append([]Point(nil), p.Outline[first:]...), p.Outline[:first]...)
	if p.Edges != nil {
		p.Edges = append(append([]Edge(nil), p.Edges[first:]...), p.Edges[:first]...)
	}
}

// insideOf is what is kept of the inside face of a bevelled panel; its corners pair up with
// the outline's, as before. ok is false where they cannot.
func insideOf(inside, outline []Point, dist func(Point) float64) (kept []Point, ok bool) {
	inner, _ := halved([][]Point{inside}, [][]Edge{make([]Edge, len(inside))}, dist, Edge{})
	if len(inner) != 1 || len(inner[0]) != len(outline) {
		return nil, false
	}
	best, from := math.Inf(1), 0
	for k := range inner[0] {
		d := 0.0
		for i, o := range outline {
			n := inner[0][(i+k)%len(inner[0])]
			d += math.Hypot(o.X-n.X, o.Y-n.Y)
		}
		if d < best {
			best, from = d, k
		}
	}
	return append(append([]Point(nil), inner[0][from:]...), inner[0][:from]...), true
}

// cutMarks is what is kept of the marks.
func cutMarks(marks [][2]Point, dist func(Point) float64) (out [][2]Point) {
	for _, m := range marks {
		a, b := dist(m[0]), dist(m[1])
		if a < 0 && b < 0 {
			continue
		}
		mix := func(f float64) Point {
			return Point{m[0].X + f*(m[1].X-m[0].X), m[0].Y + f*(m[1].Y-m[0].Y)}
		}
		if a < 0 {
			m[0] = mix(a / (a - b))
		} else if b < 0 {
			m[1] = mix(a / (a - b))
		}
		out = append(out, m)
	}
	return out
}

// halved keeps what lies where dist is positive, of rings and the edge that
// starts at each corner. Where a ring crosses the line, the crossings in order
// along it are the ends of seams, two by two.
func halved(rings [][]Point, edges [][]Edge, dist func(Point) float64, seam Edge) (out [][]Point, kept [][]Edge) {
	var h halving
	for r, ring := range rings {
		if whole, keep := h.ring(ring, edges[r], dist, seam); whole {
			if keep {
				out, kept = append(out, ring), append(kept, edges[r])
			}
		}
	}
	next := h.next()
	done := make([]bool, len(h.chains))
	for i := range h.chains {
		var p []Point
		var e []Edge
		for k := i; !done[k]; k = next[k] {
			done[k] = true
			p, e = append(p, h.chains[k].p...), append(e, h.chains[k].e...)
		}
		if p != nil {
			out, kept = append(out, p), append(kept, e)
		}
	}
	return out, kept
}

// halving are the pieces of rings on the kept side of a line, and where they end on it.
type halving struct {
	chains []keptBit
	ends   []end
}

type keptBit struct {
	p []Point
	e []Edge
}

type end struct {
	at    Point
	chain int
	leave bool // the ring leaves the kept side here
}

// ring takes a ring's pieces on the kept side. One that does not cross the line is whole,
// and kept or not.
func (h *halving) ring(ring []Point, edges []Edge, dist func(Point) float64, seam Edge) (whole, keep bool) {
	n := len(ring)
	d := make([]float64, n)
	start := -1
	for i, q := range ring {
		if d[i] = dist(q); math.Abs(d[i]) < 1e-9 {
			d[i] = 1e-9 // on the line counts as kept
		}
	}
	for i := range n {
		if d[i] < 0 && d[(i+1)%n] > 0 {
			start = i
		}
	}
	if start < 0 {
		return true, d[0] > 0
	}
	for k := range n {
		i := (start + k) % n
		j := (i + 1) % n
		cross := func() Point {
			f := d[i] / (d[i] - d[j])
			return Point{ring[i].X + f*(ring[j].X-ring[i].X), ring[i].Y + f*(ring[j].Y-ring[i].Y)}
		}
		switch {
		case d[i] < 0 && d[j] > 0:
			c := cross()
			h.chains = append(h.chains, keptBit{[]Point{c}, []Edge{edges[i]}})
			h.ends = append(h.ends, end{c, len(h.chains) - 1, false})
		case d[i] > 0:
			c := &h.chains[len(h.chains)-1]
			c.p, c.e = append(c.p, ring[i]), append(c.e, edges[i])
			if d[j] < 0 {
				x := cross()
				c.p, c.e = append(c.p, x), append(c.e, seam)
				h.ends = append(h.ends, end{x, len(h.chains) - 1, true})
			}
		}
	}
	return false, false
}

// next is the chain that goes on where one leaves. The ends are taken in order along the
// line: across or up, whichever way it runs; the other coordinate is the same for all but
// for rounding.
func (h *halving) next() map[int]int {
	var lo, hi Point
	for i, e := range h.ends {
		if i == 0 {
			lo, hi = e.at, e.at
		}
		lo = Point{math.Min(lo.X, e.at.X), math.Min(lo.Y, e.at.Y)}
		hi = Point{math.Max(hi.X, e.at.X), math.Max(hi.Y, e.at.Y)}
	}
	along := func(q Point) float64 { return q.X }
	if hi.Y-lo.Y > hi.X-lo.X {
		along = func(q Point) float64 { return q.Y }
	}
	sort.Slice(h.ends, func(i, j int) bool { return along(h.ends[i].at) < along(h.ends[j].at) })
	next := map[int]int{}
	for i := 0; i+1 < len(h.ends); i += 2 {
		a, b := h.ends[i], h.ends[i+1]
		if a.leave {
			next[a.chain] = b.chain
		} else {
			next[b.chain] = a.chain
		}
	}
	return next
}

// apart cuts a body in space as its panel was cut; one that is bent, and so
// has no flat skin to go by, stays whole and stands for the first piece.
func apart(p Panel, b Body, xs, ys []float64, list []Panel) []Body {
	face := b.Faces[0].Points
	n := len(p.Outline)
	whole := b
	whole.Panel = list[0].ID
	if len(face) != n {
		return []Body{whole}
	}
	o := p.Outline[0]
	ax, ay := p.Outline[1].X-o.X, p.Outline[1].Y-o.Y
	bx, by := p.Outline[n-1].X-o.X, p.Outline[n-1].Y-o.Y
	det := ax*by - ay*bx
	va, vb := sub(face[1], face[0]), sub(face[n-1], face[0])
	if math.Abs(det) < 1e-6 || math.Abs(math.Sqrt(dotted(va, va))-math.Hypot(ax, ay)) > 1 ||
		math.Abs(math.Sqrt(dotted(vb, vb))-math.Hypot(bx, by)) > 1 {
		return []Body{whole}
	}
	axis := func(x, y float64) Vec { // a direction of the flat, in space
		s, t := (x*by-y*bx)/det, (ax*y-ay*x)/det
		return Vec{s*va.X + t*vb.X, s*va.Y + t*vb.Y, s*va.Z + t*vb.Z}
	}
	ux, uy := axis(1, 0), axis(0, 1)
	var out []Body
	for i := range len(ys) + 1 {
		for k := range len(xs) + 1 {
			q := b
			q.Panel = list[len(out)].ID
			keep := func(u Vec, at, from, sign float64) {
				q = q.halved(func(v Vec) float64 { return sign * (dotted(sub(v, face[0]), u) - (at - from)) })
			}
			if i > 0 {
				keep(uy, ys[i-1], o.Y, 1)
			}
			if i < len(ys) {
				keep(uy, ys[i], o.Y, -1)
			}
			if k > 0 {
				keep(ux, xs[k-1], o.X, 1)
			}
			if k < len(xs) {
				keep(ux, xs[k], o.X, -1)
			}
			out = append(out, q)
		}
	}
	return out
}

func dotted(a, b Vec) float64 { return a.X*b.X + a.Y*b.Y + a.Z*b.Z }

// halved keeps the side of a plane where dist is positive, and closes it.
func (b Body) halved(dist func(Vec) float64) Body {
	out := Body{Panel: b.Panel, Copy: b.Copy, Explode: b.Explode}
	clip := func(p []Vec) (kept []Vec, cut []Vec) {
		for i, v := range p {
			w := p[(i+1)%len(p)]
			dv, dw := dist(v), dist(w)
			if dv >= 0 {
				kept = append(kept, v)
			}
			if (dv < 0) != (dw < 0) {
				f := dv / (dv - dw)
				x := Vec{v.X + f*(w.X-v.X), v.Y + f*(w.Y-v.Y), v.Z + f*(w.Z-v.Z)}
				kept, cut = append(kept, x), append(cut, x)
			}
		}
		return
	}
	var front, back []Vec
	for i, f := range b.Faces {
		kept, cut := clip(f.Points)
		if i == 0 {
			front = cut
		} else if i == 1 {
			back = cut
		}
		if len(kept) < 3 {
			if i < 2 {
				kept = nil
			} else {
				continue
			}
		}
		g := Face{Points: kept, Skin: f.Skin, Curved: f.Curved}
		for _, h := range f.Holes {
			if k, _ := clip(h); len(k) > 2 {
				g.Holes = append(g.Holes, k)
			}
		}
		out.Faces = append(out.Faces, g)
	}
	if len(front) == 2 && len(back) == 2 {
		ring := []Vec{front[1], front[0], back[1], back[0]}
		if d := sub(front[0], back[0]); dotted(d, d) < dotted(sub(front[0], back[1]), sub(front[0], back[1])) {
			ring = []Vec{front[1], front[0], back[0], back[1]}
		}
		// its outside looks to where was cut away
		n := crossed(sub(ring[1], ring[0]), sub(ring[2], ring[0]))
		mid := Vec{ring[0].X + n.X, ring[0].Y + n.Y, ring[0].Z + n.Z}
		if dist(mid) > 0 {
			ring[0], ring[1], ring[2], ring[3] = ring[3], ring[2], ring[1], ring[0]
		}
		out.Faces = append(out.Faces, Face{Points: ring})
	}
	if len(out.Faces) > 0 && out.Faces[0].Points == nil {
		out.Faces = nil
	}
	return out
}
