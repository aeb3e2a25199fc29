package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// start begins an empty display and answers with its ID.
func (s *site) start(name string) string {
	s.t.Helper()
	eval[bool](s, `(()=>{document.querySelector("[name=name]").value="`+name+
		`"; document.querySelector("form[action='/new']").submit(); return true})()`)
	s.wait(`document.querySelector(".start")`)
	return eval[string](s, `document.querySelector("#page").dataset.plan`)
}

// A lit, triggered prop of thirty lamps from an empty display, by keys alone: every line is
// typed as one would say it, none is refused, and it takes no more than thirty.
func TestTheFirstHourByKeys(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, "/")
	id := s.start("By keys")
	said := 0
	for _, line := range []string{
		"prop firefly shelf 60 in tall",
		"box 36 in wide 10 in deep 60 in high plywood 1/4 called shelf",
		"panel 35x9 plywood 1/4 x3 called boards",
		"glue shelf with wood glue",
		"coat shelf exterior latex paint 2",
		"power supply 12v 5a",
		"fuse 2a on S1",
		"driven switch on F1",
		"30 jars flicker12 20ma on K1 22awg 35 ft",
		"add a pressure mat runs glow",
		"cue K1 0 s for 8 s in glow",
	} {
		s.say(line, "reads as:")
		said++
	}
	p := s.plan(id)
	lamps := 0
	for _, d := range p.Devices() {
		if d.Kind == "lamp" {
			lamps++
		}
	}
	assert.Equal(t, 30, lamps)
	assert.Len(t, p.Triggers(), 1)
	assert.LessOrEqual(t, said, 30)
	t.Logf("by keys: %d lines, none refused", said)
	s.goTo("/p/" + id + "/walkdown")
	assert.Zero(t, s.count(".snag.s-stop"), "nothing that is not meant: %s", s.text(".walk"))
}

// The same by mouse alone, from the palettes and lists: no more than forty-five presses.
func TestTheFirstHourByMouse(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, "/")
	presses := 2 // the name's field, and start
	id := s.start("By mouse")
	press := func(sel string) {
		t.Helper()
		presses++
		s.live(func() { s.click(sel) })
		require.Zero(t, s.count(".error, .got.bad"), sel)
	}
	to := func(path string) { // a door or a way, and the prop
		presses += 2
		s.goTo("/p/" + id + path)
	}
	press(".start form:nth-of-type(2) .btn")
	prop := s.plan(id).Props()[0].ID
	to("/bench?prop=" + prop + "&way=whole")
	press(`.palette button[value^="box"]`)
	to("/loom?prop=" + prop)
	for _, what := range []string{"supply", "fuse", "run", "driven switch", "lamp puck12"} {
		press(`.palette button[value^="` + what + `"]`)
	}
	for range 3 {
		press(`.ticket button[value$=" x9"]`)
	}
	press(`.ticket button[value^="lamp "]:not([value$="x9"])`)
	press(`.ticket button[value^="lamp "]:not([value$="x9"])`)
	to("/rehearsal?prop=" + prop)
	press(`.palette button[value^="mat"]`)
	lamps := 0
	for _, d := range s.plan(id).Devices() {
		if d.Kind == "lamp" {
			lamps++
		}
	}
	assert.Equal(t, 30, lamps)
	assert.Len(t, s.plan(id).Triggers(), 1)
	assert.LessOrEqual(t, presses, 45)
	t.Logf("by mouse: %d presses", presses)
}
