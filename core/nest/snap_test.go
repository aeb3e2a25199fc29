package nest

import (
	"testing"

	"zapbarn/core/pattern"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// mixed draws boxes, discs, rings and triangles.
func mixed(t *rapid.T, n int) []Part {
	var out []Part
	for range n {
		w, h := rapid.Float64Range(60, 420).Draw(t, "w"), rapid.Float64Range(60, 420).Draw(t, "h")
		p := Part{W: w, H: h, Turn: rapid.Bool().Draw(t, "turn")}
		switch rapid.IntRange(0, 3).Draw(t, "kind") {
		case 1:
			p = Part{W: w, H: w, Turn: true, Round: w, Polys: [][]pattern.Point{pattern.Circle(w/2, w/2, w)}}
		case 2:
			p = Part{
				W:     w,
				H:     w,
				Turn:  true,
				Round: w,
				Bore:  w * .8,
				Polys: [][]pattern.Point{pattern.Circle(w/2, w/2, w)},
				Holes: [][]pattern.Point{pattern.Circle(w/2, w/2, w*.797)},
			}
		case 3:
			p.Polys = [][]pattern.Point{ring(0, 0, w, 0, w/3, h)}
		}
		out = append(out, p)
	}
	return out
}

func fixedOf(l Layout) []Fixed {
	var out []Fixed
	n := map[string]int{}
	for _, s := range l.Sheets {
		for _, q := range s.Placed {
			out = append(out, Fixed{s.Stock.ID, n[s.Stock.ID], q})
		}
		n[s.Stock.ID]++
	}
	return out
}

func TestAnyLayoutCanBeKept(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		parts := mixed(t, rapid.IntRange(1, 14).Draw(t, "n"))
		large := rapid.Bool().Draw(t, "one too large")
		if large {
			parts = append(parts, Part{W: 3000, H: 3000})
		}
		stocks := []Stock{{ID: "offcut:a", W: 500, H: 600, Left: 1}, {ID: "full", W: 1220, H: 2440, Left: -1}}
		o := Options{Kerf: 3, Margin: 6, Tries: 10}
		l := Sheets(parts, stocks, o)
		require.Equal(t, large, len(l.TooLarge) == 1)
		o.Fixed = fixedOf(l)
		kept, ok := Kept(parts, stocks, o)
		require.True(t, ok)
		require.InDelta(t, l.Used, kept.Used, 1e-6)
		require.Equal(t, l.TooLarge, kept.TooLarge)
		require.Equal(t, len(l.Sheets), len(kept.Sheets))
		if len(o.Fixed) > 1 { // a part moved onto another is not kept
			o.Fixed[0].Placed.X, o.Fixed[0].Placed.Y = o.Fixed[1].Placed.X, o.Fixed[1].Placed.Y
			o.Fixed[0].Sheet, o.Fixed[0].Stock = o.Fixed[1].Sheet, o.Fixed[1].Stock
			// boxes: a small disc fits in the corner of a large one's box, and a ring in a ring
			if parts[o.Fixed[0].Part].Polys == nil && parts[o.Fixed[1].Part].Polys == nil {
				_, ok = Kept(parts, stocks, o)
				require.False(t, ok)
			}
			o.Fixed = o.Fixed[1:]
			_, ok = Kept(parts, stocks, o)
			require.False(t, ok, "one is missing")
		}
		_, ok = Kept(parts, stocks[1:], Options{Kerf: 3, Margin: 6, Fixed: fixedOf(l)})
		require.Equal(t, l.Sheets[0].Stock.ID == "full", ok, "kept on an offcut that is gone")
	})
}

func TestSnapNeverOverlapsAndTheRestIsLaidRound(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		parts := mixed(t, rapid.IntRange(3, 12).Draw(t, "n"))
		s := Stock{ID: "full", W: 1220, H: 2440, Left: -1}
		o := Options{Kerf: 3, Margin: 6, Tries: 5}
		var on []Placed
		for i := range rapid.IntRange(1, 3).Draw(t, "locked") {
			want := Placed{
				Part:   i,
				X:      rapid.Float64Range(-200, 1400).Draw(t, "x"),
				Y:      rapid.Float64Range(-200, 2600).Draw(t, "y"),
				Turned: parts[i].Turn && rapid.Bool().Draw(t, "turned"),
				Flip:   rapid.Bool().Draw(t, "flip"),
			}
			q, ok := Snap(parts, on, want, s, o)
			require.True(t, ok)
			require.True(t, Fits(parts, on, q, s, o))
			on = append(on, q)
			o.Fixed = append(o.Fixed, Fixed{"full", 0, q})
		}
		l := Sheets(parts, []Stock{s}, o)
		require.Empty(t, l.Missing)
		seen := map[int]bool{}
		for n, sh := range l.Sheets {
			for i, q := range sh.Placed {
				require.False(t, seen[q.Part])
				seen[q.Part] = true
				require.True(t, Fits(parts, sh.Placed[:i], q, s, o), "sheet %d part %d", n, q.Part)
			}
		}
		require.Len(t, seen, len(parts))
		for _, q := range on {
			require.Contains(t, l.Sheets[0].Placed, q, "what is locked stays")
		}
	})
}

func TestSnapLinesUp(t *testing.T) {
	parts := []Part{{W: 300, H: 200}, {W: 100, H: 100}}
	s := Stock{W: 1220, H: 2440}
	o := Options{Kerf: 3, Margin: 6}
	on := []Placed{{Part: 0, X: 400, Y: 500}}
	for _, c := range [][4]float64{
		{709, 506, 703, 500},   // beside it, bottoms in line
		{290, 604, 297, 600},   // on its left, tops in line
		{10, 3, 6, 6},          // into the corner
		{1300, 900, 1114, 900}, // back onto the sheet
		{480, 560, 480, 703},   // put on it: out by the nearest side
	} {
		q, ok := Snap(parts, on, Placed{Part: 1, X: c[0], Y: c[1]}, s, o)
		require.True(t, ok)
		require.InDelta(t, c[2], q.X, 1e-9, c)
		require.InDelta(t, c[3], q.Y, 1e-9, c)
	}
	_, ok := Snap([]Part{{W: 2000, H: 100}}, nil, Placed{}, s, o)
	require.False(t, ok)
}

// A part may lie just at the margins, turned only where it may be turned.
func TestFitsAtTheMargins(t *testing.T) {
	parts := []Part{{W: 100, H: 50}, {W: 100, H: 50, Turn: true}}
	s, o := Stock{W: 120, H: 120}, Options{Margin: 10, Kerf: 3}
	at := func(part int, x, y float64, turned bool) bool {
		return Fits(parts, nil, Placed{Part: part, X: x, Y: y, Turned: turned}, s, o)
	}
	assert.True(t, at(0, 10, 10, false))
	assert.True(t, at(0, 10, 60, false), "up to the upper margin")
	assert.False(t, at(0, 9.9, 10, false))
	assert.False(t, at(0, 10, 9.9, false))
	assert.False(t, at(0, 10.1, 10, false))
	assert.False(t, at(0, 10, 60.1, false))
	assert.False(t, at(0, 10, 10, true))
	assert.True(t, at(1, 60, 10, true))
	assert.False(t, at(1, 60.1, 10, true))
	on := []Placed{{Part: 0, X: 10, Y: 10}}
	assert.True(t, Fits(parts, on, Placed{Part: 0, X: 10, Y: 63}, Stock{W: 120, H: 123.1}, o))
	assert.False(t, Fits(parts, on, Placed{Part: 0, X: 10, Y: 62.9}, Stock{W: 120, H: 123.1}, o))
}
