// Package nest lays flat parts on sheets and cut lengths on pipe: every part
// once, nothing overlapping, kerf and edge margin kept, the same seed giving
// the same layout. Lengths are millimetres.
package nest

import (
	"math"
	"math/rand/v2"
	"runtime"
	"slices"
	"sort"
	"sync"

	"zapbarn/core/lanes"
	"zapbarn/core/pattern"
)

// Part is one piece to place, by the box round it.
type Part struct {
	ID   string
	W, H float64
	Turn bool // may be turned by 90 degrees
	// A trapezoid says how wide it is at the bottom and top (0: it is as wide
	// as W), so that two can interlock head to foot.
	Low, High float64
	// A round part says its diameter and the hole in its middle, so that
	// smaller rings can be cut from the plugs of larger ones.
	Round, Bore float64
	// The true outlines in the box (both faces of a bevelled part) and holes;
	// nil is the box itself. Equal Shapes are cut alike.
	Shape string
	Polys [][]pattern.Point
	Holes [][]pattern.Point
}

// Stock is a sheet to cut from.
type Stock struct {
	ID   string
	W, H float64
	Left int // how many there are; below 0 without limit
}

// Options say what the saw takes.
type Options struct {
	Kerf   float64 // width of a cut
	Margin float64 // unused edge of each sheet
	Seed   uint64
	Tries  int // steps of the search after the sorted orders
	Fixed  []Fixed
	Pace   func() // called at each part laid, so that what takes too long can be ended; may be nil
}

func (o Options) pace() {
	if o.Pace != nil {
		o.Pace()
	}
}

// Fixed is a part that lies where it lies: the rest is laid round it. Sheet
// numbers the sheets of its stock.
type Fixed struct {
	Stock string
	Sheet int
	Placed
}

// opened are the sheets to begin with, in the order of the stocks: those that
// fixed parts need, and all of a stock that is limited, such as offcuts, which
// so are filled first. Those that stay empty are left out in the end. left is
// how many more of each stock there are.
func (o Options) opened(stocks []Stock) (sheets []Sheet, left []int) {
	type key struct {
		stock string
		n     int
	}
	for _, s := range stocks {
		at := map[key]int{}
		var keys []key
		for _, f := range o.Fixed {
			if k := (key{f.Stock, f.Sheet}); f.Stock == s.ID && !slices.Contains(keys, k) {
				keys = append(keys, k)
			}
		}
		sort.Slice(keys, func(i, j int) bool { return keys[i].n < keys[j].n })
		for _, k := range keys {
			at[k] = len(sheets)
			sheets = append(sheets, Sheet{Stock: s})
		}
		for range s.Left - len(keys) {
			sheets = append(sheets, Sheet{Stock: s})
		}
		left = append(left, s.Left-max(s.Left, len(keys)))
		for _, f := range o.Fixed {
			if i, ok := at[key{f.Stock, f.Sheet}]; ok {
				sheets[i].Placed = append(sheets[i].Placed, f.Placed)
			}
		}
	}
	return sheets, left
}

// size is the box of a part as it lies.
func (p Part) size(turned bool) (w, h float64) {
	if turned {
		return p.H, p.W
	}
	return p.W, p.H
}

// Placed is where a part lies: its box's lower left corner on the sheet.
type Placed struct {
	Part   int // index into the parts given
	X, Y   float64
	Turned bool // by 90 degrees
	Flip   bool // head to foot (180 degrees)
}

// Rect is a free or used rectangle.
type Rect struct{ X, Y, W, H float64 }

// Sheet is one sheet with what lies on it.
type Sheet struct {
	Stock   Stock
	Placed  []Placed
	Offcuts []Rect // free rectangles worth keeping, largest first, not overlapping
}

// Layout is all sheets, and the parts no sheet can hold.
type Layout struct {
	Sheets   []Sheet
	TooLarge []int
	Missing  []int // they would fit, but the stock ran out
	Used     float64
	Total    float64
}

// Yield is the share of the sheets' area that becomes parts.
func (l Layout) Yield() float64 {
	if l.Total == 0 {
		return 0
	}
	return l.Used / l.Total
}

// Area is the part's true area.
func (p Part) Area() float64 {
	switch {
	case p.Round > 0:
		return math.Pi / 4 * (p.Round*p.Round - p.Bore*p.Bore)
	case p.Low > 0 || p.High > 0:
		return (p.Low + p.High) / 2 * p.H
	case len(p.Polys) > 0:
		a := math.Abs(pattern.SignedArea(p.Polys[0]))
		for _, h := range p.Holes {
			a -= math.Abs(pattern.SignedArea(h))
		}
		return a
	}
	return p.W * p.H
}

// block is one or two interlocked parts placed as one.
type block struct {
	w, h  float64
	turn  bool
	parts []Placed // relative to the block, unturned
}

// size is the block as it lies.
func (b *block) size(turned bool) (w, h float64) {
	if turned {
		return b.h, b.w
	}
	return b.w, b.h
}

// at are its parts where they lie, the block's corner at a place.
func (b *block) at(x, y float64, turned bool) []Placed {
	out := make([]Placed, len(b.parts))
	for i, p := range b.parts {
		out[i] = Placed{Part: p.Part, X: x + p.X, Y: y + p.Y, Turned: turned, Flip: p.Flip}
		if turned {
			out[i].X, out[i].Y = x+p.Y, y+p.X
		}
	}
	return out
}

// Sheets lays the parts on the stocks, which are used in the order given: the
// sorted orders, true outlines once where boxes waste much, then o.Tries steps
// of the search with boxes. Cost grows about with parts
// squared times tries.
func Sheets(parts []Part, stocks []Stock, o Options) Layout {
	s := NewSearch(parts, stocks, o)
	s.outlines = nil // it must stand at once: the steps lay boxes only
	s.Step(o.Tries)
	return s.Best()
}

// Search looks for a layout on fewer sheets, and with more left of the last.
type Search struct {
	parts    []Part
	stocks   []Stock
	o        Options
	large    []int
	best     Layout
	score    float64
	order    []block // of the layout the search stands at
	rule     int
	now      float64
	late     [24]float64
	rng      *rand.Rand
	tries    int
	outlines *shaper // lays true outlines; nil when boxes waste little
	fit      []int   // the parts it lays
	turns    []int   // the order it stands at
	trueAt   float64 // and its score
}

// NewSearch lays the parts at once, in sorted orders.
func NewSearch(parts []Part, stocks []Stock, o Options) *Search {
	s := &Search{parts: parts, stocks: stocks, o: o, score: math.Inf(1), rng: rand.New(rand.NewPCG(o.Seed, 1))}
	fixed := map[int]bool{}
	for _, f := range o.Fixed {
		fixed[f.Part] = true
	}
	var blocks []block
	blocks, s.large = blocksOf(parts, stocks, o, fixed)
	keys := []func(b block) float64{
		func(b block) float64 { return b.w * b.h }, func(b block) float64 { return math.Max(b.w, b.h) },
		func(b block) float64 { return b.w }, func(b block) float64 { return b.h },
		func(b block) float64 { return math.Min(b.w, b.h) },
	}
	if len(blocks) > manyBlocks {
		keys = keys[:1]
	}
	orders := make([][]block, len(keys))
	for i, k := range keys {
		orders[i] = append([]block(nil), blocks...)
		sort.SliceStable(orders[i], func(a, b int) bool { return k(orders[i][a]) > k(orders[i][b]) })
	}
	laid := make([]Layout, len(keys)*rules)
	lanes.Do(runtime.GOMAXPROCS(0), len(laid), func(i int) {
		laid[i] = fill(orders[i/rules], s.parts, stocks, o, i%rules)
	})
	for i, l := range laid {
		if s.take(l) {
			s.order, s.rule = orders[i/rules], i%rules
		}
	}
	s.now = s.score
	for i := range s.late {
		s.late[i] = s.score
	}
	if irregular(parts) {
		skip := map[int]bool{}
		for _, i := range s.large {
			skip[i] = true
		}
		for i := range parts {
			if !skip[i] && !fixed[i] {
				s.fit = append(s.fit, i)
			}
		}
		s.outlines = newShaper(parts, stocks, o)
		s.turns = append([]int(nil), s.fit...)
		sort.SliceStable(s.turns, func(a, b int) bool {
			p, q := parts[s.turns[a]], parts[s.turns[b]]
			return p.W*p.H > q.W*q.H
		})
		s.trueAt = math.Inf(1)
		if len(s.turns) <= atOnce {
			l := s.outlines.lay(s.turns)
			s.trueAt = score(l, parts)
			s.take(l)
		}
	}
	return s
}

// manyBlocks is from how many parts on only one order is tried at first: each
// costs the square of their number.
const manyBlocks = 500

// atOnce is how many true outlines are laid before the first layout is shown;
// more of them wait for the search.
const atOnce = 260

// take keeps a layout that is better than the best.
func (s *Search) take(l Layout) bool {
	v := score(l, s.parts)
	if v < s.score-1e-9 {
		s.best, s.score = l, v
		return true
	}
	return false
}

// Step makes so many tries and reports whether one bettered the best. A change
// of the order is kept when it is no worse than the order of some tries ago
// (late acceptance, Burke and Bykov 2017), so the search can leave a layout
// that no single change betters.
func (s *Search) Step(tries int) (better bool) {
	for range tries {
		if len(s.order) < 2 {
			return
		}
		n := s.tries
		s.tries++
		if s.outlines != nil &&
			(s.trueAt < s.now && n%16 > 0 || n%40 == 39) { // where true outlines pay, boxes only now and then
			better = s.reshape() || better
			continue
		}
		next, rule := append([]block(nil), s.order...), s.rule
		for range 1 + s.rng.IntN(2) {
			i, j := s.rng.IntN(len(next)), s.rng.IntN(len(next))
			if s.rng.IntN(2) == 0 {
				next[i], next[j] = next[j], next[i]
				continue
			}
			b := next[i] // moved to another turn in the order
			next = slices.Insert(slices.Delete(next, i, i+1), min(j, len(next)-1), b)
		}
		if s.rng.IntN(16) == 0 {
			rule = s.rng.IntN(rules)
		}
		l := fill(next, s.parts, s.stocks, s.o, rule)
		v := score(l, s.parts)
		if s.take(l) {
			better = true
		}
		if v <= s.now || v <= s.late[n%len(s.late)] {
			s.order, s.rule, s.now = next, rule, v
		}
		s.late[n%len(s.late)] = s.now
	}
	return
}

// reshape tries other orders of the true outlines, two at a time on two
// processors: the same two whichever ends first.
func (s *Search) reshape() bool {
	if len(s.turns) < 2 {
		return false
	}
	if s.outlines.fine == 1 { // the first layout had to stand at once; from here on gaps are closer
		s.outlines = newShaper(s.parts, s.stocks, s.o)
		s.outlines.fine = 3
		l := s.outlines.lay(s.turns)
		s.trueAt = score(l, s.parts)
		return s.take(l)
	}
	var next [2][]int
	var got [2]Layout
	for k := range next {
		order := append([]int(nil), s.turns...)
		for range 1 + s.rng.IntN(4) { // a part comes to its turn sooner or later
			i, j := s.rng.IntN(len(order)), s.rng.IntN(len(order))
			v := order[i]
			order = slices.Insert(slices.Delete(order, i, i+1), min(j, len(order)-1), v)
		}
		next[k] = order
	}
	s.outlines.stampAll(s.turns)
	var wg sync.WaitGroup
	for k := range next {
		wg.Go(func() { got[k] = s.outlines.lay(next[k]) })
	}
	wg.Wait()
	better := false
	for k := range next {
		v := score(got[k], s.parts)
		if v <= s.trueAt {
			s.turns, s.trueAt = next[k], v
		}
		better = s.take(got[k]) || better
	}
	return better
}

// Tries is how many tries were made.
func (s *Search) Tries() int { return s.tries }

// Best is the best layout so far.
func (s *Search) Best() Layout {
	l := Layout{Sheets: append([]Sheet(nil), s.best.Sheets...), TooLarge: s.large, Missing: s.best.Missing}
	l.finish(s.parts, s.o)
	return l
}

// finish adds up the layout and finds what is left of its sheets.
func (l *Layout) finish(parts []Part, o Options) {
	l.Used, l.Total = 0, 0
	for i := range l.Sheets {
		s := &l.Sheets[i]
		s.Offcuts = offcuts(s, parts, o)
		l.Total += s.Stock.W * s.Stock.H
		for _, p := range s.Placed {
			l.Used += parts[p.Part].Area()
		}
	}
}

// rules is how many ways fill has to choose a place: four by free rectangles,
// six by the skyline.
const rules = 10

// score is lower for fewer sheets, then for a last sheet with a larger piece
// left and less on it, so that emptying it little by little counts; the two
// together never outweigh a sheet.
func score(l Layout, parts []Part) float64 {
	s := float64(len(l.Missing)) * 1e6
	for i, sh := range l.Sheets {
		if sh.Stock.Left >= 0 { // what is on the shelf costs next to nothing
			s += sh.Stock.W * sh.Stock.H / 1e5
			continue
		}
		s += sh.Stock.W * sh.Stock.H / 1e3
		if i == len(l.Sheets)-1 {
			far := 0.0
			for _, r := range sh.Offcuts { // fill leaves the used extent here
				far = r.W * r.H
			}
			s -= (sh.Stock.W*sh.Stock.H - far) / 1e3 * 0.6
			for _, q := range sh.Placed {
				s += parts[q.Part].Area() / 1e3 * 0.2
			}
		}
	}
	return s
}

// fitsAny reports whether some sheet holds the part.
func (p Part) fitsAny(stocks []Stock, o Options) bool {
	for _, s := range stocks {
		w, h := s.W-2*o.Margin, s.H-2*o.Margin
		if p.W <= w+1e-6 && p.H <= h+1e-6 || p.Turn && p.H <= w+1e-6 && p.W <= h+1e-6 {
			return true
		}
	}
	return false
}

// blocksOf pairs equal trapezoids head to foot and sets aside what no sheet
// can hold.
func blocksOf(parts []Part, stocks []Stock, o Options, fixed map[int]bool) (blocks []block, large []int) {
	fits := func(w, h float64, turn bool) bool { return Part{W: w, H: h, Turn: turn}.fitsAny(stocks, o) }
	type like struct {
		w, h, low, high float64
		turn            bool
	}
	waiting := map[like]int{}
	inner := plugs(parts, o.Kerf, fixed)
	nested := map[int]bool{}
	for _, list := range inner {
		for _, k := range list {
			nested[k] = true
		}
	}
	for i, p := range parts {
		if nested[i] || fixed[i] {
			continue
		}
		if !fits(p.W, p.H, p.Turn) {
			large = append(append(large, i), inner[i]...)
			continue
		}
		if len(inner[i]) > 0 {
			b := block{p.W, p.H, p.Turn, []Placed{{Part: i}}}
			for _, k := range inner[i] {
				b.parts = append(b.parts, Placed{Part: k, X: (p.W - parts[k].W) / 2, Y: (p.H - parts[k].H) / 2})
			}
			blocks = append(blocks, b)
			continue
		}
		if p.Low > 0 && p.High > 0 && p.Low != p.High {
			key := like{p.W, p.H, p.Low, p.High, p.Turn}
			first, ok := waiting[key]
			if !ok {
				waiting[key] = i
				continue
			}
			// the second is turned head to foot and slid up to the slanted side
			slant := math.Atan(math.Abs(p.Low-p.High) / 2 / p.H)
			shift := (p.Low+p.High)/2 + o.Kerf/math.Cos(slant)
			if w := shift + p.W; fits(w, p.H, p.Turn) {
				delete(waiting, key)
				blocks = append(
					blocks,
					block{w, p.H, p.Turn, []Placed{{Part: first}, {Part: i, X: shift, Flip: true}}},
				)
				continue
			}
		}
		blocks = append(blocks, block{p.W, p.H, p.Turn, []Placed{{Part: i}}})
	}
	for i, p := range parts { // the odd ones out, in order
		key := like{p.W, p.H, p.Low, p.High, p.Turn}
		if w, ok := waiting[key]; ok && w == i {
			delete(waiting, key)
			blocks = append(blocks, block{p.W, p.H, p.Turn, []Placed{{Part: i}}})
		}
	}
	return blocks, large
}

// plugs says which round parts are cut, one inside the other, from the plug of
// each round part with a hole: largest first, each into the tightest hole left.
func plugs(parts []Part, kerf float64, fixed map[int]bool) map[int][]int {
	var round []int
	for i, p := range parts {
		if p.Round > 0 && !fixed[i] {
			round = append(round, i)
		}
	}
	sort.SliceStable(round, func(a, b int) bool { return parts[round[a]].Round > parts[round[b]].Round })
	inner := map[int][]int{}
	type hole struct {
		outer int
		bore  float64
	}
	var holes []hole
	for _, i := range round {
		best := -1
		for h := range holes {
			if holes[h].bore >= parts[i].Round+2*kerf-1e-9 && (best < 0 || holes[h].bore < holes[best].bore) {
				best = h
			}
		}
		if best < 0 {
			holes = append(holes, hole{i, parts[i].Bore})
			continue
		}
		inner[holes[best].outer] = append(inner[holes[best].outer], i)
		holes[best].bore = parts[i].Bore
	}
	return inner
}

func (l *Layout) dropEmpty() {
	l.Sheets = slices.DeleteFunc(l.Sheets, func(s Sheet) bool { return len(s.Placed) == 0 })
}

// Keep is the smallest side in mm of a piece worth keeping (6 in; common
// practice, no source).
const Keep = 152.4

// offcuts lists what is left of a sheet as separate rectangles, largest first.
func offcuts(s *Sheet, parts []Part, o Options) []Rect {
	free := []Rect{{0, 0, s.Stock.W, s.Stock.H}}
	for _, p := range s.Placed {
		w, h := parts[p.Part].size(p.Turned)
		free = carve(free, Rect{p.X - o.Kerf, p.Y - o.Kerf, w + 2*o.Kerf, h + 2*o.Kerf})
	}
	var out []Rect
	for {
		best := Rect{}
		for _, f := range free {
			if math.Min(f.W, f.H) >= Keep && f.W*f.H > best.W*best.H {
				best = f
			}
		}
		if best.W == 0 || len(out) == 4 {
			return out
		}
		out = append(out, best)
		free = carve(free, Rect{best.X - o.Kerf, best.Y - o.Kerf, best.W + 2*o.Kerf, best.H + 2*o.Kerf})
	}
}
