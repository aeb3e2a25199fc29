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
			s.Pierce(
				[]Opening{{Name: "Pack", Face: s.Panels[0].ID, Kind: "rect", W: 200, H: 80, X: x, Y: 300, Deep: 10}},
			),
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
