package web

import (
	"net/http"
	"net/http/httptest"
	"testing"

	"zapbarn/core/plan"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Where what all waits for can be done by nobody, neither the Calendar nor the Barn says
// that all is done, or that nothing is left.
func TestWhatHasNoTimeIsNotDone(t *testing.T) {
	p := demo.Apiary(today).In(shop.Kept)
	get := func(path string) string {
		s := site(t, p)
		rec := httptest.NewRecorder()
		req := httptest.NewRequest(http.MethodGet, path, nil)
		req.Host = "127.0.0.1"
		s.Handler().ServeHTTP(rec, req)
		require.Equal(t, http.StatusOK, rec.Code)
		return rec.Body.String()
	}
	p.Doc().People = []plan.Person{{ID: "ola", Name: "Ola", Hours: "sat sun 10-18", Trades: "choir"}}
	for _, path := range []string{"/p/midnight-apiary/calendar", "/p/midnight-apiary"} {
		page := get(path)
		assert.Contains(t, page, "have no time.", path)
		assert.NotContains(t, page, "All is done", path)
		assert.NotContains(t, page, "Nothing left to do", path)
	}
}
