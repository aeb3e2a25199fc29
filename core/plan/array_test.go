package plan

import (
	"math"
	"testing"

	"zapbarn/core/form"
	"zapbarn/core/measure"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// By hand: four pickets of 4 in along 40 in stand 12 in apart, their outer edges 40 in
// apart; a circle of four is a square on its tip, the first in front.
func TestPlacesByHand(t *testing.T) {
	assert.Equal(t, []Place{{10, 5}, {40, 5}, {70, 5}}, RowOf(Place{10, 5}, 3, 30))
	got := PicketsOf(Place{}, 4, 40, 4)
	require.Len(t, got, 4)
	assert.InDelta(t, 12, got[1].X, 1e-9)
	assert.InDelta(t, 40, got[3].X+4, 1e-9, "from outer edge to outer edge")
	for k, want := range []Place{{50, -20}, {90, 20}, {50, 60}, {10, 20}} {
		p := CircleOf(Place{50, 20}, 4, 80)[k]
		assert.InDelta(t, want.X, p.X, 1e-9)
		assert.InDelta(t, want.Y, p.Y, 1e-9)
	}
	for n := 2; n < 30; n++ { // all as far from the middle, neighbours all as far apart
		c := CircleOf(Place{3, 4}, n, 100)
		for k, p := range c {
			q := c[(k+1)%n]
			assert.InDelta(t, 50, math.Hypot(p.X-3, p.Y-4), 1e-9)
			assert.InDelta(t, 100*math.Sin(math.Pi/float64(n)), math.Hypot(p.X-q.X, p.Y-q.Y), 1e-9)
		}
	}
}

// Several of a solid are one edit, which is taken back as one; each has its coats, a name
// of its own, and stands by nothing.
func TestAnArrayIsOneEdit(t *testing.T) {
	p := New("x", "X", "in", "")
	p.doc.Props = []Prop{{ID: "a", Name: "A"}}
	p.doc.Solids = []Solid{
		{ID: "post", Prop: "a", Name: "Post", Kind: "box", Stock: "xps1",
			Form: form.Box{W: measure.Len("4 in"), D: measure.Len("4 in"), H: measure.Len("30 in"), Joint: "butt"}},
		{ID: "cap", Prop: "a", Name: "Cap", Kind: "disc", Stock: "xps1", By: "post", How: "on",
			Form: form.Disc{W: measure.Len("6 in"), Copies: 1}},
	}
	p.doc.Finishes = []Finish{{ID: "post", Solid: "post", Layers: []Layer{{Coat: "latex", Coats: 2}}}}
	e, err := p.Array("post", CircleOf(Place{}, 5, 1000))
	require.NoError(t, err)
	q, err := p.Apply(e)
	require.NoError(t, err)
	require.NoError(t, q.Validate())
	require.Len(t, q.Solids(), 6)
	require.Len(t, q.Finishes(), 5)
	names := map[string]bool{}
	for i := range q.Solids() {
		s := &q.Solids()[i]
		assert.False(t, names[s.Name], s.Name)
		names[s.Name] = true
	}
	assert.InDelta(t, -500, q.Solid("post").Y.Value(), 0.8)
	back, err := q.Apply(e.Inverse())
	require.NoError(t, err)
	assert.Equal(t, string(p.Encode()), string(back.Encode()))
	e, err = p.Array("cap", RowOf(Place{}, 2, 200))
	require.NoError(t, err)
	q, err = p.Apply(e)
	require.NoError(t, err)
	assert.Empty(t, q.Solid("cap").By)
	_, err = p.Array("post", RowOf(Place{}, 1, 0))
	assert.ErrorContains(t, err, "write 2 to 100")
	_, err = p.Array("gone", RowOf(Place{}, 2, 0))
	assert.ErrorContains(t, err, "no solid")
}
