package check

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/testkit/wirings"
)

// kirchhoff checks a solved rig against two laws that hold in any network:
// the currents of each node sum to nothing, and what sources give is what
// everything else takes (Tellegen's theorem).
func kirchhoff(t *testing.T, seed uint64, rig *plan.Rig, st *plan.State) {
	sum := make([]float64, len(rig.Net.Names))
	power, moved := 0.0, 0.0
	for i, e := range rig.Net.Elements {
		c := st.Solution.I[i]
		sum[e.A] += c
		sum[e.B] -= c
		w := c * st.Solution.Across(e)
		power, moved = power+w, moved+math.Abs(w)
	}
	for i, x := range sum {
		require.InDelta(t, 0, x, 1e-4, "seed %d: node %s", seed, rig.Net.Names[i])
	}
	require.InDelta(t, 0, power, 1e-5*moved+1e-6, "seed %d", seed)
}

// A hundred and twenty careless wirings: each is solved, keeps to Kirchhoff and
// Tellegen, and every mend that is offered applies, can be undone, and makes
// its snag go away or at least less bad.
func TestMendsOfRandomWirings(t *testing.T) {
	offered, cured := 0, 0
	codes := map[string]int{}
	for seed := range uint64(120) {
		p := wirings.Random(seed)
		if p.Validate() != nil {
			continue // a loop of feeds or the like, refused in words
		}
		w := plan.Do(p, stock.Shop, today)
		require.True(t, w.All.Solution.Settled, "seed %d", seed)
		kirchhoff(t, seed, w.Rig, w.All)
		for _, s := range Check(w) {
			codes[s.Code]++
			require.NotEmpty(t, s.Why, "%d %s", seed, s.Code)
			for _, m := range s.Mends {
				offered++
				q, err := p.Apply(m.Edit)
				require.NoError(t, err, "seed %d, %s: %s", seed, s.Code, m.Label)
				back, err := q.Apply(m.Edit.Inverse())
				require.NoError(t, err)
				require.Equal(t, string(p.Encode()), string(back.Encode()), "undone")
				left := find(snags(t, q), s.Code, s.At[0])
				if left == nil || left.Level < s.Level || left.weight < s.weight {
					cured++
				} else {
					t.Logf("seed %d, %s (%s): %q leaves %s", seed, s.Code, s.Title, m.Label, left.Why)
				}
			}
		}
	}
	t.Logf("%d of %d mends cure, over %d kinds of snag: %v", cured, offered, len(codes), codes)
	assert.Greater(t, offered, 500)
	assert.Equal(t, offered, cured)
}
