package shorthand

import (
	"strings"
	"testing"
	"time"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var today = time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC)

// Every line must read as said and apply; each builds on those before it.
func TestPhrases(t *testing.T) {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	for _, c := range [][2]string{
		{"prop weathervane 30in tall", "new prop “weathervane”, 30in tall"},
		{"box 22 x 18 x 26 1/2 xps1 rabbet lid bottom",
			`box, 22" wide, 18" deep, 26 1/2" tall, rabbet corners, lid, bottom, XPS board 1"`},
		{"tower 6 sides 4 ft 20 in to 9 in xps1",
			`tower of 6 sides, 48" tall, 20" across at the bottom, 9" at the top, XPS board 1"`},
		{"bent 24 turn 90 22 1/2 turn -45 12 elbows pvc1",
			`pipe of 3 legs and 2 turns, with elbows: 24" turn 90 22 1/2" turn -45 12", PVC pipe 1" sch 40`},
		{"tower 6 sides 4ft 20in 9in xps1", `tower of 6 sides, 48" tall, 20" across at the bottom, 9" at the top, XPS board 1"`},
		{"tower 6 sides 48 tall 20 to 9 xps1", `tower of 6 sides, 48" tall, 20" across at the bottom, 9" at the top, XPS board 1"`},
		{"outline 40 in tall ply1/4 pair 0,0 10,8 12,20 0,40",
			`silhouette of 4 corners, 40" tall, a left and a right, Plywood 1/4"`},
		{"offcut xps1 18 x 30 in from the gate", `on the shelf: XPS board 1", 18" x 30", labelled from the gate`},
		{"scale to 55 in tall", `every size of weathervane x 1.146, so that its height is 55"`},
		{"scale 1:2", "every size of weathervane x 0.5"},
		{"scale x 1.5", "every size of weathervane x 1.5"},
		{"disc 36 in xps1 x2", `2 discs, 36" across, XPS board 1"`},
		{"rings 24 to 12 30 tall wall 3 xps2", `ring stack, 24" across at the bottom, 12" at the top, 30" tall, wall 3", XPS board 2"`},
		{"pipe 6@44in 4@60in 1.5", `10 pieces of pipe: 6@44in 4@60in, PVC pipe 1 1/2" sch 40`},
		{"panel 36 x 10 ply1/4 x3", `3 panels, 36" x 10", Plywood 1/4"`},
		{"gores 36 in x 30 in n12 eva10 egg crease", `12 gores, egg, 36" across, 30" tall, EVA foam 10 mm`},
		{"slices 46 x 54 dome wall 3 xps2", `dome in slices, 46" across, 54" tall, XPS board 2"`},
		{"cone 24 to 4 18 tall eva5", `cone, 24" across at the bottom, 4" at the top, 18" tall, EVA foam 5 mm`},
		{"wrap 12 in x 30 in eva5", `tube by wrap, 12" across, 30" tall, EVA foam 5 mm`},
		{"boards 8 ft xps1", `disc over boards, 96" across, XPS board 1"`},
		{"glue front to left with pu", "glue weathervane-box/front to weathervane-box/left with Moisture-cure " +
			"polyurethane glue"},
		{"glue box/front box/left", "glue weathervane-box/front to weathervane-box/left with Moisture-cure " +
			"polyurethane glue"},
		{"glue box/front box/left pu", "glue weathervane-box/front to weathervane-box/left with Moisture-cure " +
			"polyurethane glue"},
		{"coat box masonry, latex 2", "coat Box: Masonry sealer x1, then Exterior latex paint x2"},
		{"supply 12v 5a", "supply S1, 12 V 5 A"},
		{"fuse 3a on S1", "fuse F1, 3a on S1"},
		{"24 jars flicker 20ma on F1 22awg 35ft", "24 lamps, Flicker candle LED, wired for 12 V, even spacing, on F1 " +
			"through W1, 22awg 35ft"},
		{"run 18awg 12 ft on F1", "run W2, 18awg, 12 ft one way on F1"},
		{"lamp puck12 on W2 at 5 ft", "lamp L1, Puck light, warm white, 12 V on W2 at 5 ft"},
		{"driven switch on F1", "switch K1, driven by scenes on F1"},
		{"lamp led-white on K1", "lamp L2, Bare LED, white 5 mm on K1"},
		{"strip 2m strip12 on K1", "lamp L3, LED strip 12 V, 60/m, amber, 2m on K1"},
		{"strip 5m 60/m 12v from F1", "lamp L4, LED strip 12 V, 60/m, amber, 5m on F1"},
		{"feed L4 at 50% 0", "feed LED strip 12 V, 60/m, amber 2 at 0% 50%"},
		{"feed W2 at 6 ft", "feed Run W2 at 6 ft"},
		{"connector 3a on W2 at 2 ft", "connector X1 on W2 at 2 ft"},
		{"fuse 500ma poly on F1", "fuse F2, 500ma, resets itself on F1"},
		{"10 eyes led-red on F1", "10 of Bare LED, red 5 mm on 12 V: 2 rows of 5 with 100 ohm, 0.125 W"},
		{"path W2 0,0,4 20,0,4 20,0,40", `Run W2 lies along 3 corners, 4' 8"; with slack 4' 11"`},
		{"gauges 6%", "W1 24 AWG, W2 28 AWG: worst drop 5.1 %, copper -71 g, saves $2.00"},
		{"controller 3.3v on F1", "controller U1, pins of 3.3 V on F1"},
		{"pixels 1m on F1", "lamp L5, Addressable pixels 5 V, 60/m, 1m on F1"},
		{"50 pixels on F1 18awg 4 ft", "a string of 50, Addressable pixels 5 V, 60/m, on F1 through W3, 18awg 4 ft"},
		{"data L5 from U1 pin 2 6 ft", "Addressable pixels 5 V, 60/m gets its data from Controller U1, pin 2, 6 ft of wire"},
		{"converter 5v 3a on W2 at 5 ft", "converter C1, down to 5v, 3a on W2 at 5 ft"},
		{"battery 4 aa x2", "battery B1, 4 of AA alkaline in a row, 6 V, 2 rows"},
		{"outlet porch 15a 120v guarded 14awg 50 ft", "outlet “Porch”, 120v, 15a breaker, ground-fault protected, 14awg " +
			"cord of 50 ft"},
		{"plug S1 into porch", "plug Supply S1 into Porch"},
		{"plug fogger 400w heater into porch", "plug Fogger, 400w, into Porch, a heater"},
		{"button toggles glow", "button toggles scene “glow” (toggle)"},
		{"cue K1 6 s for 2 s in glow", "in “glow”, Switch K1 on at 6 s for 2 s, in place of the cues made up for it"},
		{"shop material cork3 like eva5 thick 3 mm sheet 24 x 36 in price 18", "in this plan's shop: material cork3, like " +
			"eva5, thick 3 mm, sheet 24 x 36 in, price 18"},
		{"price xps1 $32", "in this plan xps1 costs $32, not $26"},
		{"panel 20 x 10 cork3", `1 panel, 20" x 10", EVA foam 5 mm`},
		{"opened pva 2025-03-01", "a bottle of PVA wood glue, opened 2025-03-01"},
		{"person Sunny mon-fri 18-21:30, sat sun 10-18 does wiring and paint",
			"Sunny helps, mon-fri 18-21:30, sat sun 10-18, does wiring, paint"},
		{"person Ada Two", "Ada Two helps"},
		{"delivery gear motor for box 2026-10-03", "Gear motor for Box arrives 2026-10-03"},
		{"task fetch the fogger 1 h 30 min", "Fetch the fogger, 1 h 30 min of work"},
		{"Sunny hours mon 9-12", "Sunny: hours mon 9-12, was mon-fri 18-21:30, sat sun 10-18"},
	} {
		prop := ""
		if len(p.Props()) > 0 {
			prop = p.Props()[0].ID
		}
		line := c[0]
		if first, _, _ := strings.Cut(line, " "); kindPiles(first) || first == "ring" {
			line += " beside" // each by itself
		}
		r, err := Read(p, shop.Kept, prop, line)
		require.NoError(t, err, c[0])
		assert.Equal(t, c[1], r.Text, c[0])
		assert.NotEmpty(t, r.Select)
		p, err = p.Apply(r.Edit)
		require.NoError(t, err)
	}
	assert.Equal(t, "470 ohm", p.Device("L2").Resistor.String())
	assert.Len(t, p.Scenes()[0].Cues, 1)
	assert.Len(t, p.Devices(), 24+19)
	assert.Equal(t, "0% 50%", p.Device("L4").Feeds)
	assert.Equal(t, "6 ft", p.Device("W2").FedAt.String())
}

// A new solid stands beside those that are there, not in them.
func TestNewSolidsStandBeside(t *testing.T) {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	for _, line := range []string{"box 20 x 10 x 10 xps1", "disc 12 in xps1", "tower 30 tall 14 to 8 xps1"} {
		r, err := Read(p, shop.Kept, "a", line+" beside")
		require.NoError(t, err)
		p, err = p.Apply(r.Edit)
		require.NoError(t, err)
	}
	right := -1e9
	for i := range p.Solids() {
		s := &p.Solids()[i]
		shape, err := s.Shape(shop.Kept)
		require.NoError(t, err)
		assert.Greater(t, s.X.Value()-shape.Size.X/2, right, s.Name)
		right = s.X.Value() + shape.Size.X/2
	}
}

func TestMetricBareNumbers(t *testing.T) {
	p := demo.Metric(today).In(shop.Kept)
	r, err := Read(p, shop.Kept, "hopper", "box 400 x 300 x 250 ply1/4")
	require.NoError(t, err)
	assert.Contains(t, r.Text, "400 mm wide, 300 mm deep, 250 mm tall")
}

// What is not understood is named, with an example of the nearest phrase.
func TestNotUnderstood(t *testing.T) {
	p := demo.Apiary(today).In(shop.Kept)
	for text, want := range map[string]string{
		"":                                   "nothing typed yet",
		"bix 3 x 4":                          `"bix" is no word the quick line knows; try: b`,
		"prop Frame riser 40 in tall":        "there is a prop “Frame riser” already",
		"tower 6 sides 4 ft 9 in xps1":       "two sizes across",
		"outline 0,0 1,1 2,0":                "say how tall or how wide",
		"outline 40 in tall 0,0 9,9 9,0 0,7": "meets itself",
		"offcut 3 x 4":                       "its stock and two sizes",
		"gores 24 in x 24 in n0":             "0 gores close no shape",
		"tower 0 sides 4 ft 20 in 9 in":      `0 sides make no tower`,
		"scale":                              "a size with tall, wide or deep, or a factor",
		"scale to 4000 ft tall":              "times what it is",
		"battery 4":                          "say which cell: 9v, aa",
		"plug S1 into nowhere":               `there is no outlet "nowhere"`,
		"plug fogger":                        "into which outlet",
		"outlet 15a 12v":                     "write 120 V or 230 V",
		"box 22 x 18":                        "2 sizes read; try: box 22 x 18 x 26 1/2",
		"box 22 x 18 x 1 flubber xps1":       `"flubber" is not understood`,
		"box 22 x 18 x 0 xps1":               "must be more than nothing",
		"box 1 x 1 x 5 xps1":                 "leaves no room",
		"fuse 3a on S99":                     `there is no device "S99"`,
		"coat hive masonry":                  `no solid "hive"`,
		"glue front with pu":                 "1 parts read",
		"button juggles glow":                "write runs, toggles, holds or restarts",
		"feed K1 at 0%":                      "is no strip or run",
		"feed nobody at 0%":                  `"nobody" is no strip or run`,
		"feed K1":                            "at which places",
		"feed cells at 140%":                 "no place along the strip",
		"strip 2m 144/m on F1":               "the shop has no strip of 144/m",
		"data cells from S99":                `there is no device "S99"`,
		"data K1 from F1":                    "there are no pixels here yet",
		"data K1":                            "say which pixels",
		"connector -3a on W1":                "rating: -3a is out of range",
		"fuse 9999a on S1":                   "rating: 9999a is out of range",
		"gauges 40%":                         "no drop budget",
		"gauges 0.5%":                        "even the thickest wire",
		"path W1 0,0,4":                      "corners",
		"path K1 0,0,4 1,1,1":                `"K1" is no run`,
		"9999 jars flicker on S1 35 ft":      "write 1 to 500",
		"opened nectar 2025-01-01":           "the shop has no",
		"person":                             "say who",
		"person Ada mon 12-9":                "hours",
		"delivery motor 2026-10-03":          "then for what",
		"delivery motor for moon 2026-10-03": "nothing here is called",
		"delivery motor for box soon":        "is no date",
		"task 1 h":                           "say what is to be done",
		"cue K2 0 s for -5 s in Frames glow": "s",
	} {
		_, err := Read(p, shop.Kept, "riser", text)
		require.Error(t, err, text)
		assert.Contains(t, err.Error(), want)
		assert.Contains(t, err.Error(), "try: ")
	}
}

func TestExamplesAllHaveAVerb(t *testing.T) {
	assert.GreaterOrEqual(t, len(Examples()), 20)
}

func FuzzRead(f *testing.F) {
	for _, e := range Examples() {
		f.Add(e)
	}
	p := demo.Apiary(today).In(shop.Kept)
	f.Fuzz(func(t *testing.T, s string) { _, _ = Read(p, shop.Kept, "riser", s) })
}

func TestListsReadBackWhatTheyWrite(t *testing.T) {
	p := demo.Apiary(today).In(shop.Kept)
	for _, f := range p.Finishes() {
		got, err := ReadLayers(WriteLayers(f.Layers))
		require.NoError(t, err)
		assert.Equal(t, f.Layers, got)
	}
	for _, s := range p.Scenes() {
		got, err := ReadCues(WriteCues(s.Cues))
		require.NoError(t, err)
		assert.Equal(t, s.Cues, got)
	}
	for _, s := range p.Solids() {
		for i := range s.Openings {
			s.Openings[i].Door = i == 1
		}
		got, err := ReadOpenings(WriteOpenings(s.Openings), "in")
		require.NoError(t, err)
		assert.Equal(t, s.Openings, got)
	}
	for _, bad := range []string{"slot", "slot 3", "slot 3 x up on front", "slot 3 x 1 on front up high"} {
		_, err := ReadOpenings(bad, "in")
		assert.ErrorContains(t, err, "write such as", bad)
	}
	_, err := ReadCues("K1 sometimes")
	assert.ErrorContains(t, err, "write such as")
	_, err = ReadLayers("latex two")
	assert.ErrorContains(t, err, "number of coats")
}

// Nothing disappears silently: coats go on top, or afresh when that is said; a
// second outlet of a name is asked about; a joint to a part that is not there is
// refused with those that are; cues of one's own take the place of made-up ones.
func TestNothingDisappearsSilently(t *testing.T) {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	say := func(line string) string {
		t.Helper()
		r, err := Read(p, shop.Kept, "a", line)
		require.NoError(t, err, line)
		p, err = p.Apply(r.Edit)
		require.NoError(t, err, line)
		return r.Text
	}
	refuse := func(line, want string) {
		t.Helper()
		_, err := Read(p, shop.Kept, "a", line)
		require.ErrorContains(t, err, want, line)
	}
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	say("box 22 x 18 x 26 xps1 rabbet")
	box := p.Solids()[0].ID
	say("coat " + box + " masonry")
	assert.Contains(t, say("coat "+box+" latex 2"), "on top of what is there")
	require.Len(t, p.Finishes(), 1)
	assert.Equal(
		t,
		[]plan.Layer{{Coat: "masonry", Coats: p.Finishes()[0].Layers[0].Coats}, {Coat: "latex", Coats: 2}},
		p.Finishes()[0].Layers,
	)
	assert.Contains(t, say("coat "+box+" afresh clear"), "in place of")
	assert.Len(t, p.Finishes()[0].Layers, 1)
	say("outlet porch 120v 15a")
	refuse("outlet Porch 120v 20a", "already")
	refuse("glue front to chimney with pu", `no part "chimney"; it has front`)
	say("glue front to left with pu")
	say("supply 12v 5a")
	say("driven switch on S1")
	say("mat runs glow")
	require.NotEmpty(t, p.Scenes()[0].Cues)
	k := p.Scenes()[0].Cues[0].Channel
	assert.Contains(t, say("cue "+k+" 1s for 2s in glow"), "in place of the cues made up")
	require.Len(t, p.Scenes()[0].Cues, 1)
	assert.Equal(t, "1s", p.Scenes()[0].Cues[0].Start.String())
	say("cue " + k + " 5s for 2s in glow")
	assert.Len(t, p.Scenes()[0].Cues, 2, "further ones are added")
}

// A base, a body and a cap are one pile: each stands on what is there, and their
// heights add up; beside and flat things stand on their own.
func TestSolidsPileUp(t *testing.T) {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	up := func(line string) (float64, float64) {
		t.Helper()
		r, err := Read(p, shop.Kept, "a", line)
		require.NoError(t, err, line)
		p, err = p.Apply(r.Edit)
		require.NoError(t, err, line)
		s := p.Solids()[len(p.Solids())-1]
		assert.Equal(t, !s.Z.IsZero(), strings.Contains(r.Text, "on the pile"), r.Text)
		return s.Z.Value() / measure.Inch, s.X.Value() / measure.Inch
	}
	for _, c := range []struct {
		line  string
		z     float64
		aside bool
	}{
		{"box 24 x 24 x 6 ply1/4 lid", 0, false}, {"box 20 x 20 x 30 xps1", 6, false}, {"disc 12in xps1", 36, false},
		{"box 10 x 10 x 10 xps1 beside", 0, true}, {"panel 24 x 48 xps1", 0, true}, {"cone 20 to 6 12 tall eva5", 37, false},
	} {
		z, x := up(c.line)
		assert.InDelta(t, c.z, z, 1e-6, c.line)
		assert.Equal(t, c.aside, x != 0, c.line)
	}
	size, ok := p.Extent(shop.Kept, "a")
	assert.True(t, ok)
	assert.InDelta(t, 37+12, size.Z/measure.Inch, 1e-6)
	for i := range p.Solids() { // hung up, it bears nothing
		p.Solids()[i].Z = measure.Len("40 in")
	}
	z, x := up("box 10 x 10 x 10 xps1")
	assert.Zero(t, z)
	assert.NotZero(t, x)
}

func kindPiles(name string) bool {
	k, _ := form.Of(name)
	return k.Piles
}

// A cue wants both its start and its length; half of it is refused, not guessed.
func TestHalfACueIsRefused(t *testing.T) {
	for _, text := range []string{"K1 at 0 s", "K1 for 5 s", "K1"} {
		_, err := ReadCues(text)
		assert.ErrorContains(t, err, "cues", text)
	}
	got, err := ReadCues("K1 at 0 s for 5 s")
	require.NoError(t, err)
	assert.Len(t, got, 1)
}

// A lamp, a supply, a switch is built into what in says, whatever inches stand before;
// a solid on a pile stands by what is under it, and goes up with that.
func TestBuiltIntoAndPiledOn(t *testing.T) {
	p := plan.New("n", "N", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	say := func(line string) *Reading {
		got, err := Read(p, shop.Kept, "a", line)
		require.NoError(t, err, line)
		q, err := p.Apply(p.Settled(got.Edit))
		require.NoError(t, err, line)
		p = q
		return got
	}
	say("box 12 x 12 x 20 ply1/4 called Body")
	say("box 10 x 10 x 4 ply1/4 called Lamp cap")
	assert.Equal(t, "on", p.Solids()[1].How)
	assert.Equal(t, p.Solids()[0].ID, p.Solids()[1].By)
	say("body taller by 4 in")
	assert.InDelta(t, 24*25.4, p.Solids()[1].Z.Value(), 1e-6)
	say("box 10 x 10 x 4 ply1/4 beside")
	assert.Empty(t, p.Solids()[2].By)

	say("supply 12v 2a in body")
	say("run 18awg 12 in on S1")
	assert.Contains(t, say("lamp puck12 on W1 at 6 in in lamp cap").Text, ", in Lamp cap")
	say("strip 10 in strip12 on W1 in body")
	say("3 leds led-red on S1 in body")
	in := map[string]string{}
	for _, d := range p.Devices() {
		in[d.Kind] += d.In + " "
	}
	body, cap := p.Solids()[0].ID, p.Solids()[1].ID
	assert.Equal(t, body+" ", in["supply"])
	assert.InDelta(t, 12*25.4, p.Device("W1").Length.Value(), 1e-9)
	assert.Contains(t, in["lamp"], cap+" "+body+" ")
	_, err := Read(p, shop.Kept, "a", "lamp puck12 on W1 in cellar")
	assert.ErrorContains(t, err, `nothing here is called "cellar"`)
}

// Out in the yard a bare number is feet, or metres; what is named there can be renamed and
// taken away; a path that is no wire's is people's.
func TestTheYardByTheLine(t *testing.T) {
	for _, c := range []struct{ units, line, want string }{
		{"in", "stand hut at 25, 18", "25 ft right and 18 ft down"},
		{"mm", "stand hut at 5, 3", "5 m right and 3 m down"},
		{"in", "put hut at 6 in, 2 ft 3 in", "6 in right and 2 ft 3 in down"},
		{"in", "path 4 ft wide 3, 26 ; 14, 19", "2 places"},
		{"in", "rename reed to hedge row", "hedge row"},
		{"in", "remove reed", "reed"},
		{"in", "wind 2026-10-31 22 mph gusts 31 mph air 9 C 80 %", "wind 22 mph, gusts 31 mph, 9 C, 80 %"},
		{"in", "wind 2026-10-31 air 48 F", "forecast of 2026-10-31: 48 F"},
		{"in", "stand porch at 2, 3", "Porch is 2 ft right and 3 ft down"},
	} {
		p := plan.New("x", "X", c.units, "").In(shop.Kept)
		p.Doc().Props = []plan.Prop{{ID: "hut", Name: "Hut"}}
		p.Doc().Walls = []plan.Wall{{ID: "reed", Name: "Reed", Kind: "screen", ToX: measure.Len("3 ft")}}
		p.Doc().Outlets = []plan.Outlet{{ID: "porch", Name: "Porch", Volts: measure.Must[measure.VoltKind]("120 V"),
			Breaker: measure.Must[measure.AmpKind]("15 A")}}
		r, err := Read(p, shop.Kept, "", c.line)
		require.NoError(t, err, c.line)
		assert.Contains(t, strings.ToLower(r.Text), strings.ToLower(c.want), c.line)
		_, err = p.Apply(r.Edit)
		require.NoError(t, err, c.line)
	}
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "hut", Name: "Hut"}}
	_, err := Read(p, shop.Kept, "", "stand hut at 9000 ft, 2 ft")
	assert.ErrorContains(t, err, "9000 ft")
}
