package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"zapbarn/testkit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A whole prop is pasted as lines: shown first, refused whole while one line is
// not understood, done as one step that one undo takes back.
func TestSeveralLinesPasted(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary)
	before := len(s.plan("midnight-apiary").Solids())
	paste := func(text string) {
		eval[bool](s, `(()=>{const d=new DataTransfer(); d.setData("text", `+strconv.Quote(text)+`);
			const l=document.querySelector("#line"); l.focus();
			l.dispatchEvent(new ClipboardEvent("paste",{clipboardData:d,bubbles:true,cancelable:true})); return true})()`)
	}
	paste("prop lantern 40 in tall\nbox 20 x 20 x 6 ply1/2\ntower 4 sides 30 tall 18 to 10\ngear 9 in 9 teth")
	s.wait(`document.querySelectorAll("#lines li").length === 4`)
	assert.Contains(t, s.text("#lines li.bad"), "gear 9 in 9 teth")
	assert.True(t, eval[bool](s, `document.querySelector("[data-all]").disabled`))
	eval[bool](
		s,
		`(()=>{const a=document.querySelector("#lines textarea"); a.value=a.value.replace("teth","teeth"); a.dispatchEvent(new Event("input",{bubbles:true})); return true})()`,
	)
	s.wait(`!document.querySelector("[data-all]").disabled`)
	s.live(func() { s.click("[data-all]") })
	p := s.plan("midnight-apiary")
	require.Len(t, p.Solids(), before+3)
	assert.False(t, eval[bool](s, `document.querySelector("#lines").open`))
	assert.Contains(t, s.text("[data-told]"), "new", "what it did is told")
	s.live(func() { s.clickText("Undo") })
	assert.Len(t, s.plan("midnight-apiary").Solids(), before)
}

// The ticket folds, and stays folded on the next page; names are whole.
func TestTheTicketFolds(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/bench?prop=riser&sel=solid:riser-box")
	high := func() float64 {
		return eval[float64](s, `document.querySelector(".ticket").getBoundingClientRect().height`)
	}
	drawn := func() float64 {
		return eval[float64](s, `document.querySelector("svg.iso").getBoundingClientRect().height`)
	}
	open, small := high(), drawn()
	assert.True(
		t,
		eval[bool](
			s,
			`document.querySelector(".surface").getBoundingClientRect().bottom <= document.querySelector(".ticket").getBoundingClientRect().top + 1`,
		),
		"the surface ends above it",
	)
	assert.Equal(
		t,
		0,
		eval[int](
			s,
			`[...document.querySelectorAll(".ticket input:not([type=checkbox]):not([type=hidden]), .fl span")].filter(e => e.closest(".wide") === null && e.scrollWidth > e.clientWidth + 1).length`,
		),
		"no name and no label is cut off",
	)
	s.click("[data-fold]")
	assert.Less(t, high(), open/2)
	assert.Greater(t, drawn(), small, "the drawing takes the room")
	s.goTo(apiary + "/bench?prop=shelf")
	assert.Less(t, high(), open/2)
	assert.Equal(t, "Unfold", s.text("[data-fold]"))
	s.click("[data-fold]")
	assert.Greater(t, high(), 100.)
}

// Each of the ten builds is typed from an empty display, to a printed cut sheet;
// nothing is left that stops.
func TestTenBuildsInTheBrowser(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, "/")
	files, err := filepath.Glob("../docs/examples/builds/*.txt")
	require.NoError(t, err)
	require.Len(t, files, 10)
	for i, f := range files {
		if !testkit.Slow() && i%4 != 0 {
			continue // all of them in make slow
		}
		text, err := os.ReadFile(f)
		require.NoError(t, err)
		s.goTo("/")
		name := fmt.Sprintf("Build %d", i+1)
		eval[bool](
			s,
			`(()=>{document.querySelector("[name=name]").value=`+strconv.Quote(
				name,
			)+`; document.querySelector("form[action='/new']").submit(); return true})()`,
		)
		s.wait(`document.querySelector("#line")`)
		eval[bool](s, `(()=>{const d=new DataTransfer(); d.setData("text", `+strconv.Quote(string(text))+`);
			document.querySelector("#line").dispatchEvent(new ClipboardEvent("paste",{clipboardData:d,bubbles:true,cancelable:true})); return true})()`)
		s.wait(`!document.querySelector("[data-all]").disabled`)
		s.live(func() { s.click("[data-all]") })
		id := eval[string](s, `document.querySelector("#page").dataset.plan`)
		p := s.plan(id)
		require.NotEmpty(t, p.Solids(), f)
		assert.True(t, strings.HasPrefix(get(t, s.url+"/p/"+id+"/cutsheet.pdf?prop="+p.Props()[0].ID, 200), "%PDF"), f)
		s.goTo("/p/" + id + "/walkdown")
		assert.Equal(t, 0, s.count(".s-stop"), f)
	}
}
