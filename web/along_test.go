package web

import (
	"bytes"
	"regexp"
	"strings"
	"testing"

	"zapbarn/web/displays"

	"zapbarn/core/check"
	"zapbarn/core/plan"
	"zapbarn/core/stores"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/net/html"
)

// The page to take along stands alone: no script, no address of anything else but
// places in itself; it holds every prop with its parts, joints, wires and snags.
func TestThePageToTakeAlongStandsAlone(t *testing.T) {
	p := demo.Apiary(today).In(shop.Kept)
	p.Doc().Shelf = append(p.Shelf(), plan.Stocked{ID: "x", What: "lamp:puck12", Have: "3", Bin: "B 4"})
	w := work.Do(p, shop.Kept, today)
	snags := check.Check(w)
	var b bytes.Buffer
	require.NoError(t, displays.WriteAlong(&b, w, snags, "20 September 2026"))
	page := b.String()
	assert.NotContains(t, page, "<script")
	assert.NotContains(t, page, "<form")
	for _, m := range regexp.MustCompile(`(?:href|src|action)="([^"]*)"|url\(([^)]*)\)`).FindAllStringSubmatch(page, -1) {
		at := m[1] + m[2]
		assert.True(t, strings.HasPrefix(at, "#") || strings.HasPrefix(at, "data:font/woff2;base64,"), at)
	}
	doc, err := html.Parse(&b)
	require.NoError(t, err)
	ids, text := map[string]bool{}, strings.Builder{}
	var walk func(n *html.Node)
	walk = func(n *html.Node) {
		if n.Type == html.TextNode {
			text.WriteString(n.Data + " ")
		}
		for _, a := range n.Attr {
			if a.Key == "id" {
				ids[a.Val] = true
			}
		}
		for c := n.FirstChild; c != nil; c = c.NextSibling {
			walk(c)
		}
	}
	walk(doc)
	for _, part := range w.Parts() {
		assert.True(t, ids[plan.Anchor("part", part.Ref)], "the code of its label opens there: %s", part.Ref)
	}
	for _, x := range w.Plan.Lots() {
		assert.True(t, ids[plan.Anchor("lot", x.ID)], x.ID)
	}
	for _, x := range w.Plan.Offcuts() {
		assert.True(t, ids[plan.Anchor("offcut", x.ID)], x.ID)
	}
	assert.True(t, ids[plan.Anchor("bin", "B 4")])
	bought := 0
	for _, n := range stores.Of(w) {
		if n.Packs > 0 {
			bought++
			assert.Contains(t, page, "<b>"+n.ToBuy()+"</b> <span>"+html.EscapeString(n.Name), "as the Stores have it")
		}
	}
	assert.Equal(
		t,
		bought,
		strings.Count(page[strings.Index(page, "Still to buy"):strings.Index(page, "</section>")], "<li>"),
	)
	said := text.String()
	for _, m := range regexp.MustCompile(`(?:href="|url\()#([\w-]+)`).FindAllStringSubmatch(page, -1) {
		assert.True(t, ids[m[1]], "#%s is there", m[1])
	}
	for _, p := range w.Plan.Props() {
		assert.True(t, ids[p.ID], p.ID)
		for _, x := range w.Harness(p.ID).Wires {
			assert.Contains(t, said, x.Label+" ")
		}
	}
	for _, part := range w.Parts() {
		assert.Contains(t, said, part.Name())
		assert.Contains(t, said, w.Results().At("part", part.Ref, "size").Text)
	}
	for _, s := range snags {
		if s.Waived == nil {
			assert.Contains(t, said, s.Title)
		}
	}
}
