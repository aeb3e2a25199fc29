package e2e

import (
	"fmt"
	"testing"
	"time"

	"zapbarn/testkit"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// onTheLine goes to the line, empty.
func (s *site) onTheLine() {
	eval[bool](s,
		`(()=>{const e=document.getElementById("line"); e.focus(); e.value=""; return document.activeElement===e})()`)
}

// settled waits until nothing is under way.
func (s *site) settled() { s.wait(`!document.body.classList.contains("busy")`) }

// A hundred lines in a row, a key each 40 ms, while answers come at once, late and very late:
// none is lost, none done twice, none joined with another, all in their order, and each is
// listed with its answer.
func TestAHundredLinesInARow(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s, server := late(t)
	n := 0
	for _, part := range []struct {
		delay time.Duration
		lines int
	}{{0, 60}, {300 * time.Millisecond, 28}, {time.Second, 12}} {
		if !testkit.Slow() { // a fifth of them; all in make slow
			part.lines = (part.lines + 4) / 5
		}
		server.delay = 0
		s.goTo(apiary + "/calendar?way=crew")
		server.delay = part.delay
		s.onTheLine()
		for range part.lines {
			n++
			s.strike(fmt.Sprintf("task t%d 1 h", n), 40*time.Millisecond)
			s.keys(kb.Enter)
		}
		s.settled()
		assert.Equal(t, "", eval[string](s, `document.getElementById("line").value`))
		assert.Zero(t, s.count("#answers [data-state=bad],#answers [data-state=waiting]"), s.text("#answers"))
		assert.Contains(t, s.text("#answers"), fmt.Sprintf("task t%d 1 h", n))
		assert.Contains(t, s.text("#answers"), fmt.Sprintf("T%d", n), "with what it did")
	}
	var got []string
	for _, j := range s.plan("midnight-apiary").Jobs() {
		if len(j.Name) > 1 && j.Name[0] == 'T' && j.Name[1] >= '0' && j.Name[1] <= '9' {
			got = append(got, j.Name)
		}
	}
	require.Len(t, got, n)
	for i, name := range got {
		assert.Equal(t, fmt.Sprintf("T%d", i+1), name)
	}
}

// What is typed after Enter is kept apart from what was sent: a line that is refused meanwhile
// is listed with why, and goes back to the line by a press; where nothing else was typed it is
// on the line again by itself.
func TestARefusedLineStaysApart(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s, server := late(t)
	s.goTo(apiary + "/calendar?way=crew")
	server.delay = 700 * time.Millisecond
	s.onTheLine()
	s.strike("tusk sweep 1 h\rtask rake the path 2 h", 20*time.Millisecond)
	s.settled()
	assert.Equal(t, "task rake the path 2 h", eval[string](s, `document.getElementById("line").value`),
		"as it was typed")
	assert.Contains(t, s.text("#answers [data-state=bad]"), "tusk sweep 1 h")
	assert.NotContains(t, s.text(".got"), "tusk", "what is said at the line is of what stands on it")
	s.keys(kb.Enter)
	s.settled()
	assert.Contains(t, s.text("#answers [data-state=done]"), "task rake the path 2 h")
	s.clickText("Put it back on the line")
	assert.Equal(t, "tusk sweep 1 h", eval[string](s, `document.getElementById("line").value`))
	s.keys(kb.Enter)
	s.settled()
	assert.Equal(t, "tusk sweep 1 h", eval[string](s, `document.getElementById("line").value`),
		"nothing else was typed")
	assert.Equal(t, 1, s.count(".got.bad"))
}

// Enter twice, a double click, a key that is held: a line and a palette's press are done once.
func TestTwiceIsOnce(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s, server := late(t)
	discs := func() (n int) {
		for _, x := range s.plan("midnight-apiary").Solids() {
			if x.Kind == "disc" && x.Prop == "riser" {
				n++
			}
		}
		return n
	}
	first := discs()
	for i, delay := range []time.Duration{0, 500 * time.Millisecond} {
		server.delay = 0
		s.goTo(apiary + "/bench?prop=riser")
		server.delay = delay
		s.onTheLine()
		s.strike("disc 24 in xps1", 10*time.Millisecond)
		s.keys(kb.Enter)
		s.keys(kb.Enter)
		s.settled()
		assert.Equal(t, first+2*i+1, discs(), "Enter twice")
		at := eval[[]float64](s,
			`(()=>{const r=document.querySelector('.palette button[value^="disc"]').getBoundingClientRect(); return [r.x+r.width/2,r.y+r.height/2]})()`)
		s.doubleClick(at[0], at[1])
		s.settled()
		assert.Equal(t, first+2*i+2, discs(), "a double click")
	}
	server.delay = 500 * time.Millisecond
	eval[bool](s, `(()=>{document.querySelector('.palette button[value^="disc"]').focus(); return true})()`)
	s.keys(kb.Enter)
	s.keys(kb.Enter)
	s.keys(kb.Enter)
	s.settled()
	assert.Equal(t, first+5, discs(), "Enter three times on a palette's button")
}

// doubleClick presses a place twice, as a mouse does.
func (s *site) doubleClick(x, y float64) {
	s.t.Helper()
	for n := 1; n <= 2; n++ {
		for _, kind := range []input.DispatchMouseEventType{input.DispatchMouseEventTypeMousePressed,
			input.DispatchMouseEventTypeMouseReleased} {
			require.NoError(s.t, chromedp.Do(s.ctx, chromedp.MouseEvent(kind, x, y, chromedp.ButtonLeft,
				chromedp.ClickCount(n))))
		}
	}
}
