package e2e

import (
	"fmt"
	"net/url"
	"testing"

	"zapbarn/core/plan"
	"zapbarn/demo"
	"zapbarn/testkit"
	"zapbarn/testkit/wirings"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// overlaps are the pairs of words on a page's drawings that run into each other, measured
// by the browser: their boxes share more than a hair both ways.
const overlaps = `(()=>{
	const out = [];
	for (const svg of document.querySelectorAll("svg.drawing")) {
		const all = [...svg.querySelectorAll("text")].filter(t => t.textContent.trim() && t.getClientRects().length &&
			getComputedStyle(t).visibility !== "hidden" && getComputedStyle(t).opacity !== "0");
		const boxes = all.map(t => t.getBoundingClientRect());
		for (let i = 0; i < all.length; i++) for (let k = i + 1; k < all.length; k++) {
			const a = boxes[i], b = boxes[k];
			const x = Math.min(a.right, b.right) - Math.max(a.left, b.left), y = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top);
			const h = Math.min(a.height, b.height);
			const halo = all[i].textContent === all[k].textContent && x > 0.98 * a.width && y > 0.98 * h; // its own outline
			if (!halo && x > 1 && y > 0.3 * h) out.push(all[i].textContent.trim() + " / " + all[k].textContent.trim());
		}
		const frame = svg.getBoundingClientRect();
		for (let i = 0; i < all.length; i++) if (boxes[i].left < frame.left - 1 || boxes[i].right > frame.right + 1)
			out.push(all[i].textContent.trim() + " is cut off");
	}
	return out;
})()`

// stressed is the demo with names as long as names get.
func stressed() *plan.Plan {
	p := demo.Apiary(today)
	p.Doc().Display.ID, p.Doc().Display.Name = "stress", "The display with the longest names that anybody would write"
	long := func(name string) string { return name + ", which is called so by all who built it" }
	for i := range p.Props() {
		p.Props()[i].Name = long(p.Props()[i].Name)
	}
	for i := range p.Solids() {
		p.Solids()[i].Name = long(p.Solids()[i].Name)
	}
	for i := range p.Devices() {
		p.Devices()[i].Name = long(p.Devices()[i].Name)
	}
	return p
}

// No words on any drawing run into each other or out of it: the demo, its metric twin and
// the pattern book, every place and way. In make test a third of the pages of the two hardest,
// the longest names and every form; in make slow all of all.
func TestNoWordsRunIntoEachOther(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary)
	book := demo.Patterns()
	stress := stressed()
	twin := stressed()
	twin.Doc().Display.ID, twin.Doc().Display.Units = "stress-metric", "mm"
	many := wirings.Times(demo.Apiary(today), 8) // 64 props
	many.Doc().Display.ID = "many"
	some := wirings.Times(demo.Apiary(today), 3) // 24 props
	some.Doc().Display.ID = "some"
	one := demo.Apiary(today)
	one.Doc().Display.ID = "one"
	for _, prop := range one.Props()[1:] {
		q, err := one.Apply(one.Without("prop", prop.ID))
		require.NoError(t, err)
		one = q
	}
	for _, p := range []*plan.Plan{book, stress, twin, many, some, one} {
		require.NoError(t, s.store.Create(t.Context(), p, false))
	}
	all := []*plan.Plan{stress, book, s.plan("midnight-apiary"), demo.Metric(today), twin, many, some, one}
	if !testkit.Slow() {
		all = all[:2]
	}
	for _, p := range all {
		id := p.Display().ID
		pages := []string{""}
		for k, prop := range p.Props() {
			if p == many && k%16 != 3 || p == some && k != 9 {
				continue
			}
			if p == book { // a form a prop: what is drawn of it
				pages = append(pages, "/bench?prop="+prop.ID+"&way=whole", "/bench?prop="+prop.ID+"&way=parts")
				continue
			}
			for _, way := range []string{"whole", "whole&from=above", "parts", "sheets"} {
				pages = append(pages, "/bench?prop="+url.QueryEscape(prop.ID)+"&way="+way)
			}
			for _, way := range []string{"harness", "build"} {
				pages = append(pages, "/loom?prop="+url.QueryEscape(prop.ID)+"&way="+way)
			}
			pages = append(pages, "/rehearsal?prop="+url.QueryEscape(prop.ID))
		}
		s.first() // a browser has three minutes
		s.goTo("/healthz")
		eval[bool](s, `(()=>{document.cookie="tour=done;path=/"; return true})()`)
		for i, page := range append(pages, "/loom?way=power", "/calendar?way=bars", "/yard?way=sight") {
			if !testkit.Slow() && i%3 != 0 {
				continue
			}
			s.goTo("/p/" + id + page)
			got := eval[[]string](s, overlaps)
			assert.Empty(t, got, id+page)
			if len(got) > 0 {
				fmt.Println("OVER", id+page, len(got), got[:min(4, len(got))])
			}
		}
	}
}
