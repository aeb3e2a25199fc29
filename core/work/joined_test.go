package work_test

import (
	"testing"
	"time"

	"zapbarn/core/bond"
	"zapbarn/core/plan"
	"zapbarn/core/shorthand"
	"zapbarn/core/work"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A part that is to be heat-sealed and then glued to foam is right as it is planned; once it is
// glued, the heat comes too late.
func TestHeatIsTooLateOnceItIsGlued(t *testing.T) {
	p := plan.New("x", "X", "in", "2026-10-31").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	for _, line := range []string{"box 20 x 20 x 20 xps1", "panel 10 x 10 eva5", "glue panel to box with pu",
		"coat panel heatseal"} {
		r, err := shorthand.Read(p, shop.Kept, "a", line)
		require.NoError(t, err, line)
		p, err = p.Apply(r.Edit)
		require.NoError(t, err, line)
	}
	says := func(p *plan.Plan) (codes []string, v bond.Verdict) {
		w := work.Do(p, shop.Kept, time.Date(2026, 9, 20, 12, 0, 0, 0, time.UTC))
		f := w.Finishes()[p.Finishes()[0].ID]
		for _, r := range f.Reasons {
			codes = append(codes, r.Code)
		}
		return codes, f.Verdict
	}
	codes, v := says(p)
	assert.NotContains(t, codes, "heat-near-foam")
	assert.NotEqual(t, bond.No, v)
	done := p.Clone()
	done.Doc().Jobs = []plan.Job{{ID: "j", Task: "join:" + p.Joints()[0].ID, State: "done", At: "2026-09-19 12:00"}}
	codes, v = says(done)
	assert.Contains(t, codes, "heat-near-foam")
	assert.Equal(t, bond.No, v)
	glued := p.Clone()
	glued.Doc().Props[0].Stage = plan.StageNames[plan.Glued]
	codes, _ = says(glued)
	assert.Contains(t, codes, "heat-near-foam")
}
