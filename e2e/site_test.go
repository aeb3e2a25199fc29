// Package e2e drives the real site in real Chromium on real PostgreSQL, one
// test for each thing a builder can do.
package e2e

import (
	"context"
	"fmt"
	"net/http/httptest"
	"os"
	"strings"
	"testing"
	"time"

	"zapbarn/core/plan"
	"zapbarn/demo"
	"zapbarn/store"
	"zapbarn/testkit"
	"zapbarn/web"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var today = time.Date(2026, 9, 20, 12, 0, 0, 0, time.UTC)

const apiary = "/p/midnight-apiary"

// site is a served store with the demo in it, and a browser tab on it.
type site struct {
	t     *testing.T
	ctx   context.Context
	url   string
	store *store.Store
}

func serve(t *testing.T) *site {
	st := testkit.Open(t)
	require.NoError(t, st.Create(context.Background(), demo.Apiary(today), false))
	require.NoError(t, st.Create(context.Background(), demo.Metric(today), false))
	s, err := web.New(st, func() time.Time { return today })
	require.NoError(t, err)
	srv := httptest.NewServer(s.Handler())
	t.Cleanup(srv.Close)
	return &site{t: t, url: srv.URL, store: st}
}

func open(t *testing.T, path string) *site {
	s := serve(t)
	s.first()
	s.goTo("/healthz")
	eval[bool](s, `(()=>{document.cookie="tour=done;path=/"; return true})()`) // the first walk has a test of its own
	s.goTo(path)
	return s
}

// first opens a browser that was never here.
// What its scripts throw fails the test.
func (s *site) first() {
	s.ctx = testkit.Browser(s.t, 1280, 800)
	messages := chromedp.Console(s.ctx)
	done := make(chan []string)
	go func() {
		var thrown []string
		for m, err := range messages {
			if err != nil {
				break
			}
			if m.IsException() {
				thrown = append(thrown, m.String())
			}
		}
		done <- thrown
	}()
	ctx := s.ctx
	s.t.Cleanup(func() {
		if s.t.Failed() { // what a page does may change with the browser
			s.t.Log("browser: " + testkit.BrowserVersion(ctx))
		}
		if err := chromedp.Cancel(ctx); err != nil { // the browser is gone already
			s.t.Log(err)
		}
		assert.Empty(s.t, <-done, "a script threw")
	})
}

func (s *site) goTo(path string) {
	s.t.Helper()
	require.NoError(s.t, chromedp.Do(s.ctx, chromedp.Navigate(s.url+path), chromedp.WaitReady("body")))
	s.wait("!document.querySelector('[data-untried],[data-behind]')")
}

func eval[T any](s *site, js string) T {
	s.t.Helper()
	v, err := chromedp.Run(s.ctx, chromedp.Evaluate[T](js))
	require.NoError(s.t, err, js)
	return v
}

// text is what an element says.
func (s *site) text(sel string) string {
	s.t.Helper()
	return strings.Join(
		strings.Fields(
			eval[string](
				s,
				fmt.Sprintf(
					`(document.querySelector(%q)||{textContent:"(nothing at %s)"}).textContent`,
					sel,
					strings.ReplaceAll(sel, `"`, "'"),
				),
			),
		),
		" ",
	)
}

func (s *site) count(sel string) int {
	s.t.Helper()
	return eval[int](s, fmt.Sprintf(`document.querySelectorAll(%q).length`, sel))
}

// live does something and waits until the page has answered in place.
func (s *site) live(act func()) {
	s.t.Helper()
	const settled = `Number(document.body.dataset.settled||0)`
	before := eval[int](s, settled)
	act()
	s.wait(fmt.Sprintf("%s > %d && !document.querySelector('[data-untried],[data-behind]')", settled, before))
}

// wait polls until a condition holds.
func (s *site) wait(js string) {
	s.t.Helper()
	for range 2400 { // a minute: other work may go on beside it
		ok, err := chromedp.Run(s.ctx, chromedp.Evaluate[bool]("document.readyState==='complete' && !!("+js+")"))
		if err != nil && !between(err) {
			require.NoError(s.t, err, js)
		}
		if ok && err == nil {
			return
		}
		time.Sleep(25 * time.Millisecond)
	}
	require.Fail(s.t, "waited in vain for "+js, fmt.Sprintf("%.300s", s.text("body")))
}

// between says whether a look fell between two pages: what was asked went away with the
// old one, so it is asked again of the new one. A script's own error is none of these.
func between(err error) bool {
	for _, w := range []string{
		"Inspected target navigated or closed", "Cannot find context", "Execution context was destroyed",
		"Cannot find default execution context",
	} {
		if strings.Contains(err.Error(), w) {
			return true
		}
	}
	return false
}

func (s *site) click(sel string) {
	s.t.Helper()
	require.True(
		s.t,
		eval[bool](
			s,
			fmt.Sprintf(
				`(()=>{const e=document.querySelector(%q); if(!e) return false; e.click?e.click():e.dispatchEvent(new MouseEvent("click",{bubbles:true,cancelable:true})); return true})()`,
				sel,
			),
		),
		sel,
	)
}

// clickText presses the button or link that says just this.
func (s *site) clickText(text string) {
	s.t.Helper()
	require.True(
		s.t,
		eval[bool](
			s,
			fmt.Sprintf(
				`(()=>{const e=[...document.querySelectorAll("button,a,summary")].find(e=>e.textContent.trim().replace(/\s+/g," ")===%q); if(!e) return false; e.click(); return true})()`,
				text,
			),
		),
		text,
	)
}

// set fills a field as typing and leaving it would.
func (s *site) set(name, value string) {
	s.t.Helper()
	require.True(
		s.t,
		eval[bool](
			s,
			fmt.Sprintf(
				`(()=>{const e=[...document.getElementsByName(%q)].find(e=>e.type!=="hidden"); if(!e) return false; if(e.type==="checkbox") e.checked=%q==="on"; else e.value=%q; e.dispatchEvent(new Event("change",{bubbles:true})); return true})()`,
				name,
				value,
				value,
			),
		),
		name,
	)
}

func (s *site) value(name string) string {
	s.t.Helper()
	return eval[string](
		s,
		fmt.Sprintf(`([...document.getElementsByName(%q)].find(e=>e.type!=="hidden")||{value:"(none)"}).value`, name),
	)
}

// keys types on the keyboard.
func (s *site) keys(keys string) {
	s.t.Helper()
	require.NoError(s.t, chromedp.Do(s.ctx, chromedp.KeyEvent(keys)))
}

// say types a line into the quick line, checks what was understood, and enters it.
func (s *site) say(line, understood string) {
	s.t.Helper()
	eval[bool](s, `(()=>{document.activeElement.blur(); document.getElementById("line").value=""; return true})()`)
	s.keys("/") // focuses the line; the protocol's own char event still types it
	eval[bool](s, `(()=>{document.getElementById("line").value=""; return document.activeElement.id==="line"})()`)
	s.keys(line)
	if understood != "" {
		s.wait(fmt.Sprintf(`document.querySelector(".got").textContent.includes(%q)`, understood))
	}
	s.live(func() { s.keys(kb.Enter) })
	require.Zero(s.t, s.count(".got.bad"), s.text(".got"))
}

// plan is what is stored.
func (s *site) plan(id string) *plan.Plan {
	s.t.Helper()
	p, _, err := s.store.Load(context.Background(), id)
	require.NoError(s.t, err)
	return p
}

// whole is a stored plan with its pictures' data.
func (s *site) whole(id string) *plan.Plan {
	s.t.Helper()
	p, err := s.store.Whole(context.Background(), s.plan(id))
	require.NoError(s.t, err)
	return p
}

func axe(t *testing.T) string {
	b, err := os.ReadFile("testdata/vendor/axe.min.js")
	require.NoError(t, err)
	return string(b)
}
