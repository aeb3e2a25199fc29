package demo

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"zapbarn/core/check"
	"zapbarn/core/plan"
	"zapbarn/core/shorthand"
	"zapbarn/core/work"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Ten builds, each typed from an empty display: every line is understood, the
// prop comes out as tall as it is known to be, and nothing is left that would
// stop the saw, the glue or the power.
func TestTenBuildsFromAnEmptyDisplay(t *testing.T) {
	files, err := filepath.Glob("../docs/examples/builds/*.txt")
	require.NoError(t, err)
	require.Len(t, files, 10)
	for _, f := range files {
		text, err := os.ReadFile(f)
		require.NoError(t, err)
		p := plan.New("build", "Build", "in", "")
		r, lines := shorthand.ReadAll(p, shop.Kept, "", string(text))
		for _, l := range lines {
			assert.NoError(t, l.Err, "%s: %s", filepath.Base(f), l.Text)
		}
		if r == nil {
			continue
		}
		q, err := p.Apply(r.Edit)
		require.NoError(t, err, f)
		w := work.Do(q, shop.Kept, day)
		for _, s := range check.Check(w) {
			if s.Level >= check.Fix {
				t.Errorf("%s: %s %s: %s %s", filepath.Base(f), s.Level, s.Code, s.Title, s.Why)
			}
		}
		assert.NotEmpty(t, strings.TrimSpace(q.Props()[0].Known.String()), f)
	}
}
