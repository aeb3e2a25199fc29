package shorthand

import (
	"testing"

	"zapbarn/core/plan"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// lit is a plan with a supply.
func lit(t *testing.T) *plan.Plan {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	r, err := Read(p, shop.Kept, "a", "supply 12v 5a")
	require.NoError(t, err)
	p, err = p.Apply(r.Edit)
	require.NoError(t, err)
	return p
}

// What is no lamp becomes none: a count before an unknown noun was so many candles.
func TestANounThatIsNoLampIsNotTakenForOne(t *testing.T) {
	p := lit(t)
	for _, line := range []string{"10 zombies on S1 20 ft", "2 eye holes on S1 3 ft", "3 gravestones on S1 10 ft"} {
		r, err := Read(p, shop.Kept, "a", line)
		if assert.Error(t, err, line) {
			continue
		}
		t.Log(r.Text)
	}
	r, err := Read(p, shop.Kept, "a", "16 gauge wire on S1 6 ft")
	require.NoError(t, err)
	assert.Equal(t, "run W1, 16awg, 6 ft one way on S1", r.Text, "a wire of 16 gauge, not sixteen of anything")
	for _, line := range []string{"10 candles on S1 20 ft", "6 pucks on S1 20 ft", "12 eyes puck12 on S1 20 ft"} {
		_, err := Read(p, shop.Kept, "a", line)
		assert.NoError(t, err, line)
	}
}

// A colour that is named is the colour that is bought, with its own resistor; one that the shop has
// not is refused.
func TestAColourNamedIsTheColourBought(t *testing.T) {
	p := lit(t)
	for colour, ohms := range map[string]float64{"red": 100, "white": 100, "green": 100, "amber": 100} {
		r, err := Read(p, shop.Kept, "a", "4 "+colour+" leds on S1")
		require.NoError(t, err, colour)
		q, err := p.Apply(r.Edit)
		require.NoError(t, err, colour)
		n := 0
		for _, d := range q.Devices() {
			if d.Product == "" || d.Kind != "lamp" {
				continue
			}
			n += max(1, d.Row)
			assert.Equal(t, "led-"+colour, d.Product)
			l := shop.Kept.Lamps[d.Product]
			over := (12 - float64(d.Row)*l.Vf) / l.Amps // Ohm's law: what the row leaves over, at its rated current
			assert.GreaterOrEqual(t, d.Resistor.Value(), over-1e-9, colour)
			assert.Less(t, d.Resistor.Value(), over+ohms+50, "the next of its series")
		}
		assert.Equal(t, 4, n, colour)
	}
	_, err := Read(p, shop.Kept, "a", "4 warm leds on S1")
	assert.Error(t, err)
}
