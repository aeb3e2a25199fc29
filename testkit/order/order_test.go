// Package order holds a rule on the sources themselves.
package order

import (
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var overAMap = regexp.MustCompile(`range map\[string\](string|float64|bool|\*int|measure)`)

// A map is walked in another order each time: a refusal that depends on it names
// now one field, now another. Found by running the same phrases twice.
func TestNoRuleWalksAMapInItsOwnOrder(t *testing.T) {
	allowed := map[string]int{"measure.go": 1, "work.go": 1} // one prefix at most can match; each has a key of its own
	found := map[string]int{}
	require.NoError(t, filepath.WalkDir("../../core", func(path string, d fs.DirEntry, err error) error {
		if err != nil || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return err
		}
		src, err := os.ReadFile(path)
		if n := len(overAMap.FindAll(src, -1)); n > 0 {
			found[filepath.Base(path)] = n
		}
		return err
	}))
	assert.Equal(t, allowed, found)
}
