package work_test

import (
	"testing"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
)

// The least that a supply gives is that of the least stretch that lasts, not the mean of the
// night: with nobody there, or after somebody put out what was lit from power up on.
func TestLeast(t *testing.T) {
	sec, amp := measure.Must[measure.DurationKind], measure.Must[measure.AmpKind]
	p := plan.Of(plan.Document{Format: plan.Format, Display: plan.Display{ID: "x", Name: "X"}, Props: []plan.Prop{{ID: "a",
		Name: "A"}}})
	p.Doc().Devices = []plan.Device{
		{ID: "S", Prop: "a", Kind: "supply", Name: "S", Product: "ps12-5"},
		{ID: "K", Prop: "a", Kind: "switch", Name: "K", From: "S", Driven: true, Rating: amp("10 A")},
		{ID: "L", Prop: "a", Kind: "lamp", Name: "L", From: "K", Product: "puck12", Amps: amp("500 mA")},
		{ID: "N", Prop: "a", Kind: "lamp", Name: "N", From: "S", Product: "puck12", Amps: amp("100 mA")},
	}
	p.Doc().Inputs = []plan.Input{{ID: "i", Prop: "a", Name: "Mat", Kind: "mat"}, {ID: "p", Prop: "a", Name: "P",
		Kind: "power"}}
	p.Doc().Scenes = []plan.Scene{{ID: "s", Prop: "a", Name: "S", Length: sec("30 s"), Cues: []plan.Cue{
		{Channel: "K", Length: sec("30 s")}}}}
	p.Doc().Triggers = []plan.Trigger{{ID: "t", Input: "i", Scene: "s", Latch: "one-shot"}}
	w := work.Do(p, shop.Kept, today)
	amps, when := w.Least("S")
	assert.InDelta(t, .1, amps, .005)
	assert.Equal(t, "while nothing happens", when)
	assert.Greater(t, w.Night("S"), 1.9*amps, "the mean of a night hides it")

	p.Triggers()[0].Input, p.Triggers()[0].Latch = "p", "set"
	w = work.Do(p, shop.Kept, today)
	amps, _ = w.Least("S")
	assert.InDelta(t, .6, amps, .02, "lit from power up on: it never rests")

	p.Doc().Triggers = append(p.Triggers(), plan.Trigger{ID: "u", Input: "i", Scene: "s", Latch: "reset"})
	w = work.Do(p, shop.Kept, today)
	amps, when = w.Least("S")
	assert.InDelta(t, .1, amps, .005)
	assert.Equal(t, "after mat was worked", when)
}
