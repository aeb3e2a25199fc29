package e2e

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
)

// The first walk through the demo: five steps, each with a place that shows it;
// what it ends with stays ended, and other displays have none.
func TestTheFirstWalk(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := serve(t)
	s.first()
	s.goTo(apiary)
	titles := []string{"Find a mistake", "See how a number came about", "Take a mend", "Take it back", "Start your own"}
	for i, title := range titles {
		assert.Equal(t, title, s.text(".tour h2"))
		href := eval[string](s, `document.querySelector(".tour a.main").getAttribute("href")`)
		s.goTo(href)
		switch i {
		case 0:
			assert.Positive(t, s.count(".gutter .snag"))
		case 1:
			assert.Positive(t, s.count(".ticket [data-working]"))
		case 2:
			assert.Contains(t, s.text(".gutter .s-stop"), "Mend:")
		case 3:
			assert.Contains(t, strings.ToLower(s.text(".surface")), "undo")
		}
		if i < 4 {
			assert.Equal(t, title, s.text(".tour h2"), "it goes along")
			s.clickText("Next")
			s.wait(`document.querySelector(".tour h2")?.textContent==="` + titles[i+1] + `"`)
		}
	}
	s.goTo(apiary)
	s.clickText("Done")
	s.wait(`document.querySelector("h1")&&!document.querySelector(".tour")`)
	s.goTo(apiary + "/bench?prop=riser")
	assert.Zero(t, s.count(".tour"))
}
