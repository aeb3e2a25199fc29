package work_test

import (
	"math"
	"testing"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Every gauge of two runs in a row tried by hand: none that keeps the budget
// and the limits takes less copper than what is chosen.
func TestGaugesTakeTheLeastCopper(t *testing.T) {
	w := wired(t, plan.Device{ID: "S", Kind: "supply", Volts: vv("12 V"), Amps: aa("10 A")},
		plan.Device{ID: "W", Kind: "run", From: "S", Gauge: gg("18 AWG"), Length: ln("12 ft")},
		plan.Device{ID: "X", Kind: "run", From: "W", Gauge: gg("18 AWG"), Length: ln("20 ft")},
		plan.Device{ID: "A", Kind: "lamp", From: "W", At: ln("12 ft"), Product: "puck12", Amps: aa("1.5 A")},
		plan.Device{ID: "B", Kind: "lamp", From: "X", Product: "puck12"})
	copper := func(p interface{ Device(string) *plan.Device }) float64 {
		return wiring.BillOf(p.Device("W"), shop.Kept).Copper + wiring.BillOf(p.Device("X"), shop.Kept).Copper
	}
	q, worst, ok := wiring.Gauges(w.Plan.Wiring(shop.Kept), "a", .03)
	require.True(t, ok)
	assert.LessOrEqual(t, worst, .03)
	st := wiring.NewRig(q).Solve(nil)
	assert.InDelta(t, worst, math.Max(st.Readings["A"].Drop, st.Readings["B"].Drop)/12, 1e-9)
	least := math.Inf(1)
	for _, x := range stock.Gauges {
		for _, y := range stock.Gauges {
			p := w.Plan.Clone()
			p.Device("W").Gauge, p.Device("X").Gauge = measure.Of[measure.GaugeKind](
				measure.AWGArea(x),
			), measure.Of[measure.GaugeKind](measure.AWGArea(y))
			s := plan.NewRig(p, shop.Kept).Solve(nil).Readings
			fits := s["W"].Amps <= stock.Ampacity(measure.AWGArea(x)) &&
				s["X"].Amps <= stock.Ampacity(measure.AWGArea(y))
			if fits && math.Max(s["A"].Drop, s["B"].Drop) <= .03*12 {
				least = math.Min(least, copper(p))
			}
		}
	}
	assert.InDelta(t, least, copper(q), 1e-6)
	_, worst, ok = wiring.Gauges(w.Plan.Wiring(shop.Kept), "a", .001)
	assert.False(t, ok)
	assert.Greater(t, worst, .001)
	assert.Equal(t, "18 AWG", w.Plan.Device("W").Gauge.String(), "the plan itself stays")
}

func BenchmarkGauges(b *testing.B) {
	p := healthy(b)
	b.ReportAllocs()
	for b.Loop() {
		wiring.Gauges(p.Wiring(shop.Kept), "shelf", .03)
	}
}
