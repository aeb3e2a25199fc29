package bond

import (
	"math"
	"testing"

	"zapbarn/core/stock"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// For any pair and glue: the order of the sides does not matter, an older
// bottle is never better, and every verdict has its reason.
func TestJudgeProperties(t *testing.T) {
	ms, gs := stock.IDs(stock.Shop.Materials), stock.IDs(stock.Shop.Glues)
	rapid.Check(t, func(t *rapid.T) {
		j := Joint{
			A:    m[rapid.SampledFrom(ms).Draw(t, "a")],
			B:    m[rapid.SampledFrom(ms).Draw(t, "b")],
			Glue: g[rapid.SampledFrom(gs).Draw(t, "glue")],
			Temp: rapid.Float64Range(-5, 40).
				Draw(t, "temp"),
			RH:     rapid.Float64Range(0, 100).Draw(t, "rh"),
			Age:    rapid.Float64Range(0, 9e7).Draw(t, "age"),
			Sun:    rapid.Bool().Draw(t, "sun"),
			Strain: rapid.Bool().Draw(t, "strain"),
		}
		a := Judge(j)
		k := j
		k.A, k.B = j.B, j.A
		require.Equal(t, a.Verdict, Judge(k).Verdict)
		k = j
		k.Age *= 2
		require.GreaterOrEqual(t, Judge(k).Verdict, a.Verdict)
		require.NotEmpty(t, a.Reasons)
		worst := Good
		for i, r := range a.Reasons {
			worst = max(worst, r.Verdict)
			require.NotEmpty(t, r.Text)
			require.True(t, i == 0 || r.Verdict <= a.Reasons[i-1].Verdict, "worst first")
		}
		require.Equal(t, worst, a.Verdict)
		require.False(t, math.IsNaN(a.Handling) || a.Handling < 0)
	})
}

// Colder or damper air never dries faster.
func TestDryingIsMonotone(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		temp, rh := rapid.Float64Range(-5, 45).Draw(t, "t"), rapid.Float64Range(0, 100).Draw(t, "rh")
		require.GreaterOrEqual(t, DryFactor(temp-3, rh), DryFactor(temp, rh)-1e-12)
		require.GreaterOrEqual(t, DryFactor(temp, math.Min(100, rh+5)), DryFactor(temp, rh)-1e-12)
		require.GreaterOrEqual(t, ColdFactor(temp-3), ColdFactor(temp))
	})
}
