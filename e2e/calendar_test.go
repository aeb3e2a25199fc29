package e2e

import (
	"strings"
	"testing"

	"zapbarn/core/order"
	"zapbarn/core/work"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The Calendar as a crew has it: the late order is seen and mended by one press, the first
// task is done with its time and starts its clock, is taken back, left out with a reason;
// somebody new helps; a task of one's own comes after another.
func TestTheCalendar(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/calendar")
	late := func() int {
		return order.In(work.Do(s.plan("midnight-apiary"), shop.Kept, today)).Late()
	}
	assert.Positive(t, late())
	assert.Contains(t, s.text(".ends"), "after the opening")
	// the glue's time runs from a press, and stops by another
	assert.NotZero(t, s.count("[data-timer]"))
	said := s.text("[data-timer] [data-left]")
	s.click("[data-timer]")
	s.wait(`/^\d+:\d\d$/.test(document.querySelector("[data-timer] [data-left]").textContent)`)
	s.click("[data-timer]")
	assert.Equal(t, said, s.text("[data-timer] [data-left]"))

	s.live(func() { s.clickText("Mend: Express for gear motor for the sunflowers, $14") })
	assert.Zero(t, late())
	assert.Contains(t, s.text(".ends"), "before the opening")

	name := s.text(".step-card h3")
	key := eval[string](s, `document.querySelector(".step-card [name=task]").value`)
	eval[bool](s, `(()=>{document.querySelector(".step-card [name=took]").value="25"; return true})()`)
	s.live(func() { s.click(".step-card .btn.main") })
	j := s.plan("midnight-apiary").JobOf(key)
	require.NotNil(t, j)
	assert.Equal(t, "done", j.State)
	assert.Equal(t, 25*60.0, j.Took.Value())
	assert.NotEqual(t, name, s.text(".step-card h3"), "the next one is there")
	assert.Contains(t, s.text(".tonight"), name)
	s.live(func() {
		require.True(t, eval[bool](s, `(()=>{const f=[...document.querySelectorAll(".lately form")].find(
			f=>f.task&&f.task.value==="`+key+`"); if(!f) return false; f.querySelector("button").click(); return true})()`))
	})
	assert.Nil(t, s.plan("midnight-apiary").JobOf(key), "nothing is left of it")

	// a task is left out with a reason, from its ticket in the bars; its working is there
	s.goTo(apiary + "/calendar?way=bars&sel=task:fill:riser-box")
	assert.Equal(t, "Fill and sand the seams of Hive box", s.text("#ticket h2"))
	assert.Contains(t, s.text("#ticket .afters"), "filler in an open seam keeps the glue out")
	assert.Equal(t, 1, s.count(`svg.bars .pick.on`))
	eval[bool](s, `(()=>{document.querySelector("#ticket [name=why]").value="texture hides it"; return true})()`)
	s.live(func() { s.clickText("Leave it out") })
	j = s.plan("midnight-apiary").JobOf("fill:riser-box")
	require.NotNil(t, j)
	assert.Equal(t, "left out", j.State)
	assert.Equal(t, "texture hides it", j.Why)
	assert.Contains(t, s.text("#ticket"), "left out: texture hides it")
	s.live(func() { s.clickText("It is still to do") })
	assert.Nil(t, s.plan("midnight-apiary").JobOf("fill:riser-box"))

	// somebody helps, with hours that are read; hours that are not stay in the form
	s.goTo(apiary + "/calendar?way=crew")
	add := func(fields ...string) {
		for k := 0; k+1 < len(fields); k += 2 {
			eval[bool](s, `(()=>{const f=document.querySelector("form[aria-label='`+fields[0]+`']");
				if("`+fields[k]+`"!=="`+fields[0]+`") f.elements["n.`+fields[k]+`"].value="`+fields[k+1]+`"; return true})()`)
		}
		s.live(func() { s.clickText(fields[1]) })
	}
	add("Add a person", "Add the person", "name", "Bo", "hours", "someday 9-10")
	assert.Contains(t, s.text(".error"), "someday")
	assert.Equal(t, "Bo", eval[string](s, `document.querySelector("[name='n.name']").value`))
	add("Add a person", "Add the person", "name", "Bo", "hours", "sat 9-12")
	people := s.plan("midnight-apiary").People()
	assert.Equal(t, "Bo", people[len(people)-1].Name)
	add("Add a task", "Add the task", "name", "Borrow a ladder", "hands", "20 min", "after", "prove:riser")
	var own string
	for _, x := range s.plan("midnight-apiary").Jobs() {
		if x.Name == "Borrow a ladder" {
			own = x.ID
			assert.Equal(t, "prove:riser", x.After)
		}
	}
	require.NotEmpty(t, own)
	s.goTo(apiary + "/calendar?way=crew&sel=task:own:" + own)
	assert.Equal(t, 1, s.count("form.f"), "its fields are there")
	s.say("delivery ladder for riser 2026-09-30", "Ladder for Frame riser arrives")
	assert.True(t, strings.Contains(s.text(".list"), "for Frame riser"))
	s.goTo(apiary + "/calendar?way=rules")
	assert.Contains(t, s.text(".list"), "prove-before-close")
}
