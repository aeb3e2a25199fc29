package shell

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Two searches at most go on at once, one a plan.
func TestSearchesAreFew(t *testing.T) {
	x := searches{of: map[string]*running{}, most: 2}
	a, endA, ok := x.begin(context.Background(), "a")
	require.True(t, ok)
	_, endB, ok := x.begin(context.Background(), "b")
	require.True(t, ok)
	_, _, ok = x.begin(context.Background(), "c")
	assert.False(t, ok, "two at most")
	again, endAgain, ok := x.begin(context.Background(), "a")
	require.True(t, ok)
	assert.Error(t, a.Err(), "the one before ends")
	endA()
	assert.NoError(t, again.Err(), "and does not end the next")
	endAgain()
	endB()
	assert.Empty(t, x.of)
}
