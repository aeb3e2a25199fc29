package pattern

import (
	"math"
	"sort"
)

// Neck is a narrow place of a part.
type Neck struct {
	At    Point
	Width float64 // mm across; of a limb to about safe/10
	Limb  bool    // a limb narrow all the way to its end, not a waist between two fat places
	Reach float64 // of a limb: how far it sticks out past where a disc of the safe width fits
}

// Necks finds where a part is narrower than safe: waists, where it would break
// in two, and limbs, thin to their end and longer than they are wide twice
// over. It works on the distance to the edge in cells of safe/10, coarser when
// the part is more than 600 of them; a waist is a saddle of that distance, its
// width the exact shortest chord there. Cost grows with the part's area over safe
// squared. Waists come first, the narrowest of each kind first.
func (p Panel) Necks(safe float64) []Neck {
	f := p.neckGrid(safe)
	if f == nil {
		return nil
	}
	out := append(f.waists(safe), f.limbs(safe)...)
	sort.SliceStable(out, func(a, b int) bool {
		return !out[a].Limb && out[b].Limb || out[a].Limb == out[b].Limb && out[a].Width < out[b].Width
	})
	return out
}

// neckGrid is a part in cells.
type neckGrid struct {
	lo     Point
	w, h   float64 // of its box
	cell   float64
	nx, ny int
	rings  [][]Point
	in     []bool
	d      []float64 // to the nearest cell outside, in cells
	order  []int     // the cells inside, the fattest first
}

// neckGrid marks the cells that lie in a part; nil where it is too large to see a neck in.
func (p Panel) neckGrid(safe float64) *neckGrid {
	lo, hi := p.Bounds()
	f := &neckGrid{lo: lo, w: hi.X - lo.X, h: hi.Y - lo.Y, rings: append([][]Point{p.Outline}, p.Holes...)}
	f.cell = math.Max(safe/10, math.Max(f.w, f.h)/600)
	if safe <= 0 || f.cell > safe/3 { // no prop's part is
		f.cell = safe / 3
		if f.w*f.h/(f.cell*f.cell) > 4e6 {
			return nil
		}
	}
	f.nx, f.ny = int(f.w/f.cell)+3, int(f.h/f.cell)+3
	f.in = make([]bool, f.nx*f.ny)
	var xs []float64
	for y := range f.ny {
		xs = f.crossings(f.mid(0, y).Y, xs[:0])
		for k := 0; k+1 < len(xs); k += 2 {
			from, to := math.Ceil((xs[k]-lo.X)/f.cell+.5), math.Floor((xs[k+1]-lo.X)/f.cell+.5)
			for x := max(0, int(from)); x <= min(f.nx-1, int(to)); x++ {
				f.in[y*f.nx+x] = true
			}
		}
	}
	f.d = distances(f.in, f.nx, f.ny)
	f.order = fattestFirst(f.in, f.d)
	return f
}

// fattestFirst are the cells inside, those farthest from the edge first. Their distances
// squared are whole numbers: they are counted, not compared.
func fattestFirst(in []bool, d []float64) []int {
	squared := func(i int) int { return int(math.Round(d[i] * d[i])) }
	most, n := 0, 0
	for i, v := range in {
		if v {
			most, n = max(most, squared(i)), n+1
		}
	}
	from := make([]int, most+2) // where those of each distance begin
	for i, v := range in {
		if v {
			from[most-squared(i)+1]++
		}
	}
	for k := 1; k < len(from); k++ {
		from[k] += from[k-1]
	}
	out := make([]int, n)
	for i, v := range in {
		if v {
			k := most - squared(i)
			out[from[k]] = i
			from[k]++
		}
	}
	return out
}

// crossings are where a level line crosses the outline, from the left.
func (f *neckGrid) crossings(y float64, xs []float64) []float64 {
	for _, r := range f.rings {
		for i := range r {
			a, b := r[i], r[(i+1)%len(r)]
			if (a.Y > y) != (b.Y > y) {
				xs = append(xs, (b.X-a.X)*(y-a.Y)/(b.Y-a.Y)+a.X)
			}
		}
	}
	sort.Float64s(xs)
	return xs
}

// mid is the middle of a cell.
func (f *neckGrid) mid(x, y int) Point {
	return Point{f.lo.X + (float64(x)-.5)*f.cell, f.lo.Y + (float64(y)-.5)*f.cell}
}

// width is how wide the part is at a cell in its middle.
func (f *neckGrid) width(d float64) float64 { return (2*d - 1) * f.cell }

// around are the cells beside one, in room that is used again.
func (f *neckGrid) around(i int, room *[9]int) []int {
	out := room[:0]
	x, y := i%f.nx, i/f.nx
	for dy := -1; dy <= 1; dy++ {
		for dx := -1; dx <= 1; dx++ {
			if x+dx >= 0 && x+dx < f.nx && y+dy >= 0 && y+dy < f.ny {
				out = append(out, (y+dy)*f.nx+x+dx)
			}
		}
	}
	return out
}

// waists floods from the fattest cell down: where two floods with fat hearts of their own
// meet is a waist.
func (f *neckGrid) waists(safe float64) (out []Neck) {
	root := make([]int32, len(f.in)) // of those that are flooded
	peak := make([]float64, len(f.in))
	for i := range root {
		root[i] = -1
	}
	var room [9]int
	for _, i := range f.order {
		root[i], peak[i] = int32(i), f.d[i]
		for _, k := range f.around(i, &room) {
			if root[k] < 0 {
				continue
			}
			a, b := rootOf(root, int32(i)), rootOf(root, int32(k))
			if a == b {
				continue
			}
			if peak[a] < peak[b] {
				a, b = b, a
			}
			if f.width(f.d[i]) < safe+2*f.cell && peak[b] > 1.35*f.d[i]+1 {
				at := f.mid(i%f.nx, i/f.nx)
				if across := chord(f.rings, at); across < safe-1e-9 {
					out = append(out, Neck{At: at, Width: across})
				}
			}
			root[b] = a
		}
	}
	return out
}

func rootOf(root []int32, i int32) int32 {
	for root[i] != i {
		root[i] = root[root[i]]
		i = root[i]
	}
	return i
}

// limbs are what no disc of the safe width reaches.
func (f *neckGrid) limbs(safe float64) (out []Neck) {
	half := safe/2/f.cell - 1 // what lies this deep lets the disc in, to a cell
	away := make([]bool, len(f.in))
	for i := range away {
		away[i] = !(f.in[i] && f.d[i] >= half)
	}
	far := distances(away, f.nx, f.ny)
	thin := make([]bool, len(f.in)) // and not looked at yet
	for i := range thin {
		thin[i] = f.in[i] && far[i] > half+1.5
	}
	for _, i := range f.order {
		if !thin[i] {
			continue
		}
		tip, widest := f.limb(i, thin, far)
		reach := far[tip]*f.cell - safe/2
		if math.IsInf(far[tip], 1) { // the whole part is thin
			reach = math.Max(f.w, f.h)
		}
		if reach > 2*safe {
			out = append(out, Neck{At: f.mid(tip%f.nx, tip/f.nx), Width: f.width(widest), Limb: true, Reach: reach})
		}
	}
	return out
}

// limb goes over the thin cells that hang together with one, and takes them out: the one
// that lies farthest out, and how deep the deepest lies.
func (f *neckGrid) limb(i int, thin []bool, far []float64) (tip int, widest float64) {
	stack := []int{i}
	tip, thin[i] = i, false
	for len(stack) > 0 {
		k := stack[len(stack)-1]
		stack = stack[:len(stack)-1]
		if far[k] > far[tip] {
			tip = k
		}
		widest = math.Max(widest, f.d[k])
		for _, n := range []int{k - 1, k + 1, k - f.nx, k + f.nx, k - f.nx - 1, k - f.nx + 1, k + f.nx - 1, k + f.nx + 1} {
			if n >= 0 && n < len(thin) && thin[n] { // no cell at the border is
				thin[n] = false
				stack = append(stack, n)
			}
		}
	}
	return tip, widest
}

// chord is the shortest way across the outline through about s: from the
// nearest point of the edge to the nearest on the other side, and back.
func chord(rings [][]Point, s Point) float64 {
	nearest := func(from, u Point, sign float64) (Point, float64) {
		best, at := math.Inf(1), from
		for _, r := range rings {
			for i := range r {
				a, b := r[i], r[(i+1)%len(r)]
				if sign != 0 { // keep what lies on that side of s
					da, db := sign*((a.X-s.X)*u.X+(a.Y-s.Y)*u.Y), sign*((b.X-s.X)*u.X+(b.Y-s.Y)*u.Y)
					if da <= 0 && db <= 0 {
						continue
					}
					f := 0.0
					if da != db {
						f = da / (da - db)
					}
					cut := Point{a.X + f*(b.X-a.X), a.Y + f*(b.Y-a.Y)}
					if da < 0 {
						a = cut
					} else if db < 0 {
						b = cut
					}
				}
				dx, dy := b.X-a.X, b.Y-a.Y
				t := 0.0
				if l := dx*dx + dy*dy; l > 0 {
					t = math.Max(0, math.Min(1, ((from.X-a.X)*dx+(from.Y-a.Y)*dy)/l))
				}
				q := Point{a.X + t*dx, a.Y + t*dy}
				if l := math.Hypot(q.X-from.X, q.Y-from.Y); l < best {
					best, at = l, q
				}
			}
		}
		return at, best
	}
	a, l := nearest(s, Point{}, 0)
	if l == 0 {
		return 0
	}
	u := Point{(a.X - s.X) / l, (a.Y - s.Y) / l}
	for range 4 {
		b, _ := nearest(a, u, -1)
		a, l = nearest(b, u, 1)
	}
	return l
}

// distances is, for every set cell, how far the nearest cell that is not set
// lies, in cells: the exact Euclidean transform by lower envelopes of
// parabolas, rows then columns (Felzenszwalb and Huttenlocher 2012). Outside
// the grid nothing is set.
func distances(set []bool, nx, ny int) []float64 {
	const far = 1e15
	f := make([]float64, len(set))
	for i, v := range set {
		if v {
			f[i] = far
		}
	}
	l := newNearest(max(nx, ny))
	for y := range ny {
		copy(l.line, f[y*nx:(y+1)*nx])
		l.pass(nx)
		copy(f[y*nx:(y+1)*nx], l.out[:nx])
	}
	for x := range nx {
		for y := range ny {
			l.line[y] = f[y*nx+x]
		}
		l.pass(ny)
		for y := range ny {
			f[y*nx+x] = l.out[y]
		}
	}
	for i := range f {
		if f[i] >= far/2 {
			f[i] = math.Inf(1)
		} else {
			f[i] = math.Sqrt(f[i])
		}
	}
	return f
}

// nearest is the lower envelope of parabolas along a line: what lies nearest, squared.
type nearest struct {
	line, out []float64 // heights of the parabolas, and of their envelope
	v         []int     // where those stand that are lowest somewhere
	z         []float64 // from where on
}

func newNearest(n int) *nearest {
	return &nearest{make([]float64, n), make([]float64, n), make([]int, n), make([]float64, n+1)}
}

// pass works out the envelope of the first m.
func (l *nearest) pass(m int) {
	v, z, line := l.v, l.z, l.line
	k := 0
	v[0], z[0], z[1] = 0, math.Inf(-1), math.Inf(1)
	for q := 1; q < m; q++ {
		s := 0.0
		for {
			p := v[k]
			s = ((line[q] + float64(q*q)) - (line[p] + float64(p*p))) / float64(2*q-2*p)
			if s > z[k] || k == 0 {
				break
			}
			k--
		}
		if s <= z[k] {
			v[k] = q
			continue
		}
		k++
		v[k], z[k], z[k+1] = q, s, math.Inf(1)
	}
	k = 0
	for q := range m {
		for z[k+1] < float64(q) {
			k++
		}
		l.out[q] = float64((q-v[k])*(q-v[k])) + line[v[k]]
	}
}
