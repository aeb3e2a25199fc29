package work_test

import (
	"strings"
	"testing"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/order"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Six equal copies are six in every list: cut, weighed, painted, packed and carried one by one;
// glued to another they are one with it.
func TestSixAreSixEverywhere(t *testing.T) {
	l := measure.Len
	p := plan.Of(plan.Document{Format: plan.Format, Display: plan.Display{ID: "x", Name: "X"}, Props: []plan.Prop{{ID: "a",
		Name: "A"}}})
	of := func(n int, high string) *work.Work {
		p.Doc().Solids = []plan.Solid{{ID: "s", Prop: "a", Name: "Slat", Kind: "panel", Stock: "ply1/4",
			Form: form.Panel{W: l("4 in"), H: l(high), Copies: n}}}
		p.Doc().Finishes = []plan.Finish{{ID: "f", Solid: "s", Layers: []plan.Layer{{Coat: "latex", Coats: 1}}}}
		return work.Do(p, shop.Kept, today)
	}
	one, six := of(1, "30 in"), of(6, "30 in")
	assert.Equal(t, 6, six.Parts()[0].Panel.Copies)
	assert.InDelta(t, 6*one.MassOf("s"), six.MassOf("s"), 1e-9)
	assert.InDelta(t, 6*one.StackOf(&p.Finishes()[0], false).Area, six.StackOf(&p.Finishes()[0], false).Area, 1e-9)
	pieces := six.Pieces()
	require.Len(t, pieces, 1)
	assert.Equal(t, 6, pieces[0].Copies)
	assert.Equal(t, "Slat, 6 of them", pieces[0].Name())
	assert.Equal(t, "Slat", one.Pieces()[0].Name())
	assert.InDelta(t, 6*one.Pieces()[0].Mass, pieces[0].Mass, 1e-9)
	assert.Equal(t, one.Pieces()[0].Size, pieces[0].Size, "as large as one, however far apart they are drawn")
	assert.Equal(t, one.Largest(&p.Solids()[0]), six.Largest(&p.Solids()[0]))
	assert.Contains(t, strings.Join(order.Of(six).Task("cut:a").Steps, " "), "6 ")
	small := of(6, "12 in")
	few := small.Pieces()
	boxes, in := small.Boxed(few)
	require.Len(t, boxes, 1)
	assert.Equal(t, []string{"Slat, 6 of them"}, boxes[0].Holds)
	assert.Equal(t, boxes[0], in[few[0]])
	of(6, "30 in")
	p.Doc().Solids = append(p.Solids(), plan.Solid{ID: "b", Prop: "a", Name: "Back", Kind: "panel", Stock: "ply1/4",
		Form: form.Panel{W: l("40 in"), H: l("30 in")}})
	p.Doc().Joints = []plan.Joint{{ID: "j", Prop: "a", A: "s/panel", B: "b/panel", Glue: "pva", Length: l("30 in")}}
	joined := work.Do(p, shop.Kept, today).Pieces()
	require.Len(t, joined, 1)
	assert.Equal(t, 1, joined[0].Copies)
}

// Jars in a row are carried jar by jar, and all pieces together weigh what the display weighs.
func TestJarsAreCarriedJarByJar(t *testing.T) {
	l := measure.Len
	p := plan.Of(plan.Document{Format: plan.Format, Display: plan.Display{ID: "x", Name: "X"}, Props: []plan.Prop{{ID: "a",
		Name: "A"}}})
	p.Doc().Solids = []plan.Solid{{ID: "s", Prop: "a", Name: "Jars", Kind: "bought", Stock: "pet",
		Form: form.Bought{W: l("4 in"), H: l("6 in"), Copies: 24, Of: "jar"}},
		{ID: "c", Prop: "a", Name: "Crate", Kind: "box", Stock: "xps1",
			Form: form.Box{W: l("20 in"), D: l("20 in"), H: l("20 in")}}}
	w := work.Do(p, shop.Kept, today)
	sum, all := 0.0, 0.0
	for _, x := range w.Pieces() {
		sum += x.Mass
		if x.Solids[0].ID != "s" {
			continue
		}
		assert.Equal(t, 24, x.Copies)
		assert.InDelta(t, 6*measure.Inch, x.Size[0], 1e-9)
		assert.InDelta(t, 4*measure.Inch, x.Size[1], 1e-9)
	}
	for _, s := range p.Solids() {
		all += w.MassOf(s.ID)
	}
	assert.InDelta(t, all, sum, 1e-9)
}
