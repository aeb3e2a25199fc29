package wiring

import (
	"testing"

	"zapbarn/core/stock"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
)

// A strip that is cut for so many segments has as many, in either units.
func TestAStripHasTheSegmentsItIsCutFor(t *testing.T) {
	some := 0
	for _, l := range stock.Shop.Lamps {
		if l.Kind != "pixels" && l.Kind != "strip" {
			continue
		}
		some++
		for n := 1; n <= 900; n++ {
			for _, metric := range []bool{true, false} {
				d := &Device{Product: l.ID, Length: LengthOf(n, l, metric)}
				assert.Equal(t, n, Segments(d, shop.Kept), "%s: %s", l.ID, d.Length)
			}
		}
	}
	assert.Positive(t, some)
}

// However long it is, a strip is solved as mostLumps loads at most.
func TestALongStripIsLumped(t *testing.T) {
	l := stock.Shop.Lamps["pixel5"]
	d := Device{ID: "P", Kind: "lamp", Product: l.ID, From: "S", Length: LengthOf(6000, l, true)}
	s := Device{ID: "S", Kind: "supply", Product: "ps5-10"}
	r := NewRig(Set{Devices: []Device{s, d}, Lib: shop.Kept, Temp: 21})
	assert.Less(t, len(r.Net.Names), 2*mostLumps+20)
}
