package web

import (
	"bytes"
	"context"
	"encoding/json"
	"mime/multipart"
	"net/http"
	"net/url"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The shop of a plan: found, changed, filled in on its ticket, brought in and
// taken out as a file; a refused row keeps the plan as it was.
func TestTheShopOfAPlan(t *testing.T) {
	srv, st := barn(t)
	_, page, _ := got(t, srv, apiary+"?way=shop&find=muslin")
	assert.Contains(t, page, "Muslin, 60 in wide")
	assert.NotContains(t, page, "Plywood 1/2")
	code, _ := post(t, srv, apiary+"/quick", url.Values{"line": {"shop material xps1"}})
	require.Equal(t, http.StatusSeeOther, code)
	_, page, _ = got(t, srv, apiary+"?way=shop&sel=good:material-xps1")
	assert.Contains(t, page, "Yours: open")
	assert.Contains(t, page, `name="f.density" value="32"`, "as it stands")
	p, _, err := st.Load(context.Background(), "midnight-apiary")
	require.NoError(t, err)
	was, err := json.Marshal(p.Goods[0])
	require.NoError(t, err)
	code, _ = post(t, srv, apiary+"/edit", url.Values{"kind": {"good"}, "id": {"material-xps1"}, "was": {string(was)}, "f.price": {"40"}, "f.thick": {"1 in"}, "name": {"material xps1"}})
	require.Equal(t, http.StatusSeeOther, code)
	_, csv, _ := got(t, srv, apiary+"/shop.csv")
	assert.Contains(t, csv, "material,xps1,,price,40,")
	assert.NotContains(t, csv, "thick", "what was not changed is not set")
	code, page = post(t, srv, apiary+"/edit", url.Values{"kind": {"good"}, "id": {"material-xps1"}, "was": {string(was)}, "f.density": {"heavy"}, "name": {"material xps1"}})
	assert.Equal(t, http.StatusUnprocessableEntity, code)
	assert.Contains(t, page, "heavy")
	send := func(text string) (int, string) {
		var b bytes.Buffer
		m := multipart.NewWriter(&b)
		require.NoError(t, m.WriteField("back", apiary+"?way=shop"))
		f, err := m.CreateFormFile("file", "shop.csv")
		require.NoError(t, err)
		_, err = f.Write([]byte(text))
		require.NoError(t, err)
		require.NoError(t, m.Close())
		c := http.Client{CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse }}
		r, err := c.Post(srv.URL+apiary+"/shop", m.FormDataContentType(), &b)
		require.NoError(t, err)
		defer r.Body.Close()
		var out bytes.Buffer
		_, err = out.ReadFrom(r.Body)
		require.NoError(t, err)
		return r.StatusCode, out.String()
	}
	code, _ = send("material,cork3,eva5,thick,3 mm\n")
	assert.Equal(t, http.StatusSeeOther, code)
	code, page = send("material,cork4,eva5,thick,thin\n")
	assert.Equal(t, http.StatusUnprocessableEntity, code)
	assert.Contains(t, page, "row 1")
	_, csv, _ = got(t, srv, apiary+"/shop.csv")
	assert.Contains(t, csv, "cork3")
	assert.NotContains(t, csv, "cork4")
}
