package shorthand

import (
	"testing"

	"zapbarn/core/measure"
	"zapbarn/core/stock"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Holes by the line, in any form: a box's front, one face of a tower, a ring, a
// bought jar, a silhouette; in the middle when no place is said.
func TestHolesByTheLine(t *testing.T) {
	p := built(
		t,
		"in",
		"prop chest",
		"box 20 x 12 x 10 xps1 beside",
		"tower 6 sides 48 tall 20 to 10 xps1 beside",
		"rings 24 12 tall wall 4 xps2 beside",
		"jar 4 x 6 pet beside",
		"outline 30 in tall ply1/4 0,0 10,0 10,10 0,10",
	)
	for _, c := range [][2]string{
		{"hole 2 in in box/front up 3 in", `hole of 2" in the front of Box, 3" up`},
		{"slot 8 x 1 5/8 in box back up 5", `slot of 8" x 1 5/8" in the back of Box, 5" up`},
		{"window 5 x 8 in tower face 2", `window of 5" x 8" in the face 2 of Tower, 24 1/8" up`},
		{"hole 1 in in jar bottom up 2", `hole of 1" in the bottom of Jar, 2" up`},
		{"door 6 x 6 in outline right 2 called hatch", `door of 6" x 6" in the shape of Outline, 15" up`},
	} {
		r, err := Read(p, stock.Shop, "chest", c[0])
		require.NoError(t, err, c[0])
		assert.Equal(t, c[1], r.Text)
		p, err = p.Apply(r.Edit)
		require.NoError(t, err)
	}
	assert.Len(t, p.Solids[0].Openings, 2)
	assert.Equal(t, "face 2", p.Solids[1].Openings[0].Face)
	hatch := p.Solids[4].Openings[0]
	assert.Equal(t, "hatch", hatch.Name)
	assert.True(t, hatch.Door)
	assert.Equal(t, 2*measure.Inch, hatch.X.Value())
	q := typed(t, p, "hole 1/2 in in box left left 2 in")
	assert.InDelta(t, -2*measure.Inch, q.Solids[0].Openings[2].X.Value(), 1e-9)
	for line, want := range map[string]string{
		"hole 2 in": "then in and what", "hole 2 x 3 in box front": "takes 1 sizes",
		"slot 8 in in box front": "takes 2 sizes", "hole 2 in in moon": "nothing here is called",
		"hole 30 in in box left": "runs over the edge", "hole 2 in in box roof": `no face "roof"`,
		"hole 2 flubber in box front": "not understood",
	} {
		_, err := Read(p, stock.Shop, "chest", line)
		assert.ErrorContains(t, err, want, line)
	}
}
