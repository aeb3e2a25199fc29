package work_test

import (
	"testing"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/core/work"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A board's coats go on both its faces and its edges, but where it is glued to another, and but
// for a prop of which only what faces out is painted, which says why.
func TestCoatsGoWhereABrushDoes(t *testing.T) {
	l := measure.Len
	p := plan.Of(plan.Document{Format: plan.Format, Display: plan.Display{ID: "x", Name: "X", Units: "mm"},
		Props: []plan.Prop{{ID: "a", Name: "A"}}})
	p.Doc().Solids = []plan.Solid{
		{ID: "s", Prop: "a", Name: "S", Kind: "panel", Stock: "xps2", Form: form.Panel{W: l("600 mm"), H: l("900 mm")}},
		{ID: "o", Prop: "a", Name: "O", Kind: "panel", Stock: "xps2", Form: form.Panel{W: l("600 mm"), H: l("900 mm")}}}
	p.Doc().Finishes = []plan.Finish{{ID: "f", Solid: "s", Layers: []plan.Layer{{Coat: "latex", Coats: 2}}}}
	thick := stock.Shop.Materials["xps2"].Thick.Value()
	require.Positive(t, thick)
	area := func() float64 {
		w := work.Do(p, shop.Kept, today)
		got := w.StackOf(&w.Plan.Finishes()[0], false).Area
		c := stock.Shop.Coats["latex"]
		assert.InEpsilon(t, got*2/c.Coverage, w.Results().At("finish", "f", "paint").Value, 1e-9, "litres by the area")
		return got * 1e6
	}
	all := 2*600.0*900 + 2*(600+900)*thick
	assert.InDelta(t, all, area(), 1)
	p.Doc().Joints = []plan.Joint{{ID: "j", Prop: "a", A: "s/panel", B: "o/panel", Glue: "pu", Length: l("600 mm")}}
	assert.InDelta(t, all-600*thick, area(), 1)
	p.Props()[0].Paint = "outside only"
	assert.ErrorContains(t, p.Validate(), "paintWhy")
	p.Props()[0].PaintWhy = "its back is against the fence"
	assert.NoError(t, p.Validate())
	assert.InDelta(t, 600*900, area(), 1)
	w := work.Do(p, shop.Kept, today)
	assert.Contains(t, w.Results().At("finish", "f", "paint").Steps[0].Numbers, "its back is against the fence")
}
