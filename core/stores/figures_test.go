package stores

import (
	"testing"
	"time"

	"zapbarn/core/plan"
	"zapbarn/core/shorthand"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// said is a plan of lines, each stored as the store does.
func said(t require.TestingT, lines ...string) *plan.Plan {
	p := plan.New("x", "X", "in", "2027-10-01").In(shop.Kept)
	for _, line := range lines {
		prop := ""
		if len(p.Props()) > 0 {
			prop = p.Props()[0].ID
		}
		r, err := shorthand.Read(p, shop.Kept, prop, line)
		require.NoError(t, err, line)
		q, err := p.Apply(p.Settled(r.Edit))
		require.NoError(t, err, line)
		p = q
	}
	return p
}

// bought are what is bought whose name begins so, with their price.
func bought(p *plan.Plan, kind string) map[string]float64 {
	out := map[string]float64{}
	for _, n := range Of(work.Do(p, shop.Kept, time.Date(2027, 9, 1, 0, 0, 0, 0, time.UTC))) {
		if len(n.What) > len(kind) && n.What[:len(kind)] == kind {
			out[n.Name] = n.Price
		}
	}
	return out
}

// A supply is bought as the size it says: given by volts and amperes the one of the shop that
// has them, another one of its own, with a price; and never the one that it was.
func TestASupplyIsBoughtAsWhatItSays(t *testing.T) {
	lines := []string{"prop gate 6 ft tall", "supply 12v 2a", "12 jars flicker12 237ma on S1 18awg 10 ft"}
	assert.Equal(t, map[string]float64{"12 V 2 A supply": 10}, bought(said(t, lines...), "supply:"))
	p := said(t, append(lines, "S1 amps 5a")...)
	assert.Equal(t, "ps12-5", p.Device("S1").Product)
	assert.Equal(t, map[string]float64{"12 V 5 A supply": 16}, bought(p, "supply:"))
	p = said(t, append(lines, "S1 amps 3.5a")...)
	assert.Equal(t, "", p.Device("S1").Product, "none of the shop is that")
	assert.InDelta(t, 6+.2*12*3.5, bought(p, "supply:")["Supply, 12 V 3.5 A"], 1e-9)
	p = said(t, append(lines, "S1 amps 3.5a", "S1 product ps12-10")...)
	_, a := wiring.SupplyOf(p.Device("S1"), shop.Kept)
	assert.Equal(t, 10., a, "chosen from the shop it is that")
	assert.Equal(t, map[string]float64{"12 V 10 A supply": 26}, bought(p, "supply:"))
	assert.Equal(t,
		map[string]float64{"Flicker candle LED, wired for 12 V, of 237 mA": stock.Shop.Lamps["flicker12"].Price},
		bought(p, "lamp:"), "a lamp of another current is said as that")
}

// Whatever figures and products a supply is given, one after the other, what is solved and what
// is bought are of the same volts and amperes.
func TestFiguresAndProductAgree(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		lines := []string{"prop gate 6 ft tall", "supply 12v 2a", "lamp puck12 on S1"}
		for range rapid.IntRange(0, 5).Draw(t, "changes") {
			lines = append(lines, rapid.SampledFrom([]string{
				"S1 amps 5a", "S1 amps 3.5a", "S1 volts 24v", "S1 volts 12v", "S1 product ps5-10", "S1 product ps12-2",
				"S1 product usb5-2", "S1 amps 2.4a",
			}).Draw(t, "line"))
		}
		p := said(t, lines...)
		d := p.Device("S1")
		v, a := wiring.SupplyOf(d, shop.Kept)
		good := wiring.SupplyGood(d, shop.Kept)
		require.Equal(t, [2]float64{v, a}, [2]float64{good.Volts, good.Amps})
		require.Positive(t, good.Price)
		if d.Product != "" {
			require.Equal(t, good.ID, d.Product)
		}
	})
}
