package work_test

import (
	"testing"

	"zapbarn/core/work"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestEveryCaseOfTheWiring(t *testing.T) {
	p := apiary(t)
	w := work.Do(p, shop.Kept, today)
	cases := p.Cases(shop.Kept)
	require.Len(t, cases, 3+len(p.Scenes())+10+1)
	for _, c := range cases {
		st := p.Case(shop.Kept, c.Key)
		require.NotNil(t, st, c.Key)
		assert.True(t, st.Solution.Settled, c.Name)
	}
	all, rest := p.Case(shop.Kept, "all"), p.Case(shop.Kept, "rest")
	for id, g := range w.All().Readings {
		assert.InDelta(t, g.Volts, all.Readings[id].Volts, 1e-6, id)
		assert.InDelta(
			t,
			w.Rest().Readings[id].Volts,
			rest.Readings[id].Volts,
			.05,
			id,
		) // what is switched off floats on leaks
	}
	// the scene that breathes works the riser's glow only
	breathe := p.Case(shop.Kept, "scene:breathe").Readings
	assert.Equal(t, "lit", breathe["glow-1"].State)
	assert.Less(t, breathe["fill"].Lit, .05)
	// unplugged, what it feeds is dark, and the rest as before
	without := p.Case(shop.Kept, "without:S1").Readings
	assert.Less(t, without["jar-1"].Lit, .01)
	assert.InDelta(t, w.All().Readings["glow-1"].Volts, without["glow-1"].Volts, 1e-6)
	// copper loses 0.393 % a kelvin (IEC 60028): in the cold the far jar sees more
	assert.Greater(t, p.Case(shop.Kept, "cold").Readings["jar-24"].Volts, w.All().Readings["jar-24"].Volts)
	// starting, the sunflowers' motor is its winding alone and its supply sags
	start := p.Case(shop.Kept, "start").Readings
	assert.Greater(t, start["S4"].Amps, 2.)
	assert.Less(t, start["sun-motor"].Volts, w.All().Readings["sun-motor"].Volts)
	assert.InDelta(t, w.All().Readings["jar-1"].Volts, start["jar-1"].Volts, 1e-6)
	for _, bad := range []string{"", "scene:none", "without:K1", "without:none", "summer"} {
		assert.Nil(t, p.Case(shop.Kept, bad), bad)
	}
}

// The whole Apiary in all its states.
func BenchmarkEveryState(b *testing.B) {
	p := healthy(b)
	cases := p.Cases(shop.Kept)
	b.ReportAllocs()
	for b.Loop() {
		for _, c := range cases {
			p.Case(shop.Kept, c.Key)
		}
	}
	b.ReportMetric(float64(len(cases)), "states")
}
