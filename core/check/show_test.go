package check

import (
	"testing"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func sec(s string) measure.Duration { return measure.Must[measure.DurationKind](s) }

// lifted gives a plan a lid that a motor lifts and lowers, one-shot, with nothing wrong,
// and spoils that.
func lifted(spoil func(p *plan.Plan, m *plan.Mechanism)) func(*plan.Plan) {
	return func(p *plan.Plan) {
		l, deg, a := measure.Len, measure.Must[measure.AngleKind], measure.Must[measure.AmpKind]
		p.Doc().Devices = append(
			p.Devices(),
			plan.Device{ID: "S2", Prop: "a", Kind: "supply", Name: "S2", Product: "ps12-10"},
			plan.Device{ID: "K2", Prop: "a", Kind: "switch", Name: "Up", From: "S2", Driven: true, Rating: a("10 A")},
			plan.Device{
				ID:     "K3",
				Prop:   "a",
				Kind:   "switch",
				Name:   "Down",
				From:   "S2",
				Driven: true,
				Rating: a("10 A"),
			},
			plan.Device{ID: "M1", Prop: "a", Kind: "lamp", Name: "M1", From: "K2", Product: "gear12", Amps: a("5 A")},
		)
		p.Doc().Mechanisms = []plan.Mechanism{
			{ID: "lid", Prop: "a", Name: "Lid", Kind: "lid", Up: "K2", Down: "K3", Motor: "M1",
				Crank: l(
					"2 in",
				), Link: l("8 in"), Arm: l("5 in"), PivotX: l("2 in"), PivotY: l("-8 in"), From: deg("-90"),
				To: deg("90"), Mass: measure.Must[measure.MassKind]("3 lb"), Reach: l("10 in"), Tip: l("20 in")},
		}
		cue := func(ch, at, long string) plan.Cue { return plan.Cue{Channel: ch, Start: sec(at), Length: sec(long)} }
		p.Doc().Scenes = append(
			p.Scenes(),
			plan.Scene{ID: "lift", Prop: "a", Name: "Lift", Cues: []plan.Cue{cue("K2", "0 s", "2.1 s"),
				cue("K3", "5 s", "1.8 s")}},
		)
		p.Doc().Inputs = append(p.Inputs(), plan.Input{ID: "m", Prop: "a", Name: "Mat", Kind: "mat", MinPulse: sec("30 ms")})
		p.Triggers()[0].Latch = "one-shot"
		p.Doc().Triggers = append(
			p.Triggers(),
			plan.Trigger{ID: "l", Input: "m", Scene: "lift", Latch: "one-shot", Rest: sec("20 s")},
		)
		p.Mechanisms()[0].Stops = true
		spoil(p, &p.Mechanisms()[0])
	}
}

// clipped gives a plan a speaker with a clip that is right for it, and spoils that.
func clipped(spoil func(c *plan.Clip)) func(*plan.Plan) {
	return func(p *plan.Plan) {
		p.Device("S1").Product = "ps12-2"
		p.Doc().Devices = append(
			p.Devices(),
			plan.Device{ID: "A1", Prop: "a", Kind: "lamp", Name: "A1", From: "K1", Product: "amp12"},
		)
		p.Doc().Clips = []plan.Clip{
			{ID: "c", Prop: "a", Name: "Howl", Channel: "K1", Long: sec("4 s"), Peak: -1, RMS: -8, Loud: -9},
		}
		spoil(&p.Clips()[0])
	}
}

// showCases are one for each rule of what moves and of what the search finds.
func showCases() []ruleCase {
	kg, deg, l := measure.Must[measure.MassKind], measure.Must[measure.AngleKind], measure.Len
	says := func(s string) func(*plan.Plan) {
		return func(p *plan.Plan) { p.Doc().Promises = []plan.Promise{{ID: "own", Prop: "a", Says: s}} }
	}
	return []ruleCase{
		{"promise-unclear", Fix, 0, says("the hum is a merry one")},
		{"promise-broken", Stop, 0, lifted(func(p *plan.Plan, _ *plan.Mechanism) {
			says("K1 is on while Lift is running")(p)
		})},
		{"on-too-long", Fix, 1, func(p *plan.Plan) {
			p.Triggers()[0].Latch = "retrigger"
			p.Device("K1").Longest = sec("8 s")
		}},
		{"goes-silent", Stop, 1, func(p *plan.Plan) {
			p.Triggers()[0].Latch, p.Triggers()[0].While, p.Triggers()[0].Then = "one-shot", "ready", "shown"
			p.Doc().Display.Begins = "ready"
		}},
		{"flashes", Fix, 1, func(p *plan.Plan) { p.Scenes()[0].Cues[0].Shape = "strobe" }},
		{"flashes", Fix, 1, func(p *plan.Plan) { p.Scenes()[0].Cues[0].Shape = "flicker" }},
		{"flashes", Fix, 1, func(p *plan.Plan) { // cues one after the other
			q := p.Scenes()[0].Cues[0]
			p.Scenes()[0].Cues = nil
			for i := range 8 {
				q.Start, q.Length = measure.Of[measure.DurationKind](float64(i)*.2), sec("100 ms")
				p.Scenes()[0].Cues = append(p.Scenes()[0].Cues, q)
			}
		}},
		{"flashes", Fix, 1, func(p *plan.Plan) { // a short scene that repeats while it is held
			p.Scenes()[0].Cues[0].Length, p.Scenes()[0].Length = sec("100 ms"), sec("200 ms")
			p.Triggers()[0].Latch = "momentary"
		}},
		{"flashes", Fix, 3, func(p *plan.Plan) { // and one that is pressed again and again
			p.Scenes()[0].Cues[0].Length, p.Scenes()[0].Length = sec("100 ms"), sec("200 ms")
			p.Triggers()[0].Latch, p.Triggers()[0].Rest, p.Inputs()[0].HoldOff = "one-shot", sec("0 s"), sec("0 s")
		}},
		{"motion-sizes", Mind, 0, lifted(func(_ *plan.Plan, m *plan.Mechanism) { m.Arm = measure.Length{} })},
		{"jams", Stop, 1, lifted(func(_ *plan.Plan, m *plan.Mechanism) { m.Link = l("15 in") })},
		{"motor-weak", Stop, 1, lifted(func(p *plan.Plan, m *plan.Mechanism) {
			p.Device("M1").Product, m.Mass = "motor12", kg("12 lb")
			p.Device("S2").Amps = measure.Must[measure.AmpKind]("30 A")
		})},
		{"motor-margin", Fix, 1, lifted(func(p *plan.Plan, m *plan.Mechanism) {
			p.Device("M1").Product, m.Mass = "motor12", kg("7 lb")
		})},
		{"motor-amps", Fix, 1, lifted(func(p *plan.Plan, m *plan.Mechanism) {
			p.Device("M1").Amps, m.Mass = measure.Current{}, kg("8 lb")
		})},
		{"motor-hot", Fix, 2, lifted(func(p *plan.Plan, m *plan.Mechanism) {
			p.Triggers()[1].Rest, m.Mass, p.Device("M1").Product = measure.Duration{}, kg("6 lb"), "motor12"
			p.Scenes()[1].Cues[1].Start = sec("2.4 s")
		})},
		{"falls", Fix, 2, lifted(func(p *plan.Plan, m *plan.Mechanism) {
			p.Device("M1").Product, p.Device("M1").Amps = "servo6", measure.Current{}
			m.Kind, m.From, m.To, m.Mass = "servo", deg("0"), deg("60"), kg("200 g")
			m.Reach, m.Tip, p.Device("S2").Product = l("3 in"), l("6 in"), "ps6-5"
		})},
		{"hits-hard", Fix, 0, lifted(func(p *plan.Plan, m *plan.Mechanism) {
			p.Device("M1").Product, m.Kind, m.From, m.To = "wiper12", "turntable", deg("0"), deg("360")
			m.Mass, m.Reach, m.Tip, m.Friction = kg("20 lb"), l("24 in"), l("40 in"), 5
		})},
		{"sweeps-into", Fix, 0, lifted(func(p *plan.Plan, m *plan.Mechanism) {
			m.X, m.Z = l("0 in"), l("4 in")
			p.Doc().Solids = append(p.Solids(), plan.Solid{ID: "post", Prop: "a", Name: "Post", Kind: "box", Stock: "ply1/4",
				X: l(
					"12 in",
				), Z: l("6 in"), Form: form.Box{W: l("2 in"), D: l("2 in"), H: l("20 in"), Joint: "butt"}})
		})},
		{"fragile-rides", Mind, 2, lifted(func(p *plan.Plan, m *plan.Mechanism) {
			p.Doc().Solids = append(
				p.Solids(),
				plan.Solid{ID: "face", Prop: "a", Name: "Face", Kind: "panel", Stock: "acrylic3",
					X: l("90 in"), Form: form.Panel{W: l("8 in"), H: l("8 in")}},
			)
			m.Carries, m.X, m.Z = "face", l("90 in"), l("4 in")
		})},
		{"larger-than-room", Fix, 0, func(p *plan.Plan) {
			p.Doc().Display.RoomLong, p.Doc().Display.RoomWide, p.Doc().Display.RoomHigh = l("11 in"), l("11 in"), l("11 in")
		}},
		{"within-reach", Mind, 0, lifted(func(_ *plan.Plan, m *plan.Mechanism) { m.Guests = l("50 in") })},
		{"motion-slow", Mind, 1, lifted(func(p *plan.Plan, m *plan.Mechanism) {
			m.Time, p.Device("S2").Amps = sec("1.1 s"), measure.Must[measure.AmpKind]("30 A")
		})},
		{
			"cue-short",
			Fix,
			1,
			lifted(func(p *plan.Plan, _ *plan.Mechanism) { p.Scenes()[1].Cues[0].Length = sec("1 s") }),
		},
		{"servo-range", Stop, 1, lifted(func(p *plan.Plan, m *plan.Mechanism) {
			p.Device("M1").Product, p.Device("M1").Amps = "servo6", measure.Current{}
			m.Kind, m.From, m.To, m.Mass = "servo", deg("0"), deg("270"), kg("50 g")
			m.Reach, m.Tip, p.Device("S2").Product = l("2 in"), l("4 in"), "ps6-5"
		})},
		{"facing-servos", Mind, 1, lifted(func(p *plan.Plan, m *plan.Mechanism) {
			m.Kind, m.From, m.To, m.Mass, m.Motor = "servo", deg("0"), deg("60"), kg("50 g"), ""
			n := *m
			n.ID, n.Name, n.Mirrored = "lid2", "Other lid", true
			p.Doc().Mechanisms = append(p.Mechanisms(), n)
		})},
		{"clip-quiet", Mind, 1, clipped(func(c *plan.Clip) { c.RMS, c.Guests = -15, measure.Len("12 ft") })},
		{"clip-loud", Fix, 1, clipped(func(c *plan.Clip) { c.Guests = measure.Len("8 in") })},
		{"clip-ends", Mind, 2, clipped(func(c *plan.Clip) { c.Long = sec("1 s") })},
		{"clip-cut", Mind, 1, clipped(func(c *plan.Clip) { c.Long = sec("7 s") })},
		{"into-stop", Fix, 2, lifted(func(p *plan.Plan, m *plan.Mechanism) {
			m.Stops, p.Scenes()[1].Cues[0].Length = false, sec("3 s")
		})},
		{
			"both-at-once",
			Stop,
			1,
			lifted(func(p *plan.Plan, _ *plan.Mechanism) { p.Scenes()[1].Cues[1].Start = sec("2 s") }),
		},
		{"starts-alone", Stop, 1, lifted(func(p *plan.Plan, _ *plan.Mechanism) {
			p.Doc().Inputs = append(p.Inputs(), plan.Input{ID: "pw", Prop: "a", Name: "Power", Kind: "power"})
			p.Doc().Triggers = append(p.Triggers(), plan.Trigger{ID: "pt", Input: "pw", Scene: "lift", Latch: "one-shot"})
		})},
	}
}

// A lid that is well made raises nothing of its own.
func TestAWellMadeLid(t *testing.T) {
	p := clean()
	lifted(func(*plan.Plan, *plan.Mechanism) {})(p)
	for _, s := range snags(t, p) {
		assert.NotEqual(t, "rehearsal", s.Place, "%s: %s", s.Code, s.Why)
	}
}

// The demo's planted faults are found, replayed as found, and mended by a press.
func TestThePlantedToggleIsMended(t *testing.T) {
	p := demo.Apiary(today).In(shop.Kept)
	w := work.Do(p, shop.Kept, today)
	s := find(Check(w), "promise-broken", "")
	require.NotNil(t, s)
	assert.Contains(t, s.Why, "2 events: Path mat is worked, then Top switch bounces as it closes")
	require.NotEmpty(t, s.Mends)
	assert.Equal(t, "Hold it on while top switch is closed", s.Mends[0].Label)
	q, err := p.Apply(s.Mends[0].Edit)
	require.NoError(t, err)
	v := work.Do(q, shop.Kept, today)
	assert.Nil(t, v.Search(3, 0, nil).Of("hum-up"))
}

// The Keeper's motor is chosen by the product, and what it draws stands in the Loom.
func TestTheKeepersMotorIsChosen(t *testing.T) {
	p := demo.Apiary(today).In(shop.Kept)
	w := work.Do(p, shop.Kept, today)
	s := find(Check(w), "motor-margin", "mechanism:arm")
	require.NotNil(t, s)
	require.NotEmpty(t, s.Mends)
	q, err := p.Apply(s.Mends[0].Edit)
	require.NoError(t, err)
	v := work.Do(q, shop.Kept, today)
	m := v.Moved("arm")
	assert.Equal(t, "gear12", q.Device("arm-motor").Product)
	assert.Greater(t, m.Margin(), 2.0)
	assert.InDelta(t, m.Up.Amps, q.Device("arm-motor").Amps.Value(), .1)
	assert.InDelta(
		t,
		q.Device("arm-motor").Amps.Value(),
		v.All().Readings["arm-motor"].Amps,
		.25,
		"and the circuit gives it",
	)
	assert.NotEqual(t, w.All().Readings["S6"].Amps, v.All().Readings["S6"].Amps)
}
