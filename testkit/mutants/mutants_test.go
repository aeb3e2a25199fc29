package main

import (
	"context"
	"os"
	"path/filepath"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A rule whose test holds its edge kills every mutant of it; one without a test
// lets them live. Run over a module of its own.
func TestMutantsAreFoundAndTried(t *testing.T) {
	src := "package rule\n\nfunc Over(a float64) bool { return a > 2.5 && \"x\" == \"x\" }\n"
	dir := t.TempDir()
	t.Chdir(dir)
	write := func(name, text string) {
		require.NoError(t, os.WriteFile(filepath.Join(dir, name), []byte(text), 0o600))
	}
	write("go.mod", "module rule\n\ngo 1.26\n")
	write("rule.go", src)
	write(
		"rule_test.go",
		"package rule\n\nimport \"testing\"\n\nfunc TestOver(t *testing.T) {\n\tif !Over(3) || Over(2) "+
			"{\n\t\tt.Fatal()\n\t}\n}\n",
	)
	ms, err := every(".", true)
	require.NoError(t, err)
	var what []string
	for _, m := range ms {
		what = append(what, m.What)
		assert.Equal(t, m.What[:len(src[m.From:m.To])], src[m.From:m.To])
	}
	assert.ElementsMatch(t, []string{"> -> >=", "2.5 -> (10*2.5)", "&& -> ||"}, what)
	round, err := every(".", false)
	require.NoError(t, err)
	assert.True(
		t,
		slices.ContainsFunc(round, func(m Mutant) bool { return m.What == "> -> <=" }),
		"a measure's comparison is turned round",
	)
	got := map[string]string{}
	for _, m := range ms {
		end, err := tried(context.Background(), m, nil)
		require.NoError(t, err)
		got[m.What] = end
	}
	assert.Equal(
		t,
		map[string]string{"> -> >=": "survived", "2.5 -> (10*2.5)": "killed by ./.", "&& -> ||": "killed by ./."},
		got,
	)
}
