package web

import (
	"context"
	"net/url"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What is said of a task that is none, of a delivery that is gone, what cannot be added:
// refused, and nothing kept.
func TestTheCalendarRefuses(t *testing.T) {
	srv, st := barn(t)
	p, _, err := st.Load(context.Background(), "midnight-apiary")
	require.NoError(t, err)
	was := string(p.Encode())
	for path, forms := range map[string][]url.Values{
		"/task": {
			{"task": {"glue:nothing"}, "do": {"done"}}, {"task": {"fit:riser-box"}, "do": {"eaten"}},
			{"task": {"fit:riser-box"}, "do": {"done"}, "took": {"long"}}, {"task": {"fit:riser-box"}, "do": {"left out"}},
			{"task": {"fit:riser-box"}, "do": {"later"}, "from": {"soon"}}, {"task": {"fit:riser-box"}, "do": {"still to do"}},
			{"do": {"here"}, "delivery": {"none"}},
		},
		"/crew": {
			{"kind": {"prop"}, "n.name": {"X"}}, {"kind": {"person"}, "n.name": {" "}},
			{"kind": {"person"}, "n.name": {"X"}, "n.hours": {"whenever"}}, {"kind": {"person"}, "n.name": {"Ola"}},
			{"kind": {"delivery"}, "n.name": {"X"}, "n.for": {"prop:none"}, "n.arrives": {"2026-10-01"}},
			{"kind": {"delivery"}, "n.name": {"X"}, "n.for": {"prop:gate"}, "n.arrives": {"soon"}},
			{"kind": {"job"}, "n.name": {"X"}, "n.hands": {"a while"}},
		},
		"/stock": {
			{"what": {"lamp"}, "have": {"3"}}, {"what": {"lamp:puck12"}, "have": {"a few"}}, {"what": {"lamp:puck12"}},
		},
	} {
		for _, f := range forms {
			code, body := post(t, srv, apiary+path, f)
			assert.GreaterOrEqual(t, code, 400, "%s %v", path, f)
			assert.Contains(t, body, `class="error"`, "%s %v", path, f)
			q, _, err := st.Load(context.Background(), "midnight-apiary")
			require.NoError(t, err)
			assert.Equal(t, was, string(q.Encode()), "%s %v", path, f)
		}
	}
}
