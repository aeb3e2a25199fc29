package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// What can be said is asked for at the place it belongs to, looked through, and written
// on the line by a press; with it the thing is made.
func TestWhatCanBeSaidIsPressed(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/loom?prop=riser")
	s.click("details.says summary")
	s.wait(`document.querySelectorAll(".said [data-said]").length>40`)
	assert.Equal(t, "Power", s.text(".said [data-group] summary"), "what belongs to the place comes first")
	assert.Equal(t, 1, s.count(".said [data-group]:nth-of-type(1)[open]"))
	eval[bool](
		s,
		`(()=>{const i=document.querySelector("[data-look]"); i.value="battery"; i.dispatchEvent(new Event("input",{bubbles:true})); return true})()`,
	)
	assert.Equal(t, 1, s.count(`.said [data-said]:not([hidden])`))
	n := len(s.plan("midnight-apiary").Devices())
	s.click(`.said [data-said]:not([hidden]) button`)
	assert.Equal(t, "battery 4 aa", eval[string](s, `document.getElementById("line").value`))
	s.wait(`document.querySelector(".got").textContent.startsWith("reads as:")`)
	assert.Equal(t, "line", eval[string](s, `document.activeElement.id`))
	s.live(func() { s.keys("\r") })
	assert.Len(t, s.plan("midnight-apiary").Devices(), n+1)
}

// A line that names a thing wrongly is offered set right, one press away; what could be
// several is offered as each of them.
func TestALineIsSetRight(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/bench?prop=riser")
	eval[bool](
		s,
		`(()=>{const l=document.getElementById("line"); l.focus(); l.value="box 9x9x9 plywod"; l.dispatchEvent(new Event("input",{bubbles:true})); return true})()`,
	)
	s.wait(`document.querySelectorAll(".tries button").length===3`)
	assert.Equal(t, "box 9 x 9 x 9 ply1/2", s.text(".tries button"))
	s.click(".tries li:nth-child(2) button")
	s.wait(`document.querySelector(".got").textContent.includes('Plywood 1/4"')`)
	n := len(s.plan("midnight-apiary").Solids())
	s.live(func() { s.keys("\r") })
	assert.Len(t, s.plan("midnight-apiary").Solids(), n+1)
	// entered all the same, a line that is none comes back with lines to go on with
	eval[bool](s, `(()=>{const l=document.getElementById("line"); l.focus(); l.value="box 22 x"; return true})()`)
	s.live(func() { s.keys("\r") })
	assert.Equal(t, "box 22 x", eval[string](s, `document.getElementById("line").value`))
	s.wait(`document.querySelector(".tries button")`)
	assert.Equal(t, "box 22 x 18 x 26 1/2 xps1 rabbet lid bottom", s.text(".tries button"))
}

// A single key can be another: it then does what the old one did, and the old one does
// nothing; a key that is taken is refused, and all can be put back.
func TestKeysAreChanged(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/bench?prop=riser")
	change := func(id, key string) {
		eval[bool](s, `(()=>{const b=document.querySelector("[data-key=`+id+`]"); b.value="`+key+
			`"; b.dispatchEvent(new Event("change",{bubbles:true})); return true})()`)
	}
	focus := func() string { return eval[string](s, `document.activeElement.id`) }
	change("line", "j")
	s.keys("/")
	assert.NotEqual(t, "line", focus())
	s.keys("j")
	assert.Equal(t, "line", focus())
	s.keys("\x1b") // Esc leaves the line
	assert.NotEqual(t, "line", focus())
	change("mend", "j")
	assert.Contains(t, s.text("[data-keys-said]"), "does something else already")
	change("mend", "3")
	assert.Contains(t, s.text("[data-keys-said]"), "kept for the places")
	s.goTo(apiary + "/loom?prop=shelf")
	assert.Equal(t, "j", eval[string](s, `document.querySelector("[data-key=line]").value`), "it is remembered")
	eval[bool](s, `(()=>{document.querySelector("[data-keys-back]").click(); return true})()`)
	s.keys("/")
	assert.Equal(t, "line", focus())
}
