package wiring

import (
	"math"
	"testing"

	"zapbarn/core/measure"
	"zapbarn/core/stock"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func volts(s string) measure.Voltage       { return measure.Must[measure.VoltKind](s) }
func amps(s string) measure.Current        { return measure.Must[measure.AmpKind](s) }
func length(s string) measure.Length       { return measure.Len(s) }
func gauge(s string) measure.Gauge         { return measure.Must[measure.GaugeKind](s) }
func ohms(s string) measure.Resistance     { return measure.Must[measure.OhmKind](s) }
func lasting(s string) measure.Duration    { return measure.Must[measure.DurationKind](s) }
func set(devices ...Device) Set            { return Set{Devices: devices, Lib: stock.Shop, Temp: 20} }
func near(t *testing.T, want, got float64) { t.Helper(); assert.InEpsilon(t, want, got, 1e-6) }

// one is a device of each kind that may be as it is.
var one = map[string]Device{
	"supply":     {ID: "S1", Name: "S1", Kind: "supply", Volts: volts("12 V"), Amps: amps("5 A")},
	"converter":  {ID: "C1", Name: "C1", Kind: "converter", From: "S1", Volts: volts("5 V"), Amps: amps("3 A")},
	"fuse":       {ID: "F1", Name: "F1", Kind: "fuse", From: "S1", Rating: amps("3 A")},
	"switch":     {ID: "K1", Name: "K1", Kind: "switch", From: "S1"},
	"run":        {ID: "W1", Name: "W1", Kind: "run", From: "S1", Gauge: gauge("18 AWG"), Length: length("12 ft")},
	"connector":  {ID: "X1", Name: "X1", Kind: "connector", From: "S1"},
	"controller": {ID: "B1", Name: "B1", Kind: "controller", From: "S1"},
	"lamp":       {ID: "L1", Name: "L1", Kind: "lamp", From: "S1", Product: "puck12"},
}

// What a device may be ends where it should: the last value that is allowed, and the first that
// is not.
func TestLimitsOfDevices(t *testing.T) {
	for name, d := range one {
		require.NoError(t, d.Valid(set()), name)
	}
	for _, c := range []struct {
		kind      string
		last, not func(d *Device)
		field     string
	}{
		{"supply", func(d *Device) { d.Volts = volts("60 V") }, func(d *Device) { d.Volts = volts("60.1 V") }, "volts"},
		{"supply", func(d *Device) { d.Amps = amps("200 A") }, func(d *Device) { d.Amps = amps("201 A") }, "amps"},
		{"fuse", func(d *Device) { d.Rating = amps("200 A") }, func(d *Device) { d.Rating = amps("201 A") }, "rating"},
		{"fuse", func(d *Device) {}, func(d *Device) { d.Rating = measure.Current{} }, "rating"},
		{"run", func(d *Device) { d.Length = length("300 m") }, func(d *Device) { d.Length = length("301 m") }, "length"},
		{"run", func(d *Device) { d.Length = length("1 mm") }, func(d *Device) { d.Length = length("0.5 mm") }, "length"},
		{"run", func(d *Device) {}, func(d *Device) { d.Length = measure.Length{} }, "length"},
		{"run", func(d *Device) {}, func(d *Device) { d.Gauge = measure.Gauge{} }, "gauge"},
		{"run", func(d *Device) { d.Back = length("300 m") }, func(d *Device) { d.Back = length("301 m") }, "back"},
		{"run", func(d *Device) { d.FedAt = length("300 m") }, func(d *Device) { d.FedAt = length("301 m") }, "fedAt"},
		{"run", func(d *Device) { d.Path = "0,0,0 10,0,0" }, func(d *Device) { d.Path = "0,0" }, "path"},
		{"lamp", func(d *Device) { d.Lead = length("300 m") }, func(d *Device) { d.Lead = length("301 m") }, "lead"},
		{"lamp", func(d *Device) { d.Need = length("300 m") }, func(d *Device) { d.Need = length("301 m") }, "need"},
		{"lamp", func(d *Device) { d.Extension = length("300 m") }, func(d *Device) { d.Extension = length("301 m") },
			"extension"},
		{"lamp", func(d *Device) { d.At = length("300 m") }, func(d *Device) { d.At = length("301 m") }, "at"},
		{"lamp", func(d *Device) { d.Bright = 100 }, func(d *Device) { d.Bright = 101 }, "row"},
		{"lamp", func(d *Device) { d.Row = 100 }, func(d *Device) { d.Row = 101 }, "row"},
		{"lamp", func(d *Device) {}, func(d *Device) { d.Product = "sun" }, "product"},
		{"lamp", func(d *Device) { d.Feeds = "0% 50%" }, func(d *Device) { d.Feeds = "50% 50%" }, "feeds"},
		{"switch", func(d *Device) { d.Longest = lasting("24 h") }, func(d *Device) { d.Longest = lasting("25 h") },
			"longest"},
		{"switch", func(d *Device) { d.Never = "K2" }, func(d *Device) { d.Never = "K1" }, "never"},
		{"switch", func(d *Device) { d.Wins = "latest" }, func(d *Device) { d.Wins = "loudest" }, "wins"},
		{"connector", func(d *Device) { d.Resistor = ohms("100 ohm") },
			func(d *Device) { d.Resistor = ohms("101 ohm") }, "resistor"},
		{"controller", func(d *Device) { d.Logic = volts("12 V") }, func(d *Device) { d.Logic = volts("12.1 V") }, "logic"},
		{"controller", func(d *Device) { d.Logic = volts("1 V") }, func(d *Device) { d.Logic = volts("0.9 V") }, "logic"},
		{"converter", func(d *Device) {}, func(d *Device) { d.Amps = measure.Current{} }, "volts"},
	} {
		d := one[c.kind]
		c.last(&d)
		assert.NoError(t, d.Valid(set()), "%s %s", c.kind, c.field)
		d = one[c.kind]
		c.not(&d)
		var at *measure.FieldError
		if assert.ErrorAs(t, d.Valid(set()), &at, "%s %s", c.kind, c.field) {
			assert.Equal(t, c.field, at.Field, c.kind)
		}
	}
}

// Each kind is asked for by its role alone, and has one; a channel is a switch that scenes drive.
func TestRoles(t *testing.T) {
	seen := Role(0)
	for _, name := range Names() {
		d := one[name]
		is := 0
		for r := Origin; r <= Connector; r <<= 1 {
			if d.Is(r) {
				is++
				assert.Zero(t, seen&r, "%s has a role of its own", name)
				seen |= r
			}
		}
		assert.Equal(t, 1, is, name)
	}
	k := one["switch"]
	assert.False(t, k.Channel())
	k.Driven = true
	assert.True(t, k.Channel())
	l := one["lamp"]
	l.Driven = true
	assert.False(t, l.Channel())
	s, c := one["supply"], one["converter"]
	assert.True(t, s.Is(Source) && c.Is(Source))
	assert.False(t, (&Device{Kind: "unknown"}).Is(^Role(0)))
}

// A lamp of constant resistance behind a run, a fuse and a contact, by Ohm's law: what each drops,
// and what a short draws. 18 AWG: 6.385 ohm a 1,000 ft at 20 C (ASTM B258, copper of 100 % IACS).
func TestAWayByOhmsLaw(t *testing.T) {
	lib := *stock.Shop
	lib.Lamps = map[string]stock.Lamp{"heater": {ID: "heater", Name: "Heater", Kind: "resistive", Volts: 12, Amps: 2,
		LeadGauge: gauge("18 AWG")}}
	run, fuse, k := one["run"], one["fuse"], one["switch"]
	run.Length = length("50 ft")
	fuse.From, k.From = "W1", "F1"
	lamp := Device{ID: "L1", Name: "L1", Kind: "lamp", From: "K1", Product: "heater"}
	r := NewRig(Set{Devices: []Device{one["supply"], run, fuse, k, lamp}, Lib: &lib, Temp: 20})
	st := r.Solve(nil)
	inside := stock.SupplyResistance(12, 5)
	wire := 2 * 50 * 6.385 / 1000
	i := 12 / (inside + wire + .1/3 + .010 + 6)
	assert.InEpsilon(t, i, st.Readings["L1"].Amps, 1e-4)
	assert.InEpsilon(t, 12-i*inside, st.Readings["S1"].Volts, 1e-3)
	assert.InEpsilon(t, i*6, st.Readings["L1"].Volts, 1e-3)
	assert.InEpsilon(t, 12-i*6, st.Readings["L1"].Drop, 1e-2)
	assert.Equal(t, "S1", r.Supply("L1"))
	assert.True(t, r.Joined("L1", "S1"))
	off := r.Solve(map[string]bool{})
	assert.NotEqual(t, "dark", off.Readings["L1"].State, "a hand switch stays as it was left")
	k.Off = true
	dark := NewRig(Set{Devices: []Device{one["supply"], run, fuse, k, lamp}, Lib: &lib, Temp: 20}).Solve(nil)
	assert.Equal(t, "dark", dark.Readings["L1"].State)
	s := one["supply"]
	near(t, 1.3*5, ShortAmps(&s, stock.Shop))
	cells := Device{ID: "B", Name: "B", Kind: "supply", Cell: "aa", Cells: 4}
	v, _ := SupplyOf(&cells, stock.Shop)
	near(t, v/SourceOhms(&cells, v, 1), ShortAmps(&cells, stock.Shop))
}

// A converter draws what it gives over its efficiency, gives nothing when it sees too little, and
// a lamp behind it is judged by its volts.
func TestAConverterKeepsEnergy(t *testing.T) {
	lib := *stock.Shop
	lib.Lamps = map[string]stock.Lamp{"heater": {ID: "heater", Name: "Heater", Kind: "resistive", Volts: 5, Amps: 1,
		LeadGauge: gauge("18 AWG")}}
	lamp := Device{ID: "L1", Name: "L1", Kind: "lamp", From: "C1", Product: "heater"}
	solve := func(v string) (*Rig, *State) {
		s := one["supply"]
		s.Volts = volts(v)
		r := NewRig(Set{Devices: []Device{s, one["converter"], lamp}, Lib: &lib, Temp: 20})
		return r, r.Solve(nil)
	}
	r, st := solve("12 V")
	g := st.Readings["C1"]
	watts, sees := r.Draws(st, "C1")
	assert.InEpsilon(t, g.Volts*g.Amps/.88, watts, 1e-4)
	assert.InEpsilon(t, watts/sees, st.Readings["S1"].Amps, 1e-4)
	assert.Equal(t, "C1", r.Supply("L1"))
	_, st = solve("6.5 V")
	assert.Positive(t, st.Readings["C1"].Volts, "a volt above what it gives is enough")
	_, st = solve("5.5 V")
	assert.Equal(t, "starved", st.Readings["C1"].State)
	assert.Zero(t, st.Readings["C1"].Amps)
}

// What devices take: a pair of wires by its copper (8.89 g/cm3) and its price, everything else by
// the piece.
func TestBills(t *testing.T) {
	run := one["run"]
	b := BillOf(&run, stock.Shop)
	mm2, m := run.Gauge.Value(), 12*.3048
	near(t, 2*mm2*m*8.89, b.Copper)
	near(t, m*(.2+.5*mm2), b.Money)
	run.Back = length("12 ft")
	near(t, 2*b.Money, BillOf(&run, stock.Shop).Money)
	for kind, money := range map[string]float64{"fuse": 2, "switch": 3, "connector": 1, "controller": 8, "converter": 6} {
		d := one[kind]
		near(t, money, BillOf(&d, stock.Shop).Money)
	}
	own := Device{Kind: "supply", Volts: volts("9 V"), Amps: amps("7 A")}
	near(t, 6+.2*63, BillOf(&own, stock.Shop).Money)
}

// Strips one after the other are numbered on; two on one pin show the same.
func TestChainsAreNumberedOn(t *testing.T) {
	product := ""
	for _, id := range stock.IDs(stock.Shop.Lamps) {
		if l := stock.Shop.Lamps[id]; product == "" && l.Kind == "pixels" && l.Columns == 0 {
			product = id
		}
	}
	pixel := func(id, data string) Device {
		return Device{ID: id, Name: id, Prop: "p", Kind: "lamp", Product: product, Length: length("1 m"), Data: data, Pin: 3}
	}
	b := one["controller"]
	first := pixel("A", "B1")
	n := Segments(&first, stock.Shop)
	require.Greater(t, n, 1)
	chains := set(b, first, pixel("B", "A"), pixel("C", "B1")).Chains("p")
	require.Len(t, chains, 2)
	assert.Equal(t, []ChainStrip{{"A", "A", 1, n, measure.Length{}}, {"B", "B", n + 1, 2 * n, measure.Length{}}},
		chains[0].Strips)
	assert.Equal(t, 2*n, chains[0].Pixels)
	assert.Equal(t, []string{"C"}, chains[0].Copies)
	assert.Equal(t, []string{"A"}, chains[1].Copies)
	assert.Greater(t, chains[1].Rate, chains[0].Rate, "half the pixels are shown more often")
	assert.Empty(t, set(b, first).Chains("elsewhere"))
}

// Feeds along a strip are read back as they are written, at most eight, none twice.
func TestFeedsAreReadBack(t *testing.T) {
	f, err := ParseFeeds("100%, 0 50%")
	require.NoError(t, err)
	assert.Equal(t, []float64{0, .5, 1}, f)
	assert.Equal(t, "0% 50% 100%", FeedsText(f))
	f, _ = ParseFeeds("")
	assert.Equal(t, []float64{0}, f)
	_, err = ParseFeeds("0 1 2 3 4 5 6 7")
	assert.NoError(t, err)
	for _, bad := range []string{"0 1 2 3 4 5 6 7 8", "101%", "-1%", "5 5", "half"} {
		_, err := ParseFeeds(bad)
		assert.Error(t, err, bad)
	}
}

// A path is as long as its straight pieces, in whichever unit it is written.
func TestPathsAreMeasured(t *testing.T) {
	for text, want := range map[string]float64{"0,0,0 30,40,0 in": 50 * 25.4, "0,0,0 0,0,400 mm": 400,
		"0,0,0 3,4,0 cm": 50, "0,0,0 1,0,0 1,1,0 1,1,1": 3 * 25.4} {
		c, err := ParsePath(text, false)
		require.NoError(t, err, text)
		assert.InDelta(t, want, PathLength(c), 1e-9, text)
	}
	c, err := ParsePath("0,0,0 10,0,0", true)
	require.NoError(t, err)
	assert.InDelta(t, 10, PathLength(c), 1e-9)
	assert.InDelta(t, 0.05, PathSlack, 1e-12)
	_, err = ParsePath("1,2", false)
	assert.Error(t, err)
}

// Only what a supply feeds is left of a wiring; all of it where a wire joins it to another's.
func TestWhatASupplyFeeds(t *testing.T) {
	s2 := one["supply"]
	s2.ID = "S2"
	lamp2 := one["lamp"]
	lamp2.ID, lamp2.From = "L2", "S2"
	all := []Device{one["supply"], s2, one["run"], one["lamp"], lamp2}
	ids := func(list []Device) (out []string) {
		for _, d := range list {
			out = append(out, d.ID)
		}
		return out
	}
	w := IndexOf(all)
	assert.ElementsMatch(t, []string{"S1", "W1", "L1"}, ids(w.FedBy(all, "S1")))
	assert.Equal(t, "S2", w.Root("L2"))
	assert.Len(t, w.Kids("S1"), 2)
	all[2].To = "L2"
	w = IndexOf(all)
	assert.Len(t, w.FedBy(all, "S1"), len(all))
}

// A strip's volts fall along it, and its profile ends at its far end.
func TestProfiles(t *testing.T) {
	run, lamp := one["run"], one["lamp"]
	lamp.From = "W1"
	r := NewRig(set(one["supply"], run, lamp))
	st := r.Solve(nil)
	at, v := r.Profile(st, "W1")
	require.GreaterOrEqual(t, len(at), 2)
	assert.InDelta(t, run.Length.Value(), at[len(at)-1], 1e-6)
	assert.Less(t, v[len(v)-1], v[0])
	way := r.PathTo(st, "L1")
	require.NotEmpty(t, way)
	assert.InDelta(t, st.Readings["S1"].Volts, way[0].Volts, 1e-9)
	for i := 1; i < len(way); i++ {
		assert.LessOrEqual(t, way[i].Volts, way[i-1].Volts+1e-9)
		assert.GreaterOrEqual(t, way[i].At, way[i-1].At)
	}
	assert.InDelta(t, st.Readings["L1"].Volts, way[len(way)-1].Volts, 1e-9)
	assert.Nil(t, r.PathTo(st, "nothing"))
	assert.False(t, math.IsNaN(way[0].At))
}
