package work_test

import (
	"testing"
	"time"

	"zapbarn/core/plan"
	"zapbarn/core/show"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"
	"zapbarn/testkit/wirings"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var today = time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC)

func apiary(t testing.TB) *plan.Plan {
	p := demo.Apiary(today).In(shop.Kept)
	require.NoError(t, p.Validate())
	return p
}

func TestFramesFollowTheScene(t *testing.T) {
	p := apiary(t)
	p, err := p.Apply(p.Without("scene", "rise"))
	require.NoError(t, err)
	w := work.Do(p, shop.Kept, today)
	require.NoError(t, w.ShowErr())
	tr := w.Machine().Run(show.Press("mat", 1000, 200), 9000)
	frames := w.Frames(tr)
	require.Len(t, frames, 5, "dark, glow, glow and fill, glow, dark")
	assert.Equal(t, 1030, frames[1].At)
	assert.True(t, frames[1].On["K2"] && !frames[1].On["K1"])
	assert.Greater(t, frames[1].State.Readings["S2"].Amps, .9)
	assert.Less(t, frames[0].State.Readings["S2"].Amps, .001)
	assert.Greater(t, frames[2].State.Readings["S1"].Amps, frames[1].State.Readings["S1"].Amps+.7)
	assert.Same(t, frames[0].State, frames[4].State, "equal switches are solved once")
}

func TestEveryNumberHasItsWorking(t *testing.T) {
	w := work.Do(apiary(t), shop.Kept, today)
	require.Greater(t, w.Results().Len(), 150)
	for r := range w.Results().All() {
		key := r.Key
		assert.NotEmpty(t, r.Steps, key)
		assert.NotEmpty(t, r.Text, key)
		assert.NotEmpty(t, r.Label, key)
		for _, s := range r.Steps {
			assert.NotEmpty(t, s.Formula, key)
		}
	}
}

func TestPartsNestedOnce(t *testing.T) {
	w := work.Do(apiary(t), shop.Kept, today)
	for _, s := range w.Sheets() {
		n := len(s.Layout.TooLarge) + len(s.Layout.Missing)
		for _, sh := range s.Layout.Sheets {
			n += len(sh.Placed)
		}
		assert.Equal(t, len(s.Pieces), n, s.Stock.ID)
	}
}

func BenchmarkWork(b *testing.B) {
	for name, p := range map[string]*plan.Plan{"demo": demo.Apiary(today).In(shop.Kept),
		"20xdemo": wirings.Times(demo.Apiary(today).In(shop.Kept), 20)} {
		require.NoError(b, p.Validate())
		b.Run(name, func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				work.Do(p, shop.Kept, today)
			}
		})
	}
}
