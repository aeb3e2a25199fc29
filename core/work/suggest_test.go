package work

import (
	"math/rand/v2"
	"sync"
	"testing"
	"time"

	"zapbarn/core/bond"
	"zapbarn/core/plan"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Glues suggested once are those suggested afresh, whatever the materials, the air and what
// the seam has to bear; and another shop's glues are another work's.
func TestSuggestedOnceIsSuggestedAfresh(t *testing.T) {
	day := time.Date(2026, 9, 12, 10, 0, 0, 0, time.UTC)
	p := demo.Apiary(day).In(shop.Kept)
	w := Do(p, shop.Kept, day)
	r := rand.New(rand.NewPCG(2, 7))
	ids := []string{"xps1", "eva10", "ply1/4", "pvc1", "pet"}
	heads := map[string]bool{}
	for range 600 {
		c := bond.Joint{A: w.Lib.Materials[ids[r.IntN(len(ids))]], B: w.Lib.Materials[ids[r.IntN(len(ids))]],
			Glue: w.Lib.Glues["pva"], Age: float64(r.IntN(2)) * 1e8,
			Temp: []float64{4, 15, 35}[r.IntN(3)], RH: []float64{20, 85}[r.IntN(2)],
			Sun: r.IntN(2) > 0, Strain: r.IntN(2) > 0, Apart: r.IntN(2) > 0}
		require.NotEmpty(t, c.A.ID)
		got := w.Suggest(c)
		require.Equal(t, bond.Suggest(c, w.Lib.Glues), got)
		for _, g := range got {
			heads[g.ID] = true
			break
		}
	}
	assert.Greater(t, len(heads), 2, "not always the same")

	x := plan.Good{
		ID:    "glue-pva",
		Table: "glue",
		Good:  "pva",
		Set:   []plan.Setting{{Field: "name", Value: "Another glue"}},
	}
	q, err := p.Apply(plan.Edit{Changes: []plan.Change{p.Put("good", x.ID, x)}})
	require.NoError(t, err)
	other, err := DoFrom(w, nil, q, shop.Kept, day)
	require.NoError(t, err)
	_, ok := Known[*sync.Map](other, "glues suggested")
	assert.False(t, ok, "of another shop")
	same, err := DoFrom(w, nil, p, shop.Kept, day)
	require.NoError(t, err)
	_, ok = Known[*sync.Map](same, "glues suggested")
	assert.True(t, ok, "taken over")
}
