package work_test

import (
	"math"
	"testing"
	"time"

	"zapbarn/core/cutting"
	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/nest"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/core/work"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var day = time.Date(2026, 10, 1, 0, 0, 0, 0, time.UTC)

// boards is a plan with six panels of 30 x 40 in and two of 10 x 12 in XPS.
func boards(t *testing.T) *plan.Plan {
	p := plan.New("yard", "Yard", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "wall", Name: "Wall"}}
	p.Doc().Solids = []plan.Solid{
		{
			ID:    "big",
			Prop:  "wall",
			Name:  "Big",
			Kind:  "panel",
			Stock: "xps1",
			Form:  form.Panel{W: measure.Len("30 in"), H: measure.Len("40 in"), Copies: 6},
		},
		{
			ID:    "small",
			Prop:  "wall",
			Name:  "Small",
			Kind:  "panel",
			Stock: "xps1",
			Form:  form.Panel{W: measure.Len("10 in"), H: measure.Len("12 in"), Copies: 2},
		},
	}
	require.NoError(t, p.Validate())
	return p
}

// whole checks that every piece lies once, inside, and clear of the others.
func whole(t *testing.T, w *work.Work, s *cutting.Sheets) {
	t.Helper()
	seen := map[int]bool{}
	for _, sh := range s.Layout.Sheets {
		for i, q := range sh.Placed {
			require.False(t, seen[q.Part])
			seen[q.Part] = true
			require.True(t, nest.Fits(s.Boxes, sh.Placed[:i], q, sh.Stock, w.Cutting().Options()))
		}
	}
	require.Len(t, seen, len(s.Pieces))
}

func where(s *cutting.Sheets, ref string, c int) (sheet int, at nest.Placed) {
	for i, sh := range s.Layout.Sheets {
		for _, q := range sh.Placed {
			if s.Pieces[q.Part] == (cutting.Piece{Ref: ref, Copy: c}) {
				return i, q
			}
		}
	}
	return -1, at
}

func TestOffcutsAreUsedFirst(t *testing.T) {
	p := boards(t)
	p.Doc().Offcuts = []plan.Offcut{
		{ID: "a", Stock: "xps1", W: measure.Len("24 in"), H: measure.Len("13 in")},
		{ID: "b", Stock: "eps1", W: measure.Len("48 in"), H: measure.Len("96 in")},
	}
	w := work.Do(p, shop.Kept, day)
	s := w.SheetsOf("xps1")
	whole(t, w, s)
	for c := range 2 {
		n, _ := where(s, "small/panel", c)
		require.Equal(t, "offcut:a", s.Layout.Sheets[n].Stock.ID)
	}
	require.Equal(t, 2, s.New())
	require.Contains(t, w.Called(s, 0), `offcut 24" x 13"`)
}

func TestAPieceLaidByHandStaysAndTheRestIsLaidRoundIt(t *testing.T) {
	p := boards(t)
	w := work.Do(p, shop.Kept, day)
	s := w.SheetsOf("xps1")
	n, at := where(s, "big/panel", 0)
	e, err := w.Move(s, at.Part, n, 15*25.4, 30*25.4, false, false)
	require.NoError(t, err)
	q, err := p.Apply(e)
	require.NoError(t, err)
	w2 := work.Do(q, shop.Kept, day)
	s2 := w2.SheetsOf("xps1")
	whole(t, w2, s2)
	_, moved := where(s2, "big/panel", 0)
	require.InDelta(t, 15*25.4, moved.X, nest.Reach)
	require.InDelta(t, 30*25.4, moved.Y, nest.Reach)
	require.True(t, s2.Locked[at.Part])

	back, err := q.Apply(w2.Loose(s2, at.Part))
	require.NoError(t, err)
	require.Empty(t, back.Layouts())
	undone, err := q.Apply(e.Inverse())
	require.NoError(t, err)
	require.Equal(t, string(p.Encode()), string(undone.Encode()))

	_, err = w2.Move(s2, 99, 0, 0, 0, false, false)
	require.ErrorContains(t, err, "load the page again")
	// a part that grew over the one beside it is dropped, and said
	big := q.Solids()[0]
	big = big.Set("w", measure.Len("40 in")).Set("h", measure.Len("80 in"))
	grown, err := q.Apply(plan.Edit{Changes: []plan.Change{q.Put("solid", "big", big)}})
	require.NoError(t, err)
	w3 := work.Do(grown, shop.Kept, day)
	require.Equal(t, []cutting.Piece{{Ref: "big/panel"}}, w3.SheetsOf("xps1").Dropped)
	whole(t, w3, w3.SheetsOf("xps1"))
}

func TestASearchedLayoutIsKeptWhileItHolds(t *testing.T) {
	p := boards(t)
	w := work.Do(p, shop.Kept, day)
	s := w.SheetsOf("xps1")
	search := w.Cutting().Search(s)
	search.Step(200)
	best := search.Best()
	again := w.Cutting().Search(s)
	again.Step(200)
	require.Equal(t, best, again.Best(), "same seed, same layout")
	keep := s.Keep(best)
	q, err := p.Apply(plan.Edit{Changes: []plan.Change{p.Put("layout", keep.ID, keep)}})
	require.NoError(t, err)
	s2 := work.Do(q, shop.Kept, day).SheetsOf("xps1")
	require.True(t, s2.Kept)
	require.Len(t, s2.Layout.Sheets, len(best.Sheets))
	for i := range best.Sheets {
		for k, at := range best.Sheets[i].Placed {
			require.InDelta(t, at.X, s2.Layout.Sheets[i].Placed[k].X, 1e-4)
		}
	}
	more := q.Clone()
	more.Solids()[1] = more.Solids()[1].Set("copies", 3)
	w3 := work.Do(more, shop.Kept, day)
	require.False(t, w3.SheetsOf("xps1").Kept, "there is one more part now")
	whole(t, w3, w3.SheetsOf("xps1"))
}

func TestACutSheetStaysAndItsOffcutsAreUsed(t *testing.T) {
	p := boards(t)
	w := work.Do(p, shop.Kept, day)
	s := w.SheetsOf("xps1")
	last := len(s.Layout.Sheets) - 1
	left := s.Layout.Sheets[last].Offcuts
	require.NotEmpty(t, left)
	e, err := w.CutSheet(s, last)
	require.NoError(t, err)
	q, err := p.Apply(e)
	require.NoError(t, err)
	require.Len(t, q.Offcuts(), len(left))
	require.LessOrEqual(t, q.Offcuts()[0].W.Value(), left[0].W, "never larger than what is left")
	w2 := work.Do(q, shop.Kept, day)
	s2 := w2.SheetsOf("xps1")
	require.Equal(t, 1, s2.Cut)
	whole(t, w2, s2)
	require.ElementsMatch(
		t,
		s.Layout.Sheets[last].Placed,
		s2.Layout.Sheets[0].Placed,
		"what was cut stays where it was cut",
	)
	// a new part goes on what was left of it, not on a new sheet
	more := q.Clone()
	more.Doc().Solids = append(
		more.Solids(),
		plan.Solid{
			ID:    "late",
			Prop:  "wall",
			Name:  "Late",
			Kind:  "panel",
			Stock: "xps1",
			Form:  form.Panel{W: measure.Len("9 in"), H: measure.Len("9 in")},
		},
	)
	w3 := work.Do(more, shop.Kept, day)
	s3 := w3.SheetsOf("xps1")
	whole(t, w3, s3)
	n, _ := where(s3, "late/panel", 0)
	require.NotNil(t, w3.Offcut(s3.Layout.Sheets[n].Stock))
	require.Equal(t, s.New(), s3.New())
	_, err = w3.CutSheet(s3, 0)
	require.ErrorContains(t, err, "cut already")
	_, at := where(
		s3,
		s3.Pieces[s3.Layout.Sheets[0].Placed[0].Part].Ref,
		s3.Pieces[s3.Layout.Sheets[0].Placed[0].Part].Copy,
	)
	_, err = w3.Move(s3, at.Part, 1, 0, 0, false, false)
	require.ErrorContains(t, err, "cut already")
	// cutting the offcut takes it off the shelf's stock
	e, err = w3.CutSheet(s3, n)
	require.NoError(t, err)
	r, err := more.Apply(e)
	require.NoError(t, err)
	w4 := work.Do(r, shop.Kept, day)
	require.Equal(t, 2, w4.SheetsOf("xps1").Cut)
	whole(t, w4, w4.SheetsOf("xps1"))
	back, err := plan.Decode(r.Encode())
	require.NoError(t, err)
	require.Equal(t, r.Doc(), back.Doc())
}

func TestSilhouettesMeshesAndSeamsInAPlan(t *testing.T) {
	p := boards(t)
	p.Doc().Solids = []plan.Solid{
		{
			ID:    "leaf",
			Prop:  "wall",
			Name:  "Leaf",
			Kind:  "outline",
			Stock: "ply1/4",
			Form:  form.Outline{H: measure.Len("40 in"), Path: "0,0 10,8 12,20 6,30 0,40 -6,30 -12,20 -10,8", Pair: true},
		},
		{
			ID:     "post",
			Prop:   "wall",
			Name:   "Post",
			Kind:   "panel",
			Stock:  "xps1",
			Form:   form.Panel{W: measure.Len("20 in"), H: measure.Len("120 in")},
			Seam:   "half-lap",
			SeamAt: measure.Len("70 in"),
			Lap:    measure.Len("3 in"),
		},
	}
	require.NoError(t, p.Validate())
	w := work.Do(p, shop.Kept, day)
	require.NotNil(t, w.Part("leaf/shape-left"))
	require.NotNil(t, w.Part("leaf/shape-right"))
	require.InDelta(t, 71.5*25.4, w.Results().At("part", "post/panel-1", "size").Value*71.5/20, 1e-6)
	require.Empty(t, w.SheetsOf("xps1").Layout.TooLarge)
	half := p.Clone()
	half.Solids()[0] = half.Solids()[0].Set("h", measure.Length{})
	require.NoError(t, half.Validate(), "half known is allowed")
	require.NotEmpty(t, work.Do(half, shop.Kept, day).Lacks("leaf"))
	for _, c := range []struct {
		change func(s *plan.Solid)
		want   string
	}{
		{func(s *plan.Solid) { *s = s.Set("path", "0,0 1,1 x") }, "is not a corner"},
		{func(s *plan.Solid) { s.Seam = "glue" }, "choose butt, half-lap"},
		{func(s *plan.Solid) { *s = s.As(form.Mesh{H: measure.Len("9 in"), Mesh: "nonsense"}) }, "bring the STL in again"},
	} {
		bad := p.Clone()
		c.change(&bad.Solids()[0])
		require.ErrorContains(t, bad.Validate(), c.want)
	}
}

// A disc of 8 ft comes out of two boards of 4 x 8 ft, its edges the factory's; a
// part a little less than the sheet leaves no margin and fits not; neither what
// is used nor what is paid counts what does not fit.
func TestFactoryEdgesAndWhatDoesNotFit(t *testing.T) {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	p.Doc().Solids = []plan.Solid{
		{
			ID:    "d",
			Prop:  "a",
			Name:  "Disc",
			Kind:  "boards",
			Stock: "xps1",
			Form:  form.Boards{W: measure.Len("8 ft"), Brace: measure.Len("4 in")},
		},
	}
	w := work.Do(p, shop.Kept, today)
	sh := w.SheetsOf("xps1")
	boards := 0
	for _, s := range sh.Layout.Sheets {
		for _, q := range s.Placed {
			if w.Part(sh.Pieces[q.Part].Ref).Panel.ID != "brace" {
				boards++
				assert.Zero(t, q.X)
				assert.Zero(t, q.Y)
			}
		}
	}
	assert.Equal(t, 2, boards)
	assert.Empty(t, sh.Layout.TooLarge)
	p.Doc().Solids = []plan.Solid{
		{
			ID:    "s",
			Prop:  "a",
			Name:  "S",
			Kind:  "panel",
			Stock: "ply1/4",
			Form:  form.Panel{W: measure.Len("48 in"), H: measure.Len("60 in")},
		},
		{
			ID:    "t",
			Prop:  "a",
			Name:  "T",
			Kind:  "panel",
			Stock: "ply1/4",
			Form:  form.Panel{W: measure.Len("47 3/4 in"), H: measure.Len("60 in")},
		},
		{
			ID:    "u",
			Prop:  "a",
			Name:  "U",
			Kind:  "panel",
			Stock: "ply1/4",
			Form:  form.Panel{W: measure.Len("20 ft"), H: measure.Len("20 ft")},
		},
	}
	w = work.Do(p, shop.Kept, today)
	sh = w.SheetsOf("ply1/4")
	assert.Len(t, sh.Layout.Sheets, 1)
	assert.Len(t, sh.Layout.TooLarge, 2)
	r := w.Results().At("stock", "ply1/4", "yield")
	assert.InDelta(t, 100*48*60/(48.*96), r.Value, .1)
	assert.Equal(t, stock.Shop.Materials["ply1/4"].Price, w.Results().At("stock", "ply1/4", "cost").Value)
}

// A long narrow part lies across its tile where the stock has no grain: 30 in
// by 2 in on a tile of 24 in needs 45 degrees; on grained ply it must stand.
func TestPartsLieAslant(t *testing.T) {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	p.Doc().Solids = []plan.Solid{
		{
			ID:    "s",
			Prop:  "a",
			Name:  "S",
			Kind:  "panel",
			Stock: "eva5",
			Form:  form.Panel{W: measure.Len("2 in"), H: measure.Len("28 in")},
		},
	}
	w := work.Do(p, shop.Kept, today)
	sh := w.SheetsOf("eva5")
	require.Empty(t, sh.Layout.TooLarge)
	require.Len(t, sh.Layout.Sheets, 1)
	panel := w.Parts()[0].Panel
	assert.InDelta(t, 2*28*645.16, panel.Area(), 1)
	lo, hi := panel.Bounds()
	assert.LessOrEqual(t, max(hi.X-lo.X, hi.Y-lo.Y), 23.5*25.4+1e-6, "inside the margins")
	assert.Greater(t, math.Abs(panel.Slant), 5.)
	p.Solids()[0] = p.Solids()[0].Set("w", measure.Len("2 in")).
		Set("h", measure.Len("34 in"))
		// longer than the diagonal lets
	assert.Len(t, work.Do(p, shop.Kept, today).SheetsOf("eva5").Layout.TooLarge, 1)
	p.Solids()[0] = p.Solids()[0].Set("w", measure.Len("60 in")).Set("h", measure.Len("20 in"))
	p.Solids()[0].Stock = "ply1/4"
	assert.Len(t, work.Do(p, shop.Kept, today).SheetsOf("ply1/4").Layout.TooLarge, 1, "grain up")
}
