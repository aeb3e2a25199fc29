package web

import (
	"html"
	"math/rand/v2"
	"net/http/httptest"
	"regexp"
	"slices"
	"strings"
	"testing"
	"time"

	"zapbarn/web/displays"

	"zapbarn/core/memo"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/demo"
	"zapbarn/store"
	"zapbarn/testkit"
	"zapbarn/testkit/edits"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// allOf are the addresses of all that a display says: each way of each place, each file.
func allOf(p *plan.Plan) (out []string) {
	out = append(out, "/book.pdf", "/plan.json", "/wiring.cir", "/along.html", "/snags.json", "/board.svg", "/mockup.svg")
	for _, pl := range new(Server).places() {
		path := "/" + strings.TrimPrefix(pl.ID, "barn")
		for _, w := range pl.Ways {
			out = append(out, strings.TrimSuffix(path, "/")+"?way="+w.ID)
		}
	}
	for name := range displays.Downloads {
		out = append(out, "/"+name)
	}
	slices.Sort(out)
	for _, x := range p.Props() {
		out = append(out, "/bench?prop="+x.ID, "/loom?prop="+x.ID, "/rehearsal?prop="+x.ID)
	}
	return out
}

// leads is where a page leads to within its display.
var leads = regexp.MustCompile(`href="/p/midnight-apiary(/[^"]*)"`)

// Whatever is edited, one element of every kind after another, the server that was there all
// along says just what one says that knows nothing yet and remembers nothing: on every page and
// in every file.
func TestWarmSaysWhatColdSays(t *testing.T) {
	s := site(t, demo.Apiary(today).In(shop.Kept))
	s.First, s.Patience = 0, time.Hour // which mends were tried is another matter; no page of just before
	r := rand.New(rand.NewPCG(27, 1))
	many := 3
	if testkit.Slow() {
		many = 1000
	}
	tried := map[string]int{}
	for i, kind := range slices.Concat(plan.Kinds(), []string{"waiver", "good", "display", "joint", "job"}) {
		if !testkit.Slow() && i%2 == 1 {
			continue // every second kind; in make slow all
		}
		what := ""
		for range 20 {
			_, err := s.Store.Edit(t.Context(), "midnight-apiary", store.By{}, func(p *plan.Plan) (e plan.Edit, err error) {
				e, did, ok := edits.Of(r, p, kind)
				if ok {
					what = did
				}
				return e, nil
			})
			if err == nil && what != "" {
				break
			}
		}
		if what == "" {
			continue
		}
		tried[kind]++
		cold, err := New(s.Store, s.Now)
		require.NoError(t, err)
		cold.Lib, cold.First, cold.Patience = stock.Shop.On(memo.NewBench()), 0, time.Hour
		p, _, err := s.Store.Load(t.Context(), "midnight-apiary")
		require.NoError(t, err)
		all := allOf(p)
		r.Shuffle(len(all), func(i, j int) { all[i], all[j] = all[j], all[i] })
		all = all[:min(len(all), many)]
		for i := 0; i < len(all); i++ {
			path := all[i]
			if strings.Contains(path, "mends=all") {
				continue // which of them were tried by then is another matter
			}
			a, b := fetch(t, s, "/p/midnight-apiary"+path), fetch(t, cold, "/p/midnight-apiary"+path)
			require.Equal(t, b.Code, a.Code, "%s after %s", path, what)
			if b.Code != 200 {
				continue
			}
			if x, y := undated(a), undated(b); x != y {
				require.Fail(t, "not the same", "%s after %s: %s", path, what, firstOther(x, y))
			}
			if i < many { // and two of what it leads to
				links := leads.FindAllStringSubmatch(b.Body.String(), -1)
				for range min(2, len(links)) {
					all = append(all, html.UnescapeString(links[r.IntN(len(links))][1]))
				}
			}
		}
	}
	assert.Greater(t, len(tried), map[bool]int{true: 30, false: 12}[testkit.Slow()], "%v", tried)
}

// printed is when a paper was printed.
var printed = regexp.MustCompile(`\(D:[0-9]{14}\)`)

// undated is an answer without that.
func undated(r *httptest.ResponseRecorder) string {
	return printed.ReplaceAllString(r.Body.String(), "()")
}

// firstOther is where two texts first differ.
func firstOther(a, b string) string {
	i := 0
	for i < len(a) && i < len(b) && a[i] == b[i] {
		i++
	}
	from := max(0, i-80)
	return "warm ..." + a[from:min(len(a), i+120)] + "\ncold ..." + b[from:min(len(b), i+120)]
}
