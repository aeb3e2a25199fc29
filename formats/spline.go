package formats

import (
	"math"

	"zapbarn/core/pattern"
)

// spline is a curve of a DXF as it is read: knots, control points with their weights, or
// the points it was drawn through.
type spline struct {
	knots, weights []float64
	control, fit   []pattern.Point
}

// take takes one value of the entity by its group code.
func (s *spline) take(b *budget, code int, v float64) error {
	if code == 40 || code == 41 || code == 10 || code == 11 {
		if err := b.point(1); err != nil {
			return err
		}
	}
	switch code {
	case 40:
		s.knots = append(s.knots, v)
	case 41:
		s.weights = append(s.weights, v)
	case 10:
		s.control = append(s.control, pattern.Point{X: v})
	case 20:
		if n := len(s.control); n > 0 {
			s.control[n-1].Y = v
		}
	case 11:
		s.fit = append(s.fit, pattern.Point{X: v})
	case 21:
		if n := len(s.fit); n > 0 {
			s.fit[n-1].Y = v
		}
	}
	return nil
}

// splineSteps is how many points stand for each span of a curve.
const splineSteps = 48

// points are points along the curve, by de Boor's rule on its knots; where only points to
// go through are given they are joined as they are.
func (s *spline) points(budget *budget, degree int) (out []pattern.Point, err error) {
	n := len(s.control)
	if degree < 1 || degree > 9 || n <= degree || len(s.knots) != n+degree+1 {
		return s.fit, nil
	}
	for i := degree; i < n; i++ {
		a, b := s.knots[i], s.knots[i+1]
		if b <= a {
			continue
		}
		if err := budget.point(splineSteps); err != nil {
			return nil, err
		}
		for k := range splineSteps {
			out = append(out, s.at(a+(b-a)*float64(k)/splineSteps, i, degree))
		}
	}
	return append(out, s.at(s.knots[n], n-1, degree)), nil
}

// at is the curve at a parameter within span i.
func (s *spline) at(u float64, i, degree int) pattern.Point {
	type point struct{ x, y, w float64 }
	d := make([]point, degree+1)
	for j := range d {
		k := i - degree + j
		w := 1.0
		if k < len(s.weights) && len(s.weights) == len(s.control) {
			w = s.weights[k]
		}
		d[j] = point{s.control[k].X * w, s.control[k].Y * w, w}
	}
	for r := 1; r <= degree; r++ {
		for j := degree; j >= r; j-- {
			lo, hi := s.knots[i-degree+j], s.knots[i+1+j-r]
			f := 0.0
			if hi > lo {
				f = (u - lo) / (hi - lo)
			}
			d[j] = point{
				(1-f)*d[j-1].x + f*d[j].x, (1-f)*d[j-1].y + f*d[j].y, (1-f)*d[j-1].w + f*d[j].w,
			}
		}
	}
	last := d[degree]
	if last.w == 0 {
		return pattern.Point{X: last.x, Y: last.y}
	}
	return pattern.Point{X: last.x / last.w, Y: last.y / last.w}
}

// ellipse is an ellipse or a part of one, by its group codes: a turn at most.
func ellipse(b *budget, g map[int]float64) (out []pattern.Point, closed bool, err error) {
	from, to := g[41], arcEnd(g[41], g[42])
	closed = to-from > 2*math.Pi-1e-6
	n := int(math.Ceil((to - from) / (2 * math.Pi) * 180))
	if err := b.point(n + 1); err != nil {
		return nil, false, err
	}
	for k := range n + 1 {
		if closed && k == n {
			break
		}
		sn, cs := math.Sincos(from + (to-from)*float64(k)/float64(n))
		out = append(out, pattern.Point{
			X: g[10] + g[11]*cs - g[21]*g[40]*sn,
			Y: g[20] + g[21]*cs + g[11]*g[40]*sn,
		})
	}
	return out, closed, nil
}
