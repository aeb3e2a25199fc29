package work_test

import (
	"os"
	"path/filepath"
	"testing"
	"time"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A pocket lets no wire in; a window does.
func TestAPocketIsNoWayIn(t *testing.T) {
	p := plan.New("n", "N", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	box := plan.NewSolid(
		"a",
		"Box",
		"xps1",
		form.Box{W: measure.Len("20 in"), D: measure.Len("12 in"), H: measure.Len("14 in")},
	)
	box.ID = "box"
	box.Openings = []plan.Opening{
		{Name: "Pack", Face: "back", Kind: "rect", W: measure.Len("6 in"), H: measure.Len("4 in"),
			Y: measure.Len("7 in"), Deep: measure.Len("1/2 in")},
	}
	p.Doc().Solids = []plan.Solid{box}
	p.Doc().Devices = []plan.Device{{ID: "S1", Prop: "a", Kind: "supply", Name: "S1", Product: "ps12-2"},
		{ID: "L1", Prop: "a", Kind: "lamp", Name: "L1", Product: "puck12", From: "S1", In: "box"}}
	require.NoError(t, p.Validate())
	fits := func() bool {
		e := work.Do(p, shop.Kept, time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC)).Harness("a").Entries
		require.Len(t, e, 1)
		return e[0].Fits
	}
	assert.False(t, fits())
	p.Solids()[0].Openings[0].Deep = measure.Length{}
	assert.True(t, fits())
}

// Plans that earlier versions wrote work out, too.
func TestEveryEarlierPlanWorksOut(t *testing.T) {
	files, err := filepath.Glob("../plan/testdata/plans/*.json")
	require.NoError(t, err)
	require.GreaterOrEqual(t, len(files), 5)
	for _, f := range files {
		data, err := os.ReadFile(f)
		require.NoError(t, err)
		p, err := plan.Decode(data)
		require.NoError(t, err)
		w := work.Do(p, shop.Kept, time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC))
		assert.NotEmpty(t, w.Parts(), f)
		assert.NotEmpty(t, w.All().Readings, f)
	}
}
