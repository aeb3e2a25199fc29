package work_test

import (
	"math"
	"strings"
	"testing"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Closed form: a load of P watts behind R ohms on E volts draws
// I = (E - sqrt(E^2 - 4 R P)) / (2 R), P being what the converter gives over
// its efficiency of 0.88.
func TestConverterDrawsConstantPower(t *testing.T) {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	p.Doc().Devices = []plan.Device{
		{ID: "S", Prop: "a", Kind: "supply", Name: "S", Product: "ps12-5"},
		{
			ID:     "W",
			Prop:   "a",
			Kind:   "run",
			Name:   "W",
			From:   "S",
			Gauge:  measure.Must[measure.GaugeKind]("22 AWG"),
			Length: measure.Len("20 ft"),
		},
		{
			ID:    "C",
			Prop:  "a",
			Kind:  "converter",
			Name:  "C",
			From:  "W",
			Volts: measure.Must[measure.VoltKind]("5 V"),
			Amps:  measure.Must[measure.AmpKind]("3 A"),
		},
		{
			ID:      "P",
			Prop:    "a",
			Kind:    "lamp",
			Name:    "P",
			From:    "C",
			Product: "pixel5",
			Length:  measure.Len("500 mm"),
			Bright:  80,
		},
	}
	require.NoError(t, p.Validate())
	w := work.Do(p, shop.Kept, today)
	out := w.All().Readings["C"]
	power := out.Volts * out.Amps / .88
	r := stock.SupplyResistance(12, 5) + 2*stock.CopperOhmsPerMetre(measure.AWGArea(22), 21)*20*.3048
	want := (12 - math.Sqrt(144-4*r*power)) / 2 / r
	assert.InEpsilon(t, want, w.All().Readings["S"].Amps, 1e-4)
	assert.InEpsilon(t, power, w.Results().At("device", "C", "draws").Value, 1e-6)
	assert.Equal(t, "lit", w.All().Readings["P"].State)
	assert.Equal(t, "C", w.Rig().Supply("P"), "what it feeds is judged by its volts")
	// a rail too low starves it, and its lamps go dark
	low := p.Clone()
	low.Devices()[0].Product = "ps5-4"
	st := work.Do(low, shop.Kept, today).All()
	assert.Equal(t, "starved", st.Readings["C"].State)
	bad := p.Clone()
	bad.Devices()[2].Amps = measure.Current{}
	assert.ErrorContains(t, bad.Validate(), "what it puts out")
}

// What a converter feeds is a bench of its own: the converter itself may give
// nothing, or the wrong volts.
func TestFaultsBehindAConverter(t *testing.T) {
	w := wired(
		t,
		plan.Device{ID: "S", Kind: "supply", Product: "ps12-5"},
		plan.Device{ID: "C", Kind: "converter", From: "S", Volts: vv("5 V"), Amps: aa("3 A")},
		plan.Device{
			ID:     "W",
			Kind:   "run",
			From:   "C",
			Gauge:  gg("18 AWG"),
			Length: ln("3 ft"),
		},
		plan.Device{ID: "U", Kind: "controller", From: "W"},
		plan.Device{ID: "P", Kind: "lamp", From: "W", Product: "pixel5", Length: ln("300 mm"), Bright: 50},
	)
	b := wiring.Suspects(w.Plan.Wiring(shop.Kept), "C")
	seen := func(pairs map[string]float64) (out []circuit.Seen) {
		for _, id := range b.Devices { // in order
			if v, ok := pairs[id]; ok {
				s, ok := b.Volts(id, v)
				require.True(t, ok, id)
				out = append(out, s)
				delete(pairs, id)
			}
		}
		require.Empty(t, pairs, "all of them are probes")
		return
	}
	for want, volts := range map[string]map[string]float64{
		"none":   {"C": w.All().Readings["C"].Volts, "P": w.All().Readings["P"].Volts, "U": w.All().Readings["U"].Volts},
		"dead:C": {"C": 0, "W": 0, "U": 0},
		"open:W": {"C": 5, "W": 0, "U": 0},
		"weak:C": {"C": 4.25, "U": 4.24},
	} {
		got := b.Rank(seen(volts), circuit.HandMeter)[0].Group
		assert.True(t, strings.HasPrefix(got, want), "%s, not %s", want, got)
	}
}
