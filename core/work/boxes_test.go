package work_test

import (
	"testing"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What is small goes into a box of its prop, none heavier than one carries but for a single
// thing; what is long does not; all that is wired is in one.
func TestBoxes(t *testing.T) {
	p := demo.Apiary(today).In(shop.Kept)
	w := work.Do(p, shop.Kept, today)
	pieces := w.Pieces()
	boxes, of := w.Boxed(pieces)
	names := map[string]bool{}
	for _, b := range boxes {
		assert.False(t, names[b.Name()], "two of one name: %s", b.Name())
		names[b.Name()] = true
		assert.NotEmpty(t, b.Holds, b.Name())
		assert.True(t, b.Mass <= 15 || len(b.Holds) == 1, "%s: %.1f kg", b.Name(), b.Mass)
	}
	in := 0
	for _, x := range pieces {
		if b := of[x]; b != nil {
			in++
			assert.Equal(t, x.Prop, b.Prop)
			assert.LessOrEqual(t, x.Size[0], 500.0)
			assert.Contains(t, b.Holds, x.Name())
		} else {
			assert.True(t, x.Size[0] > 500 || x.Mass > 15, x.Name())
		}
	}
	assert.Positive(t, in)
	assert.True(t, names["Frame riser A"], "its lamps and wires")
	// by hand: two lamps and a supply of 0.2 kg, a run of 10 m of 40 g; a full box is followed by another
	bare := plan.New("x", "X", "mm", "").In(shop.Kept)
	bare.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	bare.Doc().Devices = []plan.Device{
		{
			ID:      "S1",
			Prop:    "a",
			Kind:    "supply",
			Product: "ps12-2",
		}, {ID: "L1", Prop: "a", Kind: "lamp", Product: "puck12", From: "S1"},
		{ID: "L2", Prop: "a", Kind: "lamp", Product: "puck12", From: "S1"},
		{ID: "W1", Prop: "a", Kind: "run", From: "S1", Length: measure.Len("10 m")},
	}
	boxes, _ = work.Do(bare, shop.Kept, today).Boxed(nil)
	require.Len(t, boxes, 1)
	assert.InDelta(t, 3*.2+10*.04, boxes[0].Mass, 1e-9)
	assert.Equal(t, []string{"3 small things that are wired", "1 run of wire, 10 m"}, boxes[0].Holds)
	bare.Devices()[3].Length = measure.Len("400 m")
	boxes, _ = work.Do(bare, shop.Kept, today).Boxed(nil)
	require.Len(t, boxes, 2)
	assert.Equal(t, []string{"A A", "A B"}, []string{boxes[0].Name(), boxes[1].Name()})
}

// Runs so far by hand: what the played night's guests set off, for each guest, times the
// guests noted; none where none was noted.
func TestCounters(t *testing.T) {
	p := demo.Apiary(today).In(shop.Kept)
	w := work.Do(p, shop.Kept, today)
	got := w.Counters()
	require.NotEmpty(t, got)
	guests := 0
	for _, n := range p.NightBook() {
		guests += n.Guests
	}
	r, ok, err := w.Evening(work.EveningOf{Groups: 60, Size: 2, Dwell: 4, Seed: 1})
	require.NoError(t, err)
	require.True(t, ok)
	frames := false
	for _, c := range got {
		frames = frames || c.ID == "frames"
		assert.Positive(t, c.Runs, c.Name)
		assert.InDelta(t, float64(r.Cycles[c.ID])/120*float64(guests), c.Runs, .51, c.Name)
		assert.NotEmpty(t, c.Result.Steps)
	}
	assert.True(t, frames, "each guest of the path sets them off")
	q := p.Clone()
	q.Doc().NightBook = append([]plan.Night(nil), p.NightBook()...)
	for i := range q.NightBook() {
		q.NightBook()[i].Guests *= 2
	}
	assert.InDelta(t, 2*got[0].Runs, work.Do(q, shop.Kept, today).Counters()[0].Runs, 1.01)
	q.Doc().NightBook = nil
	assert.Empty(t, work.Do(q, shop.Kept, today).Counters())
}
