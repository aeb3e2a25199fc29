package pattern

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A bend of 90 degrees: the set-back is the radius, the arc a quarter of its circle
// (the bend allowance of sheet-metal and conduit bending tables); a closed square
// of four bends is four sides less eight set-backs and one whole circle.
func TestBentPipe(t *testing.T) {
	l := BentPipe{Legs: []float64{600, 400}, Turns: []float64{90}, Radius: 100, OD: 30}
	s, err := l.Lay()
	require.NoError(t, err)
	require.Len(t, s.Cuts, 1)
	assert.InDelta(t, 600+400-2*100+math.Pi/2*100, s.Cuts[0].Length, 1e-9)
	assert.InDelta(t, 600+30, s.Size.Z, 1)
	assert.InDelta(t, 400+30, s.Size.X, 1)
	course := l.Course()
	end := course[len(course)-1]
	assert.InDelta(t, 400, end.X, 1e-6, "the legs meet where they were measured")
	assert.InDelta(t, 600, end.Y, 1e-6)

	square := BentPipe{Legs: []float64{250, 500, 500, 500, 250}, Turns: []float64{90, 90, 90, 90}, Radius: 120, OD: 30}
	s, err = square.Lay()
	require.NoError(t, err)
	assert.InDelta(t, 4*500-8*120+2*math.Pi*120, s.Cuts[0].Length, 1e-9)
	course = square.Course()
	assert.InDelta(t, 0, course[len(course)-1].X, 1e-6, "it closes")
	assert.InDelta(t, 0, course[len(course)-1].Y, 1e-6)

	// to 45 degrees the set-back is R tan 22.5, from a trigonometric table 0.41421
	s, err = BentPipe{Legs: []float64{300, 300}, Turns: []float64{-45}, Radius: 100, OD: 30}.Lay()
	require.NoError(t, err)
	assert.InDelta(t, 600-2*41.421+100*math.Pi/4, s.Cuts[0].Length, 1e-2)

	s, err = BentPipe{
		Legs:    []float64{600, 400, 500},
		Turns:   []float64{90, -45},
		Elbows:  true,
		OD:      33.4,
		TakeOff: 17.5,
	}.Lay()
	require.NoError(t, err)
	require.Len(t, s.Cuts, 3)
	assert.InDelta(t, 582.5, s.Cuts[0].Length, 1e-9)
	assert.InDelta(t, 365, s.Cuts[1].Length, 1e-9)
	assert.InDelta(t, 482.5, s.Cuts[2].Length, 1e-9)
	assert.InDelta(t, 2, s.Results[0].Value, 0)

	for why, b := range map[string]BentPipe{
		"kinks this pipe":         {Legs: []float64{600, 400}, Turns: []float64{90}, Radius: 89, OD: 30},
		"its turns alone take":    {Legs: []float64{600, 99}, Turns: []float64{90}, Radius: 100, OD: 30},
		"write 2 to 30":           {Legs: []float64{600}, Radius: 100, OD: 30},
		"write 1 to 170":          {Legs: []float64{600, 400}, Turns: []float64{171}, Radius: 100, OD: 30},
		"bend it by heat instead": {Legs: []float64{600, 400}, Turns: []float64{50}, Elbows: true, OD: 30, TakeOff: 17},
		"leg 2 is": {Legs: []float64{600, 60, 400}, Turns: []float64{90, 90}, Elbows: true, OD: 30,
			TakeOff: 16},
	} {
		_, err := b.Lay()
		assert.ErrorContains(t, err, why)
	}
	_, err = BentPipe{Legs: []float64{600, 100}, Turns: []float64{90}, Radius: 100, OD: 30}.Lay()
	assert.NoError(t, err, "the last leg may be all bend")
}
