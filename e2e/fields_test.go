package e2e

import (
	"testing"
	"time"

	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// A field that cannot be taken holds up none beside it: what is good is stored, what is not
// stays as it was entered with its sentence, and leaving asks.
func TestABadFieldHoldsUpNoGoodOne(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/bench?prop=riser&sel=solid:riser-box")
	box := func(field string) string { return s.plan("midnight-apiary").Solid("riser-box").Length(field).String() }
	wide, tall := box("w"), box("h")
	s.into("w")
	s.strike("abc\t", 5*time.Millisecond)
	s.wait(`document.querySelector(".fl.bad")`)
	s.into("h")
	s.live(func() { s.strike("29 in\t", 5*time.Millisecond) })
	assert.Equal(t, wide, box("w"))
	assert.NotEqual(t, tall, box("h"))
	assert.Equal(t, "29 in", box("h"), "the good one is stored")
	assert.Equal(t, "abc", s.value("f.w"), "the bad one stays as it was entered")
	assert.Contains(t, s.text(".fl.bad em"), "is not understood")
	assert.Contains(t, s.text(".error"), "What else you entered is stored")

	// leaving asks, by a door, by a thing, and by a link off the page
	asked := func(answer string) {
		eval[bool](s, `(()=>{window.asked=[]; window.confirm=(q)=>{window.asked.push(q); return `+answer+`}; return true})()`)
	}
	asked("false")
	s.clickText("Loom20")
	s.wait(`window.asked.length===1 && !document.body.classList.contains("busy")`)
	assert.Contains(t, eval[string](s, `window.asked[0]`), "“abc”")
	assert.Contains(t, eval[string](s, `location.pathname`), "/bench")
	s.click(`a.brand`)
	s.wait(`window.asked.length===2 && !document.body.classList.contains("busy")`)
	assert.Contains(t, eval[string](s, `location.pathname`), "/bench")
	asked("true")
	s.live(func() { s.click(`.door[href*="/loom"]`) })
	assert.Contains(t, eval[string](s, `location.pathname`), "/loom")
	assert.Equal(t, wide, box("w"))
}

// Escape gives back what was there, a second one leaves the field.
func TestEscapeGivesBack(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/bench?prop=riser&sel=solid:riser-box")
	before := string(s.plan("midnight-apiary").Encode())
	was := s.value("f.w")
	s.into("w")
	s.strike("77", 5*time.Millisecond)
	s.keys(kb.Escape)
	assert.Equal(t, was, s.value("f.w"))
	assert.Equal(t, "f.w", eval[string](s, `document.activeElement.name`), "it is still there")
	s.keys(kb.Escape)
	assert.Equal(t, "surface", eval[string](s, `document.activeElement.id`), "and then left")
	assert.Equal(t, before, string(s.plan("midnight-apiary").Encode()), "nothing was entered")
	s.into("w")
	s.live(func() { s.strike("abc\r", 5*time.Millisecond) })
	assert.Equal(t, 1, s.count(".fl.bad"))
	s.into("w")
	s.live(func() { s.keys(kb.Escape) })
	assert.Equal(t, was, s.value("f.w"))
	assert.Zero(t, s.count(".fl.bad"), "what was wrong is forgotten")
	assert.Equal(t, before, string(s.plan("midnight-apiary").Encode()))
}
