package web

import (
	"fmt"
	"net/http"
	"net/http/httptest"
	"strings"
	"sync"
	"testing"
	"time"

	"zapbarn/core/plan"
	"zapbarn/demo"
	"zapbarn/store"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// rename is an edit that every page shows.
func rename(t *testing.T, s *Server, name string) {
	_, err := s.Store.Edit(t.Context(), "midnight-apiary", store.By{Key: "another"},
		func(p *plan.Plan) (plan.Edit, error) {
			d := p.Display()
			d.Name = name
			return plan.Edit{Label: "name", Changes: []plan.Change{p.Put("display", d.ID, d)}}, nil
		})
	require.NoError(t, err)
}

// While a page is worked out anew, the one before is shown with a mark: never to whoever made
// the edit, never long, and once the new one is there, that.
func TestThePageBeforeIsShownWithAMark(t *testing.T) {
	s := site(t, demo.Apiary(today).In(shop.Kept))
	s.Patience = 0
	now := today
	s.Now = func() time.Time { return now }
	const path = "/p/midnight-apiary/loom?prop=shelf"
	ask := func(cookie string) string {
		r := httptest.NewRequest(http.MethodGet, path, nil)
		r.Host = "127.0.0.1"
		if cookie != "" {
			r.AddCookie(&http.Cookie{Name: "edited", Value: cookie})
		}
		rec := httptest.NewRecorder()
		s.Handler().ServeHTTP(rec, r)
		require.Equal(t, http.StatusOK, rec.Code)
		return rec.Body.String()
	}
	assert.NotContains(t, ask(""), "data-behind", "there is none before it: it is waited for")
	hold := func() func() { // nothing is rendered until it is let go
		for range cap(s.RenderSlots) {
			s.RenderSlots <- struct{}{}
		}
		return func() {
			for range cap(s.RenderSlots) {
				<-s.RenderSlots
			}
		}
	}
	rename(t, s, "Second name")
	free := hold()
	page := ask("")
	assert.Contains(t, page, "data-behind")
	assert.Contains(t, page, "The Midnight Apiary")
	free()
	assert.Eventually(t, func() bool { return !strings.Contains(ask(""), "data-behind") }, time.Minute,
		10*time.Millisecond)
	assert.Contains(t, ask(""), "Second name")

	rename(t, s, "Third name")
	v, err := s.Store.Version(t.Context(), "midnight-apiary")
	require.NoError(t, err)
	own := ask(fmt.Sprintf("%d.%d", v.Made, v.Rev))
	assert.NotContains(t, own, "data-behind", "whoever made the edit waits for it")
	assert.Contains(t, own, "Third name")

	rename(t, s, "Fourth name")
	now = now.Add(5*time.Second + time.Second)
	assert.Contains(t, ask(""), "Fourth name", "what is older than a moment is not shown")
}

// However many ask, a state of a plan is worked out once, and each of its pages rendered once.
func TestAStateIsWorkedOutOnce(t *testing.T) {
	s := site(t, demo.Apiary(today).In(shop.Kept))
	s.Patience = time.Hour
	paths := []string{"", "/bench?prop=riser", "/calendar", "/stores", "/walkdown"}
	for round := range 3 {
		rename(t, s, fmt.Sprint("Round ", round))
		solved, rendered := s.Did.Solved.Load(), s.Did.Rendered.Load()
		var all sync.WaitGroup
		for range 6 {
			for _, path := range paths {
				all.Go(func() {
					if rec := fetch(t, s, "/p/midnight-apiary"+path); rec.Code != http.StatusOK {
						t.Error(rec.Code)
					}
				})
			}
		}
		all.Wait()
		assert.EqualValues(t, 1, s.Did.Solved.Load()-solved)
		assert.EqualValues(t, len(paths), s.Did.Rendered.Load()-rendered)
	}
}
