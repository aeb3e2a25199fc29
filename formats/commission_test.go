package formats

import (
	"bytes"
	"testing"

	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Every contact, driven switch and mechanism of the demo has its card, each says how and
// what is expected, and the printed sheet has them all.
func TestEverythingHasItsTrial(t *testing.T) {
	p := demo.Apiary(today).In(shop.Kept)
	w := work.Do(p, shop.Kept, today)
	has := map[string]int{}
	for _, x := range w.Trials("") {
		has[x.At]++
		assert.NotEmpty(t, x.How, x.What)
		assert.NotEmpty(t, x.Expect, x.What)
	}
	for _, i := range p.Inputs() {
		assert.Equal(t, i.Wired(), has["input:"+i.ID] == 1, i.Name)
	}
	for _, d := range p.Devices() {
		assert.Equal(t, d.Driven || d.Kind == "supply", has["device:"+d.ID] == 1, d.Name)
	}
	assert.Equal(t, 5, has["mechanism:arm"], "direction, time, current, end stops, power cut")
	var b bytes.Buffer
	require.NoError(t, CommissionPDF(&b, w, "keeper", A4))
	text := poppler(t, "pdftotext", b.Bytes())
	for _, want := range []string{"Smoker arm, direction", "two leads",
		"1.79 s up, 1.02 s down", "Stop button"} {
		assert.Contains(t, text, want)
	}
	assert.ErrorContains(t, CommissionPDF(&b, w, "skep", A4), "nothing to commission")
}
