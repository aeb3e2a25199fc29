package work_test

import (
	"testing"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The night's average, the outlet's current and the cord's loss by hand; a
// battery's hours by the calculator that is checked by worked examples.
func TestEnergyOverTheSeason(t *testing.T) {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	p.Doc().Display.Nights, p.Doc().Display.Night, p.Doc().Display.Duty = 10, measure.Must[measure.DurationKind]("5 h"), 40
	p.Doc().Outlets = []plan.Outlet{
		{
			ID:      "o",
			Name:    "O",
			Volts:   measure.Must[measure.VoltKind]("120 V"),
			Breaker: measure.Must[measure.AmpKind]("15 A"),
			Gauge:   measure.Must[measure.GaugeKind]("16 AWG"),
			Cord:    measure.Len("100 ft"),
		},
	}
	p.Doc().Plugs = []plan.Plug{
		{ID: "fog", Name: "Fog", Outlet: "o", Watts: measure.Must[measure.WattKind]("600 W"), Heater: true},
	}
	p.Doc().Devices = []plan.Device{
		{ID: "S1", Prop: "a", Kind: "supply", Name: "S1", Product: "ps12-5", Outlet: "o"},
		{ID: "K1", Prop: "a", Kind: "switch", Name: "K1", From: "S1", Driven: true},
		{ID: "L1", Prop: "a", Kind: "lamp", Name: "L1", From: "K1", Product: "puck12"},
		{ID: "L2", Prop: "a", Kind: "lamp", Name: "L2", From: "S1", Product: "puck12"},
		{ID: "B1", Prop: "a", Kind: "supply", Name: "B1", Cell: "aa", Cells: 8, Sets: 2},
		{ID: "L3", Prop: "a", Kind: "lamp", Name: "L3", From: "B1", Product: "flicker12"},
	}
	require.NoError(t, p.Validate())
	w := work.Do(p, shop.Kept, today)
	on, rest := w.All().Readings["S1"].Amps, w.Rest().Readings["S1"].Amps
	require.InEpsilon(t, 2, on/rest, .02, "one lamp of two behind the switch")
	assert.InEpsilon(t, .4*on+.6*rest, w.Night("S1"), 1e-9)
	v := w.All().Readings["S1"].Volts
	assert.InEpsilon(t, (600+v*on/.85)/120, w.Results().At("outlet", "o", "amps").Value, 1e-9)
	assert.InEpsilon(t, 12, w.OutletLimit(&p.Outlets()[0]), 1e-9, "80 % of 15 A for five hours")
	assert.InEpsilon(t, (600+12*w.Night("S1")/.85)*5/1000, w.Results().At("outlet", "o", "energy").Value, 1e-9)
	// a thermostat that is on a quarter of the time: three quarters of 600 W for 5 h less, the circuit as before
	eco := p.Clone()
	eco.Plugs()[0].Duty = 25
	ew := work.Do(eco, shop.Kept, today)
	assert.InEpsilon(
		t,
		w.Results().At("outlet", "o", "energy").Value-.75*600*5/1000,
		ew.Results().At("outlet", "o", "energy").Value,
		1e-9,
	)
	assert.InEpsilon(t, w.Results().At("outlet", "o", "amps").Value, ew.Results().At("outlet", "o", "amps").Value, 1e-9)
	eco.Plugs()[0].Duty = 140
	assert.ErrorContains(t, eco.Validate(), "duty")
	// 16 AWG: 13.17 mOhm a metre (IEC 60228 copper), both ways over 30.48 m
	assert.InEpsilon(
		t,
		100*w.Results().At("outlet", "o", "amps").Value*2*.01317*30.48/120,
		w.Results().At("outlet", "o", "cord").Value,
		.002,
	)
	rs, err := circuit.Runtime("aa", w.Night("B1"), 2, false, 5, 10)
	require.NoError(t, err)
	assert.Equal(t, rs[0].Value, w.Results().At("device", "B1", "hours").Value)
	assert.InEpsilon(t, 12, w.Rig().Solve(nil).Readings["B1"].Volts, .01, "8 cells of 1.5 V, sagging a little")
	short := p.Clone()
	short.Doc().Display.Night = measure.Must[measure.DurationKind]("2 h")
	assert.Equal(
		t,
		15.0,
		work.Do(short, shop.Kept, today).OutletLimit(&p.Outlets()[0]),
		"under three hours the whole breaker",
	)
	back, err := plan.Decode(p.Encode())
	require.NoError(t, err)
	assert.Equal(t, p.Doc(), back.Doc())
	for _, bad := range []func(*plan.Plan){
		func(q *plan.Plan) { q.Devices()[4].Cells = 60 },
		func(q *plan.Plan) { q.Devices()[4].Cell = "plutonium" },
		func(q *plan.Plan) { q.Devices()[4].Outlet = "o" },
		func(q *plan.Plan) { q.Devices()[0].Outlet = "nowhere" },
		func(q *plan.Plan) { q.Outlets()[0].Volts = measure.Must[measure.VoltKind]("12 V") },
		func(q *plan.Plan) { q.Plugs()[0].Watts = measure.Power{} },
		func(q *plan.Plan) { q.Doc().Display.Duty = 101 },
	} {
		q := p.Clone()
		bad(q)
		assert.Error(t, q.Validate())
	}
}
