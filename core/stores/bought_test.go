package stores

import (
	"strings"
	"testing"
	"time"

	"zapbarn/core/calendar"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
)

// What is late by two days and by five is ordered today, in one parcel; what is due on two other
// days comes in two; what costs nothing or is there comes in none.
func TestLateOrdersAreOneParcel(t *testing.T) {
	need := func(day int, packs int, cost float64) *Need {
		return &Need{OrderBy: day * calendar.Day, Packs: packs, Cost: cost}
	}
	assert.Equal(t, 1, Orders([]*Need{need(-2, 1, 5), need(-5, 1, 5)}))
	assert.Equal(t, 3, Orders([]*Need{need(-2, 1, 5), need(-5, 1, 5), need(3, 2, 1), need(4, 1, 1), need(4, 1, 9)}))
	assert.Zero(t, Orders([]*Need{need(3, 0, 5), need(4, 1, 0)}))
}

// A second pair beside a run is bought as well as the first, and every row of a set of cells.
func TestSecondPairsAndRowsAreBought(t *testing.T) {
	p := plan.New("x", "X", "mm", "2026-10-09").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	p.Doc().Devices = []plan.Device{
		{ID: "S", Prop: "a", Kind: "supply", Name: "S", Cell: "aa", Cells: 8, Sets: 2},
		{ID: "W", Prop: "a", Kind: "run", Name: "W", From: "S", Gauge: measure.Must[measure.GaugeKind]("18 AWG"),
			Length: measure.Len("10 m"), Back: measure.Len("4 m")},
		{ID: "L", Prop: "a", Kind: "lamp", Name: "L", From: "W", Product: "puck12"},
	}
	uses := map[string]float64{}
	for _, n := range Of(work.Do(p, shop.Kept, time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC))) {
		uses[n.What] = n.Use
	}
	assert.Equal(t, 16.0, uses["cell:aa"], "%v", uses)
	wire := 0.0
	for what, use := range uses {
		if strings.HasPrefix(what, "wire:") {
			wire += use
		}
	}
	assert.InDelta(t, 14, wire, 1e-9, "%v", uses)
}
