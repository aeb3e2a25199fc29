package shorthand

import (
	"testing"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/testkit/shop"

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
		r, err := Read(p, shop.Kept, "chest", c[0])
		require.NoError(t, err, c[0])
		assert.Equal(t, c[1], r.Text)
		p, err = p.Apply(r.Edit)
		require.NoError(t, err)
	}
	assert.Len(t, p.Solids()[0].Openings, 2)
	assert.Equal(t, "face 2", p.Solids()[1].Openings[0].Face)
	hatch := p.Solids()[4].Openings[0]
	assert.Equal(t, "hatch", hatch.Name)
	assert.True(t, hatch.Door)
	assert.Equal(t, 2*measure.Inch, hatch.X.Value())
	q := typed(t, p, "hole 1/2 in in box left left 2 in")
	assert.InDelta(t, -2*measure.Inch, q.Solids()[0].Openings[2].X.Value(), 1e-9)
	for line, want := range map[string]string{
		"hole 2 in": "then in and what", "hole 2 x 3 in box front": "takes 1 sizes",
		"slot 8 in in box front": "takes 2 sizes", "hole 2 in in moon": "nothing here is called",
		"hole 30 in in box left": "runs over the edge", "hole 2 in in box roof": `no face "roof"`,
		"hole 2 flubber in box front": "not understood",
	} {
		_, err := Read(p, shop.Kept, "chest", line)
		assert.ErrorContains(t, err, want, line)
	}
}

// Pockets, grooves, shapes and panes by the line, read back as they are written.
func TestPocketsAndPanesByTheLine(t *testing.T) {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	say := func(line string) (*Reading, error) {
		got, err := Read(p, shop.Kept, "a", line)
		if err == nil {
			q, err := p.Apply(got.Edit)
			require.NoError(t, err)
			p = q
		}
		return got, err
	}
	for _, x := range [][2]string{
		{"box 22 x 18 x 26 1/2 xps1", "box"},
		{"pocket 4 x 2 deep 1/2 in box back", `pocket of 4" x 2", 1/2" deep, in the back of Box`},
		{"groove 12 x 1/4 deep 3/8 in box left up 20 in", `3/8" deep`},
		{"shape 6 x 8 in box front corners 0,0 4,0 2,3", "in the front of Box"},
		{"window 8 x 6 in box front up 5 in called Entrance", "in the front"},
		{"letters 2 in in box front up 24 in says BEES ONLY", `letters of BEES ONLY 2" high in the front of Box`},
		{"pane acrylic3 in box Entrance overlap 1/2 magnets 4", `9" x 7", held by 4 pairs of magnets`},
		{"pane acrylic3 in box Shape", `7" x 9", glued to its frame`},
	} {
		got, err := say(x[0])
		require.NoError(t, err, x[0])
		assert.Contains(t, got.Text, x[1])
	}
	box := p.Solids()[0]
	text := WriteOpenings(box.Openings)
	back, err := ReadOpenings(text, "in")
	require.NoError(t, err, text)
	assert.Equal(t, text, WriteOpenings(back))
	assert.Equal(t, box.Openings, back)
	// 18 in deep, of 1 in board: behind the front its middle is 8 in from the box's, less half its own 3 mm
	assert.InDelta(t, -(8*25.4 - 1.5), p.Solids()[1].Y.Value(), 1)
	assert.InDelta(t, (5-3.5)*25.4, p.Solids()[1].Z.Value(), 1)
	of, o := p.Filled(&p.Solids()[1])
	require.NotNil(t, o)
	assert.Equal(t, box.ID, of.ID)
	for line, why := range map[string]string{
		"pocket 4 x 2 in box back":                   "say how deep",
		"pocket 4 x 2 deep 3 in box top":             "there is no face",
		"pane acrylic3 in box Gone":                  `no opening "Gone"`,
		"pane in box Entrance":                       "say of which sheet",
		"pane ply1/4 in box Entrance":                "Pane of Entrance covers Entrance already",
		"pane ply1/4 in box Slot overlap 400":        `no opening "Slot"`,
		"groove 10 x 1/4 deep 9 in box left":         `9" deep in a part of 1"`,
		"pane acrylic3 in box Entrance magnets none": "how many pairs",
		"pane pvc2 in box Entrance":                  "say of which sheet",
		"shape 6 x 8 in box back corners 0,0 4,0":    "write its corners",
	} {
		_, err := say(line)
		assert.ErrorContains(t, err, why, line)
	}
	_, err = say("window 4 x 4 in box right called Sky")
	require.NoError(t, err)
	_, err = say("pane acrylic3 in box Sky overlap 400 in")
	assert.ErrorContains(t, err, `write up to 12"`)
	gone, err := p.Apply(p.Without("solid", box.ID))
	require.NoError(t, err)
	assert.Empty(t, gone.Solids(), "a pane goes with what it closes")
}
