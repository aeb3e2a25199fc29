package web

import (
	"fmt"
	"net/http/httptest"
	"regexp"
	"strconv"
	"testing"

	"zapbarn/core/calc"
	"zapbarn/core/check"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Every rule has its page, with its drawing, and each snag on the screen leads there.
func TestEveryRuleHasItsPage(t *testing.T) {
	s := site(t, demo.Apiary(today).In(shop.Kept))
	for _, w := range check.Whys() {
		rec := fetch(t, s, "/why/"+w.Code)
		assert.Equal(t, 200, rec.Code, w.Code)
		for _, text := range []string{w.Code, "Why it happens", "What people do", `class="drawing why"`} {
			assert.Contains(t, rec.Body.String(), text, w.Code)
		}
	}
	assert.Contains(t, fetch(t, s, "/why").Body.String(), `href="/why/no-fuse"`)
	assert.Equal(t, 404, fetch(t, s, "/why/nothing").Code)
	assert.Equal(t, 404, fetch(t, s, "/why/calc-nothing").Code)
	list := fetch(t, s, "/calc").Body.String()
	for _, c := range calc.List() {
		rec := fetch(t, s, "/why/calc-"+c.Name)
		assert.Equal(t, 200, rec.Code, c.Name)
		for _, text := range []string{"When one needs it", "What people do", "<svg", "Where this is from"} {
			assert.Contains(t, rec.Body.String(), text, c.Name)
		}
		assert.Contains(t, list, `href="/why/calc-`+c.Name+`"`)
	}
	assert.Contains(t, fetch(t, s, "/p/midnight-apiary/walkdown").Body.String(), `href="/why/glue`)
	back := func(to string) *httptest.ResponseRecorder { return fetch(t, s, "/why/no-fuse?back="+to) }
	assert.Contains(t, back("/p/midnight-apiary/loom").Body.String(), `href="/p/midnight-apiary/loom"`)
	assert.NotContains(t, back("//elsewhere/p/").Body.String(), "Back to the display")
	assert.NotContains(t, back("javascript:x").Body.String(), "Back to the display")
}

// The whole display is one print; its page count is said before it is made, and what is
// still open stands beside each prop.
func TestTheBookIsCountedBefore(t *testing.T) {
	s := site(t, demo.Apiary(today).In(shop.Kept))
	print := fetch(t, s, "/p/midnight-apiary/bench?prop=riser&way=print").Body.String()
	rec := fetch(t, s, "/p/midnight-apiary/book.pdf?paper=Letter")
	assert.Equal(t, 200, rec.Code)
	assert.Equal(t, "application/pdf", rec.Header().Get("Content-Type"))
	count := regexp.MustCompile(`/Count (\d+)`).FindSubmatch(rec.Body.Bytes())
	require.NotNil(t, count)
	pages, err := strconv.Atoi(string(count[1]))
	require.NoError(t, err)
	assert.Greater(t, pages, 20)
	assert.Contains(t, print, fmt.Sprintf("<b>%d pages</b>", pages))
}

// A prop comes out as STL, its wire lists as a zip, by what they are.
func TestFilesByWhatTheyAre(t *testing.T) {
	s := site(t, demo.Apiary(today).In(shop.Kept))
	for path, kind := range map[string]string{
		"solids.stl?prop=riser": "model/stl", "harness.zip?prop=shelf": "application/zip",
		"book.pdf": "application/pdf", "cutlist.csv?prop=riser": "text/csv; charset=utf-8",
	} {
		rec := fetch(t, s, "/p/midnight-apiary/"+path)
		assert.Equal(t, 200, rec.Code, path)
		assert.Equal(t, kind, rec.Header().Get("Content-Type"), path)
		assert.Greater(t, rec.Body.Len(), 500, path)
	}
}
