package check

import (
	"testing"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/core/yard"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// setOut gives a plan a yard with nothing wrong in it, and spoils that: a path along the
// plan, a way out, the prop behind it, a fill lamp behind a screen.
func setOut(spoil func(p *plan.Plan)) func(*plan.Plan) {
	return func(p *plan.Plan) {
		l, deg := measure.Len, measure.Must[measure.AngleKind]
		p.Doc().Display.Outdoors = true
		p.Doc().Plots = []plan.Plot{
			{ID: "a", Prop: "a", X: l("20 ft"), Y: l("6 ft"), Mass: measure.Must[measure.MassKind]("60 lb"),
				Wide: l("3 ft"), Deep: l("2 ft"), High: l("4 ft")},
		}
		p.Doc().Walkways = []plan.Walkway{{ID: "path", Name: "Path", Kind: "path", Through: "2 ft, 20 ft; 40 ft, 20 ft"},
			{ID: "out", Name: "Gate", Kind: "way out", Through: "40 ft, 20 ft; 44 ft, 20 ft"}}
		p.Doc().Walls = []plan.Wall{
			{ID: "reed", Name: "Reed screen", Kind: "screen", X: l("8 ft"), Y: l("14 ft"), ToX: l("16 ft"),
				ToY: l("14 ft"), High: l("6 ft")},
		}
		p.Doc().Fixtures = []plan.Fixture{
			{ID: "fill", Name: "Fill", Use: "fill", X: l("12 ft"), Y: l("12 ft 6 in"), High: l("1 ft"), Lumens: 100},
			{
				ID:     "l1",
				Name:   "Path lamp",
				Use:    "practical",
				X:      l("12 ft"),
				Y:      l("22 ft 6 in"),
				High:   l("2 ft"),
				Lumens: 300,
			},
			{
				ID:     "l2",
				Name:   "Path lamp 2",
				Use:    "practical",
				X:      l("28 ft"),
				Y:      l("22 ft 6 in"),
				High:   l("2 ft"),
				Lumens: 300,
			},
			{
				ID:     "l3",
				Name:   "Gate lamp",
				Use:    "practical",
				X:      l("42 ft"),
				Y:      l("18 ft"),
				High:   l("2 ft"),
				Lumens: 300,
				Aim:    deg("90 deg"),
			},
		}
		p.Doc().Outlets = []plan.Outlet{{ID: "porch", Name: "Porch", Volts: measure.Must[measure.VoltKind]("120 V"),
			Breaker: measure.Must[measure.AmpKind]("15 A"), Guard: true, X: l("1 ft"), Y: l("2 ft")}}
		p.Doc().Cords = []plan.Cord{{ID: "c", Name: "Porch cord", Outlet: "porch", Prop: "a", Long: l("50 ft"),
			End: "in a box"}}
		spoil(p)
	}
}

func yardCases() []ruleCase {
	l, kg, mph := measure.Len, measure.Must[measure.MassKind], measure.Must[measure.SpeedKind]
	gusts := func(v string) []plan.Forecast {
		return []plan.Forecast{{ID: "f", On: "2026-10-09", Wind: mph("10 mph"), Gusts: mph(v)}}
	}
	return []ruleCase{
		{"wind-unknown", Mind, 0, setOut(func(p *plan.Plan) { p.Doc().Forecasts = nil })},
		{"tips", Fix, 3, setOut(func(p *plan.Plan) { p.Doc().Forecasts = gusts("40 mph") })},
		{"push-over", Mind, 2, setOut(func(p *plan.Plan) {
			p.Plots()[0].Y, p.Plots()[0].Mass = l("15 ft 6 in"), kg("30 lb")
			p.Doc().Walls = nil
			p.Doc().Fixtures = p.Fixtures()[1:]
		})},
		{"path-narrow", Fix, 1, setOut(func(p *plan.Plan) { p.Walkways()[0].Wide = l("35 in") })},
		{"on-path", Stop, 1, setOut(func(p *plan.Plan) { p.Plots()[0].Y, p.Plots()[0].X = l("18 ft"), l("30 ft") })},
		{"no-way-out", Mind, 0, setOut(func(p *plan.Plan) { p.Doc().Walkways = p.Walkways()[:1] })},
		{"fill-seen", Fix, 3, setOut(func(p *plan.Plan) { p.Walls()[0].High = l("18 in") })},
		{"practical-unseen", Mind, 1, setOut(func(p *plan.Plan) { p.Fixtures()[0].Use = "practical" })},
		{"cord-on-path", Fix, 2, setOut(func(p *plan.Plan) {
			p.Outlets()[0].Y, p.Cords()[0].Long = l("30 ft"), l("100 ft")
		})},
		{"cord-wet", Mind, 2, setOut(func(p *plan.Plan) { p.Doc().Display.Outdoors, p.Cords()[0].End = true, "" })},
		{"cord-reach", Mind, 1, setOut(func(p *plan.Plan) {
			p.Outlets()[0].Y, p.Cords()[0].Long, p.Cords()[0].Over, p.Cords()[0].End = l(
				"21 ft",
			), l(
				"100 ft",
			), "buried", "off the ground"
		})},
		{"scene-bright", Mind, 1, setOut(func(p *plan.Plan) { p.Fixtures()[0].Lumens = 4000 })},
		{"cord-short", Fix, 1, setOut(func(p *plan.Plan) { p.Cords()[0].Long = l("25 ft") })},
		{"path-dark", Mind, 1, setOut(func(p *plan.Plan) { p.Fixtures()[2].Lumens = 5 })},
		{"path-dark", Fix, 1, setOut(func(p *plan.Plan) { p.Fixtures()[3].Lumens = 5 })},
		{"past-it", Fix, 1, setOut(func(p *plan.Plan) {
			p.Inputs()[0].Kind, p.Inputs()[0].Far, p.Inputs()[0].Latency = "mat", l("18 ft"), sec("2 s")
		})},
		{"card-failed", Fix, 0, func(p *plan.Plan) {
			p.Doc().Trials = []plan.Tried{{ID: "t", At: "device:S1", What: "S1, polarity", Measured: "-12 V", By: "Ola"}}
		}},
		{"have-instead", Note, 1, func(p *plan.Plan) {
			p.Props()[0].Stage, p.Solids()[0].Stock = "drawn", "xps2"
			p.Doc().Joints, p.Doc().Finishes = nil, nil
			p.Doc().Shelf = []plan.Stocked{
				{ID: "s", What: "material:xps1", Have: "4"},
				{ID: "t", What: "material:ply1/4", Have: "4"},
			}
		}},
		{"starts-late", Fix, 2, func(p *plan.Plan) {
			p.Doc().Devices = append(
				p.Devices(),
				plan.Device{ID: "S9", Prop: "a", Kind: "supply", Name: "S9", Product: "ps12-5"},
				plan.Device{ID: "F9", Prop: "a", Kind: "fuse", Name: "F9", From: "S9",
					Rating: measure.Must[measure.AmpKind]("3 A")},
				plan.Device{ID: "K9", Prop: "a", Kind: "switch", Name: "Screen switch", From: "F9", Driven: true},
				plan.Device{ID: "eyes", Prop: "a", Kind: "lamp", Name: "Screen", From: "K9", Product: "screen12"},
			)
			p.Scenes()[0].Cues = append(
				p.Scenes()[0].Cues,
				plan.Cue{Channel: "K9", Start: sec("0 s"), Length: sec("4 s")},
			)
		}},
		{"flame", Mind, 0, setOut(func(p *plan.Plan) { p.Props()[0].Stage, p.Solids()[0].Stock = "closed", "xps1" })},
	}
}

// The yard that the cases spoil has nothing to say of itself.
func TestAGoodYardIsQuiet(t *testing.T) {
	p := clean()
	setOut(func(p *plan.Plan) {
		p.Doc().Forecasts = []plan.Forecast{{ID: "f", On: "2026-10-09", Gusts: measure.Must[measure.SpeedKind]("10 mph")}}
	})(p)
	for _, s := range snags(t, p) {
		assert.NotEqual(t, "yard", s.Place, "%s: %s", s.Code, s.Why)
	}
}

// The bounds are where they are said to be.
func TestYardBounds(t *testing.T) {
	code := func(code string, spoil func(p *plan.Plan)) bool {
		p := clean()
		setOut(spoil)(p)
		return find(snags(t, p), code, "") != nil
	}
	l := measure.Len
	assert.False(t, code("path-narrow", func(p *plan.Plan) { p.Walkways()[0].Wide = l("36 in") }))
	assert.False(
		t,
		code("on-path", func(p *plan.Plan) { p.Plots()[0].Y = l("17 ft") }),
		"its foot ends at the path's edge",
	)
	assert.True(t, code("on-path", func(p *plan.Plan) { p.Plots()[0].Y = l("17 ft 1 in") }))
	// 24 ft of ground by Pythagoras: 19 ft across and 4 ft down is 19.4 ft, and 6 ft of drops, and a tenth: 27.96 ft
	assert.False(t, code("cord-short", func(p *plan.Plan) { p.Cords()[0].Long = l("28 ft") }))
	assert.True(t, code("cord-short", func(p *plan.Plan) { p.Cords()[0].Long = l("27 ft 11 in") }))
	assert.False(t, code("flame", func(p *plan.Plan) {
		p.Props()[0].Stage, p.Solids()[0].Stock, p.Plots()[0].Treated = "closed", "xps1", "2026-09-01"
	}))
	assert.False(t, code("tips", func(p *plan.Plan) {
		p.Doc().Forecasts = []plan.Forecast{{ID: "f", On: "2026-09-19", Gusts: measure.Must[measure.SpeedKind]("60 mph")}}
	}), "yesterday's wind")
}

// The wind that a board tips in is the one worked by hand in core/yard, with the numbers
// read off the plan: its foot, its outline, its weight and what lies on it.
func TestAPropStandsAsItIsPlanned(t *testing.T) {
	p := clean()
	setOut(func(p *plan.Plan) {})(p)
	w := work.Do(p, shop.Kept, today)
	s := w.Yard().Of("a")
	require.NotNil(t, s)
	ft := 0.3048
	is := yard.Standing{Mass: 60 * 0.45359237, Foot: ft, Half: ft, Face: 12 * ft * ft, Middle: 2 * ft, Drag: 1.3, Rub: 0.4}
	assert.InDelta(t, is.Tips(), s.Sides.Tips().Tips(), 1e-9)
	assert.Equal(t, "the front", s.Sides.Tips().From)
	assert.InDelta(t, 11*ft, s.Near, 1e-6, "20 ft - 6 ft - 1 ft - 2 ft of half the path")
	assert.InDelta(t, is.Tips(), w.Results().At("plot", "a", "tips").Value, 1e-9)
	assert.InDelta(t, 0.29*11*ft, w.Results().At("plot", "a", "detail").Value, 0.01, "0.29 mm a metre, 11 ft")
}

// Wherever a fill lamp is put, each way offered to hide it hides it, and the press leaves
// nothing worse: taken and looked at afresh.
func TestHiddenLampsAreHidden(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := clean()
		setOut(func(p *plan.Plan) {
			p.Fixtures()[0].X = measure.OnTape(rapid.Float64Range(2000, 11000).Draw(t, "x"), false)
			p.Fixtures()[0].Y = measure.OnTape(rapid.Float64Range(2200, 5000).Draw(t, "y"), false)
		})(p)
		if p.Validate() != nil {
			t.Skip("refused")
		}
		w := work.Do(p, shop.Kept, today)
		s := find(Check(w), "fill-seen", "")
		if s == nil {
			return
		}
		for _, m := range s.Mends {
			q, err := p.Apply(m.Edit)
			if err != nil {
				t.Fatal(err)
			}
			if find(Check(work.Do(q, shop.Kept, today)), "fill-seen", s.At[0]) != nil {
				t.Fatalf("%s does not hide it", m.Label)
			}
		}
	})
}

// However a yard is set out, each mend that is offered there, taken and looked at afresh,
// cures what it was offered for, raises no stop that was not there, and can be undone.
func TestYardMendsKeepTheirWord(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		ft := func(n string, lo, hi int) measure.Length {
			return measure.OnTape(float64(rapid.IntRange(lo*12, hi*12).Draw(t, n))*measure.Inch, false)
		}
		p := clean()
		setOut(func(p *plan.Plan) {
			p.Plots()[0].X, p.Plots()[0].Y = ft("x", 5, 40), ft("y", 3, 30)
			p.Plots()[0].Mass = measure.Must[measure.MassKind](
				rapid.SampledFrom([]string{"8 lb", "30 lb", "90 lb"}).Draw(t, "kg"),
			)
			p.Walkways()[0].Wide = ft("wide", 2, 6)
			p.Fixtures()[0].X, p.Fixtures()[0].Y = ft("fx", 5, 38), ft("fy", 5, 30)
			p.Fixtures()[1].Lumens, p.Fixtures()[3].Lumens = rapid.IntRange(0, 300).
				Draw(t, "lm"),
				rapid.IntRange(0, 300).
					Draw(t, "lm3")
			p.Walls()[0].High = ft("high", 1, 7)
			p.Outlets()[0].Y, p.Cords()[0].Long = ft("oy", 1, 36), ft("long", 10, 100)
			gusts := rapid.SampledFrom([]string{"5 mph", "25 mph", "45 mph"}).Draw(t, "gusts")
			p.Doc().Forecasts = []plan.Forecast{{ID: "f", On: "2026-10-09", Gusts: measure.Must[measure.SpeedKind](gusts)}}
			p.Inputs()[0].Kind, p.Inputs()[0].Far, p.Inputs()[0].Latency = "mat", ft("far", 2, 36), sec("1 s")
		})(p)
		if p.Validate() != nil {
			t.Skip("refused")
		}
		before := Check(work.Do(p, shop.Kept, today))
		stops := map[string]bool{}
		for _, s := range before {
			stops[s.ID()] = s.Level == Stop
		}
		var here []Snag
		for _, s := range before {
			if s.Place == "yard" && len(s.Mends) > 0 {
				here = append(here, s)
			}
		}
		if len(here) > 0 { // one of them: the next yard is another's
			s := here[rapid.IntRange(0, len(here)-1).Draw(t, "snag")]
			for _, m := range s.Mends {
				q, err := p.Apply(m.Edit)
				if err != nil {
					t.Fatal(err)
				}
				for _, x := range Check(work.Do(q, shop.Kept, today)) {
					if x.ID() == s.ID() || x.Level == Stop && !stops[x.ID()] {
						t.Fatalf("%s: %q leaves or raises %s: %s", s.Code, m.Label, x.Code, x.Title)
					}
				}
				back, err := q.Apply(m.Edit.Inverse())
				if err != nil || string(back.Encode()) != string(p.Encode()) {
					t.Fatalf("%q cannot be undone", m.Label)
				}
			}
		}
	})
}
