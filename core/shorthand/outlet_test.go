package shorthand

import (
	"testing"

	"zapbarn/core/plan"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// An outlet of which nothing is said is the usual one of where its units are at home: 120 V and
// 15 A, or 230 V and 16 A (common practice).
func TestAnOutletAsUsual(t *testing.T) {
	for units, want := range map[string][2]string{"in": {"120 V", "15 A"}, "mm": {"230 V", "16 A"}} {
		p := plan.New("x", "X", units, "").In(shop.Kept)
		r, err := Read(p, shop.Kept, "", "outlet porch")
		require.NoError(t, err)
		q, err := p.Apply(r.Edit)
		require.NoError(t, err)
		require.Len(t, q.Outlets(), 1)
		assert.Equal(t, want, [2]string{q.Outlets()[0].Volts.String(), q.Outlets()[0].Breaker.String()})
	}
}
