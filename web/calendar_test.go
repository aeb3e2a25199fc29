package web

import (
	"context"
	"encoding/json"
	"net/url"
	"strings"
	"testing"

	"zapbarn/web/calendar"

	"zapbarn/core/order"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What is said of a task that is none, of a delivery that is gone, what cannot be added:
// refused, and nothing kept.
func TestTheCalendarRefuses(t *testing.T) {
	srv, st := opened(t)
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

// On its ticket a task is put in parts, done together with another and apart again; what
// both took is shared by what each was planned to take.
func TestATaskIsSplitAndMerged(t *testing.T) {
	srv, st := opened(t)
	load := func() *plan.Plan {
		p, _, err := st.Load(context.Background(), "midnight-apiary")
		require.NoError(t, err)
		return p
	}
	tell := func(f url.Values) string {
		f.Set("back", apiary+"/calendar?sel=task:"+f.Get("task"))
		code, body := post(t, srv, apiary+"/task", f)
		require.Less(t, code, 400, body)
		return body
	}
	var two []*order.Task
	for _, x := range order.Of(work.Do(load(), shop.Kept, today)).Left() {
		if x.Kind == "cut" || x.Kind == "fit" {
			two = append(two, x)
		}
	}
	require.GreaterOrEqual(t, len(two), 2)
	a, b := two[0].Key, two[1].Key
	tell(url.Values{"task": {a}, "do": {"split"}, "parts": {"3"}})
	assert.Equal(t, 3, load().JobOf(a).Parts)
	tell(url.Values{"task": {a}, "do": {"split"}, "parts": {"1"}})
	assert.Nil(t, load().JobOf(a), "nothing is said of it any more")
	tell(url.Values{"task": {b}, "do": {"merge"}, "with": {a}})
	assert.Equal(t, a, load().JobOf(b).With)
	_, page := fetched(t, srv, apiary+"/calendar?sel=task:"+a)
	assert.Contains(t, page, "With it: ")
	tell(url.Values{"task": {b}, "do": {"apart"}})
	assert.Nil(t, load().JobOf(b))
	tell(url.Values{"task": {b}, "do": {"merge"}, "with": {a}})
	tell(url.Values{"task": {a}, "do": {"done"}, "took": {"90"}})
	p := load()
	assert.Equal(t, []string{"done", "done"}, []string{p.JobOf(a).State, p.JobOf(b).State})
	took := p.JobOf(a).Took.Value() + p.JobOf(b).Took.Value()
	assert.InDelta(t, 90*60, took, 1e-6)
	share := float64(two[1].Planned) / float64(two[0].Planned+two[1].Planned)
	assert.InDelta(t, 90*60*share, p.JobOf(b).Took.Value(), 31)
	for _, f := range []url.Values{{"parts": {"many"}}, {"parts": {"40"}}} {
		f.Set("task", a)
		f.Set("do", "split")
		code, body := post(t, srv, apiary+"/task", f)
		assert.GreaterOrEqual(t, code, 400)
		assert.Contains(t, body, "2 to 12")
	}
}

// A search for a better order says how far it came until it is done or stopped; what it
// found is kept by a press and forgotten by another, and an order that cannot be read is not.
func TestABetterOrderIsLookedFor(t *testing.T) {
	srv, st := opened(t)
	code, body := fetched(t, srv, apiary+"/better")
	assert.Equal(t, 200, code)
	lines := strings.Split(strings.TrimSpace(body), "\n\n")
	var last calendar.FoundOrder
	require.NoError(t, json.Unmarshal([]byte(strings.TrimPrefix(lines[len(lines)-1], "data: ")), &last))
	assert.True(t, last.Done)
	assert.InDelta(t, 1, last.Share, 1e-9)
	assert.Contains(t, last.Said, "orders tried: all is over")
	p, _, err := st.Load(context.Background(), "midnight-apiary")
	require.NoError(t, err)
	in := order.In(work.Do(p, shop.Kept, today))
	turns, err := json.Marshal(in.Better().Turns())
	require.NoError(t, err)
	back := apiary + "/calendar?way=bars"
	code, _ = post(t, srv, apiary+"/turns", url.Values{"do": {"keep"}, "layout": {string(turns)}, "back": {back}})
	require.Less(t, code, 400)
	p, _, err = st.Load(context.Background(), "midnight-apiary")
	require.NoError(t, err)
	assert.NotEmpty(t, p.Display().Turns)
	code, _ = post(t, srv, apiary+"/turns", url.Values{"do": {"keep"}, "layout": {"{"}, "back": {back}})
	assert.GreaterOrEqual(t, code, 400)
	code, _ = post(t, srv, apiary+"/turns", url.Values{"do": {"forget"}, "back": {back}})
	require.Less(t, code, 400)
	p, _, err = st.Load(context.Background(), "midnight-apiary")
	require.NoError(t, err)
	assert.Empty(t, p.Display().Turns)
}
