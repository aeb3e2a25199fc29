package demo

import (
	"os"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"zapbarn/core/plan"
)

var day = time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC)

// The example files are the demo as of 20 September 2026; set UPDATE=1 to write
// them again.
func TestExamplesAreTheDemo(t *testing.T) {
	for file, p := range map[string]*plan.Plan{"../docs/examples/midnight-apiary.json": Apiary(day), "../docs/examples/thistledown-porch.json": Metric(day)} {
		require.NoError(t, p.Validate())
		if os.Getenv("UPDATE") != "" {
			require.NoError(t, os.WriteFile(file, p.Encode(), 0o644))
		}
		b, err := os.ReadFile(file)
		require.NoError(t, err)
		assert.Equal(t, string(p.Encode()), string(b), "run: UPDATE=1 go test ./demo")
	}
}
