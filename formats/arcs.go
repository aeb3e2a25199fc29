package formats

import (
	"math"

	"zapbarn/core/pattern"
)

// corner is a corner of a curve, and how the curve goes on from it: bulge is the tangent
// of a quarter of the arc's angle, anticlockwise positive; 0 goes on straight.
type corner struct {
	pattern.Point
	bulge float64
}

// the finest a run of corners must be to stand for an arc: so many sides, each turned by
// no more than so much, and as near to it as the patterns' own arcs are.
const (
	arcSides = 4
	arcStep  = 15.5 * math.Pi / 180
	arcNear  = 1.05 * pattern.ArcTrue
)

// arcs puts arcs in the place of runs of short sides that lie on one circle. A whole
// circle comes back as its middle and radius.
func arcs(p []pattern.Point, closed bool) (out []corner, middle pattern.Point, radius float64) {
	if closed && len(p) > 2 {
		if m, r, ok := onCircle(append(append([]pattern.Point(nil), p...), p[0])); ok && len(p) > arcSides {
			return nil, m, r
		}
		p = turned(p)
		p = append(append([]pattern.Point(nil), p...), p[0])
	}
	for i := 0; i+1 < len(p); {
		end := i + 1
		bulge := 0.0
		for j := i + arcSides; j < len(p); j++ {
			b, ok := arcOver(p[i : j+1])
			if !ok {
				break
			}
			end, bulge = j, b
		}
		out = append(out, corner{p[i], bulge})
		i = end
	}
	if !closed {
		out = append(out, corner{p[len(p)-1], 0})
	}
	return out, pattern.Point{}, 0
}

// turned is a ring begun at its sharpest corner, so that no arc runs over its beginning.
func turned(p []pattern.Point) []pattern.Point {
	best, at := -1.0, 0
	for i := range p {
		a, b := p[(i+len(p)-1)%len(p)], p[(i+1)%len(p)]
		if t := math.Abs(turn(a, p[i], b)); t > best+1e-9 {
			best, at = t, i
		}
	}
	return append(append([]pattern.Point(nil), p[at:]...), p[:at]...)
}

// turn is by how much a way turns at b, in radians, anticlockwise positive.
func turn(a, b, c pattern.Point) float64 {
	ux, uy, vx, vy := b.X-a.X, b.Y-a.Y, c.X-b.X, c.Y-b.Y
	return math.Atan2(ux*vy-uy*vx, ux*vx+uy*vy)
}

// arcOver is the bulge of the arc over a run of corners, when they lie on one of less
// than half a circle.
func arcOver(p []pattern.Point) (bulge float64, ok bool) {
	_, r, ok := onCircle(p)
	if !ok {
		return 0, false
	}
	angle := 0.0
	for i := 1; i+1 < len(p); i++ {
		angle += turn(p[i-1], p[i], p[i+1])
	}
	// the sides at both ends turn as much as half of those beside them
	first := math.Hypot(p[1].X-p[0].X, p[1].Y-p[0].Y)
	last := math.Hypot(p[len(p)-1].X-p[len(p)-2].X, p[len(p)-1].Y-p[len(p)-2].Y)
	angle += math.Copysign(math.Asin(math.Min(1, first/2/r))+math.Asin(math.Min(1, last/2/r)), angle)
	return math.Tan(angle / 4), math.Abs(angle) < math.Pi-1e-6
}

// onCircle is the circle through a run of corners, when all lie on it to a hundredth of a
// millimetre, turn one way, and are as near to it between corners as arcs are drawn.
func onCircle(p []pattern.Point) (m pattern.Point, r float64, ok bool) {
	n := len(p)
	m, r, ok = through(p[0], p[n/3], p[2*n/3])
	if !ok || r > 1e5 {
		return m, r, false
	}
	way := turn(p[0], p[1], p[2])
	for i, q := range p {
		if math.Abs(math.Hypot(q.X-m.X, q.Y-m.Y)-r) > 0.01 {
			return m, r, false
		}
		if i == 0 {
			continue
		}
		side := math.Hypot(q.X-p[i-1].X, q.Y-p[i-1].Y)
		half := math.Asin(math.Min(1, side/2/r))
		if 2*half > arcStep || r*(1-math.Cos(half)) > arcNear {
			return m, r, false
		}
		if i+1 < n && turn(p[i-1], q, p[i+1])*way <= 0 {
			return m, r, false
		}
	}
	return m, r, true
}

// through is the circle through three points.
func through(a, b, c pattern.Point) (m pattern.Point, r float64, ok bool) {
	bx, by, cx, cy := b.X-a.X, b.Y-a.Y, c.X-a.X, c.Y-a.Y
	d := 2 * (bx*cy - by*cx)
	if math.Abs(d) < 1e-9 {
		return m, 0, false
	}
	x := (cy*(bx*bx+by*by) - by*(cx*cx+cy*cy)) / d
	y := (bx*(cx*cx+cy*cy) - cx*(bx*bx+by*by)) / d
	return pattern.Point{X: a.X + x, Y: a.Y + y}, math.Hypot(x, y), true
}
