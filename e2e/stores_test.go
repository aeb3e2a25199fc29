package e2e

import (
	"strings"
	"testing"

	"zapbarn/core/stores"
	"zapbarn/core/work"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The Stores as a builder has them: what lies on the shelf is typed beside what is needed,
// and less is to be bought; no number stays where it is; undo; the working of a number; what
// to order by when.
func TestTheStores(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/stores")
	packs := func() int {
		for _, n := range stores.Of(work.Do(s.plan("midnight-apiary"), shop.Kept, today)) {
			if n.What == "lamp:flicker12" {
				return n.Packs
			}
		}
		return -1
	}
	assert.Equal(t, 13, packs(), "24 and one to spare, less 12")
	row := func(js string) string {
		return eval[string](s, `(()=>{const f=[...document.querySelectorAll(".need form")].find(
			f=>f.elements.what.value==="lamp:flicker12"); `+js+`})()`)
	}
	have := func(text string) {
		s.live(func() {
			row(`const e=f.elements.have; e.value="` + text + `"; e.dispatchEvent(new Event("change",{bubbles:true})); return ""`)
		})
	}
	have("20")
	assert.Equal(t, 5, packs())
	assert.Contains(t, row(`return f.closest(".need").textContent`), "5 pieces")
	have("a few")
	assert.Contains(t, s.text(".error"), "is no amount")
	assert.Equal(t, 5, packs())
	s.live(func() { s.clickText("Undo") })
	assert.Equal(t, 13, packs())
	key := row(`return f.closest(".need").querySelector("[data-working]").getAttribute("href")`)
	s.goTo(key)
	assert.Contains(t, s.text("body"), "less what lies on the shelf")
	s.goTo(apiary + "/stores?way=buy")
	text := s.text(".list")
	assert.True(t, strings.Contains(text, "Order by") || strings.Contains(text, "on its way by now"), text)
	require.Contains(t, text, "Flicker candle")
}
