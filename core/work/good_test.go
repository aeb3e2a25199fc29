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

func good(table, name, like string, set ...string) plan.Good {
	g := plan.Good{ID: plan.GoodID(table, name), Table: table, Good: name, Like: like, On: "2026-09-01"}
	for i := 0; i < len(set); i += 2 {
		g.Set = append(g.Set, plan.Setting{Field: set[i], Value: set[i+1]})
	}
	return g
}

// A material of one's own is cut, weighed and paid by what was said of it: by
// hand, a panel of 20 x 30 in, 3 mm of 200 kg/m3, a sheet of 24 x 36 in at $18.
func TestAStockOfOnesOwn(t *testing.T) {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	p.Doc().Goods = []plan.Good{
		good(
			"material",
			"cork3",
			"eva5",
			"name",
			"Cork 3 mm",
			"thick",
			"3 mm",
			"sheet",
			"24 x 36 in",
			"density",
			"200",
			"price",
			"$18",
		),
	}
	p.Doc().Solids = []plan.Solid{
		{
			ID:    "s",
			Prop:  "a",
			Name:  "S",
			Kind:  "panel",
			Stock: "cork3",
			Form:  form.Panel{W: measure.Len("20 in"), H: measure.Len("30 in")},
		},
	}
	require.NoError(t, p.Validate())
	w := work.Do(p, shop.Kept, today)
	assert.InEpsilon(t, 20*30*.0254*.0254*.003*200, w.Results().At("solid", "s", "mass").Value, 1e-9)
	assert.Equal(t, 18., w.Results().At("display", "", "cost").Value)
	assert.Contains(
		t,
		w.Results().At("solid", "s", "mass").Steps[0].Sources[0].String(),
		"entered by you; Cork 3 mm density, 2026-09-01",
	)
	assert.Empty(t, stock.Shop.Materials["cork3"].ID, "the shop itself stays")
	assert.Same(t, p.Shop(shop.Kept), p.Shop(p.Shop(shop.Kept)), "the same entries are one library")
	again, err := plan.Decode(p.Encode())
	require.NoError(t, err)
	assert.Equal(t, p.Goods(), again.Goods())
	twice := p.Clone()
	twice.Goods()[0] = twice.Goods()[0].With("thick", "6 mm")
	assert.InEpsilon(
		t,
		2*w.Results().At("solid", "s", "mass").Value,
		work.Do(twice, shop.Kept, today).Results().At("solid", "s", "mass").Value,
		1e-9,
		"a shape that was kept is not taken for another thickness",
	)
	assert.Equal(
		t,
		p.Goods()[0].Set[:1],
		p.Goods()[0].With("thick", "").With("sheet", "").With("density", "").With("price", "").Set,
	)
}

// A lamp, a glue and a supply as they were measured.
func TestLampsAndGluesOfOnesOwn(t *testing.T) {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	p.Doc().Goods = []plan.Good{
		good("lamp", "moon12", "puck12", "amps", "90 mA"),
		good("glue", "pva", "", "shelf", "1 days"),
		good("supply", "ps12-2", "", "price", "9.5"),
	}
	p.Doc().Devices = []plan.Device{
		{ID: "S", Prop: "a", Kind: "supply", Name: "S", Volts: vv("12 V"), Amps: aa("2 A")},
		{ID: "L", Prop: "a", Kind: "lamp", Name: "L", From: "S", Product: "moon12"},
	}
	require.NoError(t, p.Validate())
	w := work.Do(p, shop.Kept, today)
	assert.InEpsilon(t, .09, w.All().Readings["L"].Amps, .01)
	assert.Equal(t, 86400., w.Lib.Glues["pva"].Shelf.Value())
	assert.Equal(t, 9.5, w.Lib.Supplies["ps12-2"].Price)
}

func TestGoodsThatCannotBe(t *testing.T) {
	for want, g := range map[string]plan.Good{
		"is no list of the shop": {ID: "x-y", Table: "x", Good: "y"}, "choose material, glue": {ID: "tool-y", Table: "tool",
			Good: "y"},
		"small letters":            good("material", "Cork 3", "eva5"),
		"to start from":            good("material", "cork3", "granite"),
		"is no field of this list": good("material", "cork3", "eva5", "colour", "red"),
		"write a number":           good("material", "cork3", "eva5", "density", "light"),
		"is no stock":              good("material", "cork3", "eva5", "density", "-5"),
		"number, with its unit":    good("material", "cork3", "eva5", "softens", "-301 C"),
		"yes or no":                good("material", "cork3", "eva5", "flexible", "maybe"),
		"short side x":             good("material", "cork3", "eva5", "sheet", "24 in"),
		"wants its short side":     good("material", "cork3", "eva5", "sheet", "36 in x 24 in"),
		"leaves a bore":            good("material", "pvc9", "pvc1", "wall", "2 in"),
		"no form of stock":         good("material", "cork3", "eva5", "form", "cloud"),
		"less than nothing":        good("material", "cork3", "eva5", "price", "-3"),
		"write a length":           good("material", "cork3", "eva5", "thick", "thin"),
	} {
		p := plan.New("x", "X", "in", "").In(shop.Kept)
		p.Doc().Goods = []plan.Good{g}
		if want == "is no list of the shop" {
			_, err := stock.Shop.With([]stock.Over{{Table: "x", ID: "y"}})
			assert.ErrorContains(t, err, want)
			continue
		}
		assert.ErrorContains(t, p.Validate(), want)
	}
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	p.Doc().Goods = []plan.Good{good("material", "cork3", "eva5")}
	p.Doc().Solids = []plan.Solid{
		{
			ID:    "s",
			Prop:  "a",
			Name:  "S",
			Kind:  "panel",
			Stock: "cork3",
			Form:  form.Panel{W: measure.Len("20 in"), H: measure.Len("20 in")},
		},
	}
	_, err := p.Apply(p.Without("good", "material-cork3"))
	assert.ErrorContains(t, err, `the shop has no "cork3"`, "what is used is not taken away")
}
