package pattern

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func laid(t *testing.T, s interface{ Lay() (*Shape, error) }) *Shape {
	t.Helper()
	shape, err := s.Lay()
	require.NoError(t, err)
	return shape
}

// A pile's outside against closed forms: a cylinder's side and top; of a stepped
// cone the steps add up to its base. What is glued shut is not painted.
func TestExposed(t *testing.T) {
	c := laid(t, Rings{Bottom: 400, Top: 400, H: 250, Wall: 50, T: 25})
	assert.InDelta(t, math.Pi*400*250+math.Pi/4*(400*400-300*300), c.Exposed(), 1)
	cone, err := NewProfile("300,0 0,500", 600, 500, 1)
	require.NoError(t, err)
	s := laid(t, Slices{Profile: cone, T: 25})
	steps := math.Pi / 4 * 600 * 600 // seen from above, all of the base
	side := 0.0
	for _, p := range s.Panels {
		side += math.Pi * p.Round * 25
	}
	assert.InDelta(t, steps+side, s.Exposed(), 1)
	b := laid(t, Box{W: 300, D: 200, H: 400, T: 10, Joint: "mitre"})
	assert.InDelta(t, 2*(300+200)*400, b.Exposed(), 1e-6)
	m := laid(t, MeshSlices{Mesh: slab(Vec{}, Vec{300, 200, 100}), H: 100, T: 25})
	assert.InEpsilon(t, 2*(300+200)*100+300*200, m.Exposed(), .03) // the layers are traced on a grid, and enclose
	require.Len(t, m.Lines, 1)
	assert.InEpsilon(t, 3*300*200, m.Lines[0].Area(), .03)
}

// Where parts of one solid meet, against closed forms and the assembled shape.
func TestGlueLines(t *testing.T) {
	one := func(s interface{ Lay() (*Shape, error) }) Line {
		l := laid(t, s).Lines
		require.Len(t, l, 1)
		return l[0]
	}
	l := one(Rings{Bottom: 400, Top: 400, H: 250, Wall: 50, T: 25}) // ten rings, nine seams
	assert.InDelta(t, 9*math.Pi*350, l.Length, 1e-6)
	assert.InDelta(t, 50, l.Width, 1e-6)
	assert.InDelta(t, 9*math.Pi/4*(400*400-300*300), l.Area(), 1e-3)
	ball, err := NewProfile("sphere", 500, 500, 1)
	require.NoError(t, err)
	l = one(Gores{Profile: ball, N: 8, T: 5})
	assert.InEpsilon(t, 8*math.Pi*250, l.Length, 1e-3) // eight half great circles
	assert.Equal(t, 5.0, l.Width)
	assert.Equal(t, 12.0, one(Gores{Profile: ball, N: 8, T: 5, Allow: 12}).Width)
	assert.Equal(t, Line{"wrap", "wrap", 600, 3}, one(Wrap{D: 300, H: 600, T: 3}))
	assert.Equal(t, 25.0, one(Wrap{D: 300, H: 600, T: 3, Overlap: 25}).Width)
	assert.InEpsilon(t, math.Hypot(400, 150), one(Cone{Bottom: 300, H: 400, T: .001}).Length, 1e-5)
	tower := Tower{N: 6, Bottom: 500, Top: 200, H: 1000, T: 25}
	s := laid(t, tower)
	corner := s.Bodies[0].Faces[0].Points // the outside face: bottom two, top two
	assert.InEpsilon(t, 6*math.Sqrt(sq3(corner[0], corner[3])), s.Lines[0].Length, 1e-9)
	for joint, width := range map[string]float64{"butt": 10, "mitre": 10 * math.Sqrt2, "rabbet": 15} {
		lines := laid(t, Box{W: 300, D: 200, H: 400, T: 10, Joint: joint, Bottom: true}).Lines
		require.Len(t, lines, 8, joint) // four corners, four sides of the floor
		assert.Equal(t, Line{"front", "left", 400, width}, lines[0])
		floor := 0.0
		for _, l := range lines[4:] {
			floor += l.Length
		}
		assert.InDelta(t, 2*(280+180), floor, 1e-9)
	}
	boards := laid(t, Boards{D: 2438.4, T: 6, Board: 1219.2, Brace: 150})
	require.Len(t, boards.Lines, 2)
	assert.InDelta(t, 2438.4, boards.Lines[0].Length, 1e-6)
	assert.InDelta(t, 2438.4*.9*150, boards.Lines[1].Area(), 1e-3)
}

func sq3(a, b Vec) float64 { return math.Pow(a.X-b.X, 2) + math.Pow(a.Y-b.Y, 2) + math.Pow(a.Z-b.Z, 2) }
