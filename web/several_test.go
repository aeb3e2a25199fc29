package web

import (
	"net/http"
	"net/url"
	"strings"
	"testing"

	"zapbarn/store"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What is picked together is changed, copied and taken away together, each as one
// step; what one of them refuses is done to none.
func TestSeveralAtOnce(t *testing.T) {
	srv, st := opened(t)
	sel := "solid:skep-body,solid:riser-box,device:none,solid:riser-box"
	load := func() (n int, heights []string) {
		p, _, err := st.Load(t.Context(), "midnight-apiary")
		require.NoError(t, err)
		for _, id := range []string{"riser-box", p.Solids()[0].ID} {
			heights = append(heights, p.Solid(id).X.String())
		}
		return len(p.Solids()), heights
	}
	p, _, err := st.Load(t.Context(), "midnight-apiary")
	require.NoError(t, err)
	sel = "solid:" + p.Solids()[0].ID + ",solid:riser-box,device:none,solid:riser-box"
	before, was := load()
	_, page, _ := got(t, srv, apiary+"/bench?prop=riser&sel="+url.QueryEscape(sel))
	assert.Contains(t, page, "<h2>2 picked</h2>")
	assert.NotContains(t, page, `action="/p/midnight-apiary/edit"`, "in place of one ticket")

	each := func(do, text string) (int, string) {
		return post(t, srv, apiary+"/each", url.Values{"sel": {sel}, "do": {do}, "each": {text}})
	}
	code, _ := each("say", "right by 3 in")
	require.Equal(t, http.StatusSeeOther, code)
	_, now := load()
	assert.NotEqual(t, was[0], now[0])
	assert.NotEqual(t, was[1], now[1])
	label, err := st.Undo(t.Context(), "midnight-apiary", store.By{})
	require.NoError(t, err)
	assert.Equal(t, "right by 3 in of 2", label)
	_, now = load()
	assert.Equal(t, was, now, "one step")

	code, page = each("say", "right by three feathers")
	assert.Equal(t, http.StatusUnprocessableEntity, code)
	assert.Contains(t, page, "Nothing was done to any of them")
	code, page = each("say", "")
	assert.Equal(t, http.StatusUnprocessableEntity, code)
	assert.Contains(t, page, "Say what of each")
	_, now = load()
	assert.Equal(t, was, now)

	code, _ = each("copy", "")
	require.Equal(t, http.StatusSeeOther, code)
	n, _ := load()
	assert.Equal(t, before+2, n)
	_, err = st.Undo(t.Context(), "midnight-apiary", store.By{})
	require.NoError(t, err)
	code, _ = each("remove", "")
	require.Equal(t, http.StatusSeeOther, code)
	q, _, err := st.Load(t.Context(), "midnight-apiary")
	require.NoError(t, err)
	assert.Len(t, q.Solids(), before-2)
	assert.Nil(t, q.Solid("riser-box"))
	code, page = each("remove", "")
	assert.Equal(t, http.StatusUnprocessableEntity, code)
	assert.Contains(t, page, "Nothing was done")
	_, err = st.Undo(t.Context(), "midnight-apiary", store.By{})
	require.NoError(t, err)

	sel = "device:W1,device:W2"
	code, _ = each("say", "gauge 14 awg")
	require.Equal(t, http.StatusSeeOther, code)
	q, _, err = st.Load(t.Context(), "midnight-apiary")
	require.NoError(t, err)
	assert.True(t, strings.EqualFold("14 AWG", q.Device("W1").Gauge.String()))
	assert.True(t, strings.EqualFold("14 AWG", q.Device("W2").Gauge.String()))
	code, page = each("copy", "")
	assert.Equal(t, http.StatusUnprocessableEntity, code)
	assert.Contains(t, page, "say what feeds the copy")
}
