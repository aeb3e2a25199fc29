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
	next := map[border]border{}
	var order []border
	for y := range f.ny - 1 {
		for x := range f.nx - 1 {
			for _, way := range ways[f.corners(x, y, level)] {
				from, to := way[0].borderAt(x, y), way[1].borderAt(x, y)
				next[from] = to
				order = append(order, from)
			}
		}
	}
	used := map[border]bool{}
	var out [][]Point
	for _, start := range order {
		if used[start] {
			continue
		}
		var loop []Point
		e, ok := start, true
		for ok && !used[e] {
			used[e] = true
			loop = append(loop, f.crossed(e, level))
			e, ok = next[e]
		}
		if len(loop) > 2 {
			out = append(out, loop)
		}
	}
	return out
}

// border is the way from a cell to the one right of it (dir 0) or above it (1).
type border struct{ x, y, dir int }

// compass is a side of the square between four cells.
type compass int

const (
	south compass = iota
	east
	north
	west
)

// of is that side of the square whose lower left cell is x, y.
func (c compass) borderAt(x, y int) border {
	return [...]border{{x, y, 0}, {x + 1, y, 1}, {x, y + 1, 0}, {x, y, 1}}[c]
}

// ways are how the line goes through a square, from side to side, by which of its cells lie
// inside: 1 south-west, 2 south-east, 4 north-east, 8 north-west.
var ways = [16][][2]compass{
	1:  {{south, west}},
	2:  {{east, south}},
	3:  {{east, west}},
	4:  {{north, east}},
	5:  {{south, east}, {north, west}},
	6:  {{north, south}},
	7:  {{north, west}},
	8:  {{west, north}},
	9:  {{south, north}},
	10: {{east, north}, {west, south}},
	11: {{east, north}},
	12: {{west, east}},
	13: {{south, east}},
	14: {{west, south}},
}

// corners says which cells of a square lie inside, as ways has it.
func (f field) corners(x, y int, level float64) (k int) {
	i := y*f.nx + x
	for b, v := range [4]float64{f.d[i], f.d[i+1], f.d[i+1+f.nx], f.d[i+f.nx]} {
		if v <= level {
			k |= 1 << b
		}
	}
	return k
}

// crossed is where the field is level on a border.
func (f field) crossed(e border, level float64) Point {
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
