// Package order holds a rule on the sources themselves.
package order

import (
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
	"unicode/utf8"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var overAMap = regexp.MustCompile(`range map\[string\](string|float64|bool|\*int|measure)`)

// A map is walked in another order each time: a refusal that depends on it names
// now one field, now another. Found by running the same phrases twice.
func TestNoRuleWalksAMapInItsOwnOrder(t *testing.T) {
	allowed := map[string]int{"measure.go": 1} // one prefix at most can match; each has a key of its own
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

// A line longer than 120 letters is read by nobody. What is quoted raw, such as a
// page's script in a test, is left alone.
func TestNoLineIsTooLong(t *testing.T) {
	require.NoError(t, filepath.WalkDir("../..", func(path string, d fs.DirEntry, err error) error {
		if d != nil && d.IsDir() &&
			(d.Name() == "node_modules" || strings.HasPrefix(d.Name(), ".") && len(d.Name()) > 2) {
			return filepath.SkipDir
		}
		if err != nil || !strings.HasSuffix(path, ".go") {
			return err
		}
		src, err := os.ReadFile(path)
		raw := false
		for i, line := range strings.Split(string(src), "\n") {
			quoted := raw || strings.Contains(line, "`")
			if strings.Count(line, "`")%2 == 1 {
				raw = !raw
			}
			if n := utf8.RuneCountInString(line); n > 120 && !quoted {
				assert.Fail(t, "too long", "%s:%d has %d letters", path, i+1, n)
			}
		}
		return err
	}))
}

// Nor is one of a template, a style or a script: one element, one rule, one statement a line.
func TestNoLineOfAPageIsTooLong(t *testing.T) {
	require.NoError(t, filepath.WalkDir("../../web", func(path string, d fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		if d.IsDir() {
			if d.Name() == "vendor" || d.Name() == "dist" || d.Name() == "testdata" {
				return filepath.SkipDir
			}
			return nil
		}
		switch filepath.Ext(path) {
		case ".html", ".css", ".js":
		default:
			return nil
		}
		src, err := os.ReadFile(path)
		for i, line := range strings.Split(string(src), "\n") {
			if n := utf8.RuneCountInString(line); n > 120 {
				assert.Fail(t, "too long", "%s:%d has %d letters", path, i+1, n)
			}
		}
		return err
	}))
}
