package e2e

import (
	"testing"

	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// Whoever goes by keys stays where they are: after an edit in its field, after a mend and a
// waiver among the snags, after undo on undo, after a way on that way, after a prop on that
// prop; what changed is said once, politely.
func TestFocusStays(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/loom?prop=shelf&sel=device:W2")
	at := func(js string) bool { return eval[bool](s, `(()=>{const a=document.activeElement; return `+js+`})()`) }
	focus := func(sel string) {
		eval[bool](s, `(()=>{document.querySelector('`+sel+`').focus(); return true})()`)
	}
	watch := func() { // counts what a reader would be told
		eval[bool](
			s,
			`(()=>{window.told=[]; new MutationObserver(()=>{const t=document.querySelector("[data-told]").textContent.trim();
			if(t && t!==window.told.at(-1)) window.told.push(t)}).observe(document.body,{subtree:true,childList:true,characterData:true}); return true})()`,
		)
	}
	focus(`[name="f.length"]`)
	watch()
	eval[bool](s, `(()=>{const a=document.activeElement; a.value="36 ft"; return true})()`)
	s.live(func() { s.keys(kb.Enter) })
	assert.True(t, at(`a.name==="f.length"`), "in the field that was edited")
	s.wait(`window.told.length>0`)
	assert.Equal(t, 1, eval[int](s, `window.told.length`), "said once: "+s.text("[data-told]"))
	assert.Equal(
		t,
		"status",
		eval[string](s, `document.querySelector("[data-told]").getAttribute("role")`),
		"politely",
	)

	focus(`.gutter [name=mend]`)
	s.live(func() { s.keys(kb.Enter) })
	assert.True(t, at(`!!a.closest(".gutter")`), "among the snags after a mend")

	eval[bool](s, `(()=>{const d=document.querySelector(".gutter details.waive"); d.open=true;
		d.querySelector("[name=reason]").value="on purpose"; d.querySelector("[name=by]").value="me"; return true})()`)
	focus(`.gutter details.waive[open] form .btn`)
	s.live(func() { s.keys(kb.Enter) })
	assert.True(t, at(`!!a.closest(".gutter")`), "among the snags after a waiver")

	focus(`[data-undo]`)
	s.live(func() { s.keys(kb.Enter) })
	assert.True(t, at(`a.matches("[data-undo]")`), "on undo after undo")

	focus(`.ways a:nth-of-type(2)`)
	s.live(func() { s.keys(kb.Enter) })
	assert.True(t, at(`a.matches(".ways a[aria-current]")`), "on the way that was taken")

	focus(`.props a:nth-of-type(3)`)
	s.live(func() { s.keys(kb.Enter) })
	assert.True(t, at(`a.matches(".props a[aria-current]")`), "on the prop that was taken")

	// and it can be seen: whatever is reached by Tab is marked
	for range 12 {
		s.keys("\t")
		assert.True(
			t,
			at(
				`(()=>{const c=getComputedStyle(a); return a===document.body||c.outlineStyle!=="none"&&c.outlineWidth!=="0px"||`+
					`a.matches(".pick, .opening, .cue, .line")})()`,
			),
			eval[string](s, `document.activeElement.outerHTML.slice(0,120)`),
		)
	}
}
