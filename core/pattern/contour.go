package pattern

import "math"

// field is a signed distance in cells to the edge of a shape on a grid,
// negative inside; cell (x, y) has its middle at ((x-pad) cell, (y-pad) cell)
// from the grid's corner.
type field struct {
	nx, ny int
	d      []float64
}

// signedField is the signed distance of a mask.
func signedField(set []bool, nx, ny int) field {
	in := distances(set, nx, ny)
	not := make([]bool, len(set))
	for i, v := range set {
		not[i] = !v
	}
	out := distances(not, nx, ny)
	f := field{nx, ny, make([]float64, len(set))}
	for i, v := range set {
		if v {
			f.d[i] = -(in[i] - .5)
		} else {
			f.d[i] = out[i] - .5
		}
	}
	return f
}

// contours are the closed lines where the field is level, in cells, material
// on the left: anticlockwise round it, clockwise round holes (marching
// squares, with the level found between cells in proportion). The field must
// be above the level all along the border.
func (f field) contours(level float64) [][]Point {
	type edge struct{ x, y, dir int } // from cell (x,y) to the right (0) or up (1)
	at := func(e edge) Point {
		a := f.d[e.y*f.nx+e.x]
		b, q := 0.0, Point{float64(e.x), float64(e.y)}
		if e.dir == 0 {
			b = f.d[e.y*f.nx+e.x+1]
		} else {
			b = f.d[(e.y+1)*f.nx+e.x]
		}
		t := .5
		if a != b && !math.IsInf(a, 0) && !math.IsInf(b, 0) {
			t = math.Max(0, math.Min(1, (level-a)/(b-a)))
		}
		if e.dir == 0 {
			q.X += t
		} else {
			q.Y += t
		}
		return q
	}
	next := map[edge]edge{}
	var order []edge
	for y := range f.ny - 1 {
		for x := range f.nx - 1 {
			i := y*f.nx + x
			k := 0
			for b, v := range [4]float64{f.d[i], f.d[i+1], f.d[i+1+f.nx], f.d[i+f.nx]} {
				if v <= level {
					k |= 1 << b
				}
			}
			if k == 0 || k == 15 {
				continue
			}
			south, east, north, west := edge{x, y, 0}, edge{x + 1, y, 1}, edge{x, y + 1, 0}, edge{x, y, 1}
			go_ := func(from, to edge) {
				next[from] = to
				order = append(order, from)
			}
			switch k { // bits: 1 south-west, 2 south-east, 4 north-east, 8 north-west
			case 1:
				go_(south, west)
			case 2:
				go_(east, south)
			case 3:
				go_(east, west)
			case 4:
				go_(north, east)
			case 5:
				go_(south, east)
				go_(north, west)
			case 6:
				go_(north, south)
			case 7:
				go_(north, west)
			case 8:
				go_(west, north)
			case 9:
				go_(south, north)
			case 10:
				go_(east, north)
				go_(west, south)
			case 11:
				go_(east, north)
			case 12:
				go_(west, east)
			case 13:
				go_(south, east)
			case 14:
				go_(west, south)
			}
		}
	}
	used := map[edge]bool{}
	var out [][]Point
	for _, start := range order {
		if used[start] {
			continue
		}
		var loop []Point
		e, ok := start, true
		for ok && !used[e] {
			used[e] = true
			loop = append(loop, at(e))
			e, ok = next[e]
		}
		if len(loop) > 2 {
			out = append(out, loop)
		}
	}
	return out
}

// Simplified drops corners of a ring that lie within tol of the line through
// the ones kept (Douglas and Peucker 1973).
func Simplified(p []Point, tol float64) []Point {
	if len(p) < 5 {
		return p
	}
	far := 0
	for i := range p { // the ring is cut where it is widest from its first corner
		if math.Hypot(p[i].X-p[0].X, p[i].Y-p[0].Y) > math.Hypot(p[far].X-p[0].X, p[far].Y-p[0].Y) {
			far = i
		}
	}
	keep := make([]bool, len(p)+1)
	ring := append(append([]Point(nil), p...), p[0])
	var walk func(a, b int)
	walk = func(a, b int) {
		worst, at := tol, -1
		dx, dy := ring[b].X-ring[a].X, ring[b].Y-ring[a].Y
		l := math.Hypot(dx, dy)
		for i := a + 1; i < b; i++ {
			ex, ey := ring[i].X-ring[a].X, ring[i].Y-ring[a].Y
			d := math.Hypot(ex, ey)
			if l > 0 {
				d = math.Abs(dx*ey-dy*ex) / l
			}
			if d > worst {
				worst, at = d, i
			}
		}
		if at >= 0 {
			keep[at] = true
			walk(a, at)
			walk(at, b)
		}
	}
	keep[0], keep[far] = true, true
	walk(0, far)
	walk(far, len(p))
	var out []Point
	for i := range p {
		if keep[i] {
			out = append(out, p[i])
		}
	}
	if len(out) < 3 {
		return p
	}
	return out
}
