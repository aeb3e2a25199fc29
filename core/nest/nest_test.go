package nest

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"zapbarn/core/pattern"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// corners gives a placed part's true outline: rectangle or trapezoid.
func corners(p Part, q Placed) [][2]float64 {
	low, high := p.W, p.W
	if p.Low > 0 {
		low, high = p.Low, p.High
	}
	if q.Flip {
		low, high = high, low
	}
	c := [][2]float64{{(p.W - low) / 2, 0}, {(p.W + low) / 2, 0}, {(p.W + high) / 2, p.H}, {(p.W - high) / 2, p.H}}
	for i := range c {
		if q.Turned {
			c[i][0], c[i][1] = c[i][1], c[i][0]
		}
		c[i][0], c[i][1] = c[i][0]+q.X, c[i][1]+q.Y
	}
	if q.Turned {
		c[1], c[3] = c[3], c[1]
	}
	return c
}

// gap is the distance between two convex outlines; below zero they overlap
// (separating axes), otherwise the least corner-to-side distance.
func gap(a, b [][2]float64) float64 {
	apart := math.Inf(-1)
	dist := math.Inf(1)
	for k, poly := range [][][2]float64{a, b} {
		other := [][][2]float64{b, a}[k]
		for i := range poly {
			p, q := poly[i], poly[(i+1)%len(poly)]
			l := math.Hypot(q[0]-p[0], q[1]-p[1])
			if l == 0 {
				continue
			}
			side := math.Inf(1) // of the other's corners, outwards
			for _, c := range other {
				along := ((c[0]-p[0])*(q[0]-p[0]) + (c[1]-p[1])*(q[1]-p[1])) / l
				out := ((c[0]-p[0])*(q[1]-p[1]) - (c[1]-p[1])*(q[0]-p[0])) / l
				side = math.Min(side, out)
				over := along - math.Max(0, math.Min(l, along))
				dist = math.Min(dist, math.Hypot(over, out))
			}
			apart = math.Max(apart, side)
		}
	}
	if apart <= 0 {
		return apart
	}
	return dist
}

func checkLayout(t require.TestingT, parts []Part, l Layout, o Options) {
	seen := map[int]int{}
	for _, s := range l.Sheets {
		for i, q := range s.Placed {
			seen[q.Part]++
			ci := corners(parts[q.Part], q)
			for _, c := range ci {
				require.GreaterOrEqual(t, c[0], o.Margin-1e-6)
				require.GreaterOrEqual(t, c[1], o.Margin-1e-6)
				require.LessOrEqual(t, c[0], s.Stock.W-o.Margin+1e-6)
				require.LessOrEqual(t, c[1], s.Stock.H-o.Margin+1e-6)
			}
			require.False(t, q.Turned && !parts[q.Part].Turn, "turned against its grain")
			for _, r := range s.Placed[i+1:] {
				require.GreaterOrEqual(t, gap(ci, corners(parts[r.Part], r)), o.Kerf-1e-6, "%v %v", q, r)
			}
		}
	}
	for _, list := range [][]int{l.TooLarge, l.Missing} {
		for _, i := range list {
			seen[i]++
		}
	}
	for i := range parts {
		require.Equal(t, 1, seen[i], "part %d", i)
	}
}

func TestLayoutsAreAlwaysPossible(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		o := Options{
			Kerf:   rapid.Float64Range(0, 8).Draw(t, "kerf"),
			Margin: rapid.Float64Range(0, 30).Draw(t, "margin"),
			Tries:  3,
		}
		n := rapid.IntRange(1, 25).Draw(t, "n")
		var parts []Part
		for i := range n {
			p := Part{
				ID:   fmt.Sprint(i),
				W:    rapid.Float64Range(20, 1400).Draw(t, "w"),
				H:    rapid.Float64Range(20, 1400).Draw(t, "h"),
				Turn: rapid.Bool().Draw(t, "turn"),
			}
			if rapid.Bool().Draw(t, "trapezoid") {
				p.Low, p.High = p.W, p.W*rapid.Float64Range(.2, .95).Draw(t, "taper")
			}
			for range rapid.IntRange(1, 3).Draw(t, "copies") {
				parts = append(parts, p)
			}
		}
		stocks := []Stock{
			{ID: "offcut", W: 600, H: 500, Left: 1},
			{ID: "sheet", W: 1219, H: 2438, Left: rapid.IntRange(-1, 4).Draw(t, "left")},
		}
		checkLayout(t, parts, Sheets(parts, stocks, o), o)
	})
}

// Sheets cut at random by straight through cuts can be laid out with no waste;
// the yield counts the last sheet only up to one straight cut-off.
// knownToFit cuts whole sheets at random into n rectangles: no waste is known
// to be possible.
func knownToFit(n, sheets int, seed uint64) []Part {
	r := rand.New(rand.NewPCG(seed, 7))
	var pieces []Rect
	for range sheets {
		pieces = append(pieces, Rect{0, 0, 1219, 2438})
	}
	for len(pieces) < n {
		i := 0
		for k := range pieces {
			if pieces[k].W*pieces[k].H > pieces[i].W*pieces[i].H {
				i = k
			}
		}
		p, f := pieces[i], .3+.4*r.Float64()
		if p.W > p.H {
			pieces[i].W = p.W * f
			pieces = append(pieces, Rect{0, 0, p.W * (1 - f), p.H})
		} else {
			pieces[i].H = p.H * f
			pieces = append(pieces, Rect{0, 0, p.W, p.H * (1 - f)})
		}
	}
	var parts []Part
	for _, p := range pieces {
		parts = append(parts, Part{W: p.W, H: p.H, Turn: true})
	}
	return parts
}

// yield is part area over stock used, the last sheet counted only up to one
// straight cut-off line.
func yield(parts []Part, l Layout) float64 {
	area, used := 0.0, 0.0
	for i, s := range l.Sheets {
		fx, fy := 0.0, 0.0
		for _, q := range s.Placed {
			area += parts[q.Part].W * parts[q.Part].H
			for _, c := range corners(parts[q.Part], q) {
				fx, fy = math.Max(fx, c[0]), math.Max(fy, c[1])
			}
		}
		if i < len(l.Sheets)-1 {
			used += s.Stock.W * s.Stock.H
		} else {
			used += math.Min(fx*s.Stock.H, fy*s.Stock.W)
		}
	}
	return area / used
}

func TestYieldOnSheetsKnownToFit(t *testing.T) {
	for _, sheets := range []int{1, 2, 4} {
		sum, least := 0.0, 1.0
		for seed := range uint64(8) {
			parts := knownToFit(40, sheets, seed)
			o := Options{Seed: 1, Tries: 200}
			l := Sheets(parts, []Stock{{"s", 1219, 2438, -1}}, o)
			checkLayout(t, parts, l, o)
			y := yield(parts, l)
			sum, least = sum+y, math.Min(least, y)
		}
		t.Logf("%d sheets: %.3f on average, %.3f at least", sheets, sum/8, least)
		assert.GreaterOrEqual(t, sum/8, .92, "%d sheets", sheets)
		assert.GreaterOrEqual(t, least, .90, "%d sheets", sheets)
	}
}

// Every way to choose a place makes a possible layout, with any kerf, margin,
// stock and turning.
func TestEveryRuleIsPossible(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		parts := mixed(t, rapid.IntRange(1, 16).Draw(t, "n"))
		for i := range parts {
			parts[i] = Part{W: parts[i].W, H: parts[i].H, Turn: parts[i].Turn}
		}
		o := Options{
			Kerf:   rapid.Float64Range(0, 6).Draw(t, "kerf"),
			Margin: rapid.Float64Range(0, 12).Draw(t, "margin"),
		}
		stocks := []Stock{{"a", 460, 520, 1}, {"b", 1220, 2440, -1}}
		blocks, large := blocksOf(parts, stocks, o, nil)
		require.Empty(t, large)
		for rule := range rules {
			l := fill(blocks, parts, stocks, o, rule)
			checkLayout(t, parts, l, o)
			n, small := 0, 0
			for _, s := range l.Sheets {
				n += len(s.Placed)
				if s.Stock.ID == "a" {
					small++
				}
			}
			require.Equal(t, len(parts), n+len(l.Missing), "rule %d", rule)
			require.LessOrEqual(t, small, 1)
		}
	})
}

// Blocks as wide as one that does not fit are looked at all the same, and a sheet is filled
// before another is begun, by every rule.
func TestEveryRuleFillsTheSheet(t *testing.T) {
	o := Options{}
	for rule := range rules {
		var parts []Part
		var order []block
		for i, h := range []float64{70, 70, 20, 20, 20} {
			parts = append(parts, Part{W: 100, H: h})
			order = append(order, block{100, h, false, []Placed{{Part: i}}})
		}
		l := fill(order, parts, []Stock{{"s", 100, 95, -1}}, o, rule)
		require.Empty(t, l.Missing, "rule %d", rule)
		require.Len(t, l.Sheets, 3, "rule %d", rule)
		assert.Len(t, l.Sheets[0].Placed, 2, "rule %d: a tall one and one that fits above it", rule)
		assert.Len(t, l.Sheets[1].Placed, 2, "rule %d", rule)
		equal := order[2:]
		l = fill(equal, parts, []Stock{{"s", 100, 61, -1}}, o, rule)
		require.Len(t, l.Sheets, 1, "rule %d: three of a kind", rule)
	}
}

func TestSameSeedSameLayout(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 3))
	var parts []Part
	for range 30 {
		parts = append(parts, Part{W: 50 + 600*r.Float64(), H: 50 + 600*r.Float64(), Turn: true})
	}
	o := Options{Kerf: 3, Margin: 6, Seed: 9, Tries: 40}
	stock := []Stock{{"s", 1219, 2438, -1}}
	assert.Equal(t, Sheets(parts, stock, o), Sheets(parts, stock, o))
}

func TestTrapezoidsInterlock(t *testing.T) {
	// Two trapezoids 400/200 x 1000 head to foot: 400 + (400+200)/2 wide, kerf 0.
	p := Part{W: 400, H: 1000, Low: 400, High: 200}
	l := Sheets([]Part{p, p}, []Stock{{"s", 701, 1001, -1}}, Options{})
	require.Len(t, l.Sheets, 1)
	assert.InEpsilon(t, 600e3/(701*1001), l.Yield(), 1e-9)
}

func TestRingsNestInPlugs(t *testing.T) {
	ring := func(d, bore float64) Part { return Part{W: d, H: d, Turn: true, Round: d, Bore: bore} }
	parts := []Part{ring(200, 150), ring(400, 300), ring(600, 410), ring(290, 210), ring(205, 0)}
	l := Sheets(parts, []Stock{{"s", 601, 601, -1}}, Options{Kerf: 3})
	require.Len(t, l.Sheets, 2)
	n := 0
	for _, s := range l.Sheets {
		for i, a := range s.Placed {
			n++
			for _, b := range s.Placed[i+1:] {
				pa, pb := parts[a.Part], parts[b.Part]
				if pa.Round < pb.Round {
					pa, pb = pb, pa
				}
				d := math.Hypot(
					a.X+parts[a.Part].W/2-b.X-parts[b.Part].W/2,
					a.Y+parts[a.Part].H/2-b.Y-parts[b.Part].H/2,
				)
				inside, apart := d+pb.Round/2+3 <= pa.Bore/2+1e-6, d >= pa.Round/2+pb.Round/2+3-1e-6
				assert.True(t, inside || apart, "%v %v", a, b)
			}
		}
	}
	assert.Equal(t, 5, n)
	assert.Empty(t, Sheets(nil, nil, Options{Tries: 3}).Sheets)
}

func TestOffcutsDoNotOverlapParts(t *testing.T) {
	parts := []Part{{W: 500, H: 700, Turn: true}, {W: 300, H: 300, Turn: true}}
	l := Sheets(parts, []Stock{{"s", 1219, 2438, -1}}, Options{Kerf: 3, Margin: 5})
	require.NotEmpty(t, l.Sheets[0].Offcuts)
	for _, f := range l.Sheets[0].Offcuts {
		assert.GreaterOrEqual(t, math.Min(f.W, f.H), Keep)
		box := [][2]float64{{f.X, f.Y}, {f.X + f.W, f.Y}, {f.X + f.W, f.Y + f.H}, {f.X, f.Y + f.H}}
		for _, q := range l.Sheets[0].Placed {
			assert.GreaterOrEqual(t, gap(box, corners(parts[q.Part], q)), -1e-6)
		}
	}
}

// brute is the least number of bars by trying every assignment.
func brute(pieces []float64, room, kerf float64) int {
	best := len(pieces)
	var left []float64
	var put func(i int)
	put = func(i int) {
		if len(left) >= best {
			return
		}
		if i == len(pieces) {
			best = len(left)
			return
		}
		for j := range left {
			if left[j] >= pieces[i]+kerf-1e-9 {
				left[j] -= pieces[i] + kerf
				put(i + 1)
				left[j] += pieces[i] + kerf
			}
		}
		left = append(left, room-pieces[i]-kerf)
		put(i + 1)
		left = left[:len(left)-1]
	}
	put(0)
	return best
}

func TestLengthsAgainstBruteForce(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	for range 300 {
		var pieces []float64
		for range 3 + r.IntN(6) {
			pieces = append(pieces, float64(10+r.IntN(90)))
		}
		c := Lengths(pieces, 120, 1)
		require.True(t, c.Proven)
		require.Len(t, c.Bars, max(1, brute(pieces, 121, 1)), "%v", pieces)
		n := 0
		for _, b := range c.Bars {
			sum := -1.0
			for _, p := range b.Pieces {
				sum += p + 1
				n++
			}
			require.LessOrEqual(t, sum, 120+1e-6)
		}
		require.Equal(t, len(pieces), n)
	}
}

func TestLengthsOfAShopSize(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 2))
	var pieces []float64
	for range 60 {
		pieces = append(pieces, 25.4*float64(6+r.IntN(60)))
	}
	c := Lengths(pieces, 3048, 1.6)
	assert.LessOrEqual(t, len(c.Bars)-c.Bound, 1)
	assert.Equal(t, []float64{4000}, Lengths([]float64{4000}, 3048, 1).TooLong)
	// The classic: 6 of 44 in and 4 of 60 in from 120 in, 1/16 in kerf: 60s do
	// not pair (2 x 60 + kerf > 120), so 4 bars hold a 60 and a 44, one two 44s.
	c = Lengths([]float64{44, 44, 44, 44, 44, 44, 60, 60, 60, 60}, 120, .0625)
	assert.Len(t, c.Bars, 5)
	assert.True(t, c.Proven)
}

func benchParts(n int) []Part {
	r := rand.New(rand.NewPCG(11, 2))
	var parts []Part
	for range n {
		parts = append(parts, Part{W: 40 + 300*r.Float64(), H: 40 + 300*r.Float64(), Turn: true})
	}
	return parts
}

func BenchmarkSheets(b *testing.B) {
	for _, n := range []int{20, 200, 400} {
		parts := benchParts(n)
		b.Run(fmt.Sprint(n), func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				Sheets(parts, []Stock{{"s", 1219, 2438, -1}}, Options{Kerf: 3, Margin: 6, Seed: 1})
			}
		})
	}
}

func lens(w, h float64) []pattern.Point {
	var p []pattern.Point
	for i := range 24 {
		s, c := math.Sincos(2 * math.Pi * float64(i) / 24)
		p = append(p, pattern.Point{X: w/2 + w/2*c*math.Abs(c), Y: h/2 + h/2*s})
	}
	return p
}

// true outlines as laid, holes too.
func laid(p Part, q Placed) (polys, holes [][]pattern.Point) {
	move := func(list [][]pattern.Point) (out [][]pattern.Point) {
		for _, poly := range list {
			m := turn(poly, p.W, p.H, q.Flip, q.Turned)
			for i := range m {
				m[i].X, m[i].Y = m[i].X+q.X, m[i].Y+q.Y
			}
			out = append(out, m)
		}
		return
	}
	return move(p.Polys), move(p.Holes)
}

// checkShapes: inside the margin, kerf apart, by exact distances between
// corners and sides; a part in another's hole counts as apart.
func checkShapes(t require.TestingT, parts []Part, l Layout, o Options) {
	seen := map[int]bool{}
	for _, s := range l.Sheets {
		for i, q := range s.Placed {
			require.False(t, seen[q.Part])
			seen[q.Part] = true
			a, ah := laid(parts[q.Part], q)
			for _, c := range a[0] {
				require.True(
					t,
					c.X >= o.Margin-1e-6 && c.Y >= o.Margin-1e-6 && c.X <= s.Stock.W-o.Margin+1e-6 &&
						c.Y <= s.Stock.H-o.Margin+1e-6,
					"inside the margin",
				)
			}
			for _, r := range s.Placed[i+1:] {
				b, bh := laid(parts[r.Part], r)
				for _, x := range []struct {
					p [][]pattern.Point
					h [][]pattern.Point
					o [][]pattern.Point
				}{{a, ah, b}, {b, bh, a}} {
					for _, c := range x.o[0] {
						d := signed(x.p[0], c)
						for _, h := range x.h {
							d = math.Max(d, -signed(h, c))
						}
						require.GreaterOrEqual(t, d, o.Kerf-1e-6)
					}
				}
			}
		}
	}
	for _, i := range l.Missing {
		require.False(t, seen[i])
		seen[i] = true
	}
	require.Len(t, seen, len(parts))
}

func TestTrueShapesAreAlwaysPossible(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		o := Options{
			Kerf:   rapid.Float64Range(0, 8).Draw(t, "kerf"),
			Margin: rapid.Float64Range(0, 20).Draw(t, "margin"),
			Tries:  rapid.IntRange(0, 2).Draw(t, "tries"),
		}
		var parts []Part
		for range rapid.IntRange(1, 8).Draw(t, "n") {
			w, h := rapid.Float64Range(20, 300).Draw(t, "w"), rapid.Float64Range(20, 300).Draw(t, "h")
			p := Part{W: w, H: h, Turn: rapid.Bool().Draw(t, "turn")}
			switch rapid.IntRange(0, 2).Draw(t, "kind") {
			case 0:
				p.Polys = [][]pattern.Point{lens(w, h)}
			case 1: // an L
				p.Polys = [][]pattern.Point{ring(0, 0, w, 0, w, h/3, w/3, h/3, w/3, h, 0, h)}
			case 2: // a frame
				p.Polys = [][]pattern.Point{ring(0, 0, w, 0, w, h, 0, h)}
				p.Holes = [][]pattern.Point{ring(w/5, h/5, w*4/5, h/5, w*4/5, h*4/5, w/5, h*4/5)}
			}
			parts = append(parts, p)
		}
		checkShapes(t, parts, Shapes(parts, []Stock{{"s", 610, 610, rapid.IntRange(-1, 2).Draw(t, "left")}}, o), o)
	})
}

// Corners interlock and small parts go into holes: fewer sheets than boxes need.
func TestTrueShapesPay(t *testing.T) {
	var parts []Part
	for range 40 {
		parts = append(
			parts,
			Part{Shape: "corner", W: 280, H: 280, Turn: true, Polys: [][]pattern.Point{ring(0, 0, 280, 0, 0, 280)}},
		)
	}
	o := Options{Kerf: 3, Margin: 6, Seed: 1, Tries: 2}
	stock := []Stock{{"tile", 610, 610, -1}}
	l := Sheets(parts, stock, o)
	checkShapes(t, parts, l, o)
	boxed := append([]Part(nil), parts...)
	for i := range boxed {
		boxed[i].Polys = nil
	}
	assert.LessOrEqual(t, len(l.Sheets), 7, "eight corners a tile at best")
	assert.Len(t, Sheets(boxed, stock, o).Sheets, 10, "four boxes a tile")
	frame := Part{
		Shape: "frame",
		W:     590,
		H:     590,
		Polys: [][]pattern.Point{ring(0, 0, 590, 0, 590, 590, 0, 590)},
		Holes: [][]pattern.Point{ring(40, 40, 550, 40, 550, 550, 40, 550)},
	}
	in := Part{Shape: "in", W: 400, H: 400, Polys: [][]pattern.Point{ring(0, 0, 400, 0, 200, 400)}}
	l = Shapes([]Part{frame, in}, stock, o)
	require.Len(t, l.Sheets, 1, "cut from the frame's hole")
	checkShapes(t, []Part{frame, in}, l, o)
	assert.Equal(t, Sheets(parts, stock, o), Sheets(parts, stock, o), "same seed, same layout")
	// sheets that none of them fits are had as well: the others are used all the same
	l = Shapes(parts, []Stock{{"small", 200, 200, -1}, {"tile", 610, 610, -1}}, o)
	checkShapes(t, parts, l, o)
	assert.Empty(t, l.Missing)
	assert.LessOrEqual(t, len(l.Sheets), 7)
}

func BenchmarkShapes(b *testing.B) {
	for _, n := range []int{10, 200} {
		var parts []Part
		for i := range n {
			w, h := 60+float64(i%7)*12, 200+float64(i%5)*50
			parts = append(
				parts,
				Part{Shape: fmt.Sprint(i % 35), W: w, H: h, Turn: true, Polys: [][]pattern.Point{lens(w, h)}},
			)
		}
		b.Run(fmt.Sprint(n), func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				Shapes(parts, []Stock{{"s", 1219, 2438, -1}}, Options{Kerf: 3, Margin: 6})
			}
		})
	}
}
