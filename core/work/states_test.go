package work_test

import (
	"testing"

	"zapbarn/core/stock"
	"zapbarn/core/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestEveryCaseOfTheWiring(t *testing.T) {
	p := apiary(t)
	w := work.Do(p, stock.Shop, today)
	cases := p.Cases(stock.Shop)
	require.Len(t, cases, 3+len(p.Scenes)+10+1)
	for _, c := range cases {
		st := p.Case(stock.Shop, c.Key)
		require.NotNil(t, st, c.Key)
		assert.True(t, st.Solution.Settled, c.Name)
	}
	all, rest := p.Case(stock.Shop, "all"), p.Case(stock.Shop, "rest")
	for id, g := range w.All.Readings {
		assert.InDelta(t, g.Volts, all.Readings[id].Volts, 1e-6, id)
		assert.InDelta(
			t,
			w.Rest.Readings[id].Volts,
			rest.Readings[id].Volts,
			.05,
			id,
		) // what is switched off floats on leaks
	}
	// the scene that breathes works the riser's glow only
	breathe := p.Case(stock.Shop, "scene:breathe").Readings
	assert.Equal(t, "lit", breathe["glow-1"].State)
	assert.Less(t, breathe["fill"].Lit, .05)
	// unplugged, what it feeds is dark, and the rest as before
	without := p.Case(stock.Shop, "without:S1").Readings
	assert.Less(t, without["jar-1"].Lit, .01)
	assert.InDelta(t, w.All.Readings["glow-1"].Volts, without["glow-1"].Volts, 1e-6)
	// copper loses 0.393 % a kelvin (IEC 60028): in the cold the far jar sees more
	assert.Greater(t, p.Case(stock.Shop, "cold").Readings["jar-24"].Volts, w.All.Readings["jar-24"].Volts)
	// starting, the sunflowers' motor is its winding alone and its supply sags
	start := p.Case(stock.Shop, "start").Readings
	assert.Greater(t, start["S4"].Amps, 2.)
	assert.Less(t, start["sun-motor"].Volts, w.All.Readings["sun-motor"].Volts)
	assert.InDelta(t, w.All.Readings["jar-1"].Volts, start["jar-1"].Volts, 1e-6)
	for _, bad := range []string{"", "scene:none", "without:K1", "without:none", "summer"} {
		assert.Nil(t, p.Case(stock.Shop, bad), bad)
	}
}

// The whole Apiary in all its states.
func BenchmarkEveryState(b *testing.B) {
	p := healthy(b)
	cases := p.Cases(stock.Shop)
	b.ReportAllocs()
	for b.Loop() {
		for _, c := range cases {
			p.Case(stock.Shop, c.Key)
		}
	}
	b.ReportMetric(float64(len(cases)), "states")
}
