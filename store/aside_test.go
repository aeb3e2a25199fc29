package store_test

import (
	"testing"

	"zapbarn/core/plan"
	"zapbarn/store"
	"zapbarn/testkit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A file that an earlier version took is stored with what no longer holds set aside; read again it
// is there as it was, and mended it is taken back in for good.
func TestWhatIsSetAsideIsStored(t *testing.T) {
	s, err := store.Open(ctx, testkit.Database(t))
	require.NoError(t, err)
	defer s.Close()
	p, log, err := store.ReadDisplay([]byte(`{"format":"` + plan.Format + `","display":{"id":"old","name":"Old","units":"in"},
		"props":[{"id":"a","name":"A"}],"outlets":[{"id":"o","name":"Porch","volts":"120 V","breaker":"15 A"}],
		"plugs":[{"id":"fog","name":"Fogger","watts":"700 W","outlet":""}]}`))
	require.NoError(t, err)
	assert.Empty(t, log)
	require.Len(t, p.Broken(), 1)
	id, err := s.CreateFresh(ctx, p)
	require.NoError(t, err)
	q, _, err := s.Load(ctx, id)
	require.NoError(t, err)
	require.Len(t, q.Broken(), 1)
	b := q.Broken()[0]
	after := []byte(`{"id":"fog","name":"Fogger","watts":"700 W","outlet":"o"}`)
	require.NoError(t, s.Apply(ctx, id, store.By{Who: "me"}, plan.Edit{Label: "plug it in",
		Changes: []plan.Change{{Kind: "plug", ID: "fog", At: -1, Before: b.Raw, After: after}}}))
	q, _, err = s.Load(ctx, id)
	require.NoError(t, err)
	assert.Empty(t, q.Broken())
	require.Len(t, q.Plugs(), 1)
	assert.Equal(t, "o", q.Plugs()[0].Outlet)
}
