package formats

import (
	"bytes"
	"context"
	"testing"

	"zapbarn/core/plan"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func goodsEdit(data []byte, p *plan.Plan) (plan.Edit, error) {
	r, err := ReadGoods(context.Background(), data)
	if err != nil {
		return plan.Edit{}, err
	}
	return r.Edit(p)
}

// What leaves as CSV comes back as the same entries; a cell that a spreadsheet
// would take for a formula keeps its apostrophe outside only.
func TestGoodsGoOutAndComeBack(t *testing.T) {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Goods = []plan.Good{
		{
			ID:    "material-cork3",
			Table: "material",
			Good:  "cork3",
			Like:  "eva5",
			On:    "2026-09-01",
			Set:   []plan.Setting{{Field: "name", Value: "=Cork"}, {Field: "thick", Value: "3 mm"}},
		},
		{ID: "supply-ps12-2", Table: "supply", Good: "ps12-2"},
	}
	require.NoError(t, p.Validate())
	var b bytes.Buffer
	require.NoError(t, GoodsCSV(&b, p))
	assert.Contains(t, b.String(), "material,cork3,eva5,name,'=Cork,2026-09-01")
	q := plan.New("y", "Y", "in", "").In(shop.Kept)
	e, err := goodsEdit(b.Bytes(), q)
	require.NoError(t, err)
	q, err = q.Apply(e)
	require.NoError(t, err)
	assert.Equal(t, p.Goods(), q.Goods())
	assert.Equal(t, "=Cork", q.Shop(shop.Kept).Materials["cork3"].Name)
	e, err = goodsEdit([]byte("material,cork3,eva5,thick,5 mm\n"), q) // in place of what was there
	require.NoError(t, err)
	q, err = q.Apply(e)
	require.NoError(t, err)
	assert.Equal(t, []plan.Setting{{Field: "thick", Value: "5 mm"}}, q.Goods()[0].Set)
}

func TestGoodsNameTheRow(t *testing.T) {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	head := "table,good,like,field,value,on\n"
	for want, text := range map[string]string{
		"row 3":                        head + "material,cork3,eva5,thick,3 mm,\nmaterial,cork3,eva5,density,light,\n",
		"row 2: density":               "material,cork3,eva5,thick,3 mm,\nmaterial,cork3,eva5,density,-4,\n",
		"row 2 has 2 cells":            head + "material,cork3\n",
		"no rows":                      head,
		"row 2: like: the shop has no": head + "material,cork3,granite,,,\n",
		"row 2: table":                 head + "tool,saw,,,,\n",
		"row 1 has 1 cells":            "\"material,cork3\n",
		"row 3 says thick of cork3 again, after row 2": head + "material,cork3,eva5,thick,3 mm,\n" +
			"material,cork3,eva5,thick,5 mm,\n",
		"line 2 holds a letter that is not UTF-8": head + "material,cork3,eva5,name,K\xf6rk,\n",
	} {
		_, err := goodsEdit([]byte(text), p)
		assert.ErrorContains(t, err, want, text)
	}
}
