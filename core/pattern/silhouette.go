package pattern

import "math"

// Silhouette is the outline of bodies as seen from the front, holes in it too:
// true to a cell, a 500th of the larger side.
func Silhouette(bodies []Body) [][]Point {
	lo, hi := Point{math.Inf(1), math.Inf(1)}, Point{math.Inf(-1), math.Inf(-1)}
	for _, b := range bodies {
		for _, f := range b.Faces {
			for _, q := range f.Points {
				lo, hi = Point{math.Min(lo.X, q.X), math.Min(lo.Y, q.Z)}, Point{math.Max(hi.X, q.X), math.Max(hi.Y, q.Z)}
			}
		}
	}
	if hi.X <= lo.X || hi.Y <= lo.Y {
		return nil
	}
	cell := math.Max(hi.X-lo.X, hi.Y-lo.Y) / 500
	o := Point{lo.X - 3*cell, lo.Y - 3*cell}
	nx, ny := int((hi.X-lo.X)/cell)+7, int((hi.Y-lo.Y)/cell)+7
	mask := make([]bool, nx*ny)
	for _, b := range bodies {
		for _, f := range b.Faces {
			ring := func(p []Vec) []Point {
				out := make([]Point, len(p))
				for i, q := range p {
					out[i] = Point{q.X, q.Z}
				}
				return out
			}
			one := make([]bool, nx*ny)
			rings := [][]Point{ring(f.Points)}
			for _, h := range f.Holes {
				rings = append(rings, ring(h))
			}
			fillMask(one, nx, ny, rings, o, cell)
			for i, v := range one {
				mask[i] = mask[i] || v
			}
		}
	}
	var out [][]Point
	for _, l := range signedField(mask, nx, ny).contours(0) {
		p := make([]Point, len(l))
		for i, q := range smoothed(l, 2) {
			p[i] = Point{o.X + q.X*cell, o.Y + q.Y*cell}
		}
		if Area(p) > 40*cell*cell {
			out = append(out, Simplified(p, cell/3))
		}
	}
	return out
}
