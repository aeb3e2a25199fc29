package web

import (
	"context"
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"zapbarn/core/check"
	"zapbarn/core/plan"
	"zapbarn/core/shorthand"
	"zapbarn/core/work"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The log is a list to step to: back to any edit, and on again.
func TestSteppingThroughTheLog(t *testing.T) {
	srv, st := opened(t)
	ctx := context.Background()
	count := func() int {
		p, _, err := st.Load(ctx, "midnight-apiary")
		require.NoError(t, err)
		return len(p.Props())
	}
	before := count()
	for _, name := range []string{"alder", "birch", "cedar", "elm"} {
		code, _ := post(t, srv, apiary+"/quick", url.Values{"line": {"prop " + name}})
		require.Equal(t, http.StatusSeeOther, code)
	}
	log, err := st.Log(ctx, "midnight-apiary", 10)
	require.NoError(t, err)
	step := func(id int64) {
		code, _ := post(t, srv, apiary+"/step", url.Values{"to": {fmt.Sprint(id)}})
		require.Equal(t, http.StatusSeeOther, code)
	}
	step(log[3].ID)
	assert.Equal(t, before+1, count())
	_, page, _ := got(t, srv, apiary+"/walkdown?way=log")
	assert.Equal(t, 1, strings.Count(page, "the plan stands here"))
	assert.Equal(t, 3, strings.Count(page, "Do again up to here"))
	step(log[1].ID)
	assert.Equal(t, before+3, count())
	step(log[0].ID)
	assert.Equal(t, before+4, count())
	code, _ := post(t, srv, apiary+"/step", url.Values{"to": {"soon"}})
	assert.Equal(t, http.StatusUnprocessableEntity, code)
}

func TestFindingEverything(t *testing.T) {
	srv, _ := opened(t)
	for what, want := range map[string]string{"hive box": "Hive box", "jar 8": "Jar 8", "muslin": "Muslin, 60 in wide",
		"tower": "calculator", "is sealed": "snag", "porch": "outlet", "xps2": "Hive"} {
		_, page, _ := got(t, srv, apiary+"/walkdown?way=find&find="+url.QueryEscape(what))
		assert.Contains(t, page[strings.Index(page, `role="search"`):], want, what)
	}
	_, page, _ := got(t, srv, apiary+"/walkdown?way=find&find=unicorn")
	assert.Contains(t, page, "Nothing here has “unicorn”")
	code, _ := post(t, srv, apiary+"/quick", url.Values{"line": {"find hive"}})
	assert.Equal(t, http.StatusSeeOther, code)
}

// Each small prop to start from is understood in inches and in millimetres, and
// has nothing in it that stops or must be fixed.
func TestTemplatesAreSound(t *testing.T) {
	require.Len(t, shorthand.Templates, 3)
	for _, x := range shorthand.Templates {
		for _, units := range []string{"in", "mm"} {
			p := plan.New("x", "X", units, "").In(shop.Kept)
			r, lines := shorthand.ReadAll(p, shop.Kept, "", x.Lines(units == "mm"))
			for _, l := range lines {
				require.NoError(t, l.Err, "%s: %s", x.Name, l.Text)
			}
			q, err := p.Apply(r.Edit)
			require.NoError(t, err)
			for _, s := range check.Check(work.Do(q, shop.Kept, today)) {
				assert.Less(t, s.Level, check.Fix, "%s in %s: %s %s", x.Name, units, s.Title, s.Why)
			}
		}
	}
	srv, st := opened(t)
	require.NoError(t, st.Create(context.Background(), plan.New("fresh", "Fresh", "mm", "").In(shop.Kept), false))
	_, page, _ := got(t, srv, "/p/fresh")
	assert.Equal(t, 3, strings.Count(page, "Start with it"))
	code, _ := post(t, srv, "/p/fresh/lines", url.Values{"lines": {shorthand.Templates[2].Lines(true)}})
	assert.Equal(t, http.StatusSeeOther, code)
	code, page = post(t, srv, "/p/fresh/lines", url.Values{"lines": {"prop a\nbox 1"}})
	assert.Equal(t, http.StatusUnprocessableEntity, code)
	assert.Contains(t, page, "None of the lines was done")
}

// Scripts and styles are kept for good by an address that holds their hash, and
// for an hour by one that does not; every one a page names is there.
func TestAssetsHaveVersions(t *testing.T) {
	srv, _ := opened(t)
	_, page, _ := got(t, srv, "/")
	n := 0
	for _, part := range strings.Split(page, `"/static/`)[1:] {
		path := "/static/" + part[:strings.Index(part, `"`)]
		code, _, h := got(t, srv, path)
		require.Equal(t, 200, code, path)
		if strings.Contains(path, "?v=") {
			n++
			assert.Contains(t, h.Get("Cache-Control"), "immutable", path)
			_, _, h = got(t, srv, path[:len(path)-1])
			assert.NotContains(t, h.Get("Cache-Control"), "immutable")
		}
	}
	assert.GreaterOrEqual(t, n, 3)
}
