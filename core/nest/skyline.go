package nest

import (
	"math"
	"slices"
)

// skyline packs the blocks sheet by sheet into the lowest gap of the outline
// of what is already laid: of the blocks that fit the gap, the first in order
// that fills its width exactly, else the widest but for pick's tolerance, else
// the first in order (after the best-fit rule of Burke, Kendall and Whitwell
// 2004, with the order left to a search). Along swaps the sheet's sides. Cost
// grows with blocks times kinds of block, with small constants.
func skyline(order []block, stocks []Stock, o Options, along bool, pick int) (l Layout) {
	k := &horizon{order: order, o: o, along: along, pick: pick, like: likes(order)}
	for i := range order {
		k.waiting = append(k.waiting, i)
	}
	for _, st := range stocks {
		for left := st.Left; left != 0 && len(k.waiting) > 0; left-- {
			sheet, ok := k.sheet(st)
			if !ok {
				break // no block fits this stock
			}
			l.Sheets = append(l.Sheets, sheet)
		}
	}
	for _, i := range k.waiting {
		for _, p := range order[i].parts {
			l.Missing = append(l.Missing, p.Part)
		}
	}
	return l
}

// likes gives blocks that fit the same places one number.
func likes(order []block) []int {
	type like struct {
		w, h float64
		turn bool
	}
	seen := map[like]int{}
	out := make([]int, len(order))
	for i, b := range order {
		k := like{b.w, b.h, b.turn}
		n, ok := seen[k]
		if !ok {
			n = len(seen)
			seen[k] = n
		}
		out[i] = n
	}
	return out
}

// stair is one step of the outline: from x on, w wide, laid up to y.
type stair struct{ x, w, y float64 }

// horizon is a sheet being packed, and what waits to be.
type horizon struct {
	order   []block
	o       Options
	along   bool
	pick    int
	like    []int // by block
	waiting []int // in order
	w, h    float64
	sky     []stair
}

// chosen is a block for a gap: the n-th that waits, with the saw's width; n is -1 of none.
type chosen struct {
	n      int
	w, h   float64
	turned bool
	score  float64
}

// sheet packs one sheet; ok is false when nothing that waits fits it.
func (k *horizon) sheet(st Stock) (sheet Sheet, ok bool) {
	k.w, k.h = st.W-2*k.o.Margin+k.o.Kerf, st.H-2*k.o.Margin+k.o.Kerf
	if k.along {
		k.w, k.h = k.h, k.w
	}
	k.sky = []stair{{0, k.w, 0}}
	sheet.Stock = st
	far := Rect{}
	for {
		g := k.lowest()
		if k.sky[g].y >= k.h-1e-6 {
			break
		}
		c := k.choose(g)
		if c.n < 0 {
			if !k.raise(g) {
				break
			}
			continue
		}
		b := &k.order[k.waiting[c.n]]
		k.waiting = slices.Delete(k.waiting, c.n, c.n+1)
		x, y := k.put(g, c)
		x, y = k.o.Margin+x, k.o.Margin+y
		if k.along {
			x, y = y, x
		}
		sheet.Placed = append(sheet.Placed, b.at(x, y, c.turned)...)
		w, h := b.size(c.turned)
		far.W, far.H = math.Max(far.W, x+w), math.Max(far.H, y+h)
	}
	sheet.Offcuts = []Rect{cutOff(st, far)}
	return sheet, len(sheet.Placed) > 0
}

// cutOff is the used end of a sheet, by the smaller of its two straight cut-off lines.
func cutOff(st Stock, far Rect) Rect {
	if far.W*st.H < far.H*st.W {
		return Rect{0, 0, far.W, st.H}
	}
	return Rect{0, 0, st.W, far.H}
}

// lowest is the lowest, then leftmost gap.
func (k *horizon) lowest() int {
	g := 0
	for i := range k.sky {
		if k.sky[i].y < k.sky[g].y-1e-9 {
			g = i
		}
	}
	return g
}

// choose is the block for a gap.
func (k *horizon) choose(g int) chosen {
	best := chosen{n: -1, score: math.Inf(1)}
	for n, i := range k.waiting {
		if best.n >= 0 && k.pick == 1 && best.score > -1e5 && n > 61 {
			break
		}
		if n > 0 && k.like[i] == k.like[k.waiting[n-1]] {
			continue // the one before did as well, and came first
		}
		b := &k.order[i]
		for t := range 2 {
			turned := t == 1
			if turned && (!b.turn || math.Abs(b.w-b.h) < 1e-9) {
				break
			}
			w, h := b.size(turned != k.along)
			w, h = w+k.o.Kerf, h+k.o.Kerf
			if w > k.sky[g].w+1e-6 || k.sky[g].y+h > k.h+1e-6 {
				continue
			}
			if s := k.score(g, n, w, h); s < best.score {
				best = chosen{n, w, h, turned, s}
			}
		}
	}
	return best
}

// score is lower for a block that suits a gap better.
func (k *horizon) score(g, n int, w, h float64) float64 {
	gap := k.sky[g]
	spare := gap.w - w
	level := func(at int) bool { return at >= 0 && at < len(k.sky) && math.Abs(k.sky[at].y-gap.y-h) < 1e-6 }
	switch {
	case spare < 1e-6:
		s := -1e6 + float64(n)*1e-3
		if level(g-1) || level(g+1) { // flush with a neighbour as well: no step is left
			s -= 1e5
		}
		return s
	case k.pick == 1: // the first in order
		return float64(n)
	case k.pick == 2: // the first in order, unless it wastes the gap
		return float64(n) + 40*spare/k.w
	}
	return spare
}

// beside is how high the neighbours of a gap are; without end at the sheet's edge.
func (k *horizon) beside(g int) (left, right float64) {
	left, right = math.Inf(1), math.Inf(1)
	if g > 0 {
		left = k.sky[g-1].y
	}
	if g+1 < len(k.sky) {
		right = k.sky[g+1].y
	}
	return left, right
}

// raise gives a gap up that nothing fits, to the height of its lower neighbour; false when
// it has none.
func (k *horizon) raise(g int) bool {
	left, right := k.beside(g)
	low := math.Min(left, right)
	if math.IsInf(low, 1) {
		return false
	}
	k.sky[g].y = low
	k.level()
	return true
}

// put lays a block into a gap, against the taller neighbour, and says where.
func (k *horizon) put(g int, c chosen) (x, y float64) {
	gap := k.sky[g]
	left, right := k.beside(g)
	spare := gap.w - c.w
	x, y = gap.x, gap.y
	laid := []stair{{x, c.w, y + c.h}, {x + c.w, spare, y}}
	if left < right {
		x += spare
		laid = []stair{{gap.x, spare, y}, {x, c.w, y + c.h}}
	}
	laid = slices.DeleteFunc(laid, func(s stair) bool { return s.w <= 1e-6 && s.y == y })
	k.sky = slices.Replace(k.sky, g, g+1, laid...)
	k.level()
	return x, y
}

// level joins steps of one height.
func (k *horizon) level() {
	k.sky = flush(k.sky, func(a, b *stair) bool { return math.Abs(a.y-b.y) < 1e-6 },
		func(a, b *stair) { a.w += b.w })
}

// flush joins neighbours that belong together.
func flush[T any](list []T, same func(a, b *T) bool, join func(a, b *T)) []T {
	out := list[:0]
	for i := range list {
		if n := len(out); n > 0 && same(&out[n-1], &list[i]) {
			join(&out[n-1], &list[i])
			continue
		}
		out = append(out, list[i])
	}
	return out
}
