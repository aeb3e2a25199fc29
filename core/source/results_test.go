package source

import (
	"encoding/json"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// A key is read as it is written, whatever its thing is called.
func TestKeysReadBack(t *testing.T) {
	assert.Equal(t, Key{"part", "box/front", "size"}, ParseKey("part:box/front:size"))
	assert.Equal(t, Key{"display", "", "mass"}, ParseKey("display:mass"))
	assert.Equal(t, What("takes"), ParseKey("takes"))
	rapid.Check(t, func(t *rapid.T) {
		word := rapid.StringMatching(`[a-z0-9/-]+`)
		k := Key{
			word.Draw(t, "kind"),
			rapid.StringMatching(`[a-z0-9/:-]*[a-z0-9]`).Draw(t, "id"),
			word.Draw(t, "what"),
		}
		assert.Equal(t, k, ParseKey(k.String()))
		b, err := json.Marshal(k)
		require.NoError(t, err)
		var back Key
		require.NoError(t, json.Unmarshal(b, &back))
		assert.Equal(t, k, back)
	})
}

// Results keep the order they came in, thing by thing, over what lies under them.
func TestResultsKeepTheirOrder(t *testing.T) {
	under := Over()
	under.Keep(Result{Key: Key{"solid", "a", "mass"}, Value: 1})
	under.Keep(Result{Key: Key{"solid", "b", "mass"}, Value: 2})
	r := Over(under)
	r.Keep(Result{Key: Key{"solid", "a", "area"}, Value: 3})
	r.Keep(Result{Key: Key{"device", "a", "load"}, Value: 4})
	r.Keep(Result{Key: Key{"solid", "a", "bore"}, Value: 5})
	r.Keep(Result{Key: Key{"solid", "a", "area"}, Value: 6}) // once more: where it stood
	values := func(list []Result) (out []float64) {
		for _, x := range list {
			out = append(out, x.Value)
		}
		return out
	}
	assert.Equal(t, []float64{1, 6, 5}, values(r.Of("solid", "a")))
	assert.Equal(t, []float64{1, 2, 6, 5, 4}, values(slices.Collect(r.All())), "thing by thing")
	assert.Equal(t, []float64{1}, values(under.Of("solid", "a")), "what lies under is left as it is")
	assert.Equal(t, 5, r.Len())
	assert.Equal(t, 2., r.At("solid", "b", "mass").Value)
	_, ok := r.Get(Key{"solid", "b", "area"})
	assert.False(t, ok)
	for x := range r.All() {
		assert.Equal(t, 1., x.Value)
		break
	}
	b, err := json.Marshal(r)
	require.NoError(t, err)
	var read map[string]Result
	require.NoError(t, json.Unmarshal(b, &read))
	assert.Len(t, read, 5)
	assert.Equal(t, 6., read["solid:a:area"].Value)
}

// What is taken over of another's numbers bears its own thing's key, and stays the other's as
// it was whatever is kept after.
func TestTakenOverIsNotChanged(t *testing.T) {
	from := Over()
	from.Room(3)
	from.Keep(Result{Key: Key{"part", "a/top", "mass"}, Value: 1})
	from.Keep(Result{Key: Key{"part", "a/top", "size"}, Value: 2})
	list := []Result{{Key: What("size"), Value: 7}, {Key: What("area"), Value: 8}}
	r := Over()
	r.TakeOver(from, "part", "a/top")
	r.TakeOver(from, "part", "nothing")
	r.Take("part", "b/top", list)
	r.Take("part", "c/top", list)
	r.Keep(Result{Key: Key{"part", "a/top", "mass"}, Value: 3})
	r.Keep(Result{Key: Key{"part", "b/top", "area"}, Value: 9})
	r.Keep(Result{Key: Key{"part", "b/top", "mass"}, Value: 10})
	r.Take("part", "a/top", list) // over what is there
	assert.Equal(t, []Result{
		{Key: Key{"part", "a/top", "mass"}, Value: 3},
		{Key: Key{"part", "a/top", "size"}, Value: 7},
		{Key: Key{"part", "a/top", "area"}, Value: 8},
		{Key: Key{"part", "b/top", "size"}, Value: 7},
		{Key: Key{"part", "b/top", "area"}, Value: 9},
		{Key: Key{"part", "b/top", "mass"}, Value: 10},
		{Key: Key{"part", "c/top", "size"}, Value: 7},
		{Key: Key{"part", "c/top", "area"}, Value: 8},
	}, slices.Collect(r.All()))
	x, ok := r.Get(Key{"part", "c/top", "area"})
	assert.True(t, ok)
	assert.Equal(t, Result{Key: Key{"part", "c/top", "area"}, Value: 8}, x)
	assert.Equal(t, x, r.Of("part", "c/top")[1])
	assert.Equal(t, 1., from.At("part", "a/top", "mass").Value)
	assert.Equal(t, []Result{{Key: What("size"), Value: 7}, {Key: What("area"), Value: 8}}, list)
	assert.Equal(t, 8, r.Len())
}
