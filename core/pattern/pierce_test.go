package pattern

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func pierced(p interface{ Lay() (*Shape, error) }, openings ...Opening) (*Shape, error) {
	s, err := p.Lay()
	if err == nil {
		err = s.Pierce(openings)
	}
	return s, err
}

// A window in every face of a tower, or in the second alone; in space its middle
// lies where a hand would measure it: at half the slant, on the face's apothem.
func TestWindowsInATower(t *testing.T) {
	tower := Tower{N: 6, H: 900, Bottom: 500, Top: 300, T: 25}
	slant := math.Hypot(900, 100)
	window := Opening{Name: "window", Face: "face", Kind: "rect", W: 80, H: 120, Y: slant / 2}
	whole, err := tower.Lay()
	require.NoError(t, err)
	each, err := pierced(tower, window)
	require.NoError(t, err)
	assert.InDelta(t, whole.Panels[0].Area()-80*120, each.Panels[0].Area(), 1e-6)
	for _, b := range each.Bodies {
		require.Len(t, b.Faces[0].Holes, 1)
		var c Vec
		for _, q := range b.Faces[0].Holes[0] {
			c = Vec{c.X + q.X/4, c.Y + q.Y/4, c.Z + q.Z/4}
		}
		assert.InDelta(t, 450, c.Z, 1e-6)
		assert.InDelta(t, 200, math.Hypot(c.X, c.Y), 1e-6) // between apothems of 250 and 150
	}
	window.Face = "Face 2"
	one, err := pierced(tower, window)
	require.NoError(t, err)
	require.Len(t, one.Panels, 2)
	assert.Equal(t, 5, one.Panels[0].Copies)
	assert.Empty(t, one.Panels[0].Holes)
	assert.Equal(t, "face2", one.Panels[1].ID)
	assert.Len(t, one.Panels[1].Holes, 1)
	seen := map[int]bool{}
	for _, b := range one.Bodies {
		assert.Equal(t, b.Panel == "face2", len(b.Faces[0].Holes) == 1)
		if b.Panel == "face" {
			seen[b.Copy] = true
		}
	}
	assert.Len(t, seen, 5)
	assert.True(t, seen[0] && seen[4])
	again := Opening{Name: "peephole", Face: "face2", Kind: "round", W: 20, Y: 100}
	both, err := pierced(tower, window, again)
	require.NoError(t, err)
	assert.Len(t, both.Panels[1].Holes, 2)
}

// What runs over a slanted edge, a bevel, a bore or another hole is refused.
func TestWhereNoHoleCanBe(t *testing.T) {
	for name, c := range map[string]struct {
		p    interface{ Lay() (*Shape, error) }
		o    []Opening
		want string
	}{
		"over the slant": {Tower{N: 4, H: 900, Bottom: 500, Top: 100, T: 10},
			[]Opening{{Name: "w", Face: "face", Kind: "rect", W: 200, H: 50, Y: 850}}, "runs over the edge"},
		"past the bevel": {Tower{N: 4, H: 900, Bottom: 500, Top: 500, T: 25},
			[]Opening{{Name: "w", Face: "face", Kind: "rect", W: 460, H: 50, Y: 450}}, "runs over the edge"},
		"through a bore": {Disc{D: 500, Bore: 100, T: 25, Copies: 1},
			[]Opening{{Name: "w", Face: "disc", Kind: "round", W: 50, X: 30, Y: 250}}, "another opening"},
		"off the round": {Disc{D: 500, T: 25, Copies: 1},
			[]Opening{{Name: "w", Face: "disc", Kind: "rect", W: 90, H: 90, X: 180, Y: 430}}, "runs over the edge"},
		"the ninth face": {Tower{N: 4, H: 900, Bottom: 500, Top: 300, T: 25},
			[]Opening{{Name: "w", Face: "face 9", Kind: "round", W: 50, Y: 450}}, "there are 4 of Face"},
		"no such face": {Disc{D: 500, T: 25, Copies: 1},
			[]Opening{{Name: "w", Face: "roof", Kind: "round", W: 50, Y: 250}}, `no face "roof"; choose disc`},
		"larger than all": {Disc{D: 500, T: 25, Copies: 1},
			[]Opening{{Name: "w", Face: "disc", Kind: "round", W: 600, Y: 250}}, "runs over the edge"},
	} {
		_, err := pierced(c.p, c.o...)
		assert.ErrorContains(t, err, c.want, name)
	}
	s, err := pierced(
		Disc{D: 500, Bore: 100, T: 25, Copies: 1},
		Opening{Name: "w", Face: "disc", Kind: "round", W: 50, X: 150, Y: 250},
	)
	require.NoError(t, err)
	assert.InEpsilon(t, math.Pi/4*(500*500-100*100-50*50), s.Panels[0].Area(), 1e-3)
}
