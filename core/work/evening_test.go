package work_test

import (
	"strconv"
	"strings"
	"testing"

	"zapbarn/core/work"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A supply's energy is what its working says, by hand: what is always on for the whole
// evening, and each channel for as long as it was; fluid goes with the time it fogs.
func TestAnEveningShowsItsWorking(t *testing.T) {
	w := work.Do(apiary(t), shop.Kept, today)
	r, ok, err := w.Evening(work.EveningOf{Groups: 30, Size: 4, Dwell: 8, Seed: 1})
	require.NoError(t, err)
	require.True(t, ok)
	require.NotEmpty(t, r.Energy)
	require.NotEmpty(t, r.Fluid)
	loads := map[string]float64{}
	for _, l := range w.Loads() {
		ah := l.Rest * r.Hours
		for ch, a := range l.Amps {
			ah += a * float64(r.On[ch]) / 3.6e6
		}
		loads[w.Device(l.Supply).Name] = ah * w.All().Readings[l.Supply].Volts
	}
	for _, e := range r.Energy {
		assert.InDelta(t, loads[e.Label], e.Value, 1e-6, e.Label)
		assert.Equal(t, "E = U Q", e.Steps[len(e.Steps)-1].Formula)
	}
	for _, f := range r.Fluid {
		fogs := 0
		for id, ms := range r.On {
			for i := range w.Plan.Devices() {
				if d := &w.Plan.Devices()[i]; d.Name == f.Label && w.Feeds(id, d.ID) {
					fogs = ms
				}
			}
		}
		require.Positive(t, fogs)
		assert.InDelta(t, float64(fogs)/60_000*2.5, f.Value, 1e-9, "2.5 mL a minute (from memory)")
	}
}

// A night that would take minutes is refused in words that say what would do.
func TestATooLongEveningIsRefused(t *testing.T) {
	w := work.Do(apiary(t), shop.Kept, today)
	_, ok, err := w.Evening(work.EveningOf{Groups: 2000, Size: 40, Dwell: 8, Seed: 1})
	require.True(t, ok)
	require.ErrorContains(t, err, "ask for ")
	var most int
	for _, f := range strings.Fields(err.Error()[strings.Index(err.Error(), "ask for "):]) {
		if n, err := strconv.Atoi(f); err == nil {
			most = n
		}
	}
	require.Positive(t, most)
	_, _, err = w.Evening(work.EveningOf{Groups: most, Size: 40, Dwell: 8, Seed: 1})
	require.NoError(t, err, "what is offered does")
	_, _, err = w.Evening(work.EveningOf{Groups: most + 1, Size: 40, Dwell: 8, Seed: 1})
	require.Error(t, err)
}
