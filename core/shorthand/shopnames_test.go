package shorthand

import (
	"slices"
	"testing"

	"zapbarn/core/plan"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// What the shop has is found by its name as well as by its short one; a word that
// could mean several lists them.
func TestTheShopIsFoundByName(t *testing.T) {
	p := plan.New("n", "N", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	read := func(line string) (*Reading, error) {
		got, err := Read(p, shop.Kept, "a", line)
		if err == nil {
			q, err := p.Apply(got.Edit)
			require.NoError(t, err)
			p = q
		}
		return got, err
	}
	for _, x := range [][2]string{
		{"box 12 x 10 x 9 plywood 1/4 called Crate", `9" tall, butt corners, Plywood 1/4"`},
		{"panel 20 x 12 corrugated", "Corrugated plastic 4 mm"},
		{"panel 20 x 12 acrylic called Front pane", "Acrylic"},
		{"supply 12v 5a", "12 V 5 A"},
		{"laminate 2 plies 9 x 11 x 5 glass cloth", "Glass cloth 200 g/m2 in epoxy"},
	} {
		got, err := read(x[0])
		require.NoError(t, err, x[0])
		assert.Contains(t, got.Text, x[1], x[0])
	}
	crate := false
	for _, s := range p.Solids() {
		crate = crate || s.Name == "Crate" && s.Stock == "ply1/4"
	}
	assert.True(t, crate)
	got, err := read("glue crate/front to crate/left with wood glue")
	require.NoError(t, err)
	assert.Contains(t, got.Text, "PVA")
	got, err = read("coat crate exterior latex paint")
	require.NoError(t, err)
	assert.Contains(t, got.Text, "Exterior latex paint")
	_, err = read("box 12 x 10 x 9 plywood")
	require.ErrorContains(
		t,
		err,
		"“plywood” could be ply1/2 (plywood 1/2\"), ply1/4 (plywood 1/4\"), ply1/8 (plywood 1/8\"); write",
	)
	_, err = read("box 12 x 10 x 9 unobtainium")
	require.ErrorContains(t, err, `"unobtainium" is not understood`)
}

// Every name of the shop, written out where its short name goes, means just that.
func TestEveryNameOfTheShopMeansItself(t *testing.T) {
	for _, verb := range []string{"box", "pipe", "glue", "coat", "lamp"} {
		list := entriesFor(verb, shop.Kept)
		require.NotEmpty(t, list)
		for _, e := range list {
			words := wordsOf(e.name)
			if len(words) == 0 || len(words) > 4 || !letters(words[0]) ||
				slices.ContainsFunc(list, func(o entry) bool { return slices.Contains(words, o.id) }) {
				continue
			}
			got, err := byName(verb, append([]string{verb}, words...), shop.Kept)
			if err != nil {
				continue // two of one name, but for signs
			}
			require.NotNil(t, got, e.name)
			assert.Equal(t, e.id, got[1], e.name)
		}
	}
	rapid.Check(t, func(t *rapid.T) { // and no line makes it stumble
		line := rapid.SliceOfN(rapid.StringMatching(`[a-zA-Z0-9/.x"-]{0,9}`), 1, 9).Draw(t, "line")
		_, _ = byName(
			rapid.SampledFrom([]string{"box", "pipe", "lamp", "glue", "coat", "note"}).Draw(t, "verb"),
			line,
			shop.Kept,
		)
	})
}
