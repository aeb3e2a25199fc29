package web

import (
	"context"
	"net/url"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Where a phone opens the display is asked where labels are printed, until it is known.
func TestWhereAPhoneOpensItIsAskedOnce(t *testing.T) {
	srv, st := opened(t)
	const asks = "Where does a phone open this display?"
	_, print, _ := got(t, srv, apiary+"/bench?way=print&prop=riser")
	_, stores, _ := got(t, srv, apiary+"/stores")
	assert.Contains(t, print, asks)
	assert.Contains(t, stores, asks)
	send := func(address string) (int, string) {
		p, _, err := st.Load(context.Background(), "midnight-apiary")
		require.NoError(t, err)
		return post(t, srv, apiary+"/edit", url.Values{"kind": {"display"}, "id": {p.Display().ID},
			"name": {p.Display().Name},
			"was":  {string(p.Put("display", p.Display().ID, p.Display()).After)}, "f.reach": {address},
			"back": {apiary + "/bench?way=print&prop=riser"}})
	}
	code, body := send("http://127.0.0.1:8480")
	assert.Equal(t, 422, code)
	assert.Contains(t, body, "this machine alone")
	assert.Contains(t, body, `value="http://127.0.0.1:8480"`, "what was entered stays in its place")
	code, _ = send("http://barn.home")
	assert.Equal(t, 303, code)
	_, print, _ = got(t, srv, apiary+"/bench?way=print&prop=riser")
	assert.NotContains(t, print, asks)
	assert.Contains(t, print, "open at <b>http://barn.home</b>")
	_, ticket, _ := got(t, srv, apiary+"?sel=display:midnight-apiary")
	assert.Contains(t, ticket, `value="http://barn.home"`)
}
