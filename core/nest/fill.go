package nest

import "math"

// fill packs the blocks in an order by one of the rules: by the skyline, or by maximal free
// rectangles.
func fill(order []block, parts []Part, stocks []Stock, o Options, rule int) Layout {
	if rule >= 4 && len(o.Fixed) == 0 { // the skyline begins with empty sheets
		return skyline(order, stocks, o, rule >= 7, (rule-4)%3)
	}
	f := &filling{o: o, rule: rule % 4}
	f.Sheets, f.left = o.opened(stocks)
	for _, sh := range f.Sheets {
		f.open(sh.Stock)
		bn := &f.bins[len(f.bins)-1]
		for _, q := range sh.Placed {
			w, h := parts[q.Part].size(q.Turned)
			bn.take(Rect{q.X - o.Kerf, q.Y - o.Kerf, w + 2*o.Kerf, h + 2*o.Kerf}, q.X+w, q.Y+h)
		}
	}
	like := likes(order)
	full := make([]int, len(order)) // by like: so many sheets have no room for it, and none comes back
	for i := range order {
		o.pace()
		b := &order[i]
		at := f.place(b, stocks, full[like[i]])
		full[like[i]] = at.bin
		if at.bin == len(f.bins) {
			for _, p := range b.parts {
				f.Missing = append(f.Missing, p.Part)
			}
			continue
		}
		f.Sheets[at.bin].Placed = append(f.Sheets[at.bin].Placed, b.at(at.x, at.y, at.turned)...)
		w, h := b.size(at.turned)
		f.bins[at.bin].take(Rect{at.x, at.y, w + o.Kerf, h + o.Kerf}, at.x+w, at.y+h)
	}
	for i := range f.Sheets {
		f.Sheets[i].Offcuts = []Rect{cutOff(f.Sheets[i].Stock, f.bins[i].far)}
	}
	f.dropEmpty()
	return f.Layout
}

// bin is a sheet being filled: its maximal free rectangles, and how far it is used.
type bin struct {
	free []Rect
	far  Rect
}

// take takes a used rectangle out, which reaches to x and y.
func (b *bin) take(used Rect, x, y float64) {
	b.free = carve(b.free, used)
	b.far.W, b.far.H = math.Max(b.far.W, x), math.Max(b.far.H, y)
}

// filling are sheets being filled.
type filling struct {
	Layout
	o    Options
	rule int
	bins []bin
	left []int // sheets of each stock; negative is without end
}

// spot is where a block goes: a sheet, a corner.
type spot struct {
	bin    int
	x, y   float64
	turned bool
	cost   float64
}

func (f *filling) open(st Stock) {
	m, k := f.o.Margin, f.o.Kerf
	f.bins = append(f.bins, bin{free: []Rect{{m, m, st.W - 2*m + k, st.H - 2*m + k}}})
}

// place finds a block's spot on the first sheet that has one, from the sheets that are not
// full on; sheets are opened as they are wanted. With no spot its bin is past the last.
func (f *filling) place(b *block, stocks []Stock, from int) spot {
	for i := from; i < len(f.bins); i++ {
		if at, ok := f.look(b, i); ok {
			return at
		}
	}
	for s, st := range stocks {
		w, h := st.W-2*f.o.Margin+1e-6, st.H-2*f.o.Margin+1e-6
		straight, turned := b.w <= w && b.h <= h, b.turn && b.h <= w && b.w <= h
		if f.left[s] == 0 || !straight && !turned {
			continue
		}
		f.left[s]--
		f.open(st)
		f.Sheets = append(f.Sheets, Sheet{Stock: st})
		if at, ok := f.look(b, len(f.bins)-1); ok {
			return at
		}
	}
	return spot{bin: len(f.bins)}
}

// look finds a block's best spot on a sheet.
func (f *filling) look(b *block, i int) (best spot, ok bool) {
	best = spot{bin: i, cost: math.Inf(1)}
	for _, free := range f.bins[i].free {
		for turn := range 2 {
			if turn == 1 && !b.turn {
				break
			}
			w, h := b.size(turn == 1)
			w, h = w+f.o.Kerf, h+f.o.Kerf
			if w > free.W+1e-6 || h > free.H+1e-6 {
				continue
			}
			if cost := f.cost(free, w, h); cost < best.cost {
				best, ok = spot{i, free.X, free.Y, turn == 1, cost}, true
			}
		}
	}
	return best, ok
}

// cost is lower for a free rectangle that suits a box better, by the rule: the tightest
// side, the least area left, the lowest, the leftmost.
func (f *filling) cost(free Rect, w, h float64) float64 {
	dx, dy := free.W-w, free.H-h
	switch f.rule {
	case 0:
		return math.Min(dx, dy)*1e3 + math.Max(dx, dy)*1e-3
	case 1:
		return (free.W*free.H - w*h) * 1e-1
	case 2:
		return (free.Y+h)*1e3 + free.X*1e-3
	}
	return (free.X+w)*1e3 + free.Y*1e-3
}

// carve takes a used rectangle out of the free ones and keeps only the maximal.
func carve(free []Rect, u Rect) []Rect {
	var next []Rect
	for _, f := range free {
		if u.X >= f.X+f.W-1e-9 || u.X+u.W <= f.X+1e-9 || u.Y >= f.Y+f.H-1e-9 || u.Y+u.H <= f.Y+1e-9 {
			next = append(next, f)
			continue
		}
		for _, c := range []Rect{
			{f.X, f.Y, u.X - f.X, f.H}, {u.X + u.W, f.Y, f.X + f.W - u.X - u.W, f.H},
			{f.X, f.Y, f.W, u.Y - f.Y}, {f.X, u.Y + u.H, f.W, f.Y + f.H - u.Y - u.H}} {
			if c.W > 1e-6 && c.H > 1e-6 {
				next = append(next, c)
			}
		}
	}
	out := next[:0:0]
	for i, a := range next {
		kept := true
		for j, b := range next {
			inside := a.X >= b.X-1e-9 && a.Y >= b.Y-1e-9 && a.X+a.W <= b.X+b.W+1e-9 && a.Y+a.H <= b.Y+b.H+1e-9
			if i != j && inside && (a != b || j < i) {
				kept = false
				break
			}
		}
		if kept {
			out = append(out, a)
		}
	}
	return out
}
