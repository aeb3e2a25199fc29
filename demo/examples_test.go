package demo

import (
	"os"
	"testing"
	"time"

	"zapbarn/core/circuit"
	"zapbarn/core/form"
	"zapbarn/core/plan"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var day = time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC)

// The example files are the demo as of 20 September 2026; set UPDATE=1 to write
// them again.
func TestExamplesAreTheDemo(t *testing.T) {
	for file, p := range map[string]*plan.Plan{"../docs/examples/midnight-apiary.json": Apiary(day),
		"../docs/examples/thistledown-porch.json": Metric(day), "../docs/examples/pattern-book.json": Patterns()} {
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
	w := work.Do(p, shop.Kept, day)
	have := map[string]bool{}
	for i := range p.Solids() {
		s := &p.Solids()[i]
		have[s.Kind] = true
		require.NotNil(t, w.Shapes()[s.ID], s.Name)
		require.NotEmpty(t, form.Steps(s.Form, w.Shapes()[s.ID]), s.Name)
	}
	for _, k := range form.Names() {
		assert.True(t, have[k], k)
	}
	for _, s := range w.Sheets() {
		for _, i := range s.Layout.TooLarge {
			t.Errorf("%s does not fit %s", s.Pieces[i].Ref, s.Stock.Name)
		}
		assert.Empty(t, s.Layout.Missing)
	}
}

// The two planted faults stand first from the readings that ship with them,
// each with nine chances in ten or more.
func TestPlantedFaultsAreFound(t *testing.T) {
	p := Apiary(day)
	for supply, want := range map[string]string{"S2": "bad:W3:2", "S3": "bad:X1"} {
		b := wiring.Suspects(p.Wiring(shop.Kept), supply)
		var seen []circuit.Seen
		for _, r := range p.Readings() {
			s, ok := b.Volts(r.Device, r.Volts.Value())
			if r.Light != "" {
				s, ok = b.Light(r.Device, r.Light == "lit")
			}
			if ok {
				seen = append(seen, s)
			}
		}
		require.GreaterOrEqual(t, len(seen), 3, supply)
		causes := b.Rank(seen, circuit.HandMeter)
		assert.Equal(t, want, causes[0].Group)
		assert.Greater(t, causes[0].Share, .9, causes[0].Say)
		assert.True(t, circuit.Explained(causes, seen))
	}
}
