package nest

import (
	"math"
	"math/bits"
	"math/rand/v2"
	"reflect"
	"sort"
	"strconv"

	"zapbarn/core/pattern"
)

// irregular reports whether the box wastes enough that true shapes pay.
func irregular(parts []Part) bool {
	for _, p := range parts {
		if len(p.Polys) > 0 && p.Round == 0 && p.Low == 0 && math.Abs(pattern.SignedArea(p.Polys[0])) < 0.88*p.W*p.H {
			return true
		}
	}
	return false
}

// grid is a bitmap of a sheet or a part, row by row, 64 cells a word.
type grid struct {
	w, h, words int
	bits        []uint64
}

func newGrid(w, h int) *grid {
	words := (w + 63) / 64
	return &grid{w, h, words, make([]uint64, words*h)}
}

func (g *grid) row(y int) []uint64 { return g.bits[y*g.words : (y+1)*g.words] }

// run is a stretch of set cells in a row of a part.
type run struct{ at, n int }

// stamp is a part in one position, as runs by row: thin is the shape itself,
// fat the shape widened by the kerf.
type stamp struct {
	w, h         int
	dx, dy       float64 // where the box's corner lies in the thin grid
	thin         [][]run
	fat          *grid
	fatX, fatY   int // the fat grid's corner against the thin one
	turned, flip bool
	same         bool // as the one not flipped
}

// ring makes an outline of its corners x, y, x, y.
func ring(xy ...float64) []pattern.Point {
	out := make([]pattern.Point, len(xy)/2)
	for i := range out {
		out[i] = pattern.Point{X: xy[2*i], Y: xy[2*i+1]}
	}
	return out
}

// turn gives an outline flipped end for end, then turned by a quarter, within
// its box: as Placed says.
func turn(p []pattern.Point, w, h float64, flip, turned bool) []pattern.Point {
	out := make([]pattern.Point, len(p))
	for i, q := range p {
		if flip {
			q = pattern.Point{X: w - q.X, Y: h - q.Y}
		}
		if turned {
			q = pattern.Point{X: q.Y, Y: w - q.X}
		}
		out[i] = q
	}
	return out
}

// raster marks every cell that the outlines, widened by grow, touch; holes,
// narrowed by grow, are left free. The grid's corner lies at -margin cells.
func raster(polys, holes [][]pattern.Point, cell, grow float64, margin, w, h int) *grid {
	r := rasterer{newGrid(w, h), cell, float64(margin) * cell, grow + cell*math.Sqrt2/2, w, h}
	for _, p := range polys {
		r.fill(p, true)
	}
	for _, p := range holes {
		r.fill(p, false)
	}
	for _, p := range polys {
		r.band(p)
	}
	for _, p := range holes {
		r.band(p)
	}
	return r.grid
}

// rasterer draws polygons on a grid of cells, off from its corner, each side as wide as it
// reaches.
type rasterer struct {
	*grid
	cell, off, reach float64
	w, h             int
}

// fill sets the cells whose middle lies inside, or clears them.
func (r rasterer) fill(p []pattern.Point, on bool) {
	var xs []float64
	for y := range r.h {
		cy := (float64(y)+.5)*r.cell - r.off
		xs = xs[:0]
		for i := range p {
			a, b := p[i], p[(i+1)%len(p)]
			if (a.Y > cy) != (b.Y > cy) {
				xs = append(xs, (b.X-a.X)*(cy-a.Y)/(b.Y-a.Y)+a.X)
			}
		}
		sort.Float64s(xs)
		row := r.row(y)
		for k := 0; k+1 < len(xs); k += 2 {
			from, to := int(math.Ceil((xs[k]+r.off)/r.cell-.5)), int(math.Floor((xs[k+1]+r.off)/r.cell-.5))
			for x := max(0, from); x <= min(r.w-1, to); x++ {
				if on {
					row[x/64] |= 1 << (x % 64)
				} else {
					row[x/64] &^= 1 << (x % 64)
				}
			}
		}
	}
}

// band sets the cells that a side, widened, may touch.
func (r rasterer) band(p []pattern.Point) {
	cell, off, reach := r.cell, r.off, r.reach
	for i := range p {
		a, b := p[i], p[(i+1)%len(p)]
		dx, dy := b.X-a.X, b.Y-a.Y
		l := dx*dx + dy*dy
		x0, x1 := int((math.Min(a.X, b.X)-reach+off)/cell), int((math.Max(a.X, b.X)+reach+off)/cell)
		y0, y1 := int((math.Min(a.Y, b.Y)-reach+off)/cell), int((math.Max(a.Y, b.Y)+reach+off)/cell)
		for y := max(0, y0); y <= min(r.h-1, y1); y++ {
			row := r.row(y)
			cy := (float64(y)+.5)*cell - off
			for x := max(0, x0); x <= min(r.w-1, x1); x++ {
				cx := (float64(x)+.5)*cell - off
				t := 0.0
				if l > 0 {
					t = math.Max(0, math.Min(1, ((cx-a.X)*dx+(cy-a.Y)*dy)/l))
				}
				ex, ey := a.X+t*dx-cx, a.Y+t*dy-cy
				if ex*ex+ey*ey <= reach*reach {
					row[x/64] |= 1 << (x % 64)
				}
			}
		}
	}
}

// signed is the distance from a point to an outline, negative inside.
func signed(p []pattern.Point, c pattern.Point) float64 {
	best, in := math.Inf(1), false
	for i := range p {
		a, b := p[i], p[(i+1)%len(p)]
		if (a.Y > c.Y) != (b.Y > c.Y) && c.X < (b.X-a.X)*(c.Y-a.Y)/(b.Y-a.Y)+a.X {
			in = !in
		}
		dx, dy := b.X-a.X, b.Y-a.Y
		t := 0.0
		if l := dx*dx + dy*dy; l > 0 {
			t = math.Max(0, math.Min(1, ((c.X-a.X)*dx+(c.Y-a.Y)*dy)/l))
		}
		ex, ey := a.X+t*dx-c.X, a.Y+t*dy-c.Y
		best = math.Min(best, ex*ex+ey*ey)
	}
	if in {
		return -math.Sqrt(best)
	}
	return math.Sqrt(best)
}

// stampOf rasters a part in one position.
func stampOf(p Part, cell, kerf float64, flip, turned bool) *stamp {
	w, h := p.W, p.H
	if turned {
		w, h = h, w
	}
	var polys, holes [][]pattern.Point
	for _, q := range p.Polys {
		polys = append(polys, turn(q, p.W, p.H, flip, turned))
	}
	for _, q := range p.Holes {
		holes = append(holes, turn(q, p.W, p.H, flip, turned))
	}
	if polys == nil {
		polys = [][]pattern.Point{ring(0, 0, w, 0, w, h, 0, h)}
	}
	gw, gh := int(math.Ceil(w/cell-1e-9))+2, int(math.Ceil(h/cell-1e-9))+2
	s := &stamp{w: gw, h: gh, dx: cell, dy: cell, flip: flip, turned: turned}
	thin := raster(polys, holes, cell, 0, 1, gw, gh)
	for y := range gh {
		var runs []run
		row := thin.row(y)
		for x := 0; x < gw; x++ {
			if row[x/64]>>(x%64)&1 == 0 {
				continue
			}
			at := x
			for x < gw && row[x/64]>>(x%64)&1 == 1 {
				x++
			}
			runs = append(runs, run{at, x - at})
		}
		s.thin = append(s.thin, runs)
	}
	m := 1 + int(math.Ceil(kerf/cell))
	s.fat, s.fatX, s.fatY = raster(polys, holes, cell, kerf, m+1, gw+2*m, gh+2*m), m, m
	return s
}

// shifted is row >> n, cell by cell: bit x of the result is bit x+n of row.
func shifted(dst, row []uint64, n int) {
	w, b := n/64, uint(n%64)
	for i := range dst {
		var v uint64
		if i+w < len(row) {
			v = row[i+w] >> b
			if b > 0 && i+w+1 < len(row) {
				v |= row[i+w+1] << (64 - b)
			}
		}
		dst[i] = v
	}
}

// smears holds, for one state of a sheet, each row with every run of n cells
// that meets something marked at its start: worked out once a row and length.
type smears struct {
	sheet *grid
	empty []bool
	rows  [][]uint64 // by length: all rows
	done  [][]bool
}

func newSmears(sheet *grid) *smears {
	m := &smears{
		sheet: sheet,
		empty: make([]bool, sheet.h),
		rows:  make([][]uint64, sheet.w+1),
		done:  make([][]bool, sheet.w+1),
	}
	for y := range sheet.h {
		m.empty[y] = true
		for _, w := range sheet.row(y) {
			m.empty[y] = m.empty[y] && w == 0
		}
	}
	return m
}

// row is sheet row y with bit x set when any of x .. x+n-1 is.
func (m *smears) row(y, n int, tmp []uint64) []uint64 {
	words := m.sheet.words
	all := m.rows[n]
	if all == nil {
		all = make([]uint64, words*m.sheet.h)
		m.rows[n], m.done[n] = all, make([]bool, m.sheet.h)
	}
	out := all[y*words : (y+1)*words]
	if m.done[n][y] {
		return out
	}
	m.done[n][y] = true
	copy(out, m.sheet.row(y))
	for have := 1; have < n; {
		step := min(have, n-have)
		shifted(tmp, out, step)
		for i := range out {
			out[i] |= tmp[i]
		}
		have += step
	}
	return out
}

// fit finds the lowest, then leftmost place for a stamp on a sheet, below top
// rows; all places of a row are tried at once, 64 in a word.
func (s *stamp) fit(m *smears, from, top int) (x, y int, ok bool) {
	sheet := m.sheet
	blocked, tmp := make([]uint64, sheet.words), make([]uint64, sheet.words)
	last := sheet.w - s.w
	if last < 0 {
		return 0, 0, false
	}
	for y = from; y+s.h <= sheet.h && y+s.h < top; y++ {
		clear(blocked)
		full := false
		for r, runs := range s.thin {
			if m.empty[y+r] {
				continue
			}
			for _, n := range runs {
				shifted(tmp, m.row(y+r, n.n, tmp), n.at)
				for i := range blocked {
					blocked[i] |= tmp[i]
				}
			}
			if r%8 == 7 && firstFree(blocked, last) < 0 {
				full = true
				break
			}
		}
		if full {
			continue
		}
		if x = firstFree(blocked, last); x >= 0 {
			return x, y, true
		}
	}
	return 0, 0, false
}

func firstFree(blocked []uint64, last int) int {
	for i, b := range blocked {
		if b != ^uint64(0) {
			if x := i*64 + bits.TrailingZeros64(^b); x <= last {
				return x
			}
			return -1
		}
	}
	return -1
}

// put marks the widened stamp as taken.
func (s *stamp) put(sheet *grid, x, y int) {
	for r := range s.fat.h {
		sy := y + r - s.fatY
		if sy < 0 || sy >= sheet.h {
			continue
		}
		row, dst := s.fat.row(r), sheet.row(sy)
		for i := range s.fat.w {
			if row[i/64]>>(i%64)&1 == 1 {
				if sx := x + i - s.fatX; sx >= 0 && sx < sheet.w {
					dst[sx/64] |= 1 << (sx % 64)
				}
			}
		}
	}
}

// Shapes lays true outlines on the stocks: lowest, then leftmost place in the
// order of size, then o.Tries random changes of the order. Cells of about
// 1/124 of the sheet's width are marked when touched, so nothing overlaps and
// the kerf is always kept; up to two cells a gap are given away. Cost grows
// with parts times rows of the sheet times rows of the part.
func Shapes(parts []Part, stocks []Stock, o Options) Layout {
	s := newShaper(parts, stocks, o)
	fixed := map[int]bool{}
	for _, f := range o.Fixed {
		fixed[f.Part] = true
	}
	var order []int
	for i := range parts {
		if !fixed[i] {
			order = append(order, i)
		}
	}
	sort.SliceStable(
		order,
		func(a, b int) bool { return parts[order[a]].W*parts[order[a]].H > parts[order[b]].W*parts[order[b]].H },
	)
	best := s.lay(order)
	bestScore := score(best, parts)
	rng := rand.New(rand.NewPCG(o.Seed, 2))
	for range o.Tries {
		next := append([]int(nil), order...)
		for range 1 + len(next)/10 {
			i, j := rng.IntN(len(next)), rng.IntN(len(next))
			next[i], next[j] = next[j], next[i]
		}
		if l := s.lay(next); score(l, parts) < bestScore-1e-9 {
			best, bestScore, order = l, score(l, parts), next
		}
	}
	return best
}

// shaper lays true outlines; a stamp is made once for all its tries.
type shaper struct {
	parts  []Part
	stocks []Stock
	o      Options
	stamps map[stampKey]*stamp
	fine   float64 // how many times finer than cellOf
}

func (sp *shaper) cell(s Stock) float64 { return cellOf(s) / sp.fine }

type stampKey struct { // equal shapes are rastered once
	shape        string
	cell         float64
	flip, turned bool
}

func newShaper(parts []Part, stocks []Stock, o Options) *shaper {
	return &shaper{parts, stocks, o, map[stampKey]*stamp{}, 1}
}

func cellOf(s Stock) float64 { return math.Max(3, math.Min(s.W, s.H)/124) }

func (sp *shaper) stamp(i int, cell float64, flip, turned bool) *stamp {
	k := stampKey{sp.parts[i].Shape, cell, flip, turned}
	if k.shape == "" {
		k.shape = "part " + strconv.Itoa(i)
	}
	s := sp.stamps[k]
	if s == nil {
		s = stampOf(sp.parts[i], cell, sp.o.Kerf, flip, turned)
		if flip { // it may look the same
			s.same = reflect.DeepEqual(s.thin, sp.stamp(i, cell, false, turned).thin)
		}
		sp.stamps[k] = s
	}
	return s
}

// stampAll makes every stamp that lay may ask for, so that two can run at once.
func (sp *shaper) stampAll(order []int) {
	for _, st := range sp.stocks {
		for _, i := range order {
			for k := range 4 {
				if k&2 == 2 && !sp.parts[i].Turn || k > 0 && sp.parts[i].Round > 0 {
					continue
				}
				sp.stamp(i, sp.cell(st), k&1 == 1, k&2 == 2)
			}
		}
	}
}

// lay places the parts in an order, each at its lowest, then leftmost place.
func (sp *shaper) lay(order []int) Layout {
	l := &laying{shaper: sp, lowest: map[fromStamp]int{}, failed: map[noPlace]bool{}}
	var left []int
	l.Sheets, left = sp.o.opened(sp.stocks)
	for n, sh := range l.Sheets {
		l.open(sh.Stock)
		for _, q := range sh.Placed {
			l.take(n, q)
		}
		l.seen[n] = newSmears(l.grids[n])
	}
	for _, i := range order {
		if !l.first(i) && !l.opened(i, left) {
			l.Missing = append(l.Missing, i)
		}
	}
	for n := range l.Sheets {
		l.Sheets[n].Offcuts = []Rect{cutOff(l.Sheets[n].Stock, l.far[n])}
	}
	l.dropEmpty()
	return l.Layout
}

// laying are sheets being laid with true outlines.
type laying struct {
	*shaper
	Layout
	grids  []*grid
	seen   []*smears // of each sheet as it lies now
	far    []Rect
	lowest map[fromStamp]int // no place was left below, and none comes back
	failed map[noPlace]bool  // a sheet only gets fuller: what failed once fails again
}

type fromStamp struct {
	s     *stamp
	sheet int
}

type noPlace struct {
	shape string
	sheet int
}

// open adds an empty sheet.
func (l *laying) open(s Stock) {
	cell := l.cell(s)
	// a border of one cell stands for the stamps' own border
	g := newGrid(int((s.W-2*l.o.Margin)/cell)+2, int((s.H-2*l.o.Margin)/cell)+2)
	l.grids, l.seen, l.far = append(l.grids, g), append(l.seen, newSmears(g)), append(l.far, Rect{})
}

// reached notes how far a sheet is used.
func (l *laying) reached(n int, q Placed) {
	w, h := l.parts[q.Part].size(q.Turned)
	l.far[n].W, l.far[n].H = math.Max(l.far[n].W, q.X+w), math.Max(l.far[n].H, q.Y+h)
}

// take takes what lies on a sheet already, where it lies exactly, not to a cell.
func (l *laying) take(n int, q Placed) {
	polys, holes := l.parts[q.Part].lying(q)
	for _, list := range [][][]pattern.Point{polys, holes} {
		for _, p := range list {
			for i := range p {
				p[i].X, p[i].Y = p[i].X-l.o.Margin, p[i].Y-l.o.Margin
			}
		}
	}
	g := l.grids[n]
	taken := raster(polys, holes, l.cell(l.Sheets[n].Stock), l.o.Kerf, 1, g.w, g.h)
	for i := range g.bits {
		g.bits[i] |= taken.bits[i]
	}
	l.reached(n, q)
}

// first lays a part on the first sheet that has a place for it.
func (l *laying) first(i int) bool {
	for n := range l.grids {
		if l.place(n, i) {
			return true
		}
	}
	return false
}

// opened lays a part on a new sheet, of the first stock that it fits.
func (l *laying) opened(i int, left []int) bool {
	for k, st := range l.stocks {
		if left[k] == 0 {
			continue
		}
		l.open(st)
		l.Sheets = append(l.Sheets, Sheet{Stock: st})
		n := len(l.grids) - 1
		if l.place(n, i) {
			left[k]--
			return true
		}
		delete(l.failed, noPlace{l.parts[i].Shape, n}) // another sheet gets its number
		l.grids, l.seen, l.far, l.Sheets = l.grids[:n], l.seen[:n], l.far[:n], l.Sheets[:n]
	}
	return false
}

// place lays a part on a sheet, the way it lies in which it reaches least far.
func (l *laying) place(n, i int) bool {
	p := &l.parts[i]
	if l.failed[noPlace{p.Shape, n}] {
		return false
	}
	cell := l.cell(l.Sheets[n].Stock)
	var best *stamp
	bx, by, top := 0, 0, 1<<30
	for k := range 4 {
		flip, turned := k&1 == 1, k&2 == 2
		if turned && !p.Turn || k > 0 && p.Round > 0 {
			continue
		}
		s := l.stamp(i, cell, flip, turned)
		if s.same {
			continue
		}
		if x, y, ok := s.fit(l.seen[n], l.lowest[fromStamp{s, n}], top); ok && y+s.h < top {
			best, bx, by, top = s, x, y, y+s.h
		}
	}
	if best == nil {
		if p.Shape != "" {
			l.failed[noPlace{p.Shape, n}] = true
		}
		return false
	}
	best.put(l.grids[n], bx, by)
	l.lowest[fromStamp{best, n}] = by
	l.seen[n] = newSmears(l.grids[n])
	q := Placed{Part: i, X: l.o.Margin + float64(bx)*cell, Y: l.o.Margin + float64(by)*cell,
		Turned: best.turned, Flip: best.flip}
	l.Sheets[n].Placed = append(l.Sheets[n].Placed, q)
	l.reached(n, q)
	return true
}

// lying are a part's outlines and holes where it lies on the sheet.
func (p Part) lying(q Placed) (polys, holes [][]pattern.Point) {
	move := func(list [][]pattern.Point) [][]pattern.Point {
		var out [][]pattern.Point
		for _, r := range list {
			t := turn(r, p.W, p.H, q.Flip, q.Turned)
			for i := range t {
				t[i].X, t[i].Y = t[i].X+q.X, t[i].Y+q.Y
			}
			out = append(out, t)
		}
		return out
	}
	all := p.Polys
	if all == nil {
		all = [][]pattern.Point{ring(0, 0, p.W, 0, p.W, p.H, 0, p.H)}
	}
	return move(all), move(p.Holes)
}
