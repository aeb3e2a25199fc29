package web

import (
	"net/http"
	"net/http/httptest"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"zapbarn/web/shell"

	"zapbarn/core/plan"
	"zapbarn/demo"
	"zapbarn/store"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A change must come from a page of this site: by what a browser says of itself, or by the
// token that our forms bear. One that says nothing takes no display away.
func TestAChangeComesFromOurOwnPages(t *testing.T) {
	s := site(t, demo.Apiary(today).In(shop.Kept))
	post := func(path string, form url.Values, head map[string]string) int {
		r := httptest.NewRequest(http.MethodPost, path, strings.NewReader(form.Encode()))
		r.Host = "127.0.0.1"
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		for k, v := range head {
			r.Header.Set(k, v)
		}
		rec := httptest.NewRecorder()
		s.Handler().ServeHTTP(rec, r)
		return rec.Code
	}
	const away = "/p/midnight-apiary/delete"
	assert.Equal(t, http.StatusForbidden, post(away, url.Values{}, nil))
	assert.Equal(t, http.StatusForbidden, post(away, url.Values{"token": {"guess"}}, nil))
	assert.Equal(t, http.StatusForbidden, post(away, url.Values{"token": {""}}, nil))
	assert.Equal(t, http.StatusForbidden, post(away, url.Values{}, map[string]string{"Sec-Fetch-Site": "cross-site"}))
	assert.Equal(t, http.StatusForbidden, post(away, url.Values{}, map[string]string{"Origin": "http://127.0.0.1:9"}))
	assert.Equal(t, 200, fetch(t, s, "/p/midnight-apiary").Code, "it is still there")

	page := fetch(t, s, "/p/midnight-apiary").Body.String()
	forms := strings.Count(page, `method="post"`)
	tokens := regexp.MustCompile(`name="token" value="([0-9a-f]{32})"`).FindAllStringSubmatch(page, -1)
	require.NotEmpty(t, tokens)
	assert.Equal(t, forms, len(tokens), "every form bears it")
	assert.Equal(t, http.StatusSeeOther, post(away, url.Values{"token": {tokens[0][1]}}, nil))
	assert.Equal(t, 404, fetch(t, s, "/p/midnight-apiary").Code)
	home := fetch(t, s, "/").Body.String()
	assert.Contains(t, home, "kept for 30 more days, with its log")
	assert.Equal(t, http.StatusSeeOther, post("/bin/midnight-apiary-bin/back",
		url.Values{"token": {tokens[0][1]}}, nil))
	assert.Equal(t, 200, fetch(t, s, "/p/midnight-apiary").Code)
	assert.NotContains(t, fetch(t, s, "/").Body.String(), `id="bin"`)
	assert.Equal(t, 404, post("/bin/midnight-apiary-bin/back", url.Values{"token": {tokens[0][1]}}, nil))
	assert.Equal(t, http.StatusSeeOther, post(away, url.Values{}, map[string]string{"Sec-Fetch-Site": "same-origin"}))
	assert.Equal(t, http.StatusSeeOther, post("/bin/midnight-apiary-bin/empty",
		url.Values{"token": {tokens[0][1]}}, nil))
	assert.NotContains(t, fetch(t, s, "/").Body.String(), `id="bin"`)
}

// Each edit bears who made it: the name a browser gave, else that of whoever started the
// program; and undo is of one's own browser.
func TestEachEditBearsItsMaker(t *testing.T) {
	s := site(t, demo.Apiary(today).In(shop.Kept))
	post := func(path string, form url.Values, who, key string) *httptest.ResponseRecorder {
		r := httptest.NewRequest(http.MethodPost, "/p/midnight-apiary"+path, strings.NewReader(form.Encode()))
		r.Host = "127.0.0.1"
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		r.Header.Set("Sec-Fetch-Site", "same-origin")
		r.AddCookie(&http.Cookie{Name: shell.KeyCookie, Value: strings.Repeat(key, 32)})
		if who != "" {
			r.AddCookie(&http.Cookie{Name: "who", Value: who})
		}
		rec := httptest.NewRecorder()
		s.Handler().ServeHTTP(rec, r)
		return rec
	}
	line := func(text, who, key string) {
		t.Helper()
		rec := post("/quick", url.Values{"line": {text}, "back": {"/p/midnight-apiary/calendar"}}, who, key)
		require.Equal(t, http.StatusSeeOther, rec.Code, rec.Body.String())
	}
	line("task fetch the fogger 1 h", "Ola", "a")
	line("task sweep the yard 1 h", "", "b")
	log, err := s.Store.Log(t.Context(), "midnight-apiary", 2)
	require.NoError(t, err)
	assert.Equal(t, []string{shell.Account, "Ola"}, []string{log[0].Who, log[1].Who})
	assert.NotEmpty(t, shell.Account)
	post("/undo", url.Values{"back": {"/p/midnight-apiary"}}, "Ola", "a")
	p, _, err := s.Store.Load(t.Context(), "midnight-apiary")
	require.NoError(t, err)
	names := ""
	for _, j := range p.Jobs() {
		names += j.Name + ";"
	}
	assert.Contains(t, names, "Sweep the yard", "another's edit stays")
	assert.NotContains(t, names, "Fetch the fogger;")
	// an edit of another that stands in the way is named
	post("/redo", url.Values{"back": {"/p/midnight-apiary"}}, "Ola", "a")
	_, err = s.Store.Edit(t.Context(), "midnight-apiary", store.By{Who: "Ben", Key: "x"},
		func(p *plan.Plan) (plan.Edit, error) {
			for _, j := range p.Jobs() {
				if j.Name == "Fetch the fogger" {
					j.Name = "fetch two foggers"
					return plan.Edit{Label: "two of them", Changes: []plan.Change{p.Put("job", j.ID, j)}}, nil
				}
			}
			return plan.Edit{}, shell.ErrGone
		})
	require.NoError(t, err)
	rec := post("/undo", url.Values{"back": {"/p/midnight-apiary"}}, "Ola", "a")
	assert.Equal(t, http.StatusConflict, rec.Code)
	assert.Contains(t, rec.Body.String(), "Ben&#39;s later edit “two of them” changed the same thing")
}
