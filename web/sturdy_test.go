package web

import (
	"bytes"
	"context"
	"fmt"
	"html"
	"mime/multipart"
	"net/http"
	"net/http/httptest"
	"net/url"
	"regexp"
	"strings"
	"sync"
	"testing"
	"time"

	"zapbarn/core/check"
	"zapbarn/core/form"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/store"
	"zapbarn/testkit"
	"zapbarn/testkit/heavy"
	"zapbarn/testkit/shop"
	"zapbarn/testkit/wirings"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// halfKnown is a plan as it is while one is still sketching: props and solids
// without sizes, wiring fed by nothing.
func halfKnown() *plan.Plan {
	p := plan.New("half-known", "Half known", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}, {ID: "b", Name: "B"}}
	for _, kind := range form.Names() {
		k, _ := form.Of(kind)
		stock := k.Stock
		if kind != "mesh" && kind != "outline" {
			p.Doc().Solids = append(
				p.Solids(),
				plan.Solid{ID: "s-" + kind, Prop: "a", Name: kind, Kind: kind, Stock: stock, Form: k.Blank},
			)
		}
	}
	p.Doc().Devices = []plan.Device{
		{ID: "L", Prop: "a", Kind: "lamp", Name: "L", Product: "flicker12"},
		{ID: "K", Prop: "b", Kind: "switch", Name: "K", Driven: true},
	}
	p.Doc().Inputs = []plan.Input{{ID: "in", Prop: "a", Name: "In", Kind: "mat"}}
	p.Doc().Scenes = []plan.Scene{{ID: "sc", Prop: "a", Name: "Sc"}}
	p.Doc().Triggers = []plan.Trigger{{ID: "t", Input: "in", Scene: "sc", Latch: "toggle"}}
	return p
}

// Every route of the router, with an empty, a half-known and a full plan, and
// with one that is not there; plainly, with nonsense, and as HEAD: never a 500.
func TestEveryRouteOfEveryPlan(t *testing.T) {
	st := testkit.Open(t)
	for _, p := range []*plan.Plan{plan.New("empty", "Empty", "mm", ""), halfKnown(), demo.Apiary(today)} {
		require.NoError(t, st.Create(context.Background(), p, false))
	}
	s, err := New(st, func() time.Time { return today })
	require.NoError(t, err)
	s.First = time.Minute
	srv := httptest.NewServer(s.Handler())
	defer srv.Close()
	client := testkit.Page()
	ask := func(method, path string, form url.Values) int {
		t.Helper()
		req, err := http.NewRequest(method, srv.URL+path, strings.NewReader(form.Encode()))
		require.NoError(t, err)
		if form != nil {
			req.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		}
		r, err := client.Do(req)
		require.NoError(t, err)
		defer r.Body.Close()
		assert.Less(t, r.StatusCode, 500, "%s %s %v", method, path, form)
		assert.NotEmpty(t, r.Header.Get("X-Request-Id"), path)
		var b bytes.Buffer
		_, _ = b.ReadFrom(r.Body)
		assert.NotContains(t, b.String(), "⟦", "%s: a length nobody wrote", path)
		return r.StatusCode
	}
	queries := []string{
		"",
		"?prop=a&sel=solid:s-box",
		"?prop=riser&sel=device:S1&way=power",
		"?prop=%FF&sel=x&way=%00&n=-1&ref=x&stock=x&key=x&board=riser&mockup=riser",
		"?way=train",
		"?way=picture",
		"?way=prove&prop=b",
	}
	forms := []url.Values{
		{},
		{
			"back":  {"/p/empty/loom?way=train"},
			"kind":  {"solid"},
			"id":    {"nope"},
			"was":   {"{"},
			"snag":  {"x"},
			"do":    {"cut"},
			"stock": {"xps1"},
			"sheet": {"99"},
			"piece": {"-4"},
			"line":  {"box"},
			"who":   {"Ola"},
		},
	}
	n := 0
	for _, r := range s.routes().Routes() {
		if r.Path == "/healthz" || strings.HasPrefix(r.Path, "/static") || r.Path == "/p/:plan/delete" {
			continue
		}
		for _, id := range []string{"empty", "half-known", "midnight-apiary", "not-there"} {
			path := strings.Replace(r.Path, ":plan", id, 1)
			if r.Method == http.MethodGet {
				if strings.HasSuffix(path, "/search") || strings.HasSuffix(path, "/deeper") {
					continue // a stream; its own test
				}
				for _, q := range queries {
					code := ask(http.MethodGet, path+q, nil)
					if id == "not-there" && path != r.Path {
						assert.Equal(t, 404, code, path)
					}
					n++
				}
				ask(http.MethodHead, path, nil)
				continue
			}
			for _, f := range forms {
				code := ask(http.MethodPost, path, f)
				if id == "not-there" && path != r.Path {
					assert.Equal(t, 404, code, "%s %v", path, f)
				}
				n++
			}
		}
		if r.Path == "/" || r.Path == "/calc" {
			ask(http.MethodHead, r.Path, nil)
		}
	}
	assert.Greater(t, n, 500)
}

// Two save one ticket at once, each another field: both stay, 40 times of 40.
func TestTwoAtOnceKeepBoth(t *testing.T) {
	srv, st := opened(t)
	for i := range 40 {
		p, _, err := st.Load(context.Background(), "midnight-apiary")
		require.NoError(t, err)
		was := string(p.Put("device", "W2", *p.Device("W2")).After)
		length, gauge := fmt.Sprintf("%d ft", 40+i), []string{"18 AWG", "20 AWG"}[i%2]
		var wg sync.WaitGroup
		codes := make([]int, 2)
		for k, f := range []url.Values{{"f.length": {length}}, {"f.gauge": {gauge}}} {
			f.Set("kind", "device")
			f.Set("id", "W2")
			f.Set("was", was)
			f.Set("name", "W2")
			f.Set("back", apiary)
			wg.Go(func() { codes[k], _ = post(t, srv, apiary+"/edit", f) })
		}
		wg.Wait()
		assert.Equal(t, []int{303, 303}, codes)
		p, _, err = st.Load(context.Background(), "midnight-apiary")
		require.NoError(t, err)
		assert.Equal(t, length, p.Device("W2").Length.String(), "round %d", i)
		assert.Equal(t, gauge, p.Device("W2").Gauge.String(), "round %d", i)
	}
}

// Over all interleavings of loading and saving in several windows: a field ends
// as it was saved last; a save is asked about just when another window set the
// same field to another value since it was loaded; nothing else is lost.
func TestInterleavedSaves(t *testing.T) {
	srv, st := opened(t)
	rapid.Check(t, func(rt *rapid.T) {
		load := func() *plan.Device {
			p, _, err := st.Load(context.Background(), "midnight-apiary")
			require.NoError(t, err)
			return p.Device("W2")
		}
		raw := func(d *plan.Device) string {
			return string((&plan.Plan{}).Put("device", "W2", *d).After)
		}
		fields := map[string]func(*plan.Device) string{
			"length": func(d *plan.Device) string { return d.Length.String() },
			"gauge":  func(d *plan.Device) string { return d.Gauge.String() },
			"name":   func(d *plan.Device) string { return d.Name },
		}
		values := map[string][]string{
			"length": {"41 ft", "42 ft", "43 ft"},
			"gauge":  {"16 AWG", "18 AWG", "20 AWG"},
			"name":   {"Trunk", "Long run", "étage"},
		}
		want := map[string]string{}
		for f, get := range fields {
			want[f] = get(load())
		}
		type window struct {
			was  string
			seen map[string]string
		}
		windows := make([]window, 3)
		open := func(i int) {
			d := load()
			windows[i] = window{raw(d), map[string]string{}}
			for f, get := range fields {
				windows[i].seen[f] = get(d)
			}
		}
		for i := range windows {
			open(i)
		}
		for range rapid.IntRange(3, 10).Draw(rt, "steps") {
			i := rapid.IntRange(0, 2).Draw(rt, "window")
			if rapid.IntRange(0, 3).Draw(rt, "reload") == 0 {
				open(i)
				continue
			}
			f := rapid.SampledFrom([]string{"length", "gauge", "name"}).Draw(rt, "field")
			v := rapid.SampledFrom(values[f]).Draw(rt, "value")
			form := url.Values{
				"kind": {"device"},
				"id":   {"W2"},
				"was":  {windows[i].was},
				"name": {"W2"},
				"back": {apiary},
			}
			for g, seen := range windows[i].seen { // the ticket sends all its fields
				form.Set("f."+g, seen)
			}
			form.Set("f."+f, v)
			code, _ := post(t, srv, apiary+"/edit", form)
			clashes := v != windows[i].seen[f] && want[f] != windows[i].seen[f] && want[f] != v
			if clashes {
				assert.Equal(t, 409, code)
			} else {
				assert.Equal(t, 303, code)
				if v != windows[i].seen[f] {
					want[f] = v
				}
				open(i) // the answer brings the element as it stands
			}
			for g, get := range fields {
				if !assert.Equal(t, want[g], get(load()), g) {
					rt.FailNow()
				}
			}
		}
	})
}

// Twenty add a supply by one phrase at once, and twenty make a display of one
// name: all land, each with a name of its own.
func TestMadeUpNamesNeverConflict(t *testing.T) {
	srv, st := opened(t)
	before, _, err := st.Load(context.Background(), "midnight-apiary")
	require.NoError(t, err)
	var wg sync.WaitGroup
	for range 20 {
		wg.Go(func() {
			code, body := post(
				t,
				srv,
				apiary+"/quick",
				url.Values{"line": {"supply 12v 5a"}, "prop": {"shelf"}, "back": {apiary}},
			)
			assert.Equal(t, 303, code, body)
		})
		wg.Go(func() {
			code, _ := post(
				t,
				srv,
				"/new",
				url.Values{
					"name":  {"A porch with a name that is as long as a name may be, or nearly"},
					"units": {"in"},
					"opens": {"2026-10-09"},
				},
			)
			assert.Equal(t, 303, code)
		})
	}
	wg.Wait()
	after, _, err := st.Load(context.Background(), "midnight-apiary")
	require.NoError(t, err)
	assert.Len(t, after.Devices(), len(before.Devices())+20)
	list, err := st.List(context.Background())
	require.NoError(t, err)
	assert.Len(t, list, 21)
}

// Saying a field again as it is stores nothing.
func TestSavingNothingIsNoEdit(t *testing.T) {
	srv, st := opened(t)
	v, err := st.Version(context.Background(), "midnight-apiary")
	require.NoError(t, err)
	p, _, err := st.Load(context.Background(), "midnight-apiary")
	require.NoError(t, err)
	d := p.Device("W2")
	code, _ := post(
		t,
		srv,
		apiary+"/edit",
		url.Values{
			"kind":     {"device"},
			"id":       {"W2"},
			"was":      {string(p.Put("device", "W2", *d).After)},
			"f.length": {d.Length.String()},
			"back":     {apiary},
		},
	)
	assert.Equal(t, 303, code)
	again, err := st.Version(context.Background(), "midnight-apiary")
	require.NoError(t, err)
	assert.Equal(t, v, again)
}

// A plan that is too heavy to work out opens in a plain view that names the
// element, costs nothing the second time, and never slows another.
func TestOneHeavyPlanSlowsNobody(t *testing.T) {
	st := testkit.Open(t)
	require.NoError(t, st.Create(context.Background(), demo.Apiary(today).In(shop.Kept), false))
	require.NoError(t, st.Create(context.Background(), heavy.Mazes(24), false))
	s, err := New(st, func() time.Time { return today })
	require.NoError(t, err)
	s.First = time.Minute
	s.WorkTime = 2 * time.Second
	_, _, err = s.Work(context.Background(), "midnight-apiary")
	require.NoError(t, err)
	srv := httptest.NewServer(s.Handler())
	defer srv.Close()
	var wg sync.WaitGroup
	for range 6 {
		wg.Go(func() {
			r, err := http.Get(srv.URL + "/p/mazes")
			if assert.NoError(t, err) {
				r.Body.Close()
			}
		})
	}
	time.Sleep(200 * time.Millisecond)
	start := time.Now()
	for _, path := range []string{"/", apiary, apiary + "/bench", apiary + "/loom", "/"} {
		r, err := http.Get(srv.URL + path)
		require.NoError(t, err)
		r.Body.Close()
		assert.Equal(t, 200, r.StatusCode)
	}
	assert.Less(t, time.Since(start), 8*time.Second, "others are not held up")
	wg.Wait()
	start = time.Now()
	r, err := http.Get(srv.URL + "/p/mazes")
	require.NoError(t, err)
	var b bytes.Buffer
	_, _ = b.ReadFrom(r.Body)
	r.Body.Close()
	assert.Equal(t, 422, r.StatusCode)
	assert.Less(t, time.Since(start), 2*time.Second, "it is known to be too heavy")
	assert.Contains(t, b.String(), "takes longer than")
	assert.Contains(t, b.String(), "solid Maze")
	assert.Contains(t, b.String(), "Take away Maze")
	code, _ := post(t, srv, "/p/mazes/remove", url.Values{"kind": {"prop"}, "id": {"p"}, "back": {"/p/mazes"}})
	assert.Equal(t, 303, code, "what is too heavy can be taken away, and then it opens")
}

// The list of displays reads what was kept of each, and works nothing out that
// is known.
func TestTheListReadsKeptSummaries(t *testing.T) {
	srv, st := opened(t)
	get := func() string {
		r, err := http.Get(srv.URL + "/")
		require.NoError(t, err)
		defer r.Body.Close()
		var b bytes.Buffer
		_, _ = b.ReadFrom(r.Body)
		return b.String()
	}
	require.Eventually(
		t,
		func() bool { return strings.Contains(get(), "stop: ") },
		10*time.Second,
		50*time.Millisecond,
	)
	list, err := st.List(context.Background())
	require.NoError(t, err)
	require.NoError(
		t,
		st.Summarise(
			context.Background(),
			"midnight-apiary",
			store.Summary{Rev: list[0].Rev, Day: today.Format(time.DateOnly), Worst: "mind: kept words"},
		),
	)
	assert.Contains(t, get(), "mind: kept words")
	require.NoError(
		t,
		st.Summarise(
			context.Background(),
			"midnight-apiary",
			store.Summary{Rev: list[0].Rev - 1, Day: "2020-01-01", Worst: "older"},
		),
	)
	assert.Contains(t, get(), "mind: kept words", "an older one does not overwrite it")
}

// What a person reads never holds the database's own words; too large is said
// as such.
func TestNoDatabaseTextAndNoSilentSizes(t *testing.T) {
	srv, st := opened(t)
	send := func(path, field, name string, data []byte) (int, string) {
		var b bytes.Buffer
		m := multipart.NewWriter(&b)
		w, err := m.CreateFormFile(field, name)
		require.NoError(t, err)
		_, _ = w.Write(data)
		_ = m.WriteField("prop", "riser")
		_ = m.WriteField("stock", "xps1")
		_ = m.WriteField("size", "12 in")
		_ = m.WriteField("back", apiary+"/bench?prop=riser")
		require.NoError(t, m.Close())
		r, err := testkit.Following().Post(srv.URL+path, m.FormDataContentType(), &b)
		require.NoError(t, err)
		defer r.Body.Close()
		var out bytes.Buffer
		_, _ = out.ReadFrom(r.Body)
		return r.StatusCode, out.String()
	}
	large := bytes.Repeat([]byte(" "), plan.MaxFile+2)
	for path, field := range map[string]string{"/import": "plan", apiary + "/bring": "file", apiary + "/picture": "file"} {
		code, body := send(path, field, "x.svg", large)
		assert.Equal(t, 413, code, path)
		assert.Contains(t, body, "at most 8 MB", path)
	}
	// names in any language from the first letter on
	code, body := send(
		apiary+"/bring",
		"file",
		"épouvantail.svg",
		[]byte(`<svg><rect width="40" height="30"/></svg>`),
	)
	assert.Equal(t, 200, code, body)
	code, _ = post(t, srv, apiary+"/quick", url.Values{"line": {"outlet étage 120v 15a"}, "back": {apiary}})
	assert.Equal(t, 303, code)
	p, _, err := st.Load(context.Background(), "midnight-apiary")
	require.NoError(t, err)
	assert.Equal(t, "Épouvantail", p.Solids()[len(p.Solids())-1].Name)
	assert.Equal(t, "Étage", p.Outlets()[len(p.Outlets())-1].Name)
	for _, name := range []string{"養蜂場", "Ωmega", "  ", strings.Repeat("é", 81), "a\x00b", "\xff"} {
		code, body := post(t, srv, "/new", url.Values{"name": {name}, "units": {"in"}})
		assert.Contains(t, []int{303, 422}, code, "%q", name)
		for _, theirs := range []string{"SQLSTATE", "ERROR:", "constraint", "elements_", "jsonb"} {
			assert.NotContains(t, body, theirs, "%q", name)
		}
	}
}

// A request that another site makes a browser send is refused where it would
// compute; one display searches once at a time, and only a few search at all.
func TestSearchesAreLimited(t *testing.T) {
	srv, _ := opened(t)
	for _, path := range []string{"/search?stock=xps1&prop=riser", "/read?line=undo", "/slide?device=jar-3&at=1",
		"/trace"} {
		req, err := http.NewRequest(http.MethodGet, srv.URL+apiary+path, nil)
		require.NoError(t, err)
		req.Header.Set("Sec-Fetch-Site", "cross-site")
		r, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		r.Body.Close()
		assert.Equal(t, 403, r.StatusCode, path)
	}
}

// A page is rendered once while its plan stands, and at once anew after an edit.
func TestPagesAreKeptUntilAnEdit(t *testing.T) {
	srv, st := opened(t)
	get := func() string {
		r, err := http.Get(srv.URL + apiary)
		require.NoError(t, err)
		defer r.Body.Close()
		var b bytes.Buffer
		_, _ = b.ReadFrom(r.Body)
		return b.String()
	}
	one := get()
	for n := 0; strings.Contains(one, "data-untried") && n < 50; n++ { // a slow machine leaves mends for later
		one = get()
	}
	assert.Equal(t, one, get())
	p, _, err := st.Load(context.Background(), "midnight-apiary")
	require.NoError(t, err)
	d := p.Display()
	d.Name = "The Noon Apiary"
	require.NoError(
		t,
		st.Apply(
			context.Background(),
			"midnight-apiary",
			store.By{},
			plan.Edit{Label: "x", Changes: []plan.Change{p.Put("display", d.ID, d)}},
		),
	)
	assert.Contains(t, get(), "The Noon Apiary")
	require.NoError(
		t,
		st.Create(context.Background(), demo.Apiary(today).In(shop.Kept), true),
	) // taken away and made again: revision 0 once more
	assert.Contains(t, get(), "The Midnight Apiary")
}

// A page tries mends only for as long as it may: the snags stand without them
// and say so, the page is not kept, and asked for again it goes on until all
// were tried. Each mend then is one that a check of the whole plan offers.
func TestAPageTriesMendsForItsTime(t *testing.T) {
	s := site(t, wirings.Times(demo.Apiary(today).In(shop.Kept), 3))
	all := map[string]bool{}
	p, _, err := s.Store.Load(context.Background(), "midnight-apiary")
	require.NoError(t, err)
	for _, sn := range check.Check(work.Do(p, shop.Kept, today)) {
		for _, m := range sn.Mends {
			if sn.Waived != nil {
				break
			}
			all[sn.ID()+m.Label] = true
		}
	}
	offered := regexp.MustCompile(
		`name="snag" value="([^"]+)">\s*<button class="btn[^"]*" name="mend"\s*value="([^"]+)"`,
	)
	s.First = 0
	body := fetch(t, s, apiary+"/walkdown").Body.String()
	assert.Contains(t, body, "Try its mends")
	assert.Contains(t, body, `data-untried="`+apiary+`/walkdown?mends=all"`)
	assert.Empty(t, offered.FindAllString(body, -1))
	s.MendTime = 0
	body = fetch(t, s, apiary+"/walkdown?mends=all").Body.String()
	assert.Empty(t, offered.FindAllString(body, -1), "its time was over")
	s.MendTime = time.Minute
	body = fetch(t, s, apiary+"/walkdown?mends=all").Body.String()
	assert.NotContains(t, body, "mends=all", "its forms lead back to the page as it was")
	assert.Equal(t, body, fetch(t, s, apiary+"/walkdown").Body.String(), "it is kept")
	assert.NotContains(t, body, "Try its mends")
	found := offered.FindAllStringSubmatch(body, -1)
	assert.Equal(t, len(all), len(found))
	for _, m := range found {
		assert.True(t, all[html.UnescapeString(m[1])+html.UnescapeString(m[2])], m)
	}
}
