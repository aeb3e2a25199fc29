package stores

import (
	"testing"
	"time"

	"zapbarn/core/measure"
	"zapbarn/core/order"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Whatever starts something and is a thing is put in and bought; what the controller knows by
// itself is not.
func TestInputsAreBought(t *testing.T) {
	p := plan.New("x", "X", "in", "2026-10-10").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "Crate"}}
	p.Doc().Scenes = []plan.Scene{{ID: "s", Prop: "a", Name: "S"}}
	things := 0
	for _, kind := range plan.InputKinds {
		x := plan.Input{ID: "i-" + plan.Slug(kind), Prop: "a", Name: kind, Kind: kind}
		if kind == "timer" {
			x.Every = measure.Must[measure.DurationKind]("30 s")
		}
		if !x.Wired() && kind != "timer" && kind != "power" {
			x.Scene = "s"
		}
		if x.Wired() {
			things++
		}
		p.Doc().Inputs = append(p.Inputs(), x)
	}
	require.NoError(t, p.Validate())
	w := work.Do(p, shop.Kept, time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC))
	got := map[string]float64{}
	for _, n := range Of(w) {
		if n.Lead == 6 && n.Unit == "pieces" {
			got[n.Name] = n.Cost
		}
	}
	assert.Len(t, got, things, "each kind that is a thing, once")
	for name, cost := range got {
		assert.Positive(t, cost, name)
	}
	assert.Equal(t, 25.0, got["Mat switch"])
	wiring := order.Of(w).Task("wire:a")
	require.NotNil(t, wiring, "a prop with inputs alone is wired too")

	p.Doc().Mechanisms = []plan.Mechanism{{ID: "m", Prop: "a", Name: "Lid", Kind: "lid"}}
	for i := range p.Inputs() {
		if p.Inputs()[i].Kind == "switch" {
			p.Inputs()[i].Mover = "m"
		}
	}
	names := map[string]bool{}
	for _, n := range Of(work.Do(p, shop.Kept, time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC))) {
		names[n.Name] = true
	}
	assert.True(t, names["Limit switch"])
	assert.False(t, names["Switch"])

	p.Props()[0].Stage = plan.Wired.String()
	for _, n := range Of(work.Do(p, shop.Kept, time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC))) {
		assert.NotContains(t, n.What, "input:", "what is wired is not bought again")
	}
}
