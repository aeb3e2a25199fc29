package pattern

import (
	"bytes"
	"compress/gzip"
	"fmt"
	"io"
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/image/font/gofont/gobold"
	"pgregory.net/rapid"
)

// Every letter, number and mark on a keyboard is cut with nothing falling out: no
// ring lies in another, none meets another, and with its bridges put back it has
// the area that the font's own outline has (even-odd, shoelace).
func TestNoLetterLosesItsMiddle(t *testing.T) {
	for r := rune('!'); r <= '~'; r++ {
		for _, tall := range []float64{25, 100, 300} {
			rings, err := Letters(string(r), tall)
			require.NoError(t, err, "%c", r)
			cut := 0.0
			for i, a := range rings {
				require.Positive(t, SignedArea(a), "%c", r)
				cut += SignedArea(a)
				for _, b := range rings[i+1:] {
					require.False(t, overlap(a, b), "%c at %g", r, tall)
				}
			}
			whole, _, err := glyph(r)
			require.NoError(t, err)
			full := 0.0 // holes run the other way round
			for _, w := range whole {
				full -= SignedArea(w)
			}
			full *= math.Pow(tall/capital(), 2)
			if full = math.Abs(full); len(rings) == len(whole) && len(whole) == 1 {
				assert.InEpsilon(t, full, cut, 1e-9, "%c", r)
			} else {
				assert.LessOrEqual(t, cut, full*(1+1e-9), "%c", r)
				assert.Greater(t, cut, full*.55, "%c at %g", r, tall)
			}
		}
	}
}

// A word is as high as was asked, about its middle, and an O of four inches hangs
// on a bridge of a third of an inch: a twelfth.
func TestLettersAreToSize(t *testing.T) {
	h, err := Letters("H", 100)
	require.NoError(t, err)
	lo, hi := extentOf(slices.Concat(h...))
	assert.InDelta(t, -50, lo.Y, 1e-9)
	assert.InDelta(t, 50, hi.Y, 1e-9)
	assert.InDelta(t, 0, lo.X+hi.X, 1e-9)
	for tall, bridge := range map[float64]float64{101.6: 101.6 / 12, 24: 3} {
		o, err := Letters("O", tall)
		require.NoError(t, err)
		require.Len(t, o, 2)
		left, right := math.Inf(-1), math.Inf(1)
		for _, ring := range o {
			lo, hi := extentOf(ring)
			if hi.X < 0 {
				left = hi.X
			} else {
				right = lo.X
			}
		}
		assert.InDelta(t, bridge, right-left, 1e-5)
	}
	two, err := Letters("HH", 100)
	require.NoError(t, err)
	assert.Len(t, two, 2)
	one, _ := extentOf(h[0])
	lo, hi = extentOf(slices.Concat(two...))
	_, advance, err := glyph('H')
	require.NoError(t, err)
	assert.InDelta(t, -2*one.X+advance*100/capital(), hi.X-lo.X, 1e-9, "the next stands as far off as the font says")
	_, err = Letters("  ", 100)
	require.ErrorContains(t, err, "says no letter")
	_, err = Letters("A\u4e2d", 100)
	require.ErrorContains(t, err, "no letter")
}

// Cleft against counting: points of a grid that the whole holds are held by the
// side they lie on, and by that alone, for rings in rings drawn by seed.
func TestCleftParts(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		star := func(name string, r float64) []Point {
			n := rapid.IntRange(3, 9).Draw(t, name)
			var ring []Point
			for i := range n {
				s, c := math.Sincos(2 * math.Pi * float64(i) / float64(n))
				d := r * rapid.Float64Range(.75, 1).Draw(t, fmt.Sprint(name, i))
				ring = append(ring, Point{d * c, d * s})
			}
			return ring
		}
		rings := [][]Point{star("out", 10), star("hole", 2)}
		x := rapid.Float64Range(-11, 11).Draw(t, "x")
		left, right := Cleft(rings, x)
		area := func(rings [][]Point) (a float64) {
			for i, r := range rings { // rings of one side do not meet: those in others are holes
				in := 0
				for k, o := range rings {
					if k != i && Inside([][]Point{o}, Point{(r[0].X + r[1].X) / 2, (r[0].Y + r[1].Y) / 2}) {
						in++
					}
				}
				a += Area(r) * float64(1-2*(in%2))
			}
			return a
		}
		assert.InDelta(t, Area(rings[0])-Area(rings[1]), area(left)+area(right), 1e-4)
		for gx := -10.3173; gx < 10; gx += 1.7039 {
			for gy := -10.1291; gy < 10; gy += 1.9017 {
				p := Point{gx, gy}
				if math.Abs(gx-x) < 1e-3 {
					continue
				}
				assert.Equal(t, Inside(rings, p) && gx < x, Inside(left, p), "%v left of %g", p, x)
				assert.Equal(t, Inside(rings, p) && gx > x, Inside(right, p), "%v right of %g", p, x)
			}
		}
	})
}

// Letters are cut through a face, sunk into it, and refused over its edge.
func TestLettersInAFace(t *testing.T) {
	face := func() *Shape {
		return &Shape{Panels: []Panel{{ID: "front", Name: "Front", Copies: 1, Thick: 25,
			Outline: []Point{{0, 0}, {600, 0}, {600, 300}, {0, 300}}}}}
	}
	word := Opening{Name: "Sign", Face: "front", Kind: "text", Text: "BOO", H: 100, Y: 150}
	s := face()
	require.NoError(t, s.Pierce([]Opening{word}))
	assert.Len(t, s.Panels[0].Holes, 6)
	rings, err := Letters("BOO", 100)
	require.NoError(t, err)
	cut := 0.0
	for _, r := range rings {
		cut += Area(r)
	}
	assert.InDelta(t, 600*300-cut, s.Panels[0].Area(), 1e-6)
	word.Deep = 10
	s = face()
	require.NoError(t, s.Pierce([]Opening{word}))
	assert.Len(t, s.Panels[0].Pockets, 6)
	assert.InDelta(t, (600*300*25-cut*10)/1e3, s.Panels[0].Volume()/1e3, 1e-6)
	word.Deep, word.Text = 0, "BEWARE OF THE BEES"
	require.ErrorContains(t, face().Pierce([]Opening{word}), "over the edge")
	word.Text = ""
	require.ErrorContains(t, face().Pierce([]Opening{word}), "says no letter")
}

// A parabola's arc over 0..2, one high, holds 4/3 (Archimedes), and its middle is at
// its top; a cubic with its handles a third along is the same arc.
func TestLettersCurve(t *testing.T) {
	q := curved([]Point{{0, 0}}, Point{1, 2}, Point{1, 2}, Point{2, 0}, false)
	c := curved([]Point{{0, 0}}, Point{2. / 3, 4. / 3}, Point{4. / 3, 4. / 3}, Point{2, 0}, true)
	for _, ring := range [][]Point{q, c} {
		assert.InDelta(t, 4./3, Area(ring), .01)
		assert.Equal(t, Point{2, 0}, ring[len(ring)-1])
		assert.InDelta(t, 1, ring[8].X, 1e-12)
		assert.InDelta(t, 1, ring[8].Y, 1e-12)
	}
}

// The letters are those of the module, just as it has them.
func TestTheFontIsTheModules(t *testing.T) {
	z, err := gzip.NewReader(bytes.NewReader(boldFont))
	require.NoError(t, err)
	ttf, err := io.ReadAll(z)
	require.NoError(t, err)
	assert.True(t, bytes.Equal(gobold.TTF, ttf))
}
