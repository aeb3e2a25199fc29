package web

import (
	"bytes"
	"context"
	"encoding/json"
	"mime/multipart"
	"net/http"
	"net/url"
	"testing"

	"zapbarn/testkit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The shop of a plan: found, changed, filled in on its ticket, brought in and
// taken out as a file; a refused row keeps the plan as it was.
func TestTheShopOfAPlan(t *testing.T) {
	srv, st := opened(t)
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
	was, err := json.Marshal(p.Goods()[0])
	require.NoError(t, err)
	code, _ = post(
		t,
		srv,
		apiary+"/edit",
		url.Values{
			"kind":    {"good"},
			"id":      {"material-xps1"},
			"was":     {string(was)},
			"f.price": {"40"},
			"f.thick": {"1 in"},
			"name":    {"material xps1"},
		},
	)
	require.Equal(t, http.StatusSeeOther, code)
	_, csv, _ := got(t, srv, apiary+"/shop.csv")
	assert.Contains(t, csv, "material,xps1,,price,40,")
	assert.NotContains(t, csv, "thick", "what was not changed is not set")
	code, page = post(
		t,
		srv,
		apiary+"/edit",
		url.Values{
			"kind":      {"good"},
			"id":        {"material-xps1"},
			"was":       {string(was)},
			"f.density": {"heavy"},
			"name":      {"material xps1"},
		},
	)
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
		c := testkit.Page()
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

// A mesh on a sheet's stock is cut in layers, on a filament it is printed; an
// outline on a filament is refused.
func TestAMeshIsCutOrPrinted(t *testing.T) {
	srv, st := opened(t)
	cube := "solid c\n"
	face := func(a, b, c, d string) {
		for _, tri := range [][3]string{{a, b, c}, {a, c, d}} {
			cube += "facet normal 0 0 0\nouter loop\nvertex " + tri[0] + "\nvertex " + tri[1] + "\nvertex " + tri[2] +
				"\nendloop\nendfacet\n"
		}
	}
	face("0 0 0", "0 1 0", "1 1 0", "1 0 0")
	face("0 0 1", "1 0 1", "1 1 1", "0 1 1")
	face("0 0 0", "1 0 0", "1 0 1", "0 0 1")
	face("1 1 0", "0 1 0", "0 1 1", "1 1 1")
	face("0 1 0", "0 0 0", "0 0 1", "0 1 1")
	face("1 0 0", "1 1 0", "1 1 1", "1 0 1")
	cube += "endsolid c\n"
	send := func(name, text, stock string) int {
		var b bytes.Buffer
		m := multipart.NewWriter(&b)
		for k, v := range map[string]string{"back": apiary + "/bench?prop=riser", "prop": "riser", "stock": stock,
			"size": "8 in", "of": "height"} {
			require.NoError(t, m.WriteField(k, v))
		}
		f, err := m.CreateFormFile("file", name)
		require.NoError(t, err)
		_, err = f.Write([]byte(text))
		require.NoError(t, err)
		require.NoError(t, m.Close())
		c := testkit.Page()
		r, err := c.Post(srv.URL+apiary+"/bring", m.FormDataContentType(), &b)
		require.NoError(t, err)
		defer r.Body.Close()
		return r.StatusCode
	}
	last := func() string {
		p, _, err := st.Load(context.Background(), "midnight-apiary")
		require.NoError(t, err)
		return p.Solids()[len(p.Solids())-1].Kind
	}
	require.Equal(t, http.StatusSeeOther, send("cube.stl", cube, "xps2"))
	assert.Equal(t, "mesh", last())
	require.Equal(t, http.StatusSeeOther, send("cube.stl", cube, "pla"))
	assert.Equal(t, "printed", last())
	assert.Equal(
		t,
		http.StatusUnprocessableEntity,
		send("leaf.svg", `<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0h10v10z"/></svg>`, "pla"),
	)
	assert.Equal(t, http.StatusUnprocessableEntity, send("cube.stl", cube, "lightclay"))
}

// Of a thing on the shelf, what can be taken is stored, what cannot stays as it was entered.
func TestABadAmountHoldsUpNoBin(t *testing.T) {
	srv, st := opened(t)
	code, page := post(t, srv, apiary+"/stock", url.Values{"what": {"material:xps1"}, "name": {"XPS board 1\""},
		"have": {"many"}, "bin": {"B2"}, "lead": {"3"}, "back": {apiary + "/stores"}})
	assert.Equal(t, 422, code)
	assert.Contains(t, page, "What else you entered is stored")
	p, _, err := st.Load(t.Context(), "midnight-apiary")
	require.NoError(t, err)
	x := p.StockedOf("material:xps1")
	require.NotNil(t, x)
	assert.Equal(t, []string{"B2", "3"}, []string{x.Bin, x.Lead})
	assert.NotEqual(t, "many", x.Have)
}
