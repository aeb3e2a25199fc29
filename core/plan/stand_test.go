package plan

import (
	"fmt"
	"testing"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// pile is a base, a body on it and a cap on that, each so wide, deep and high.
func pile(t require.TestingT) *Plan {
	p := New("n", "N", "in", "")
	p.doc.Props = []Prop{{ID: "a", Name: "A"}, {ID: "b", Name: "B"}}
	for i, name := range []string{"base", "body", "cap"} {
		x := NewSolid(
			"a",
			name,
			"xps1",
			form.Box{W: measure.Len("20 in"), D: measure.Len("16 in"), H: measure.Len("12 in")},
		)
		x.ID = name
		if i > 0 {
			x.By, x.How = p.Solids()[i-1].ID, "on"
		}
		p.doc.Solids = append(p.Solids(), x)
	}
	q, err := p.Apply(p.Settled(Edit{Changes: []Change{p.Put("solid", "cap", p.Solids()[2])}}))
	require.NoError(t, err)
	return q
}

// A pile goes up with its foot, and comes back with undo; what is moved by hand
// lets go; what stood on a thing that is taken away stays where it is.
func TestAPileGoesUpWithItsFoot(t *testing.T) {
	p := pile(t)
	assert.Equal(t, `12"`, p.Solid("body").Z.String())
	assert.Equal(t, `24"`, p.Solid("cap").Z.String())
	taller := p.Solid("base").Set("h", measure.Len("18 in"))
	e := p.Settled(Edit{Label: "taller", Changes: []Change{p.Put("solid", "base", taller)}})
	require.Len(t, e.Changes, 3)
	q, err := p.Apply(e)
	require.NoError(t, err)
	assert.InDelta(t, 18*25.4, q.Solid("body").Z.Value(), .1)
	assert.InDelta(t, 30*25.4, q.Solid("cap").Z.Value(), .1)
	back, err := q.Apply(e.Inverse())
	require.NoError(t, err)
	assert.Equal(t, string(p.Encode()), string(back.Encode()))

	aside := *q.Solid("cap")
	aside.X = measure.Len("9 in")
	q2, err := q.Apply(q.Settled(Edit{Changes: []Change{q.Put("solid", "cap", aside)}}))
	require.NoError(t, err)
	assert.Empty(t, q2.Solid("cap").By, "moved by hand, it lets go")
	assert.Equal(t, "9 in", q2.Solid("cap").X.String())

	gone, err := q.Apply(q.Without("solid", "body"))
	require.NoError(t, err)
	require.Len(t, gone.Solids(), 2)
	assert.Empty(t, gone.Solid("cap").By)
	assert.Equal(t, q.Solid("cap").Z, gone.Solid("cap").Z)

	loop := *q.Solid("base")
	loop.By, loop.How = "cap", "on"
	_, err = q.Apply(Edit{Changes: []Change{q.Put("solid", "base", loop)}})
	require.ErrorContains(t, err, "by itself")
	other := q.Solid("cap").As(q.Solid("cap").Form)
	other.Prop = "b"
	_, err = q.Apply(Edit{Changes: []Change{q.Put("solid", "cap", other)}})
	require.ErrorContains(t, err, "of another prop")
	other.Prop, other.How = "a", "upon"
	_, err = q.Apply(Edit{Changes: []Change{q.Put("solid", "cap", other)}})
	require.ErrorContains(t, err, `"upon" is not known`)
}

// A prop that is scaled keeps its pile, whatever the tape rounds; one moved by less
// than that was not moved.
func TestAScaledPileStandsOn(t *testing.T) {
	p := pile(t)
	for _, f := range []float64{1.37, .61, 2.113} {
		q, err := p.Apply(p.Settled(p.Scaled("a", f)))
		require.NoError(t, err)
		assert.Equal(t, "body", q.Solid("cap").By, "%g", f)
		assert.InDelta(t, 24*25.4*f, q.Solid("cap").Z.Value(), 2*1.6, "%g", f)
		next, err := q.Stood(*q.Solid("cap"), shop.Kept)
		require.NoError(t, err)
		assert.Zero(t, off(next, *q.Solid("cap")))
	}
	for by, keeps := range map[float64]bool{1.9: true, 2.1: false, -30: false} {
		x := *p.Solid("cap")
		x.Z = measure.Of[measure.LengthKind](x.Z.Value() + by)
		q, err := p.Apply(p.Settled(Edit{Changes: []Change{p.Put("solid", "cap", x)}}))
		require.NoError(t, err)
		assert.Equal(t, keeps, q.Solid("cap").By == "body", "%g", by)
	}
}

// Each way to stand, by hand: a lamp box of 4 x 3 x 5 in by a base of 20 x 16 x 12.
func TestWhereAThingStands(t *testing.T) {
	for how, want := range map[string][3]float64{"on": {0, 0, 12}, "in": {0, 0, 2}, "beside right": {12, 0, 2},
		"beside left": {-12, 0, 2}, "behind": {0, 9.5, 2}, "before": {0, -9.5, 2}} {
		p := pile(t)
		x := NewSolid(
			"a",
			"lamp",
			"xps1",
			form.Box{W: measure.Len("4 in"), D: measure.Len("3 in"), H: measure.Len("5 in")},
		)
		x.ID, x.By, x.How, x.ByAt = "lamp", "base", how, measure.Len("2 in")
		got, err := p.Stood(x, shop.Kept)
		require.NoError(t, err, how)
		for i, l := range []measure.Length{got.X, got.Y, got.Z} {
			assert.InDelta(t, want[i]*25.4, l.Value(), .01, "%s %d", how, i)
		}
	}
	p := pile(t)
	around := *p.Solid("cap")
	around.How = "around"
	_, err := p.Stood(around, shop.Kept)
	require.NoError(t, err, "as wide as what it goes round: it may touch")
	_, err = p.Stood(around.Set("w", measure.Len("19 in")), shop.Kept)
	require.ErrorContains(t, err, "body is larger than what should be round it")
}

// Whatever edits come, a solid that stands by another stands where that puts it.
func TestWhatStandsByAnotherStandsThere(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := pile(t)
		for n := range rapid.IntRange(1, 6).Draw(t, "edits") {
			x := p.Solids()[rapid.IntRange(0, len(p.Solids())-1).Draw(t, fmt.Sprint("which", n))]
			size := measure.OnTape(25.4*rapid.Float64Range(4, 40).Draw(t, fmt.Sprint("size", n)), false)
			switch rapid.IntRange(0, 4).Draw(t, fmt.Sprint("what", n)) {
			case 0:
				x = x.Set("h", size)
			case 1:
				x = x.Set("w", size)
			case 2:
				x.Z = size
			case 3:
				x.How = Hows[rapid.IntRange(0, len(Hows)-1).Draw(t, fmt.Sprint("how", n))]
				if x.By == "" {
					x.By = "base"
				}
			case 4:
				x.X = size
			}
			q, err := p.Apply(p.Settled(Edit{Changes: []Change{p.Put("solid", x.ID, x)}}))
			if err != nil {
				continue // refused, such as a loop
			}
			for _, s := range q.Solids() {
				if next, err := q.Stood(s, shop.Kept); err == nil {
					assert.Zero(t, off(s, next), "%s %s %s after %d", s.ID, s.How, s.By, n)
				}
			}
			p = q
		}
	})
}
