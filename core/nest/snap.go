package nest

import (
	"math"

	"zapbarn/core/pattern"
)

// eps is what a place may be off when it was written down, in mm.
const eps = 1e-3

// Clash reports whether two parts as they lie come closer than the kerf, by
// their true outlines; a part may lie in another's hole.
func Clash(a, b Part, qa, qb Placed, kerf float64) bool {
	aw, ah := a.size(qa.Turned)
	bw, bh := b.size(qb.Turned)
	if qa.X+aw+kerf <= qb.X+eps || qb.X+bw+kerf <= qa.X+eps || qa.Y+ah+kerf <= qb.Y+eps || qb.Y+bh+kerf <= qa.Y+eps {
		return false
	}
	if a.Round > 0 && b.Round > 0 { // circles are told apart exactly
		d := math.Hypot(qa.X+aw/2-qb.X-bw/2, qa.Y+ah/2-qb.Y-bh/2)
		return d < (a.Round+b.Round)/2+kerf-eps && d+b.Round/2+kerf > a.Bore/2+eps && d+a.Round/2+kerf > b.Bore/2+eps
	}
	ap, aHoles := a.lying(qa)
	bp, bHoles := b.lying(qb)
	in := func(p [][]pattern.Point, holes [][]pattern.Point, c pattern.Point) bool {
		for _, r := range p {
			if pattern.Inside([][]pattern.Point{r}, c) {
				return !pattern.Inside(holes, c)
			}
		}
		return false
	}
	for _, r := range ap {
		if in(bp, bHoles, r[0]) {
			return true
		}
	}
	for _, r := range bp {
		if in(ap, aHoles, r[0]) {
			return true
		}
	}
	for _, r := range append(ap, aHoles...) {
		for _, s := range append(append([][]pattern.Point(nil), bp...), bHoles...) {
			if closer(r, s, kerf-eps) {
				return true
			}
		}
	}
	return false
}

// closer reports whether two rings cross or come closer than d.
func closer(p, q []pattern.Point, d float64) bool {
	for i, a := range p {
		b := p[(i+1)%len(p)]
		lx, hx := math.Min(a.X, b.X)-d, math.Max(a.X, b.X)+d
		ly, hy := math.Min(a.Y, b.Y)-d, math.Max(a.Y, b.Y)+d
		for k, u := range q {
			v := q[(k+1)%len(q)]
			if math.Max(u.X, v.X) < lx || math.Min(u.X, v.X) > hx || math.Max(u.Y, v.Y) < ly ||
				math.Min(u.Y, v.Y) > hy {
				continue
			}
			if apart2(a, b, u, v) < d*math.Abs(d) {
				return true
			}
		}
	}
	return false
}

// apart2 is the square of the distance between two line segments.
func apart2(a, b, u, v pattern.Point) float64 {
	cross := func(o, p, q pattern.Point) float64 { return (p.X-o.X)*(q.Y-o.Y) - (p.Y-o.Y)*(q.X-o.X) }
	if (cross(a, b, u) > 0) != (cross(a, b, v) > 0) && (cross(u, v, a) > 0) != (cross(u, v, b) > 0) {
		return -1
	}
	to := func(c, p, q pattern.Point) float64 {
		d := pattern.FromSegment(c, p, q)
		return d * d
	}
	return math.Min(math.Min(to(a, u, v), to(b, u, v)), math.Min(to(u, a, b), to(v, a, b)))
}

// Fits reports whether a part lies within the sheet's margins and clear of
// those already on it.
func Fits(parts []Part, on []Placed, q Placed, s Stock, o Options) bool {
	p := parts[q.Part]
	w, h := p.size(q.Turned)
	if q.Turned && !p.Turn || q.X < o.Margin-eps || q.Y < o.Margin-eps || q.X+w > s.W-o.Margin+eps ||
		q.Y+h > s.H-o.Margin+eps {
		return false
	}
	for _, r := range on {
		if Clash(p, parts[r.Part], q, r, o.Kerf) {
			return false
		}
	}
	return true
}

// Reach is how far in mm a part moved by hand jumps to line up with another or
// with the margin.
const Reach = 12

// Snap is the allowed place nearest to where a part was put: within the
// margins, a kerf from those on the sheet, lined up when close to it. It
// reports false when the sheet has no such place near the edges of the others.
func Snap(parts []Part, on []Placed, want Placed, s Stock, o Options) (Placed, bool) {
	w, h := parts[want.Part].size(want.Turned)
	lo, hix, hiy := o.Margin, s.W-o.Margin-w, s.H-o.Margin-h
	if hix < lo-1e-6 || hiy < lo-1e-6 {
		return want, false
	}
	clampX, clampY := math.Max(lo, math.Min(hix, want.X)), math.Max(lo, math.Min(hiy, want.Y))
	xs, ys := []float64{clampX, lo, hix}, []float64{clampY, lo, hiy}
	for _, r := range on {
		rw, rh := parts[r.Part].size(r.Turned)
		xs = append(xs, r.X-w-o.Kerf, r.X+rw+o.Kerf, r.X, r.X+rw-w)
		ys = append(ys, r.Y-h-o.Kerf, r.Y+rh+o.Kerf, r.Y, r.Y+rh-h)
	}
	best, far := want, math.Inf(1)
	for _, x := range xs {
		for _, y := range ys {
			q := want
			q.X, q.Y = x, y
			dx, dy := math.Abs(x-want.X), math.Abs(y-want.Y)
			d := math.Hypot(dx, dy)
			// lining up is worth a short jump in each way
			if x != clampX && dx < Reach {
				d -= Reach
			}
			if y != clampY && dy < Reach {
				d -= Reach
			}
			if d < far && Fits(parts, on, q, s, o) {
				best, far = q, d
			}
		}
	}
	return best, !math.IsInf(far, 1)
}

// Kept takes a layout as it was kept; it reports false when it no longer holds
// every part once that some sheet can hold, clear of the others, on stock that
// is there.
func Kept(parts []Part, stocks []Stock, o Options) (Layout, bool) {
	seen := map[int]bool{}
	for _, f := range o.Fixed {
		if seen[f.Part] || f.Part < 0 || f.Part >= len(parts) {
			return Layout{}, false
		}
		seen[f.Part] = true
	}
	var l Layout
	l.Sheets, _ = o.opened(stocks)
	l.dropEmpty()
	for i, p := range parts {
		if !seen[i] && p.fitsAny(stocks, o) {
			return Layout{}, false
		}
		if !seen[i] {
			l.TooLarge = append(l.TooLarge, i)
		}
	}
	n := 0
	used := map[string]int{}
	for _, s := range l.Sheets {
		used[s.Stock.ID]++
		if s.Stock.Left >= 0 && used[s.Stock.ID] > s.Stock.Left {
			return Layout{}, false
		}
		for i, q := range s.Placed {
			n++
			if !Fits(parts, s.Placed[:i], q, s.Stock, o) {
				return Layout{}, false
			}
		}
	}
	if n != len(seen) {
		return Layout{}, false // some lie on stock that is gone
	}
	l.finish(parts, o)
	return l, true
}
