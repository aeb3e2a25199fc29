package demo

import (
	"os"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
)

var day = time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC)

// The example files are the demo as of 20 September 2026; set UPDATE=1 to write
// them again.
func TestExamplesAreTheDemo(t *testing.T) {
	for file, p := range map[string]*plan.Plan{"../docs/examples/midnight-apiary.json": Apiary(day), "../docs/examples/thistledown-porch.json": Metric(day), "../docs/examples/pattern-book.json": Patterns()} {
		require.NoError(t, p.Validate())
		if os.Getenv("UPDATE") != "" {
			require.NoError(t, os.WriteFile(file, p.Encode(), 0o644))
		}
		b, err := os.ReadFile(file)
		require.NoError(t, err)
		assert.Equal(t, string(p.Encode()), string(b), "run: UPDATE=1 go test ./demo")
	}
}

// The pattern book holds every kind of solid, and all of it fits its stock.
func TestThePatternBookIsWhole(t *testing.T) {
	p := Patterns()
	w := plan.Do(p, stock.Shop, day)
	have := map[string]bool{}
	for i := range p.Solids {
		s := &p.Solids[i]
		have[s.Kind] = true
		require.NotNil(t, w.Shapes[s.ID], s.Name)
		require.NotEmpty(t, w.Shapes[s.ID].Order(s.Kind), s.Name)
	}
	for _, k := range plan.SolidKinds {
		assert.True(t, have[k], k)
	}
	for _, s := range w.Sheets {
		for _, i := range s.Layout.TooLarge {
			t.Errorf("%s does not fit %s", s.Pieces[i].Ref, s.Stock.Name)
		}
		assert.Empty(t, s.Layout.Missing)
	}
}
