package plan_test

import (
	"math"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"zapbarn/core/circuit"
	"zapbarn/core/form"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/stock"
)

// Single values and comparisons that nothing else holds to: each was once
// changed in a trial and no test failed.

// 300 lamps of 20 mA on 12 V 1 A ask 6 A (3 runs of 100, short and thick), not
// what the sagging supply lets through; what it gives is 1.3 times its rating.
func TestDemandIsWhatIsAskedFor(t *testing.T) {
	ds := []plan.Device{{ID: "S", Kind: "supply", Volts: vv("12 V"), Amps: aa("1 A")}, {ID: "W", Kind: "run", From: "S", Gauge: gg("10 AWG"), Length: ln("100 mm")}}
	for i := range 300 {
		ds = append(ds, plan.Device{ID: "L" + string(rune('a'+i%26)) + string(rune('a'+i/26)), Kind: "lamp", From: "W", Product: "flicker12", Lead: ln("1 mm")})
	}
	w := wired(t, ds...)
	assert.InDelta(t, 6, w.Demand("S"), .06)
	assert.Equal(t, w.Demand("S"), w.Results["device:S:load"].Value, "ticket and snag read one number")
	assert.InDelta(t, 1.3, w.All.Readings["S"].Amps, .05)
	assert.Equal(t, "overloaded", w.All.Readings["S"].State)
	assert.True(t, says(w, "device:S:load", "sagging"), "what it gives instead is said")
	assert.InDelta(t, 1.3, plan.ShortAmps(w.Device("S"), stock.Shop), 1e-9)
}

// Two packs side by side suffice when two are said to: what is asked for does
// not grow with the packs.
func TestDemandOfPacks(t *testing.T) {
	pack := func(sets int) *plan.Work {
		return wired(t, plan.Device{ID: "S", Kind: "supply", Cell: "aa", Cells: 3, Sets: sets}, plan.Device{ID: "P", Kind: "lamp", From: "S", Product: "pixel5", Length: ln("0.5 m"), Bright: 100})
	}
	one, two := pack(1).Demand("S"), pack(2).Demand("S")
	assert.InEpsilon(t, one, two, 1e-3)
}

// A hand switch left off is off, and what hangs behind it has no drop.
func TestSwitchLeftOff(t *testing.T) {
	w := wired(t, plan.Device{ID: "S", Kind: "supply", Volts: vv("12 V"), Amps: aa("5 A")}, plan.Device{ID: "K", Kind: "switch", From: "S", Off: true}, plan.Device{ID: "L", Kind: "lamp", From: "K", Product: "puck12"})
	assert.Equal(t, "dark", w.All.Readings["L"].State)
	assert.Less(t, w.All.Readings["L"].Amps, 1e-6)
	assert.Zero(t, w.All.Readings["L"].Drop)
	w.Device("K").Off = false
	assert.Equal(t, "lit", wired(t, w.Plan.Devices...).All.Readings["L"].State)
}

// An unplugged supply is an open end, not a short: the one beside it goes on
// alone, and is asked for the lamps, no more.
func TestUnpluggedIsOpen(t *testing.T) {
	w := wired(t, plan.Device{ID: "S", Kind: "supply", Volts: vv("12 V"), Amps: aa("5 A")}, plan.Device{ID: "T", Kind: "supply", Volts: vv("12 V"), Amps: aa("5 A")},
		plan.Device{ID: "W", Kind: "run", From: "S", Gauge: gg("16 AWG"), Length: ln("1 m"), To: "T"}, plan.Device{ID: "L", Kind: "lamp", From: "W", At: ln("500 mm"), Product: "puck12"})
	both, alone := w.All, w.Plan.Case(stock.Shop, "without:S")
	assert.InEpsilon(t, both.Readings["L"].Amps, alone.Readings["L"].Amps, .02)
	assert.InEpsilon(t, alone.Readings["L"].Amps, alone.Readings["T"].Amps, .01)
}

// Alkaline cells stiffen in the cold: their own resistance doubles (handbook
// 3-power: from memory), so the same load sags them twice as far.
func TestColdCellsSag(t *testing.T) {
	w := wired(t, plan.Device{ID: "S", Kind: "supply", Cell: "aa", Cells: 8}, plan.Device{ID: "L", Kind: "lamp", From: "S", Product: "bulb12"})
	warm, cold := w.All.Readings["S"], w.Plan.Case(stock.Shop, "cold").Readings["S"]
	inner := circuit.Cells["aa"].Ohms * 8
	assert.InDelta(t, 12-warm.Amps*inner, warm.Volts, 1e-6)
	assert.InDelta(t, 12-cold.Amps*2*inner, cold.Volts, 1e-6)
}

// Of several bottles the newest counts, wherever it stands in the list.
func TestTheNewestBottleCounts(t *testing.T) {
	for _, lots := range [][]plan.Lot{{{ID: "a", Glue: "pva", Opened: "2024-01-01"}, {ID: "b", Glue: "pva", Opened: "2026-09-10"}}, {{ID: "b", Glue: "pva", Opened: "2026-09-10"}, {ID: "a", Glue: "pva", Opened: "2024-01-01"}}} {
		p := plan.New("x", "X", "in", "")
		p.Lots = lots
		w := plan.Do(p, stock.Shop, today)
		assert.InDelta(t, 10*86400, w.JointCase(&plan.Joint{Glue: "pva"}).Age, 86400)
	}
}

// A pipe weighs its wall: 10 ft of 1 in schedule 40, OD 1.315 in, wall 0.133 in
// (ASTM D1785), at 1400 kg/m3 is 0.68 lb a foot less its bore, 3.1 kg no more.
func TestPipeWeighsItsWall(t *testing.T) {
	p := plan.New("x", "X", "in", "")
	p.Props = []plan.Prop{{ID: "a", Name: "A"}}
	p.Solids = []plan.Solid{{ID: "s", Prop: "a", Name: "S", Kind: "pipe", Stock: "pvc1", Form: form.Pipe{Lengths: "1@120in"}}}
	w := plan.Do(p, stock.Shop, today)
	od, wall := 1.315*.0254, .133*.0254
	require.InEpsilon(t, math.Pi*(od-wall)*wall*3.048*1400, w.Results["solid:s:mass"].Value, .002)
}

// says is true of a result one of whose steps holds a word.
func says(w *plan.Work, result, word string) bool {
	return slices.ContainsFunc(w.Results[result].Steps, func(s source.Step) bool { return strings.Contains(s.Formula, word) })
}

// A supply within its rating is not said to sag.
func TestNoSagWhereThereIsNone(t *testing.T) {
	w := wired(t, plan.Device{ID: "S", Kind: "supply", Volts: vv("12 V"), Amps: aa("5 A")}, plan.Device{ID: "L", Kind: "lamp", From: "S", Product: "puck12"})
	assert.False(t, says(w, "device:S:load", "sagging"))
}
