package e2e

import (
	"context"
	"fmt"
	"net"
	"net/http"
	"net/http/httptest"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
	"time"

	"zapbarn/demo"
	"zapbarn/store"
	"zapbarn/testkit"
	"zapbarn/web"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var everyPlace = []string{
	"/",
	"/calc?name=tower&h.=48%20in&bottom.=20%20in&top.=9%20in",
	apiary,
	apiary + "/bench?prop=riser",
	apiary + "/bench?prop=gate&way=parts",
	apiary + "/bench?prop=riser&way=sheets",
	apiary + "/bench?prop=riser&way=joints",
	apiary + "/bench?prop=riser&way=print",
	apiary + "/bench?prop=sunflowers&sel=solid:sun-petals",
	apiary + "/bench?prop=skep&way=picture",
	apiary + "/bench?prop=skep&way=picture&points=1",
	"/calc?name=scales&w.=60&h.=40&wide.=6&tall.=8&show.=5",
	apiary + "/loom?prop=shelf",
	apiary + "/loom?prop=shelf&way=list",
	apiary + "/loom?prop=riser&way=prove",
	apiary + "/loom?prop=shelf&way=fault",
	apiary + "/loom?prop=shelf&way=train&m=jar-3,W2",
	apiary + "/loom?way=power",
	apiary + "/loom?prop=comb&way=build",
	apiary + "/rehearsal?prop=riser&press=mat@1000:200&t=2000",
	apiary + "/rehearsal?prop=riser&way=motion",
	apiary + "/rehearsal?prop=riser&way=night",
	apiary + "/yard?sel=plot:sunflowers",
	apiary + "/yard?way=sight",
	apiary + "/yard?way=light",
	apiary + "/yard?way=walk",
	apiary + "/yard?way=strike",
	apiary + "/walkdown?way=cards",
	apiary + "/walkdown?way=nights",
	apiary + "/walkdown?way=compare&with=thistledown-porch",
	apiary + "/calendar",
	apiary + "/calendar?way=bars&sel=task:fill:riser-box",
	apiary + "/calendar?way=crew&sel=person:ola",
	apiary + "/calendar?way=rules",
	apiary + "/calendar?way=whatif",
	apiary + "/stores",
	apiary + "/stores?way=buy",
	apiary + "/walkdown",
	apiary + "/walkdown?way=waived",
	apiary + "/walkdown?way=log",
}

// axe-core finds no violations on any place, in both themes: in make test of every third
// page one or the other by turns, in make slow both of all.
func TestAxe(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, "/")
	script := axe(t)
	for _, theme := range []string{"light", "dark"} {
		width := map[string]int64{"light": 1280, "dark": 390}[theme] // and in both sizes
		require.NoError(t, chromedp.Do(s.ctx, chromedp.EmulateViewport(width, 844)))
		eval[bool](s, fmt.Sprintf(`(()=>{document.cookie="theme=%s;path=/"; return true})()`, theme))
		for i, path := range everyPlace {
			if !testkit.Slow() && i%6 != map[string]int{"light": 0, "dark": 3}[theme] {
				continue
			}
			s.goTo(path)
			eval[bool](s, script+";true")
			eval[bool](
				s,
				`(()=>{window.found=null; axe.run(document,{preload:false,resultTypes:["violations"],rules:{"target-size":{enabled:true}}}).then(r=>{window.found=r.violations.map(v=>v.id+": "+v.help+" — "+v.nodes.slice(0,3).map(n=>n.html.slice(0,140)+" "+(n.any[0]||n.all[0]||n.none[0]||{message:""}).message).join(" | "))}); return true})()`,
			)
			s.wait(`window.found`)
			for _, v := range eval[[]string](s, `window.found`) {
				assert.Fail(t, v, "%s %s", theme, path)
			}
		}
	}
}

// From 390 to 1920 px: the page never scrolls sideways, nothing of the frame
// is cut off.
// 640 is 1280 at twice the size. In make test a phone's and a laptop's width of every second page, in make slow all.
func TestWidths(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, "/")
	widths := []int64{390, 1280}
	if testkit.Slow() {
		widths = []int64{390, 640, 768, 1280, 1440, 1920}
	}
	for n, path := range everyPlace {
		if !testkit.Slow() && n%2 == 1 {
			continue
		}
		for i, w := range widths {
			require.NoError(t, chromedp.Do(s.ctx, chromedp.EmulateViewport(w, 844)))
			if i == 0 {
				s.goTo(path)
			} else { // the window is drawn wider; what follows has followed two frames on
				eval[bool](s, `(()=>{window.drawn=0; const f=()=>{if(++window.drawn<3) requestAnimationFrame(f)}; f(); return true})()`)
				s.wait(`window.drawn===3`)
			}
			assert.LessOrEqual(t, eval[int](s, `document.documentElement.scrollWidth`), int(w), "%d %s", w, path)
			assert.True(t, eval[bool](s, `(()=>{const k=document.querySelector(".ticket"); if(!k) return true;
				return [k,...k.querySelectorAll(".about,.middle,.r")].every(e=>e.scrollHeight<=e.clientHeight+1||["auto","scroll"].includes(getComputedStyle(e).overflowY))})()`), "%d %s: the ticket is cut off", w, path)
			if w == 390 {
				small := eval[[]string](
					s,
					`[...document.querySelectorAll(".btn,.fl:not(.check) input:not([type=hidden]),.fl select,.door,.ways a,.props a,.palette button,.do,.says summary")].filter(e=>e.offsetParent&&e.getBoundingClientRect().height<43.5).map(e=>e.outerHTML.slice(0,80))`,
				)
				assert.Empty(t, small, "%s: targets too small for gloves", path)
			}
		}
	}
}

// Strict policy, nothing from another host, a first view under 300 KB.
func TestFirstViewIsLeanAndClosed(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary)
	s.wait(`document.readyState==="complete"`)
	assert.Empty(
		t,
		eval[[]string](
			s,
			`performance.getEntriesByType("resource").map(e=>e.name).filter(n=>!n.startsWith(location.origin))`,
		),
	)
	bytes := eval[float64](
		s,
		`performance.getEntriesByType("resource").concat(performance.getEntriesByType("navigation")).reduce((n,e)=>n+e.transferSize,0)`,
	)
	t.Logf("first view: %.0f KB transferred", bytes/1024)
	assert.Less(t, bytes, 300.0*1024)
	r, err := http.Get(s.url + apiary)
	require.NoError(t, err)
	r.Body.Close()
	csp := r.Header.Get("Content-Security-Policy")
	assert.Contains(t, csp, "default-src 'none'")
	assert.NotContains(t, csp, "unsafe")
	assert.Empty(
		t,
		eval[[]string](
			s,
			`[...document.querySelectorAll("[style],[onclick],script:not([src])")].map(e=>e.outerHTML.slice(0,90))`,
		),
	)
}

// Keyboard alone: to a place, to a thing, its field, a mend, the working, undo.
func TestKeyboard(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/bench?prop=riser")
	for _, want := range []string{"Skip to the drawing", "Skip to the ticket", "Skip to the snags"} {
		s.keys("\t")
		assert.Equal(t, want, eval[string](s, `document.activeElement.textContent`))
	}
	s.keys("\r")
	s.wait(`document.activeElement.id==="snags"`)
	s.keys("\t")
	assert.True(t, eval[bool](s, `!!document.activeElement.closest(".gutter")`), "on to the first snag")
	s.goTo(apiary)
	s.live(func() { s.keys("3") })
	s.wait(`location.pathname.endsWith("/loom")`)
	first := s.text(".ticket h2")
	s.live(func() { s.keys("]") })
	s.live(func() { s.keys("]") })
	assert.NotEqual(t, first, s.text(".ticket h2"))
	before := string(s.plan("midnight-apiary").Encode())
	s.keys("m")
	assert.True(t, eval[bool](s, `document.activeElement.matches("[name=mend]")`))
	assert.Equal(t, before, string(s.plan("midnight-apiary").Encode()), "a bare key changes nothing")
	s.live(func() { s.keys("\r") })
	assert.NotEqual(t, before, string(s.plan("midnight-apiary").Encode()))
	assert.Contains(t, s.text(".crew"), "Undo")
	eval[bool](s, `(()=>{document.activeElement.blur(); return true})()`)
	s.keys("w")
	s.wait(`document.getElementById("working").open`)
	s.keys("\x1b")
	eval[bool](s, `(()=>{document.getElementById("working").close(); return true})()`)
	s.keys("?")
	s.wait(`document.getElementById("keys").open`)
	s.click("[data-keys-off]") // turned off they stay so, but for the list itself
	eval[bool](s, `(()=>{document.getElementById("keys").close(); document.activeElement.blur(); return true})()`)
	s.goTo(apiary + "/bench")
	s.keys("3")
	s.keys("?")
	s.wait(`document.getElementById("keys").open`)
	assert.True(
		t,
		eval[bool](s, `location.pathname.endsWith("/bench") && document.querySelector("[data-keys-off]").checked`),
	)
}

// The first Tab of every page leads to a skip link, after it was loaded and after an answer
// that came by a key.
func TestTheFirstTabSkips(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, "/")
	skips := func(why string) {
		s.keys("\t")
		assert.Equal(t, "skip", eval[string](s, `document.activeElement.className`), why)
	}
	for i, path := range everyPlace {
		if testkit.Slow() || i%3 == 0 {
			s.goTo(path)
			skips(path)
		}
	}
	s.goTo(apiary)
	for n := range s.count("[data-door]") {
		eval[bool](s, `(()=>{document.activeElement.blur(); return true})()`)
		door := fmt.Sprint(n + 1)
		s.live(func() { s.keys(door) })
		skips("place " + door)
	}
}

// Unreadable, impossible and enormous values: the field is named, what was
// entered stays, nothing is stored.
func TestBadInputNamesTheFieldAndLosesNothing(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/bench?prop=riser&sel=solid:riser-box")
	before := string(s.plan("midnight-apiary").Encode())
	for field, cases := range map[string]map[string]string{
		"f.w": {"sideways": "is not understood", "0": "more than nothing", "9000 ft": "larger than any prop",
			"1 in": "leaves no room"},
		"f.openings": {"hole in the roof": "write such as", "slot 99 in x 1 in on front up 3 in": "runs over the edge",
			"slot 3 in x 1 in on roof up 3 in": "no face"},
	} {
		for text, want := range cases {
			s.goTo(apiary + "/bench?prop=riser&sel=solid:riser-box")
			s.live(func() { s.set(field, text) })
			assert.Contains(t, s.text(".fl.bad em"), want, text)
			assert.Equal(t, text, s.value(field), "what was entered stays")
		}
	}
	s.goTo(apiary + "/loom?prop=shelf&sel=device:W1")
	s.live(func() { s.set("f.gauge", "99 awg") })
	assert.Contains(t, s.text(".fl.bad em"), "18 AWG")
	s.goTo(apiary + "/loom?prop=shelf&sel=device:F1")
	s.live(func() { s.set("f.from", "W2") })
	assert.Contains(t, s.text(".error"), "circle")
	s.goTo(apiary + "/rehearsal?sel=scene:glow")
	s.live(func() { s.set("f.cues", "K1 whenever") })
	assert.Equal(t, "K1 whenever", s.value("f.cues"))
	s.goTo(apiary)
	s.live(func() { s.set("f.opens", "soon") })
	assert.Contains(t, s.text(".fl.bad em"), "2026-10-09")
	eval[bool](
		s,
		`(()=>{document.getElementById("line").value="box 3 by magic"; document.querySelector(".quick").requestSubmit(); return true})()`,
	)
	s.wait(`document.querySelector(".got.bad")`)
	assert.Equal(t, "box 3 by magic", s.value("line"))
	assert.Equal(t, before, string(s.plan("midnight-apiary").Encode()))
	for path, want := range map[string]string{"/nowhere": "nothing here", "/p/no-such-plan": "no such display",
		apiary + "/working?key=x": "number is gone", apiary + "/cutsheet.pdf?prop=x": "no prop"} {
		body := get(t, s.url+path, 404)
		assert.Contains(t, strings.ToLower(body), want)
		assert.NotContains(t, body, "goroutine")
	}
	for _, path := range []string{"/bench?prop=%00&sel=%ff:x&way=zzz", "/loom?sel=device:nope",
		"/rehearsal?press=mat@-5:9,x@y:z,mat@999999999:1&t=zzz", "/walkdown?way=zz"} {
		get(t, s.url+apiary+path, 200)
	}
}

// Forms from other sites and other host names are refused.
func TestForeignFormsAreRefused(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := serve(t)
	post := func(header, value, host string) int {
		r, _ := http.NewRequest(
			"POST",
			s.url+apiary+"/undo",
			strings.NewReader(url.Values{"back": {"//evil.example/"}}.Encode()),
		)
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		r.Header.Set(header, value)
		if host != "" {
			r.Host = host
		}
		c := testkit.Page()
		resp, err := c.Do(r)
		require.NoError(t, err)
		resp.Body.Close()
		if resp.StatusCode == 303 {
			assert.Equal(t, "/", resp.Header.Get("Location"), "never off this site")
		}
		return resp.StatusCode
	}
	assert.Equal(t, 403, post("Sec-Fetch-Site", "cross-site", ""))
	assert.Equal(t, 403, post("Origin", "http://evil.example", ""))
	assert.Equal(t, 421, post("X-Any", "1", "evil.example"))
	assert.Equal(t, 303, post("Sec-Fetch-Site", "same-origin", ""))
}

// The database goes away and comes back: a clear page, the form keeps what was
// entered, and after the restart all is there.
func TestDatabaseGoesAway(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	dir, err := os.MkdirTemp("", "zapbarn-down")
	require.NoError(t, err)
	defer os.RemoveAll(dir)
	require.NoError(t, os.Chmod(dir, 0o755))
	dir = filepath.Join(dir, "pg")
	ctx := context.Background()
	server, err := store.StartCluster(ctx, dir, nil)
	require.NoError(t, err)
	defer store.StopCluster(ctx, dir)
	dsn, err := store.Database(ctx, server.URL, "zapbarn")
	require.NoError(t, err)
	st, err := store.Open(ctx, dsn, server.PortFile())
	require.NoError(t, err)
	defer st.Close()
	require.NoError(t, st.Create(ctx, demo.Apiary(today), false))
	w, err := web.New(st, func() time.Time { return today })
	require.NoError(t, err)
	srv := httptest.NewServer(w.Handler())
	defer srv.Close()
	get(t, srv.URL+apiary, 200)
	page := &site{t: t, url: srv.URL, store: st, ctx: testkit.Browser(t, 1280, 800)}
	page.goTo(apiary + "/loom?prop=shelf&sel=device:W2")
	require.NoError(t, store.StopCluster(ctx, dir))
	page.set("f.gauge", "16 AWG")
	page.wait(`document.querySelector(".offline")`)
	assert.Contains(t, page.text(".offline"), "database does not answer")
	assert.Equal(t, "16 AWG", page.value("f.gauge"), "what was entered stays")
	assert.Contains(t, get(t, srv.URL+apiary, 503), "database does not answer")
	assert.Contains(t, get(t, srv.URL+"/", 503), "make demo")
	r, err := testkit.Page().PostForm(srv.URL+apiary+"/quick", url.Values{"line": {"prop x"}, "back": {apiary}})
	require.NoError(t, err)
	r.Body.Close()
	assert.Equal(t, 503, r.StatusCode)
	// it comes back, and the same page saves what was entered
	_, err = store.StartCluster(ctx, dir, nil)
	require.NoError(t, err)
	page.live(func() { page.set("f.gauge", "16 AWG") })
	p, _, err := st.Load(ctx, "midnight-apiary")
	require.NoError(t, err)
	assert.Equal(t, "16 AWG", p.Device("W2").Gauge.String())
}

// The binary: a demo on a fresh database, a second start that does not hurt,
// check and calc with no database at all.
func TestBinary(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	bin := filepath.Join(t.TempDir(), "zapbarn")
	// as scripts/build.sh does, but for the paths: what the tests compiled is used again
	out, err := exec.Command("go", "build", "-ldflags", "-s -w", "-o", bin, "../cmd/zapbarn").CombinedOutput()
	require.NoError(t, err, string(out))
	weight, err := os.Stat(bin)
	require.NoError(t, err)
	require.Less(t, weight.Size(), int64(60<<20), "what it weighs")
	dsn := testkit.Database(t)
	for range 2 {
		cmd := exec.Command(bin, "demo", "--addr", "127.0.0.1:0", "--database-url", dsn)
		pipe, err := cmd.StdoutPipe()
		require.NoError(t, err)
		require.NoError(t, cmd.Start())
		buf := make([]byte, 200)
		n, _ := pipe.Read(buf)
		m := regexp.MustCompile(`http://\S+`).FindString(string(buf[:n]))
		require.NotEmpty(t, m, string(buf[:n]))
		assert.Contains(t, get(t, m, 200), "Midnight Apiary")
		require.NoError(t, cmd.Process.Signal(os.Interrupt))
		require.NoError(t, cmd.Wait())
	}
	run := func(code int, stdin string, args ...string) string {
		t.Helper()
		c := exec.Command(bin, args...)
		c.Stdin = strings.NewReader(stdin)
		c.Env = []string{"PATH=/nowhere"} // no database, no tools
		out, err := c.CombinedOutput()
		got := 0
		if e, ok := err.(*exec.ExitError); ok {
			got = e.ExitCode()
		}
		assert.Equal(t, code, got, "%v: %s", args, out)
		return string(out)
	}
	apiaryJSON := string(demo.Apiary(today).Encode())
	js := run(1, apiaryJSON, "check", "-", "--json", "--today", "2026-09-20")
	assert.Contains(t, js, `"code": "reversed-lamp"`)
	assert.Contains(t, js, `"device:jar-8:volts"`)
	assert.Contains(t, run(1, apiaryJSON, "check", "-", "--today", "2026-09-20"), "12 stop")
	assert.Contains(t, run(0, string(demo.Metric(today).Encode()), "check", "-"), "0 stop")
	assert.Contains(t, run(2, "{", "check", "-"), "line 1")
	assert.Contains(
		t,
		run(2, strings.Replace(apiaryJSON, `"w": "22 in"`, `"w": "wide"`, 1), "check", "-"),
		`solids[6].w: "wide" is not understood; write a length`,
	)
	assert.Contains(t, run(0, "", "calc", "led", "vs=12V", "n=3"), "120 ohm")
	assert.Contains(t, run(2, "", "calc", "led", "vs=twelve"), "vs:")
	assert.Contains(t, run(2, "", "calc", "astrology"), "choose")
	assert.Contains(t, run(0, "", "calc"), "compound")
	// a pyramid of 4 in square and 4 in height: 21 1/3 cubic inches = 0.35 L
	stl := filepath.Join(t.TempDir(), "p.stl")
	v := []string{"0 0 0", "4 0 0", "4 4 0", "0 4 0", "2 2 4"}
	text := "solid p\n"
	for _, f := range [][3]int{{0, 2, 1}, {0, 3, 2}, {0, 1, 4}, {1, 2, 4}, {2, 3, 4}, {3, 0, 4}} {
		text += fmt.Sprintf("facet\nvertex %s\nvertex %s\nvertex %s\nendfacet\n", v[f[0]], v[f[1]], v[f[2]])
	}
	require.NoError(t, os.WriteFile(stl, []byte(text), 0o644))
	dir := filepath.Join(filepath.Dir(stl), "out")
	said := run(0, "", "slice", stl, "--unit", "1 in", "--t", "1 in", "--out", dir)
	assert.Contains(t, said, "4 layers of 1 in; the solid is 0.35 L")
	files, err := filepath.Glob(dir + "/slice00*.*")
	require.NoError(t, err)
	assert.Len(t, files, 8)
	require.NoError(
		t,
		os.WriteFile(
			stl,
			[]byte(strings.Replace(text, "facet\nvertex 0 0 0\nvertex 4 4 0\nvertex 4 0 0\nendfacet\n", "", 1)),
			0o644,
		),
	)
	assert.Contains(t, run(2, "", "slice", stl), "holes: 3 edges")
	assert.Contains(t, run(1, "", "serve", "--addr", "0.0.0.0:80", "--database-url", dsn), "not loopback")
	assert.Contains(
		t,
		run(1, "", "serve", "--addr", "127.0.0.1:0", "--database-url", "postgres://127.0.0.1:1/x"),
		"nothing answers at 127.0.0.1:1",
	)
	// a port in use is found before any database is started
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer l.Close()
	data := filepath.Join(t.TempDir(), "data")
	assert.Contains(
		t,
		run(1, "", "demo", "--addr", l.Addr().String(), "--data", data),
		"something serves at "+l.Addr().String()+" already",
	)
	assert.NoDirExists(t, data)
	// export and import through the store give the same plan back
	file := run(0, "", "export", "midnight-apiary", "--database-url", dsn)
	assert.Contains(t, run(0, file, "import", "-", "--replace", "--database-url", dsn), "stored midnight-apiary")
	assert.Equal(t, file, run(0, "", "export", "midnight-apiary", "--database-url", dsn))
	page := run(0, "", "export", "midnight-apiary", "--page", "--database-url", dsn) // and a page to take along
	assert.True(t, strings.HasPrefix(page, "<!doctype html>"))
	assert.Contains(t, page, "<h2>Frame riser</h2>")
	assert.NotContains(t, page, "<script")
}
