package plan

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// earlier is a plan file as an earlier version took it: an opening on a face that a stack of
// rings no longer has, a plug whose outlet is empty.
const earlier = `{"format":"` + Format + `","display":{"id":"old","name":"Old","units":"in"},
"props":[{"id":"a","name":"A"}],
"solids":[{"id":"r","prop":"a","name":"Stack","kind":"rings","stock":"xps2","low":"20 in","high":"14 in","h":"12 in",
 "wall":"2 in","openings":[{"name":"Door","face":"course3","kind":"rect","w":"3 in","h":"1 in","y":"1 in"}]},
 {"id":"p","prop":"a","name":"Panel","kind":"panel","stock":"xps1","w":"10 in","h":"10 in"}],
"finishes":[{"id":"f","solid":"r","layers":[]}],
"plugs":[{"id":"fog","name":"Fogger","watts":"700 W","outlet":""}],
"outlets":[{"id":"o","name":"Porch","volts":"120 V","breaker":"15 A"}]}`

// What an earlier version took opens: what no longer holds is set aside with its words, with
// what names it, and all else is there; nothing is lost when it is written again.
func TestWhatAnEarlierVersionTookOpens(t *testing.T) {
	_, err := Decode([]byte(earlier))
	require.Error(t, err, "it does not stand as it is")
	p, err := Open([]byte(earlier))
	require.NoError(t, err)
	aside := map[string]string{}
	for _, b := range p.Broken() {
		aside[b.Kind+":"+b.ID] = b.Err.Error()
	}
	assert.Contains(t, aside["solid:r"], "course3")
	assert.Contains(t, aside["plug:fog"], "outlet")
	assert.Contains(t, aside, "finish:f")
	assert.NotNil(t, p.Solid("p"))
	again, err := Open(p.Encode())
	require.NoError(t, err)
	assert.Len(t, again.Broken(), 3, "and so it is kept")

	// mended, it comes back in with what named it
	for _, b := range p.Broken() {
		if b.Kind != "solid" {
			continue
		}
		var v map[string]json.RawMessage
		require.NoError(t, json.Unmarshal(b.Raw, &v))
		delete(v, "openings")
		after, err := json.Marshal(v)
		require.NoError(t, err)
		q, err := p.Apply(Edit{Label: "mend", Changes: []Change{{Kind: "solid", ID: "r", At: -1, Before: b.Raw,
			After: after}}})
		require.NoError(t, err)
		assert.NotNil(t, q.Solid("r"))
		assert.Len(t, q.Finishes(), 1, "its coats are back")
		require.Len(t, q.Broken(), 1)
		assert.Equal(t, "plug", q.Broken()[0].Kind)
		assert.Len(t, p.Broken(), 3, "the plan before is as it was")
	}

	// what no version took is refused in words
	for _, bad := range []string{"", "[]", `{"format":"` + Format +
		`","display":{"id":"x","name":"X"},"props":[{"id":"a","nam":"A"}]}`,
		`{"format":"` + Format + `","display":{"id":"x","name":"X"},"props":[{"id":"a","name":"A","known":"ten"}]}`,
		`{"format":"` + Format + `","display":{"id":"x","name":"X"},"props":[{"id":"a","name":"A"},{"id":"a","name":"A"}]}`} {
		_, err := Open([]byte(bad))
		assert.Error(t, err, bad)
	}
}
