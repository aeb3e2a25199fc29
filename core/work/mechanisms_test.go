package work_test

import (
	"math"
	"testing"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// moving is a prop with one mechanism, its motor and the two switches that drive it.
func moving(x plan.Mechanism) *plan.Plan {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	p.Doc().Devices = []plan.Device{
		{ID: "S1", Prop: "a", Kind: "supply", Name: "S1", Product: "ps12-10"},
		{ID: "K1", Prop: "a", Kind: "switch", Name: "K1", From: "S1", Driven: true},
		{ID: "K2", Prop: "a", Kind: "switch", Name: "K2", From: "S1", Driven: true},
		{ID: "M1", Prop: "a", Kind: "lamp", Name: "M1", From: "K1", Product: "motor12"},
	}
	x.ID, x.Prop, x.Name, x.Up, x.Down, x.Motor = "m", "a", "M", "K1", "K2", "M1"
	p.Doc().Mechanisms = []plan.Mechanism{x}
	return p
}

// said takes a quantity as written; nothing written is none.
func said[Q any](s string, read func(string) Q) (q Q) {
	if s != "" {
		q = read(s)
	}
	return q
}

// Whatever is written of a mechanism, nothing falls over, and what is worked out is a number:
// what cannot be is asked for instead.
func TestAnyMechanismGivesNumbers(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		long := func(name string) measure.Length {
			s := rapid.SampledFrom([]string{"", "0 in", "0.001 mm", "3 in", "3 in", "9 in", "12 in", "30 ft"})
			return said(s.Draw(t, name), measure.Len)
		}
		side := func(name string) measure.Length {
			s := rapid.SampledFrom([]string{"", "-9 in", "-2 in", "0 in", "3 in", "9 in", "-30 ft"})
			return said(s.Draw(t, name), measure.Len)
		}
		turn := func(name string) measure.Angle {
			s := rapid.SampledFrom([]string{"", "0 deg", "-90 deg", "30 deg", "100 deg", "3000 deg"}).Draw(t, name)
			return said(s, measure.Must[measure.AngleKind])
		}
		heavy := func(name string) measure.Mass {
			s := rapid.SampledFrom([]string{"", "0 lb", "2 lb", "2 lb", "1000 lb"}).Draw(t, name)
			return said(s, measure.Must[measure.MassKind])
		}
		x := plan.Mechanism{
			Kind:   rapid.SampledFrom([]string{"lid", "slide", "servo", "winch", "turntable"}).Draw(t, "kind"),
			Crank:  long("crank"),
			Link:   long("link"),
			Arm:    long("arm"),
			PivotX: side("px"),
			PivotY: side("py"),
			From:   turn("from"),
			To:     turn("to"),
			Drum:   long("drum"),
			Travel: long("travel"),
			Mass:   heavy("mass"),
			Reach: long(
				"reach",
			),
			Lean:      turn("lean"),
			Tip:       long("tip"),
			Friction:  rapid.IntRange(0, 300).Draw(t, "rub"),
			Counter:   heavy("counter"),
			CounterAt: long("at"),
			Wide:      long("wide"),
			High:      long("high"),
		}
		p := moving(x)
		if p.Validate() != nil {
			t.Skip("refused as written")
		}
		w := work.Do(p, shop.Kept, today)
		m := w.Moved("m")
		require.NotNil(t, m)
		for _, what := range []string{"torque", "margin", "time", "amps", "heat", "energy"} {
			v := w.Results().At("mechanism", "m", what).Value
			require.False(t, math.IsNaN(v) || math.IsInf(v, 0), "%s: %v of %+v", what, v, x)
			require.GreaterOrEqual(t, v, 0.0, what)
		}
		require.True(t, len(m.Rows) > 0 || len(m.Lacks) > 0 || m.Jam != nil, "worked out, asked for, or it jams")
	})
}

// A length of nothing is none.
func TestZeroIsLacking(t *testing.T) {
	x := plan.Mechanism{Kind: "winch", Drum: measure.Len("0 in"), Travel: measure.Len("20 in"),
		Mass: measure.Must[measure.MassKind]("2 lb")}
	assert.Equal(t, []string{"drum"}, x.Lacks())
	x.Drum = measure.Len("2 in")
	assert.Empty(t, x.Lacks())
}
