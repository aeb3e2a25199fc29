package e2e

import (
	"context"
	"fmt"
	"net/http"
	"net/http/httptest"
	"os"
	"strings"
	"testing"
	"time"

	"zapbarn/demo"
	"zapbarn/testkit"
	"zapbarn/web"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// slow answers every edit and page late by a time that can be changed.
type slow struct {
	next  http.Handler
	delay time.Duration
}

func (s *slow) ServeHTTP(w http.ResponseWriter, r *http.Request) {
	if strings.HasPrefix(r.URL.Path, "/p/") {
		time.Sleep(s.delay)
	}
	s.next.ServeHTTP(w, r)
}

// late is a served demo whose answers come late.
func late(t *testing.T) (*site, *slow) {
	st := testkit.Open(t)
	require.NoError(t, st.Create(context.Background(), demo.Apiary(today), false))
	w, err := web.New(st, func() time.Time { return today })
	require.NoError(t, err)
	h := &slow{next: w.Handler()}
	srv := httptest.NewServer(h)
	t.Cleanup(srv.Close)
	return &site{t: t, url: srv.URL, store: st, ctx: testkit.Browser(t, 1280, 800)}, h
}

// strike types a text key by key, at a pace; a tab leaves the field.
func (s *site) strike(text string, pace time.Duration) {
	s.t.Helper()
	for _, r := range text {
		start := time.Now()
		s.keys(string(r))
		time.Sleep(pace - time.Since(start))
	}
}

// into goes into a field of the ticket, all that is in it marked.
func (s *site) into(name string) {
	s.t.Helper()
	eval[bool](s, fmt.Sprintf(
		`(()=>{const e=document.querySelector(".ticket [name='f.%s']"); e.focus(); e.select(); return true})()`, name))
}

// Typing through a whole ticket, field after field with Tab, while answers come
// at once, late and very late: every field ends as it was typed, the place
// stays, and no key is taken for a shortcut.
func TestTypingIsNeverOvertaken(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s, server := late(t)
	type ticket struct {
		path string
		text map[string]string
	}
	tickets := []ticket{
		{
			apiary + "/bench?prop=riser&sel=solid:riser-box",
			map[string]string{"w": "23", "d": "19 1/2", "h": "29", "overhang": "2"},
		},
		{apiary + "/loom?prop=shelf&sel=device:W2", map[string]string{"name": "Run 3/4m", "length": "41 ft"}},
		{
			apiary + "/loom?prop=shelf&sel=device:jar-3",
			map[string]string{"at": "3 ft", "need": "30 in", "extension": "18 in"},
		},
		{
			apiary + "/bench?prop=gate&sel=solid:gate-pillar",
			map[string]string{"h": "85", "low": "27", "high": "11", "sides": "5"},
		},
		{apiary + "/bench?prop=skep&sel=solid:skep-rings", map[string]string{"w": "47", "h": "55", "wall": "2 3/4"}},
		{apiary, map[string]string{"name": "Midnight m1 w2", "temp": "61 F", "rh": "64"}},
		{apiary + "/rehearsal?prop=riser&sel=input:mat", map[string]string{"name": "Mat 12", "minPulse": "40 ms"}},
	}
	paces, delays, rounds := []time.Duration{40, 90, 150}, []time.Duration{0, 300, 1000}, 1
	if os.Getenv("ZAPBARN_SLOW") != "" {
		rounds = 3
	}
	n, wrong := 0, 0
	for round := range rounds {
		for i, tk := range tickets {
			pace, delay := paces[(i+round)%3]*time.Millisecond, delays[(i+2*round)%3]*time.Millisecond
			if round == 0 && i < 3 { // each delay at the quickest pace at least once
				pace = paces[0] * time.Millisecond
			}
			server.delay = 0
			s.goTo(tk.path)
			server.delay = delay
			where := eval[string](s, "location.pathname")
			first := true
			names := eval[[]string](
				s,
				`[...document.querySelectorAll(".ticket form.f input:not([type=hidden]):not([type=checkbox])")].map(e=>e.name.slice(2))`,
			)
			typed := map[string]string{}
			for _, name := range names {
				want, ok := tk.text[name]
				if !ok {
					continue
				}
				want = fmt.Sprint(strings.TrimSpace(want))
				typed[name] = want
				require.False(
					t,
					strings.HasPrefix(s.value("f."+name), want),
					"%s %s is another before",
					tk.path,
					name,
				)
				if first {
					s.into(name)
					first = false
				} else { // on from field to field by Tab, as a typist does
					for range 12 {
						s.strike("\t", 5*time.Millisecond)
						if eval[string](s, `document.activeElement.name||""`) == "f."+name {
							break
						}
					}
				}
				require.Equal(
					t,
					"f."+name,
					eval[string](s, `document.activeElement.name||""`),
					"%s: the focus stays where the typist is",
					tk.path,
				)
				s.strike(want, pace)
			}
			s.strike("\r", pace)
			s.wait(`!document.body.classList.contains("busy")`)
			assert.Equal(t, where, eval[string](s, "location.pathname"), "%s: still there", tk.path)
			assert.Zero(t, s.count(".conflict"), "%s: one's own edit is no conflict", tk.path)
			server.delay = 0
			s.goTo(tk.path)
			for name, want := range typed {
				n++
				if got := s.value("f." + name); !strings.HasPrefix(got, want) {
					wrong++
					assert.Fail(
						t,
						"typed "+want+", got "+got,
						"%s %s at %s a key, answers after %s",
						tk.path,
						name,
						pace,
						delay,
					)
				}
			}
		}
	}
	t.Logf("%d of %d fields wrong", wrong, n)
}

// Enter saves once: one request, one edit in the log.
func TestEnterSavesOnce(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s, server := late(t)
	server.delay = 150 * time.Millisecond
	s.goTo(apiary + "/loom?prop=shelf&sel=device:W2")
	before, err := s.store.Version(context.Background(), "midnight-apiary")
	require.NoError(t, err)
	eval[bool](
		s,
		`(()=>{window.posts=0; const f=window.fetch; window.fetch=(u,o)=>{ if(o&&o.method==="POST") window.posts++; return f(u,o) }; const e=document.querySelector(".ticket [name='f.length']"); e.focus(); e.select(); return true})()`,
	)
	s.live(func() { s.strike("44 ft\r", 40*time.Millisecond) })
	s.wait(`!document.body.classList.contains("busy")`)
	assert.Equal(t, 1, eval[int](s, `window.posts`))
	assert.Zero(t, s.count(".conflict"))
	after, err := s.store.Version(context.Background(), "midnight-apiary")
	require.NoError(t, err)
	assert.Equal(t, before.Rev+1, after.Rev)
	assert.Equal(t, "f.length", eval[string](s, `document.activeElement.name`), "the focus stays")
}

// A key typed just after leaving a field is no shortcut; one pressed in peace is.
func TestKeysBetweenFieldsAreNoShortcuts(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s, _ := late(t)
	s.goTo(apiary + "/loom?prop=shelf&sel=device:W2")
	s.into("length")
	s.strike("45 ft", 40*time.Millisecond)
	eval[bool](s, `(()=>{document.activeElement.blur(); return true})()`)
	s.strike("2m1", 40*time.Millisecond)
	s.wait(`!document.body.classList.contains("busy")`)
	assert.Contains(t, eval[string](s, "location.pathname"), "/loom")
	time.Sleep(1100 * time.Millisecond)
	s.live(func() { s.strike("2", 40*time.Millisecond) })
	assert.Contains(t, eval[string](s, "location.pathname"), "/bench")
}

// A field is typed in before a request leaves, and left while it is under way:
// the answer, which knows nothing of it, leaves it alone. By Tab and by Enter.
func TestAFieldLeftWhileAnAnswerIsUnderWay(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	for _, leave := range []string{"\t", "\r"} {
		s, server := late(t)
		s.goTo(apiary + "/bench?prop=riser&sel=solid:riser-box")
		server.delay = 500 * time.Millisecond
		s.into("w")
		settled := eval[int](s, `Number(document.body.dataset.settled||0)`)
		s.strike("23\t", 10*time.Millisecond)     // leaves at once
		s.strike("19 1/2\t", 10*time.Millisecond) // waits for that one's answer
		require.Equal(t, "f.h", eval[string](s, `document.activeElement.name||""`))
		s.strike("29", 10*time.Millisecond)
		s.wait(fmt.Sprintf(`Number(document.body.dataset.settled||0) > %d`, settled)) // now the second is under way
		s.strike(leave, 10*time.Millisecond)
		s.wait(`!document.body.classList.contains("busy")`)
		server.delay = 0
		s.goTo(apiary + "/bench?prop=riser&sel=solid:riser-box")
		for name, want := range map[string]string{"w": "23", "d": "19 1/2", "h": "29"} {
			assert.Truef(
				t,
				strings.HasPrefix(s.value("f."+name), want),
				"%s left by %q: typed %s, got %s",
				name,
				leave,
				want,
				s.value("f."+name),
			)
		}
	}
}

// A field is entered while another form's request waits before it in the line:
// that one's answer, which left later but knows nothing of it, leaves it alone,
// and what was entered is sent.
func TestWhatWaitsToBeSentIsNotOvertaken(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s, server := late(t)
	s.goTo(apiary + "/bench?prop=riser&sel=solid:riser-box")
	was := s.value("f.w")
	server.delay = 500 * time.Millisecond
	s.into("w")
	s.strike("23\t", 10*time.Millisecond) // leaves at once
	eval[bool](s, `(()=>{const b=document.querySelector("[data-undo]"); b.disabled=false; b.click(); return true})()`)
	s.into("h")
	s.strike("29\t", 10*time.Millisecond) // waits behind the undo
	s.wait(`!document.body.classList.contains("busy")`)
	server.delay = 0
	s.goTo(apiary + "/bench?prop=riser&sel=solid:riser-box")
	assert.Equal(t, was, s.value("f.w"), "undone")
	assert.Truef(t, strings.HasPrefix(s.value("f.h"), "29"), "typed 29, got %s", s.value("f.h"))
}

// What is entered before an undo is asked for goes before it, and what is entered after goes
// after it, though all of it waits in the line: the undo takes back what it was meant for.
func TestAnUndoKeepsItsPlaceInTheLine(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s, server := late(t)
	s.goTo(apiary + "/bench?prop=riser&sel=solid:riser-box")
	was := s.value("f.d")
	server.delay = 700 * time.Millisecond
	s.into("w")
	s.strike("23\t", 10*time.Millisecond)     // leaves at once
	s.strike("19 1/2\t", 10*time.Millisecond) // waits for that one's answer
	eval[bool](s, `(()=>{const b=document.querySelector("[data-undo]"); b.disabled=false; b.click(); return true})()`)
	s.into("h")
	s.strike("29\t", 10*time.Millisecond) // waits behind the undo
	s.wait(`!document.body.classList.contains("busy")`)
	server.delay = 0
	s.goTo(apiary + "/bench?prop=riser&sel=solid:riser-box")
	for name, want := range map[string]string{"w": "23", "d": was, "h": "29"} {
		assert.Truef(t, strings.HasPrefix(s.value("f."+name), want), "%s: wanted %s, got %s", name, want, s.value("f."+name))
	}
}

// A link off the page, pressed right after a field was left, goes when all that
// was entered is kept; so does a page that is left by other means.
func TestLeavingKeepsWhatWasEntered(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	for _, leave := range []string{`document.querySelector("a[href='/']").click()`, `location.href="/"`} {
		s, server := late(t)
		s.goTo(apiary + "/bench?prop=riser&sel=solid:riser-box")
		server.delay = 800 * time.Millisecond
		s.into("w")
		s.strike("23\t", 10*time.Millisecond)
		s.strike("19 1/2\t", 10*time.Millisecond)
		eval[bool](s, `(()=>{`+leave+`; return true})()`)
		s.wait(`location.pathname === "/"`)
		server.delay = 0
		for range 100 { // until what left with the page has arrived
			if strings.HasPrefix(s.plan("midnight-apiary").Solid("riser-box").Length("d").String(), "19 1/2") {
				break
			}
			time.Sleep(100 * time.Millisecond)
		}
		s.goTo(apiary + "/bench?prop=riser&sel=solid:riser-box")
		for name, want := range map[string]string{"w": "23", "d": "19 1/2"} {
			assert.Truef(
				t,
				strings.HasPrefix(s.value("f."+name), want),
				"%s by %s: typed %s, got %s",
				name,
				leave,
				want,
				s.value("f."+name),
			)
		}
	}
}
