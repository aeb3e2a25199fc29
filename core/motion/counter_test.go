package motion

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What balances a load must be moved as well: 4 kg at 150 mm add 0.09 kg m2 to a rod's m l2 / 3;
// on a winch its mass adds to the load's.
func TestACounterweightHasInertia(t *testing.T) {
	m := Mechanism{Way: Direct{}, From: 0, To: 1, Load: Load{Mass: 2, Reach: .3, Tip: .6, Counter: 4, CounterAt: .15}}
	rows, err := m.Travel(10)
	require.NoError(t, err)
	assert.InDelta(t, 2*.36/3+4*.0225, rows[5].Inertia, 1e-6)
	w := Mechanism{Way: Winch{.04}, From: 0, To: 10, Load: Load{Mass: 5, Counter: 3}}
	rows, err = w.Travel(10)
	require.NoError(t, err)
	assert.InDelta(t, 8*.02*.02, rows[5].Inertia, 1e-9)
}
