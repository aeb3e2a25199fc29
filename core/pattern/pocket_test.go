package pattern

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What a pocket takes away is its area by its depth, and nothing of the face's
// outline; a shape's area is its corners' stretched into the box (shoelace).
func TestPocketsAreNotCutThrough(t *testing.T) {
	box := Box{W: 560, D: 460, H: 670, T: 25, Joint: "butt"}
	plain, err := pierced(box)
	require.NoError(t, err)
	s, err := pierced(
		box,
		Opening{Name: "Pack", Face: "front", Kind: "rect", W: 80, H: 50, Y: 300, Deep: 12},
		Opening{Name: "Board", Face: "front", Kind: "round", W: 60, Y: 500, Deep: 20},
		Opening{
			Name: "Star",
			Face: "front",
			Kind: "shape",
			W:    90,
			H:    60,
			X:    150,
			Y:    400,
			Path: []Point{{0, 0}, {3, 0}, {0, 3}},
		},
	)
	require.NoError(t, err)
	front, was := s.Panels[0], plain.Panels[0]
	require.Len(t, front.Pockets, 2)
	require.Len(t, front.Holes, 1)
	star := 90.0 * 60 / 2
	assert.InDelta(t, was.Area()-star, front.Area(), 1e-6)
	assert.InDelta(t, was.Volume()-star*25-80*50*12-Area(front.Pockets[1].Ring)*20, front.Volume(), 1e-6)
	assert.InEpsilon(t, math.Pi*30*30, Area(front.Pockets[1].Ring), 2e-3)
	assert.Contains(t, front.Notes[len(front.Notes)-1], "Board: sunk")
	for name, o := range map[string]Opening{
		"leave at least":             {Name: "x", Face: "front", Kind: "rect", W: 80, H: 50, Y: 300, Deep: 23},
		"runs over the edge":         {Name: "x", Face: "front", Kind: "rect", W: 80, H: 50, Y: 10, Deep: 5},
		"runs into another":          {Name: "x", Face: "front", Kind: "round", W: 20, Y: 300},
		"write its corners":          {Name: "x", Face: "front", Kind: "shape", W: 80, H: 50, Y: 600},
		"is wider than it is high":   {Name: "x", Face: "front", Kind: "slot", W: 20, H: 50, Y: 600, Deep: 4},
		`there is no face "ceiling"`: {Name: "x", Face: "ceiling", Kind: "rect", W: 20, H: 50, Y: 600, Deep: 4},
	} {
		_, err := pierced(box, Opening{Name: "Pack", Face: "front", Kind: "rect", W: 80, H: 50, Y: 300, Deep: 12}, o)
		assert.ErrorContains(t, err, name)
	}
	turned := front.Turned(30)
	assert.InDelta(t, front.Volume(), turned.Volume(), 1e-6)
	assert.InDelta(t, Area(front.Pockets[0].Ring), Area(turned.Pockets[0].Ring), 1e-6)
}

// A seam beside a pocket leaves it whole on its own side; through it, it is refused.
func TestASeamKeepsClearOfPockets(t *testing.T) {
	lay := func(x float64) error {
		s, err := Flat{W: 3000, H: 600, T: 25, Copies: 1}.Lay()
		require.NoError(t, err)
		require.NoError(
			t,
			s.Pierce([]Opening{{Name: "Pack", Face: s.Panels[0].ID, Kind: "rect", W: 200, H: 80, X: x, Y: 300, Deep: 10}}),
		)
		err = s.Split(Seam{Kind: "butt", At: 1500, W: 1200, H: 2400})
		if err == nil {
			n := 0
			for _, p := range s.Panels {
				n += len(p.Pockets)
			}
			assert.Equal(t, 1, n)
		}
		return err
	}
	assert.NoError(t, lay(700))
	assert.ErrorContains(t, lay(0), "runs through Pack")
}

// A rabbet ends as far from its edge as it is wide, wherever the panel lies; a hole
// is measured from the face's own middle and bottom.
func TestPanelsAwayFromTheOrigin(t *testing.T) {
	p := Panel{ID: "face", Name: "Face", Thick: 20, Copies: 1, Outline: []Point{{100, 40}, {500, 40}, {500, 340},
		{100, 340}}}
	want := [][2]Point{{{100, 52}, {500, 52}}, {{488, 40}, {488, 340}}, {{500, 328}, {100, 328}}, {{112, 340}, {112, 40}}}
	for i := range want {
		a, b := p.Inward(i, 12)
		assert.Equal(t, want[i], [2]Point{a, b})
	}
	s := Shape{Panels: []Panel{p}}
	require.NoError(t, s.Pierce([]Opening{{Name: "o", Face: "face", Kind: "rect", W: 60, H: 30, X: 10, Y: 100}}))
	assert.Equal(t, [][]Point{{{280, 125}, {340, 125}, {340, 155}, {280, 155}}}, s.Panels[0].Holes)
	slices := Slices{Profile: Profile{{0, 0}, {200, 0}, {200, 400}, {0, 400}}, T: 25, Dowels: 13, Dowel: 8}
	_, err := slices.Lay()
	assert.ErrorContains(t, err, "write 0 to 12")
	slices.Dowels = 12
	_, err = slices.Lay()
	assert.NoError(t, err)
}
