package pattern

import (
	"math"
	"testing"

	"zapbarn/core/measure"
	"zapbarn/core/source"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func values(t *testing.T, rs []source.Result, err error) map[string]float64 {
	t.Helper()
	require.NoError(t, err)
	out := map[string]float64{}
	for _, r := range rs {
		assert.NotEmpty(t, r.Steps)
		out[r.Key.What] = r.Value
	}
	return out
}

func single(r source.Result, err error) ([]source.Result, error) { return []source.Result{r}, err }

// Each worked by hand; the sums are named beside it.
func TestShopSums(t *testing.T) {
	r, err := RingsAtPitch(1000, 100, 40, 10) // rings at 0, 100 .. 900 from the first: 10
	v := values(t, r, err)
	assert.Equal(t, 10.0, v["rings"])
	assert.InDelta(t, math.Pi*50, v["each"], 1e-9)
	assert.InDelta(t, 10*math.Pi*50, v["all"], 1e-9)

	r, err = Scales(600, 500, 100, 100, 50) // (500-100)/50 + 1 = 9 rows of 6 and 7: 5 x 6 + 4 x 7
	v = values(t, r, err)
	assert.Equal(t, 9.0, v["rows"])
	assert.Equal(t, 58.0, v["scales"])

	r, err = Banding(22*inch, 18*inch, inch/2, true) // 23 and 19 in, 84 in all
	v = values(t, r, err)
	assert.InDelta(t, 23*inch, v["long"], 1e-9)
	assert.InDelta(t, 19*inch, v["short"], 1e-9)
	assert.InDelta(t, 84*inch, v["all"], 1e-9)
	r, err = Banding(22*inch, 18*inch, inch/2, false)
	assert.InDelta(t, 18*inch, values(t, r, err)["short"], 1e-9)

	// a helix of pi d = pitch is sqrt 2 as long as its axis
	r, err = single(Armature(1000, 10, math.Pi*10, 2, 50))
	assert.InDelta(t, 2*1000*math.Sqrt2+50, values(t, r, err)["wire"], 1e-9)
	r, err = single(Armature(1000, 10, 30, 1, 0))
	assert.InDelta(t, 1000, values(t, r, err)["wire"], 1e-9)

	r, err = single(Hangers(1200, 100, 6)) // 1000 over 5 gaps
	assert.InDelta(t, 200, values(t, r, err)["gap"], 1e-9)
	r, err = single(Wedge(900, 50, 1000))
	assert.InDelta(t, 45, values(t, r, err)["height"], 1e-9)
	r, err = single(Hollow(50.8, 25.4, 40))
	assert.InDelta(t, 25.4, values(t, r, err)["left"], 1e-9)

	// 24 in at 16:9 is 20.92 x 11.77 in (screen size tables)
	r, err = Screen(24*inch, 16, 9, false)
	v = values(t, r, err)
	assert.InDelta(t, 20.92*inch, v["w"], .2)
	assert.InDelta(t, 11.77*inch, v["h"], .2)
	r, err = Screen(24*inch, 16, 9, true)
	assert.InDelta(t, 11.77*inch, values(t, r, err)["w"], .2)

	r, err = single(Fit(40.9, "press"))
	assert.InDelta(t, 41.4, values(t, r, err)["cut"], 1e-9)
	r, err = single(Fit(40.9, "slide"))
	assert.InDelta(t, 40.15, values(t, r, err)["cut"], 1e-9)
	// a reference at 1:6 and a prop of 10 ft: 20 in known, 3 in there is 18 in
	r, err = single(Scale(120*inch, 20*inch, 3*inch))
	assert.InDelta(t, 18*inch, values(t, r, err)["length"], 1e-9)
}

func TestShopSumsRefuse(t *testing.T) {
	for want, err := range map[string]error{
		"overlap":        second(RingsAtPitch(1000, 5, 40, 10)),
		"holds no ring":  second(RingsAtPitch(5, 20, 40, 10)),
		"shows more":     second(Scales(600, 500, 100, 50, 60)),
		"1 to 12":        third(Armature(1, 1, 1, 0, 0)),
		"2 to 500":       third(Hangers(100, 60, 2)),
		"the run":        third(Wedge(1, 5, 2)),
		"goes through":   third(Hollow(20, 25, 20)),
		"keep 1/2":       third(Hollow(20, 15, 20)),
		"to the edge":    third(Hollow(50, 15, 2)),
		"press or slide": third(Fit(10, "loose")),
		"too small":      third(Fit(.5, "slide")),
		"more than":      third(Scale(0, 1, 1)),
	} {
		assert.ErrorContains(t, measure.ErrorIn(err, false), want)
	}
}

func second(_ []source.Result, err error) error { return err }
func third(_ source.Result, err error) error    { return err }
