package plan

import (
	"testing"

	"zapbarn/core/measure"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func aligned() *Plan {
	p := New("n", "N", "in", "")
	p.doc.Props = []Prop{{ID: "a", Name: "A"}, {ID: "b", Name: "B"}, {ID: "c", Name: "C"}}
	p.doc.Plots = []Plot{
		{ID: "a", Prop: "a", X: measure.Len("10 ft"), Y: measure.Len("6 ft")},
		{ID: "b", Prop: "b", X: measure.Len("2 ft"), Y: measure.Len("7 ft")},
		{ID: "c", Prop: "c", X: measure.Len("3 ft"), Y: measure.Len("9 ft")},
	}
	p.doc.Fixtures = []Fixture{{ID: "f", Name: "Flood", Use: "fill", X: measure.Len("1 ft")},
		{ID: "g", Name: "Glow", Use: "practical", Prop: "a"}}
	return p
}

// By hand: a row takes the first's way down, a column its way right; evenly leaves 2 and
// 10 ft where they are and puts the third at 6 ft.
func TestAlign(t *testing.T) {
	keys := []string{"plot:a", "plot:b", "plot:c"}
	at := func(how string, keys []string) (out []float64) {
		p := aligned()
		e, err := p.Align(keys, how)
		require.NoError(t, err)
		q, err := p.Apply(e)
		require.NoError(t, err)
		for _, x := range q.Plots() {
			out = append(out, x.X.Value()/304.8, x.Y.Value()/304.8)
		}
		assert.Equal(t, 10*304.8, p.Plots()[0].X.Value(), "the plan itself is left alone")
		return out
	}
	assert.InDeltaSlice(t, []float64{10, 6, 2, 6, 3, 6}, at("row", keys), 1e-9)
	assert.InDeltaSlice(t, []float64{10, 6, 10, 7, 10, 9}, at("column", keys), 1e-9)
	assert.InDeltaSlice(t, []float64{10, 6, 2, 7, 6, 9}, at("evenly", keys), 1e-9)
	assert.InDeltaSlice(t, []float64{10, 9, 2, 9, 3, 9}, at("row", []string{"plot:c", "plot:a", "plot:b"}), 1e-9)
	p := aligned()
	p.Plots()[0].X, p.Plots()[0].Y = measure.Len("2 ft"), measure.Len("1 ft") // now they lie further apart downwards
	e, err := p.Align(keys, "evenly")
	require.NoError(t, err)
	q, err := p.Apply(e)
	require.NoError(t, err)
	assert.InDelta(t, 5*304.8, q.PlotOf("b").Y.Value(), 1)
	for _, wrong := range []struct {
		keys      []string
		how, says string
	}{
		{keys[:1], "row", "2 things"}, {keys[:2], "evenly", "3 things"}, {keys, "heap", "row, column, evenly"},
		{[]string{"plot:a", "fixture:g"}, "row", "hangs on A"}, {[]string{"plot:a", "prop:a"}, "row", "nowhere"},
	} {
		_, err := aligned().Align(wrong.keys, wrong.how)
		require.ErrorContains(t, err, wrong.says)
	}
	p.Plots()[1].Fixed = true
	_, err = p.Align(keys, "row")
	assert.ErrorContains(t, err, "locked")
}
