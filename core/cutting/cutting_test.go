package cutting

import (
	"testing"

	"zapbarn/core/measure"
	"zapbarn/core/nest"
	"zapbarn/core/pattern"
	"zapbarn/core/stock"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// board is a part of a stock, so wide and high in mm, in so many copies.
func board(ref, of string, w, h float64, copies int) Part {
	m := stock.Shop.Materials[of]
	p := &pattern.Panel{ID: "panel", Copies: copies, Outline: []pattern.Point{{}, {X: w}, {X: w, Y: h}, {Y: h}}}
	return Part{Ref: ref, Stock: &m, Panel: p, Box: BoxOf(p, &m)}
}

// saw cuts 1/8 in wide and keeps 1/4 in off each edge.
func saw(parts ...Part) Set {
	return Set{Kerf: measure.Inch / 8, Margin: measure.Inch / 4, Parts: parts}
}

// A part as high as its 48 x 96 in sheet and no wider than the margins leave lies on
// the factory edges at both ends; a millimetre short of them or over fits nowhere:
// it would need an edge of its own and a margin of both.
func TestFactoryEdgesEachWay(t *testing.T) {
	full := 96 * measure.Inch
	for _, c := range []struct {
		w, h float64
		fits bool
	}{
		{100, full, true}, {100, full - .4, true}, {100, full - 1, false}, {100, full + 1, false},
		{100, full - measure.Inch/2, true}, {48 * measure.Inch, full, true}, {48*measure.Inch - 1, full, false},
		{48*measure.Inch - measure.Inch/2, full, true}, {full, 48 * measure.Inch, true},
	} {
		s := saw(board("a/panel", "xps1", c.w, c.h, 1)).Sheets()
		require.Len(t, s, 1)
		assert.Equal(t, c.fits, len(s[0].Layout.TooLarge) == 0, "%.1f x %.1f", c.w, c.h)
	}
	s := saw(board("a/panel", "xps1", 100, full, 1)).Sheets()[0]
	assert.Equal(t, 1, s.Whole())
	assert.Equal(t, nest.Placed{X: measure.Inch / 4}, s.Layout.Sheets[0].Placed[0])
}

// Stocks come in the order of their first part; offcuts are used before a sheet is
// opened, and what is used is told over what is laid alone.
func TestOffcutsFirst(t *testing.T) {
	set := saw(board("b/panel", "ply1/4", 200, 100, 1), board("a/panel", "xps1", 300, 200, 3),
		board("huge/panel", "xps1", 3000, 3000, 1))
	in := measure.Len
	set.Offcuts = []Offcut{{ID: "big", Stock: "xps1", W: in("40 in"), H: in("40 in")},
		{ID: "small", Stock: "xps1", W: in("20 in"), H: in("10 in")},
		{ID: "other", Stock: "xps2", W: in("90 in"), H: in("90 in")}}
	all := set.Sheets()
	require.Len(t, all, 2)
	assert.Equal(t, "ply1/4", all[0].Stock.ID)
	s := all[1]
	assert.Zero(t, s.New())
	require.Len(t, s.Layout.Sheets, 2)
	assert.Equal(t, "small", OffcutOf(s.Layout.Sheets[0].Stock), "the smallest first")
	assert.Equal(t, "big", OffcutOf(s.Layout.Sheets[1].Stock))
	used, total, laid := s.Used()
	assert.InDelta(t, 3*300*200, used, 1e-6)
	assert.InDelta(t, (20*10+40*40)*measure.Inch*measure.Inch, total, 1e-6)
	assert.Equal(t, 3, laid)
	assert.Len(t, s.Layout.TooLarge, 1)
	assert.Equal(t, 1, all[0].New())
	assert.Empty(t, OffcutOf(all[0].Layout.Sheets[0].Stock))
}

// A sheet that is cut stays as it was, whatever comes after; a piece laid by hand
// stays where it was put until it is let go.
func TestWhatIsCutAndLocked(t *testing.T) {
	set := saw(board("a/panel", "xps1", 700, 1000, 4))
	s := set.Sheets()[0]
	before := s.Layout.Sheets[0].Placed
	next, rest, err := s.CutAt(0)
	require.NoError(t, err)
	assert.Equal(t, s.Layout.Sheets[0].Offcuts, rest)
	_, _, err = s.CutAt(9)
	require.Error(t, err)
	set.Layouts = []Layout{next}
	set.Parts = append([]Part{board("new/panel", "xps1", 500, 500, 2)}, set.Parts...)
	s = set.Sheets()[0]
	require.Equal(t, 1, s.Cut)
	require.Len(t, s.Layout.Sheets[0].Placed, len(before))
	for i, q := range s.Layout.Sheets[0].Placed {
		assert.InDelta(t, before[i].X, q.X, 1e-4)
		assert.InDelta(t, before[i].Y, q.Y, 1e-4)
		assert.Equal(t, "a/panel", s.Pieces[q.Part].Ref)
	}
	_, _, err = s.CutAt(0)
	require.Error(t, err, "it is cut already")

	next, ok, err := set.Move(s, 0, s.Cut, 300, 400, false, false)
	require.NoError(t, err)
	require.True(t, ok)
	set.Layouts = []Layout{next}
	s = set.Sheets()[0]
	assert.True(t, s.Locked[0])
	_, _, err = set.Move(s, 0, 0, 300, 400, false, false)
	require.Error(t, err, "not onto a sheet that is cut")
	_, ok, err = set.Move(s, 1, s.Cut, 320, 420, false, false)
	require.NoError(t, err)
	assert.True(t, ok, "beside it there is room")
	assert.Len(t, s.Loose(0).Pins, len(before), "what is cut stays")
	assert.Len(t, s.Loose(-1).Pins, len(before))
	assert.Len(t, next.Pins, len(before)+1)
}

// Four lengths of 44 in and four of 60 in, kerf counted, out of 10 ft pipes: two of
// 44 in take 88 1/8 in, two of 60 in with a kerf are an eighth too long for one: so
// 44 + 60 four times, four pipes, 86.7 % used.
func TestLengths(t *testing.T) {
	m := stock.Shop.Materials["pvc1"]
	in := measure.Inch
	bars := saw().Lengths([]Pipe{{m, 44 * in, 4}, {m, 60 * in, 4}})
	require.Len(t, bars, 1)
	b := bars[0]
	assert.Equal(t, 8, b.Pieces)
	assert.Len(t, b.Cutting.Bars, 4)
	assert.True(t, b.Cutting.Proven)
	assert.InDelta(t, 416*in, b.Total, 1e-9)
	assert.InDelta(t, 416./480, b.Yield(), 1e-9)
}

// What is left of a sheet whose factory edges a part lies on is the sheet less the part and one
// cut: 48 - 20 - 1/4 - 1/8 in wide beside a part 20 in wide a quarter inch in from the edge.
func TestWhatAFactoryEdgePartLeavesLosesACut(t *testing.T) {
	full, in := 96*measure.Inch, measure.Inch
	sh := saw(board("a/panel", "xps1", 20*in, full, 1)).Sheets()[0].Layout.Sheets[0]
	require.Len(t, sh.Offcuts, 1)
	assert.InDelta(t, (48-20-.25-.125)*in, sh.Offcuts[0].W, 1e-9)
	assert.InDelta(t, full, sh.Offcuts[0].H, 1e-9)
	assert.InDelta(t, 48*in, sh.Offcuts[0].X+sh.Offcuts[0].W, 1e-9)
	sh = saw(board("a/panel", "xps1", 48*in, 60*in, 1)).Sheets()[0].Layout.Sheets[0]
	require.Len(t, sh.Offcuts, 1)
	assert.InDelta(t, (96-60-.25-.125)*in, sh.Offcuts[0].H, 1e-9)
	assert.InDelta(t, 96*in, sh.Offcuts[0].Y+sh.Offcuts[0].H, 1e-9)
}
