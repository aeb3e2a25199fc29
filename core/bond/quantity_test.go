package bond

import (
	"math"
	"testing"

	"zapbarn/core/stock"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// From memory: a stick is 25 cm3; contact cement 3 to 4 m2 a litre of one face; a
// bead takes pi d^2 / 4 per length.
func TestGlueQuantities(t *testing.T) {
	assert.InEpsilon(t, 25000, Stick, .002)
	q := func(id string, length, width float64) float64 {
		r, err := Quantity(stock.Shop.Glues[id], length, width)
		require.NoError(t, err)
		require.NotEmpty(t, r.Steps)
		return r.Value
	}
	assert.InEpsilon(t, math.Pi/4*25*1274/Stick, q("hotlow", 1274, 10), 1e-9)
	assert.InDelta(t, 1, q("hot", 1274.4, 10), .005, "one stick lays 1.27 m of 5 mm bead")
	assert.InEpsilon(t, 2*1000.0/3.5, q("contact", 1000, 1000), 1e-9)
	assert.InEpsilon(t, 200, q("pva", 1000, 1000), 1e-9)
	assert.InEpsilon(t, math.Pi/4*16, q("pu", 1000, 25), 1e-9, "12.6 mL a metre")
	assert.InEpsilon(t, 2000, q("tape2", 2000, 25), 1e-9)
	for _, g := range stock.Shop.Glues { // every glue has a quantity, and twice the line takes twice
		one, err := Quantity(g, 500, 20)
		require.NoError(t, err, g.ID)
		two, err := Quantity(g, 1000, 20)
		require.NoError(t, err)
		assert.InEpsilon(t, 2*one.Value, two.Value, 1e-9, g.ID)
	}
	_, err := Quantity(stock.Shop.Glues["pva"], 0, 20)
	assert.ErrorContains(t, err, "more than nothing")
	r, err := FoamCans(20e6) // 20 L
	require.NoError(t, err)
	assert.Equal(t, 3.0, r.Value)
	_, err = FoamCans(-1)
	assert.Error(t, err)
}

// Too large is not nothing: each end of a quantity's range says its own words.
func TestQuantityEnds(t *testing.T) {
	g := stock.Shop.Glues["pva"]
	for _, c := range []struct {
		length, width float64
		want          string
	}{{0, 10, "length: must be more"}, {10, -1, "width: must be more"}, {math.NaN(), 10, "length: must be more"},
		{1e6 + 1, 10, "length: is too large; at most 1000 m"}, {10, 1e4 + 1, "width: is too large; at most 10 m"},
		{1e6, 1e4, ""}} {
		_, err := Quantity(g, c.length, c.width)
		if c.want == "" {
			assert.NoError(t, err)
			continue
		}
		assert.ErrorContains(t, err, c.want)
	}
	_, err := FoamCans(0)
	assert.ErrorContains(t, err, "more than nothing")
	_, err = FoamCans(1e11 + 1e5)
	assert.ErrorContains(t, err, "at most 100 m3")
	_, err = FoamCans(1e11)
	assert.NoError(t, err)
}
