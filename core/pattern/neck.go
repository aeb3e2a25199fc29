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
	lo, hi := p.Bounds()
	w, h := hi.X-lo.X, hi.Y-lo.Y
	cell := math.Max(safe/10, math.Max(w, h)/600)
	if safe <= 0 || cell > safe/3 { // too large to see the neck: no prop's part is
		cell = safe / 3
		if w*h/(cell*cell) > 4e6 {
			return nil
		}
	}
	nx, ny := int(w/cell)+3, int(h/cell)+3
	rings := append([][]Point{p.Outline}, p.Holes...)
	in := make([]bool, nx*ny)
	var xs []float64
	mid := func(x, y int) Point {
		return Point{lo.X + (float64(x)-.5)*cell, lo.Y + (float64(y)-.5)*cell}
	}
	for y := range ny {
		cy := mid(0, y).Y
		xs = xs[:0]
		for _, r := range rings {
			for i := range r {
				a, b := r[i], r[(i+1)%len(r)]
				if (a.Y > cy) != (b.Y > cy) {
					xs = append(xs, (b.X-a.X)*(cy-a.Y)/(b.Y-a.Y)+a.X)
				}
			}
		}
		sort.Float64s(xs)
		for k := 0; k+1 < len(xs); k += 2 {
			from, to := int(math.Ceil((xs[k]-lo.X)/cell+.5)), int(math.Floor((xs[k+1]-lo.X)/cell+.5))
			for x := max(0, from); x <= min(nx-1, to); x++ {
				in[y*nx+x] = true
			}
		}
	}
	d := distances(in, nx, ny) // to the nearest cell outside, in cells
	// flood from the fattest cell down: where two floods with fat hearts of their
	// own meet is a waist
	order := make([]int, 0, len(in))
	for i, v := range in {
		if v {
			order = append(order, i)
		}
	}
	sort.SliceStable(order, func(a, b int) bool { return d[order[a]] > d[order[b]] })
	parent := make([]int, len(in))
	peak := make([]float64, len(in))
	for i := range parent {
		parent[i] = -1
	}
	find := func(i int) int {
		for parent[i] != i {
			parent[i] = parent[parent[i]]
			i = parent[i]
		}
		return i
	}
	width := func(i int) float64 { return (2*d[i] - 1) * cell }
	var out []Neck
	for _, i := range order {
		parent[i], peak[i] = i, d[i]
		x, y := i%nx, i/nx
		for dy := -1; dy <= 1; dy++ {
			for dx := -1; dx <= 1; dx++ {
				if x+dx < 0 || x+dx >= nx || y+dy < 0 || y+dy >= ny {
					continue
				}
				k := (y+dy)*nx + x + dx
				if parent[k] < 0 {
					continue
				}
				a, b := find(i), find(k)
				if a == b {
					continue
				}
				if peak[a] < peak[b] {
					a, b = b, a
				}
				if width(i) < safe+2*cell && peak[b] > 1.35*d[i]+1 {
					if across := chord(rings, mid(x, y)); across < safe-1e-9 {
						out = append(out, Neck{At: mid(x, y), Width: across})
					}
				}
				parent[b] = a
			}
		}
	}
	// limbs: what no disc of the safe width reaches
	half := safe/2/cell - 1 // what lies this deep lets the disc in, to a cell
	away := make([]bool, len(in))
	for i := range away {
		away[i] = !(in[i] && d[i] >= half)
	}
	far := distances(away, nx, ny)
	seen := make([]bool, len(in))
	for _, i := range order {
		if seen[i] || far[i] <= half+1.5 {
			continue
		}
		stack, tip := []int{i}, i
		seen[i] = true
		widest := 0.0
		for len(stack) > 0 {
			k := stack[len(stack)-1]
			stack = stack[:len(stack)-1]
			if far[k] > far[tip] {
				tip = k
			}
			widest = math.Max(widest, d[k])
			for _, n := range []int{k - 1, k + 1, k - nx, k + nx, k - nx - 1, k - nx + 1, k + nx - 1, k + nx + 1} {
				if n >= 0 && n < len(in) && in[n] && !seen[n] && far[n] > half+1.5 {
					seen[n] = true
					stack = append(stack, n)
				}
			}
		}
		reach := far[tip]*cell - safe/2
		if math.IsInf(far[tip], 1) { // the whole part is thin
			reach = math.Max(w, h)
		}
		if reach > 2*safe {
			out = append(out, Neck{At: mid(tip%nx, tip/nx), Width: (2*widest - 1) * cell, Limb: true, Reach: reach})
		}
	}
	sort.SliceStable(out, func(a, b int) bool {
		return !out[a].Limb && out[b].Limb || out[a].Limb == out[b].Limb && out[a].Width < out[b].Width
	})
	return out
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
