package work_test

import (
	"math"
	"slices"
	"strings"
	"testing"

	"zapbarn/core/circuit"
	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Single values and comparisons that nothing else holds to: each was once
// changed in a trial and no test failed.

// 300 lamps of 20 mA on 12 V 1 A ask 6 A (3 runs of 100, short and thick), not
// what the sagging supply lets through; what it gives is 1.3 times its rating.
func TestDemandIsWhatIsAskedFor(t *testing.T) {
	ds := []plan.Device{
		{ID: "S", Kind: "supply", Volts: vv("12 V"), Amps: aa("1 A")},
		{ID: "W", Kind: "run", From: "S", Gauge: gg("10 AWG"), Length: ln("100 mm")},
	}
	for i := range 300 {
		ds = append(
			ds,
			plan.Device{
				ID:      "L" + string(rune('a'+i%26)) + string(rune('a'+i/26)),
				Kind:    "lamp",
				From:    "W",
				Product: "flicker12",
				Lead:    ln("1 mm"),
			},
		)
	}
	w := wired(t, ds...)
	assert.InDelta(t, 6, w.Demand("S"), .06)
	assert.Equal(t, w.Demand("S"), w.Results().At("device", "S", "load").Value, "ticket and snag read one number")
	assert.InDelta(t, 1.3, w.All().Readings["S"].Amps, .05)
	assert.Equal(t, "overloaded", w.All().Readings["S"].State)
	assert.True(t, says(w, "device:S:load", "sagging"), "what it gives instead is said")
	assert.InDelta(t, 1.3, wiring.ShortAmps(w.Device("S"), shop.Kept), 1e-9)
}

// Two packs side by side suffice when two are said to: what is asked for does
// not grow with the packs.
func TestDemandOfPacks(t *testing.T) {
	pack := func(sets int) *work.Work {
		return wired(
			t,
			plan.Device{ID: "S", Kind: "supply", Cell: "aa", Cells: 3, Sets: sets},
			plan.Device{ID: "P", Kind: "lamp", From: "S", Product: "pixel5", Length: ln("0.5 m"), Bright: 100},
		)
	}
	one, two := pack(1).Demand("S"), pack(2).Demand("S")
	assert.InEpsilon(t, one, two, 1e-3)
}

// A hand switch left off is off, and what hangs behind it has no drop.
func TestSwitchLeftOff(t *testing.T) {
	w := wired(
		t,
		plan.Device{ID: "S", Kind: "supply", Volts: vv("12 V"), Amps: aa("5 A")},
		plan.Device{ID: "K", Kind: "switch", From: "S", Off: true},
		plan.Device{ID: "L", Kind: "lamp", From: "K", Product: "puck12"},
	)
	assert.Equal(t, "dark", w.All().Readings["L"].State)
	assert.Less(t, w.All().Readings["L"].Amps, 1e-6)
	assert.Zero(t, w.All().Readings["L"].Drop)
	w.Device("K").Off = false
	assert.Equal(t, "lit", wired(t, w.Plan.Devices()...).All().Readings["L"].State)
}

// An unplugged supply is an open end, not a short: the one beside it goes on
// alone, and is asked for the lamps, no more.
func TestUnpluggedIsOpen(t *testing.T) {
	w := wired(
		t,
		plan.Device{ID: "S", Kind: "supply", Volts: vv("12 V"), Amps: aa("5 A")},
		plan.Device{ID: "T", Kind: "supply", Volts: vv("12 V"), Amps: aa("5 A")},
		plan.Device{
			ID:     "W",
			Kind:   "run",
			From:   "S",
			Gauge:  gg("16 AWG"),
			Length: ln("1 m"),
			To:     "T",
		},
		plan.Device{ID: "L", Kind: "lamp", From: "W", At: ln("500 mm"), Product: "puck12"},
	)
	both, alone := w.All(), w.Plan.Case(shop.Kept, "without:S")
	assert.InEpsilon(t, both.Readings["L"].Amps, alone.Readings["L"].Amps, .02)
	assert.InEpsilon(t, alone.Readings["L"].Amps, alone.Readings["T"].Amps, .01)
}

// Alkaline cells stiffen in the cold: their own resistance doubles (from
// memory), so the same load sags them twice as far.
func TestColdCellsSag(t *testing.T) {
	w := wired(
		t,
		plan.Device{ID: "S", Kind: "supply", Cell: "aa", Cells: 8},
		plan.Device{ID: "L", Kind: "lamp", From: "S", Product: "bulb12"},
	)
	warm, cold := w.All().Readings["S"], w.Plan.Case(shop.Kept, "cold").Readings["S"]
	inner := circuit.Cells["aa"].Ohms * 8
	assert.InDelta(t, 12-warm.Amps*inner, warm.Volts, 1e-6)
	assert.InDelta(t, 12-cold.Amps*2*inner, cold.Volts, 1e-6)
}

// Of several bottles the newest counts, wherever it stands in the list.
func TestTheNewestBottleCounts(t *testing.T) {
	for _, lots := range [][]plan.Lot{{{ID: "a", Glue: "pva", Opened: "2024-01-01"},
		{ID: "b", Glue: "pva", Opened: "2026-09-10"}}, {{ID: "b", Glue: "pva", Opened: "2026-09-10"},
		{ID: "a", Glue: "pva", Opened: "2024-01-01"}}} {
		p := plan.New("x", "X", "in", "").In(shop.Kept)
		p.Doc().Lots = lots
		w := work.Do(p, shop.Kept, today)
		assert.InDelta(t, 10*86400, w.JointCase(&plan.Joint{Glue: "pva"}).Age, 86400)
	}
}

// A pipe weighs its wall: 10 ft of 1 in schedule 40, OD 1.315 in, wall 0.133 in
// (ASTM D1785), at 1400 kg/m3 is 0.68 lb a foot less its bore, 3.1 kg no more.
func TestPipeWeighsItsWall(t *testing.T) {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	p.Doc().Solids = []plan.Solid{
		{ID: "s", Prop: "a", Name: "S", Kind: "pipe", Stock: "pvc1", Form: form.Pipe{Lengths: "1@120in"}},
	}
	w := work.Do(p, shop.Kept, today)
	od, wall := 1.315*.0254, .133*.0254
	require.InEpsilon(t, math.Pi*(od-wall)*wall*3.048*1400, w.Results().At("solid", "s", "mass").Value, .002)
}

// says is true of a result one of whose steps holds a word.
func says(w *work.Work, result, word string) bool {
	r, _ := w.Results().Get(source.ParseKey(result))
	return slices.ContainsFunc(r.Steps, func(s source.Step) bool { return strings.Contains(s.Formula, word) })
}

// A supply within its rating is not said to sag.
func TestNoSagWhereThereIsNone(t *testing.T) {
	w := wired(
		t,
		plan.Device{ID: "S", Kind: "supply", Volts: vv("12 V"), Amps: aa("5 A")},
		plan.Device{ID: "L", Kind: "lamp", From: "S", Product: "puck12"},
	)
	assert.False(t, says(w, "device:S:load", "sagging"))
}

// Every bound of every field: at it, it stands; a little past it, it is refused
// by the field's name.
func TestBoundsStandWhereTheyAre(t *testing.T) {
	sec := func(s string) measure.Duration { return measure.Must[measure.DurationKind](s) }
	base := func() *plan.Plan {
		p := plan.New("x", "X", "in", "").In(shop.Kept)
		p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
		p.Doc().Solids = []plan.Solid{
			{
				ID:    "s",
				Prop:  "a",
				Name:  "S",
				Kind:  "panel",
				Stock: "ply1/4",
				Seam:  "butt",
				Form:  form.Panel{W: ln("500 mm"), H: ln("500 mm")},
			},
		}
		p.Doc().Joints = []plan.Joint{{ID: "j", Prop: "a", A: "s", B: "=pet", Glue: "pu"}}
		p.Doc().Finishes = []plan.Finish{{ID: "s", Solid: "s", Layers: []plan.Layer{{Coat: "latex", Coats: 1}}}}
		p.Doc().Devices = []plan.Device{
			{ID: "S", Prop: "a", Name: "S", Kind: "supply", Volts: vv("12 V"), Amps: aa("1 A")},
			{ID: "K", Prop: "a", Name: "K", Kind: "switch", From: "S", Driven: true},
		}
		p.Doc().Inputs = []plan.Input{{ID: "i", Prop: "a", Name: "I", Kind: "mat"}}
		p.Doc().Scenes = []plan.Scene{{ID: "c", Prop: "a", Name: "C", Cues: []plan.Cue{{Channel: "K", Length: sec("1 s")}}}}
		p.Doc().Triggers = []plan.Trigger{{ID: "t", Input: "i", Scene: "c", Latch: "toggle"}}
		p.Doc().Offcuts = []plan.Offcut{{ID: "o", Stock: "xps1", W: ln("100 mm"), H: ln("100 mm")}}
		return p
	}
	require.NoError(t, base().Validate())
	for field, c := range map[string]struct{ good, bad func(*plan.Plan) }{
		"known": {func(p *plan.Plan) { p.Props()[0].Known = ln("30 m") },
			func(p *plan.Plan) { p.Props()[0].Known = ln("30.1 m") }},
		"known ": {func(p *plan.Plan) { p.Props()[0].Known = ln("10 mm") },
			func(p *plan.Plan) { p.Props()[0].Known = ln("9 mm") }},
		"x": {func(p *plan.Plan) { p.Solids()[0].X = ln("-30 m") },
			func(p *plan.Plan) { p.Solids()[0].X = ln("-30.1 m") }},
		"seamAt": {func(p *plan.Plan) { p.Solids()[0].SeamAt = ln("30 m") },
			func(p *plan.Plan) { p.Solids()[0].SeamAt = ln("30.1 m") }},
		"lap": {func(p *plan.Plan) { p.Solids()[0].Lap = ln("5 mm") },
			func(p *plan.Plan) { p.Solids()[0].Lap = ln("4.9 mm") }},
		"lap ": {func(p *plan.Plan) { p.Solids()[0].Lap = ln("1 m") },
			func(p *plan.Plan) { p.Solids()[0].Lap = ln("1.01 m") }},
		"length": {func(p *plan.Plan) { p.Joints()[0].Length = ln("1000 m") },
			func(p *plan.Plan) { p.Joints()[0].Length = ln("1001 m") }},
		"layers": {func(p *plan.Plan) { p.Finishes()[0].Layers[0].Coats = 20 },
			func(p *plan.Plan) { p.Finishes()[0].Layers[0].Coats = 21 }},
		"layers ": {func(p *plan.Plan) { p.Finishes()[0].Layers[0].Coats = 1 },
			func(p *plan.Plan) { p.Finishes()[0].Layers[0].Coats = 0 }},
		"minPulse": {func(p *plan.Plan) { p.Inputs()[0].MinPulse = sec("60 s") },
			func(p *plan.Plan) { p.Inputs()[0].MinPulse = sec("61 s") }},
		"holdOff": {func(p *plan.Plan) { p.Inputs()[0].HoldOff = sec("24 h") },
			func(p *plan.Plan) { p.Inputs()[0].HoldOff = sec("25 h") }},
		"length ": {func(p *plan.Plan) { p.Scenes()[0].Length = sec("24 h") },
			func(p *plan.Plan) { p.Scenes()[0].Length = sec("25 h") }},
		"cues": {func(p *plan.Plan) { p.Scenes()[0].Cues[0].Start = sec("24 h") },
			func(p *plan.Plan) { p.Scenes()[0].Cues[0].Start = sec("25 h") }},
		"cues ": {func(p *plan.Plan) { p.Scenes()[0].Cues[0].Length = sec("24 h") },
			func(p *plan.Plan) { p.Scenes()[0].Cues[0].Length = sec("0 s") }},
		"rest": {func(p *plan.Plan) { p.Triggers()[0].Rest = sec("24 h") },
			func(p *plan.Plan) { p.Triggers()[0].Rest = sec("25 h") }},
		"w": {func(p *plan.Plan) { p.Offcuts()[0].W = ln("20 mm") },
			func(p *plan.Plan) { p.Offcuts()[0].W = ln("19 mm") }},
		"h": {func(p *plan.Plan) { p.Offcuts()[0].H = ln("10 m") },
			func(p *plan.Plan) { p.Offcuts()[0].H = ln("10.1 m") }},
		"amps": {func(p *plan.Plan) { p.Doc().Readings = []plan.Reading{{ID: "r", Device: "S", Amps: aa("200 A")}} },
			func(p *plan.Plan) { p.Doc().Readings = []plan.Reading{{ID: "r", Device: "S", Amps: aa("201 A")}} }},
		"volts": {func(p *plan.Plan) { p.Doc().Readings = []plan.Reading{{ID: "r", Device: "S", Volts: vv("-60 V")}} },
			func(p *plan.Plan) { p.Doc().Readings = []plan.Reading{{ID: "r", Device: "S", Volts: vv("61 V")}} }},
		"rating": {func(p *plan.Plan) {
			p.Doc().Devices = append(p.Devices(), plan.Device{ID: "F", Prop: "a", Name: "F", Kind: "fuse", From: "S",
				Rating: aa("0.01 A")})
		}, func(p *plan.Plan) {
			p.Doc().Devices = append(p.Devices(), plan.Device{ID: "F", Prop: "a", Name: "F", Kind: "fuse", From: "S"})
		}},
		"rh": {func(p *plan.Plan) { p.Doc().Display.RH = 100 }, func(p *plan.Plan) { p.Doc().Display.RH = 101 }},
		"temp": {func(p *plan.Plan) { p.Doc().Display.Temp = measure.Must[measure.CelsiusKind]("60 C") },
			func(p *plan.Plan) { p.Doc().Display.Temp = measure.Must[measure.CelsiusKind]("61 C") }},
		"temp ": {func(p *plan.Plan) { p.Doc().Display.Temp = measure.Must[measure.CelsiusKind]("-30 C") },
			func(p *plan.Plan) { p.Doc().Display.Temp = measure.Must[measure.CelsiusKind]("-31 C") }},
		"nights":  {func(p *plan.Plan) { p.Doc().Display.Nights = 366 }, func(p *plan.Plan) { p.Doc().Display.Nights = 367 }},
		"nights ": {func(p *plan.Plan) { p.Doc().Display.Duty = 100 }, func(p *plan.Plan) { p.Doc().Display.Duty = 101 }},
		"night": {func(p *plan.Plan) { p.Doc().Display.Night = sec("24 h") },
			func(p *plan.Plan) { p.Doc().Display.Night = sec("25 h") }},
		"kerf": {func(p *plan.Plan) { p.Doc().Display.Kerf = ln("25 mm") },
			func(p *plan.Plan) { p.Doc().Display.Kerf = ln("26 mm") }},
		"margin": {func(p *plan.Plan) { p.Doc().Display.Margin = ln("200 mm") },
			func(p *plan.Plan) { p.Doc().Display.Margin = ln("201 mm") }},
	} {
		p := base()
		c.good(p)
		assert.NoError(t, p.Validate(), field)
		p = base()
		c.bad(p)
		var f *measure.FieldError
		require.ErrorAs(t, p.Validate(), &f, field)
		assert.Equal(t, strings.TrimSpace(field), f.Field)
	}
}
