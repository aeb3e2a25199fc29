package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A prop by mouse alone: the template's prop is taken, a solid is pressed, joined
// and coated from lists, wired from the palette, and made to answer a mat.
func TestAPropByMouseAlone(t *testing.T) {
	s := open(t, "/")
	eval[bool](s, `(()=>{document.querySelector("[name=name]").value="Mouse only"; document.querySelector("form[action='/new']").submit(); return true})()`)
	s.wait(`document.querySelector(".start")`)
	id := eval[string](s, `document.querySelector("#page").dataset.plan`)
	s.live(func() { s.click(".start form:nth-of-type(2) .btn") })
	require.Len(t, s.plan(id).Props, 1)
	prop := s.plan(id).Props[0].ID
	s.goTo("/p/" + id + "/bench?prop=" + prop + "&way=whole")
	s.live(func() { s.click(`.palette button[value^="box"]`) })
	s.goTo("/p/" + id + "/bench?prop=" + prop + "&way=joints")
	box := s.plan(id).Solids[1]
	choose := func(form, field, value string) {
		require.True(t, eval[bool](s, `(()=>{const f=document.querySelector('`+form+`'); f.elements["`+field+`"].value="`+value+`"; return f.elements["`+field+`"].value==="`+value+`"})()`), field)
	}
	join := `form[aria-label="Join two parts"]`
	choose(join, "a", box.ID)
	choose(join, "b", box.ID)
	choose(join, "glue", "pu")
	s.live(func() { s.click(join + " .btn") })
	assert.Len(t, s.plan(id).Joints, 4, "every seam of the box")
	coat := `form[aria-label="Add a coat"]`
	choose(coat, "solid", box.ID)
	choose(coat, "coat", "latex")
	s.live(func() { s.click(coat + " .btn") })
	choose(join, "a", box.ID+"/front")
	choose(join, "b", s.plan(id).Solids[0].ID)
	s.live(func() { s.click(join + " .btn") })
	assert.Len(t, s.plan(id).Joints, 5)
	s.goTo("/p/" + id + "/loom?prop=" + prop)
	n := s.count(".palette button")
	assert.Equal(t, 2, n, "only what feeds, while nothing feeds")
	s.live(func() { s.click(`.palette button[value^="supply"]`) })
	for _, what := range []string{"fuse", "run", "driven switch", "lamp puck12"} {
		s.live(func() { s.click(`.palette button[value^="` + what + `"]`) })
		assert.Equal(t, 0, s.count(".error, .got.bad"), what)
	}
	p := s.plan(id)
	require.Len(t, p.Devices, 5)
	for i := 1; i < 5; i++ {
		assert.Equal(t, p.Devices[i-1].ID, p.Devices[i].From, "each hangs on the one before")
	}
	s.goTo("/p/" + id + "/rehearsal?prop=" + prop)
	s.live(func() { s.click(`.palette button[value^="mat"]`) })
	assert.Len(t, s.plan(id).Triggers, 1)
	s.goTo("/p/" + id + "/bench?prop=" + prop + "&way=print")
	assert.Contains(t, get(t, s.url+"/p/"+id+"/cutsheet.pdf?prop="+prop, 200)[:5], "%PDF")
}
