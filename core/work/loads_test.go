package work_test

import (
	"math"
	"testing"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var (
	ln = measure.Len
	gg = measure.Must[measure.GaugeKind]
	vv = measure.Must[measure.VoltKind]
	aa = measure.Must[measure.AmpKind]
	oo = measure.Must[measure.OhmKind]
)

// wired is one prop with these devices, valid and worked out.
func wired(t *testing.T, devices ...plan.Device) *work.Work {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	for _, d := range devices {
		d.Prop = "a"
		if d.Name == "" {
			d.Name = d.ID
		}
		p.Doc().Devices = append(p.Devices(), d)
	}
	require.NoError(t, p.Validate())
	return work.Do(p, shop.Kept, today)
}

// Closed forms of a uniformly loaded strip on a stiff feed (published): the
// deepest point loses I R/2 fed at one end, a quarter of that at both ends or
// in the middle, and I R/(2 n^2) with its n feeds at the middle of n equal
// parts times 1/4 each side: I R / (8 n^2).
func TestFeedsAlongAStrip(t *testing.T) {
	drop := func(feeds string) float64 {
		w := wired(
			t,
			plan.Device{ID: "S", Kind: "supply", Volts: vv("5 V"), Amps: aa("60 A")},
			plan.Device{
				ID:     "W",
				Kind:   "run",
				From:   "S",
				Gauge:  measure.Of[measure.GaugeKind](5000),
				Length: ln("1 mm"),
			},
			plan.Device{
				ID:      "P",
				Kind:    "lamp",
				From:    "W",
				Product: "pixel5",
				Length:  ln("2 m"),
				Bright:  20,
				Feeds:   feeds,
				Lead:    ln("1 mm"),
				Gauge:   measure.Of[measure.GaugeKind](5000),
			},
		)
		g := w.All().Readings["P"]
		assert.Equal(t, "lit", g.State)
		return w.All().Readings["W"].Volts - math.Min(g.Volts, g.FarVolt)
	}
	l := stock.Shop.Lamps["pixel5"]
	amps := 120 * (l.Idle + (l.Amps-l.Idle)*.2)
	whole := amps * 2 * l.Copper * 2 / 2 // both rails, 2 m
	for feeds, share := range map[string]float64{"": 1, "0%": 1, "100%": 1, "50%": 1. / 4, "0% 100%": 1. / 4,
		"25% 75%": 1. / 16, "0% 50% 100%": 1. / 16, "12.5% 37.5% 62.5% 87.5%": 1. / 64} {
		assert.InDelta(t, whole*share, drop(feeds), .03*whole*share+.002, feeds)
	}
	for text, why := range map[string]string{"0% 120%": "no place along", "x": "no place along", "50% 50%": "twice",
		"0 1 2 3 4 5 6 7 8": "at most 8"} {
		_, err := wiring.ParseFeeds(text)
		assert.ErrorContains(t, err, why)
	}
	got, err := wiring.ParseFeeds("50%, 0")
	require.NoError(t, err)
	assert.Equal(t, "0% 50%", wiring.FeedsText(got))
}

// Closed form: a run with its load spread evenly loses a quarter when its
// supply is slid to its middle.
func TestSupplySlidAlongItsRun(t *testing.T) {
	worst := func(fed string) (float64, *work.Work) {
		ds := []plan.Device{{ID: "S", Kind: "supply", Volts: vv("12 V"), Amps: aa("100 A")},
			{ID: "W", Kind: "run", From: "S", Gauge: gg("16 AWG"), Length: ln("20 m"), FedAt: ln(fed)}}
		for i := range 40 {
			ds = append(
				ds,
				plan.Device{
					ID:      "L" + string(rune('A'+i)),
					Kind:    "lamp",
					From:    "W",
					At:      ln(measure.Run(500*(float64(i)+.5), true)),
					Product: "flicker12",
					Lead:    ln("1 mm"),
				},
			)
		}
		w := wired(t, ds...)
		most := 0.0
		for _, d := range w.Plan.Devices() {
			if d.Kind == "lamp" {
				most = math.Max(most, 12-w.All().Readings[d.ID].Volts)
			}
		}
		return most, w
	}
	end, _ := worst("0 m")
	mid, w := worst("10 m")
	assert.InEpsilon(t, .25, mid/end, .08) // the lamps give in a little where they see less
	at, v := w.Rig().Profile(w.All(), "W")
	assert.InDelta(t, 20000, at[len(at)-1], 1)
	assert.Greater(t, v[len(v)/2], v[0]+.03, "highest where it is fed")
	assert.InDelta(t, v[0], v[len(v)-1], .01)
	bad := w.Plan.Clone()
	bad.Devices()[1].FedAt = ln("21 m")
	assert.ErrorContains(t, bad.Validate(), "past the end")
}

// A motor turns against its load with a steady current, and is its winding
// alone when it stands: V / R at the start (direct-current motor, textbook).
func TestMotorRunsAndStarts(t *testing.T) {
	w := wired(t, plan.Device{ID: "S", Kind: "supply", Volts: vv("12 V"), Amps: aa("50 A")},
		plan.Device{ID: "W", Kind: "run", From: "S", Gauge: gg("16 AWG"), Length: ln("10 ft")},
		plan.Device{ID: "M", Kind: "lamp", From: "W", Product: "motor12"},
		plan.Device{ID: "V", Kind: "lamp", From: "W", Product: "servo5", Reversed: true})
	g := w.All().Readings["M"]
	assert.InDelta(t, 1.5, g.Amps, .001)
	assert.InDelta(t, (g.Volts-3)/9, g.Lit, 1e-9, "speed: what is left over its 2 ohm winding")
	start := w.Plan.Case(shop.Kept, "start").Readings["M"]
	assert.InEpsilon(t, start.Volts/2, start.Amps, 1e-6)
	assert.Greater(t, start.Amps, 5.)
	assert.InDelta(t, 1.5, w.Plan.Case(shop.Kept, "all").Readings["M"].Amps, .001, "and runs again")
	v := w.Plan.Clone()
	v.Device("V").Reversed, v.Device("S").Volts = false, vv("5 V")
	sw := work.Do(v, shop.Kept, today)
	assert.InDelta(t, .5, sw.All().Readings["V"].Amps, .001, "a servo moving")
	assert.InDelta(t, .01, sw.Rest().Readings["V"].Amps, .001, "and holding still when scenes are off")
	assert.InDelta(t, .25*sw.All().Readings["S"].Amps+.75*sw.Rest().Readings["S"].Amps, sw.Night("S"), 1e-9)
	back := w.Plan.Clone()
	back.Device("M").Reversed = true
	assert.InDelta(t, 1.5, work.Do(back, shop.Kept, today).All().Readings["M"].Amps, .001, "backwards, as hard")
}

// Closed form of a screen's constant power behind R ohms, as of a converter.
func TestScreenDrawsTheSamePower(t *testing.T) {
	w := wired(t, plan.Device{ID: "S", Kind: "supply", Product: "ps12-5"},
		plan.Device{ID: "W", Kind: "run", From: "S", Gauge: gg("22 AWG"), Length: ln("30 ft")},
		plan.Device{ID: "D", Kind: "lamp", From: "W", Product: "screen12", Lead: ln("1 mm")})
	r := stock.SupplyResistance(12, 5) + 2*stock.CopperOhmsPerMetre(
		measure.AWGArea(22),
		21,
	)*30*.3048 + 2*stock.CopperOhmsPerMetre(measure.AWGArea(20), 21)*.001
	assert.InEpsilon(t, (12-math.Sqrt(144-4*r*15))/2/r, w.All().Readings["D"].Amps, 1e-5)
	assert.InEpsilon(t, 15, w.All().Readings["D"].Watts, 1e-5)
	assert.Equal(t, "lit", w.All().Readings["D"].State)
	long := w.Plan.Clone()
	long.Device("W").Length, long.Device("W").Gauge = ln("60 ft"), gg("26 AWG")
	assert.NotEqual(t, "lit", work.Do(long, shop.Kept, today).All().Readings["D"].State, "below its 10 V it goes off")
}

// A connector loses I R in both its contacts, a self-resetting fuse 0.3 V at
// its rating (from memory), a controller draws its board's current.
func TestConnectorAndSmallParts(t *testing.T) {
	w := wired(t, plan.Device{ID: "S", Kind: "supply", Volts: vv("12 V"), Amps: aa("5 A")},
		plan.Device{ID: "F", Kind: "fuse", From: "S", Rating: aa("1 A"), Poly: true},
		plan.Device{ID: "X", Kind: "connector", From: "F", Resistor: oo("0.5 ohm")},
		plan.Device{ID: "L", Kind: "lamp", From: "X", Product: "bulb12"},
		plan.Device{ID: "C", Kind: "controller", From: "S", Volts: vv("12 V"), Amps: aa("150 mA")})
	r := w.All().Readings
	assert.InDelta(t, r["L"].Amps*1, r["F"].Volts-r["X"].Volts, 1e-6)
	assert.InDelta(t, .3*r["L"].Amps, r["S"].Volts-r["F"].Volts, 1e-6)
	assert.InDelta(t, .15, r["C"].Amps, 1e-6)
	assert.Equal(t, "ok", r["C"].State)
	assert.InDelta(t, r["L"].Amps+.15, r["S"].Amps, 1e-6)
}

// Grounds float apart until a ground lies beside the data wire.
func TestCommonGround(t *testing.T) {
	ds := []plan.Device{{ID: "S1", Kind: "supply", Product: "ps5-4"}, {ID: "S2", Kind: "supply", Product: "ps5-10"},
		{ID: "C", Kind: "controller", From: "S1"},
		{ID: "P", Kind: "lamp", From: "S2", Product: "pixel5", Length: ln("1 m"), Data: "C", DataLead: ln("6 ft")},
		{ID: "Q", Kind: "lamp", From: "S2", Product: "pixel5", Length: ln("1 m"), Data: "P"}}
	w := wired(t, ds...)
	assert.False(t, w.Rig().Joined("C", "P"))
	assert.True(t, w.Rig().Joined("P", "Q"))
	ds[3].Common = true
	w = wired(t, ds...)
	assert.True(t, w.Rig().Joined("C", "P"))
	assert.Equal(t, "S2", w.Rig().Supply("P"), "its feed stays its feed")
	for text, f := range map[string]func(p *plan.Plan){
		"circle":   func(p *plan.Plan) { p.Device("P").Data = "Q" },
		"no data":  func(p *plan.Plan) { p.Device("P").Data = "S1" },
		"no devic": func(p *plan.Plan) { p.Device("P").Data = "nobody" },
	} {
		bad := w.Plan.Clone()
		f(bad)
		assert.ErrorContains(t, bad.Validate(), text)
	}
}

func TestPathOfAWire(t *testing.T) {
	c, err := wiring.ParsePath("0,0,4 20,0,4; 20,-3,8", false)
	require.NoError(t, err)
	assert.InDelta(t, 25*measure.Inch, wiring.PathLength(c), 1e-9) // 20, then 3-4-5
	c, err = wiring.ParsePath("0,0,0 300,400,0 mm", false)
	require.NoError(t, err)
	assert.InDelta(t, 500, wiring.PathLength(c), 1e-9)
	for _, text := range []string{"1,2,3", "1,2 3,4", "a,b,c 1,2,3", "1,2,3 9e9,1,1"} {
		_, err := wiring.ParsePath(text, false)
		assert.ErrorContains(t, err, "path", text)
	}
	w := wired(
		t,
		plan.Device{ID: "S", Kind: "supply", Product: "ps12-1"},
		plan.Device{
			ID:     "W",
			Kind:   "run",
			From:   "S",
			Gauge:  gg("22 AWG"),
			Length: ln("25 in"),
			Path:   "0,0,4 20,0,4 20,-3,8",
		},
	)
	assert.InDelta(t, 25*measure.Inch*1.05, w.Plan.Device("W").PathNeeds(w.Plan.Metric()), 1e-6)
}

// A controller taken away leaves its pixels, with no data; a supply taken away
// takes what it feeds, as ever; both come back.
func TestControllerTakenAway(t *testing.T) {
	w := wired(
		t,
		plan.Device{ID: "S", Kind: "supply", Product: "ps5-4"},
		plan.Device{ID: "T", Kind: "supply", Product: "ps5-4"},
		plan.Device{ID: "U", Kind: "controller", From: "T"},
		plan.Device{ID: "P", Kind: "lamp", From: "S", Product: "pixel5", Length: ln("1 m"), Data: "U", Pin: 4},
		plan.Device{ID: "Q", Kind: "lamp", From: "S", Product: "pixel5", Length: ln("1 m"), Data: "P"},
	)
	for take, stay := range map[string][]string{"U": {"S", "T", "P", "Q"}, "T": {"S", "P", "Q"}, "P": {"S", "T", "U", "Q"},
		"S": {"T", "U"}} {
		e := w.Plan.Without("device", take)
		q, err := w.Plan.Apply(e)
		require.NoError(t, err, take)
		var left []string
		for _, d := range q.Devices() {
			left = append(left, d.ID)
			assert.NotEqual(t, take, d.Data)
		}
		assert.ElementsMatch(t, stay, left, "without %s", take)
		back, err := q.Apply(e.Inverse())
		require.NoError(t, err)
		assert.Equal(t, string(w.Plan.Encode()), string(back.Encode()), "and back")
	}
}

func FuzzFeeds(f *testing.F) {
	for _, s := range []string{"", "0% 50%", "12.5%, 37.5%", "100", "x", "-1%", "0% 0%", "NaN%"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		got, err := wiring.ParseFeeds(s)
		if err != nil {
			return
		}
		last := -1.0
		for _, x := range got {
			if !(x > last && x >= 0 && x <= 1) {
				t.Fatalf("%q gives %v", s, got)
			}
			last = x
		}
		if again, err := wiring.ParseFeeds(wiring.FeedsText(got)); err != nil && len(got) < 2 || len(again) > len(got) {
			t.Fatalf("%q reads back as %v, %v", s, again, err)
		}
	})
}

func FuzzPath(f *testing.F) {
	for _, s := range []string{"0,0,4 20,0,4", "1,2,3", "0,0,0 1e5,0,0 mm", ";;", "1,1,1 2,2,2 in", "NaN,0,0 1,1,1"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		c, err := wiring.ParsePath(s, true)
		if l := wiring.PathLength(c); err == nil && !(l >= 0 && l < 60*2*60000) {
			t.Fatalf("%q is %g mm long", s, l)
		}
	})
}

// A sensor takes its few milliamperes and sees while it has its least volts; below
// them it is blind. By hand: 15 mA at 12 V over 100 m of 28 AWG, both ways, and on 5 V.
func TestSensorsSeeOrAreBlind(t *testing.T) {
	state := func(v string) wiring.Operating {
		w := wired(
			t,
			plan.Device{ID: "S", Kind: "supply", Volts: vv(v), Amps: aa("1 A")},
			plan.Device{ID: "R", Kind: "lamp", From: "S", Product: "remote12"},
		)
		return w.All().Readings["R"]
	}
	good := state("12 V")
	assert.Equal(t, "lit", good.State)
	assert.InDelta(t, .015, good.Amps, .0005)
	assert.NotEqual(t, "lit", state("5 V").State)
	w := wired(
		t,
		plan.Device{ID: "S", Kind: "supply", Cell: "li11", Cells: 1},
		plan.Device{ID: "M", Kind: "lamp", From: "S", Product: "wiper12"},
	)
	assert.InDelta(t, 4, w.All().Readings["M"].Amps, .4, "a motor takes what its load takes")
	assert.InDelta(t, 11.1-4*.06, w.All().Readings["M"].Volts, .15, "the pack's own resistance")
}

// Whatever a lamp of the shop is said to take, within what its field accepts, the
// network has a solution: a LED of an ampere once gave no number at all, and the
// page with it.
func TestEveryLampSolvesAtAnyCurrent(t *testing.T) {
	for _, id := range stock.IDs(stock.Shop.Lamps) {
		for _, amps := range []string{"", "1 mA", "20 mA", "350 mA", "1 A", "5 A", "40 A", "200 A"} {
			for _, volts := range []string{"", "1.5 V", "12 V", "48 V"} {
				p := plan.New("x", "X", "in", "").In(shop.Kept)
				p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
				d := plan.Device{ID: "L", Prop: "a", Kind: "lamp", Name: "L", From: "S", Product: id}
				if amps != "" {
					d.Amps = aa(amps)
				}
				if volts != "" {
					d.Volts = vv(volts)
				}
				p.Doc().Devices = []plan.Device{{ID: "S", Prop: "a", Kind: "supply", Name: "S", Product: "ps12-5"}, d}
				if p.Validate() != nil {
					continue // refused by its field
				}
				w := work.Do(p, shop.Kept, today)
				for _, g := range w.All().Readings {
					for _, v := range []float64{g.Volts, g.Amps, g.Drop, g.Lit} {
						require.False(t, math.IsNaN(v) || math.IsInf(v, 0), "%s of %s, %s: %+v", id, amps, volts, g)
					}
				}
			}
		}
	}
}
