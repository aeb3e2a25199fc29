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
	got, behind, of := map[string]string{}, map[string]string{}, map[int]Mutant{}
	for k, m := range ms {
		end, err := tried(context.Background(), m, nil)
		require.NoError(t, err)
		got[m.What] = end
		require.NotEmpty(t, m.Plant, m.What)
		of[k+1] = m
	}
	want := map[string]string{"> -> >=": "survived", "2.5 -> (10*2.5)": "killed by ./.", "&& -> ||": "killed by ./."}
	assert.Equal(t, want, got)
	g, err := grown(context.Background(), t.TempDir(), []string{"./."}, of)
	require.NoError(t, err)
	require.Len(t, g.In, 3)
	for k, m := range g.In { // the same when all are built in once, each behind its switch
		behind[m.What], err = g.tried(context.Background(), k, [][]string{{"./."}})
		require.NoError(t, err)
	}
	assert.Equal(t, want, behind)
	asItIs, err := g.tried(context.Background(), 0, [][]string{{"./."}})
	require.NoError(t, err)
	assert.Equal(t, "survived", asItIs)
}

// What does not build behind its switch is left to be tried by itself.
func TestWhatDoesNotBuildIsLeftOut(t *testing.T) {
	dir := t.TempDir()
	t.Chdir(dir)
	write := func(name, text string) {
		require.NoError(t, os.WriteFile(filepath.Join(dir, name), []byte(text), 0o600))
	}
	write("go.mod", "module rule\n\ngo 1.26\n")
	write("rule.go", `package rule

func Small() int8 {
	var a int8 = 100
	if a > 3 {
		a--
	}
	return a
}

func near(a, b float64) bool { return a == b+1e-9 } // its hair is no rule
`)
	write("rule_test.go", "package rule\n\nimport \"testing\"\n\nfunc TestSmall(t *testing.T) {}\n")
	ms, err := every(".", true)
	require.NoError(t, err)
	of := map[int]Mutant{}
	for k, m := range ms {
		if m.Plant != "" {
			of[k+1] = m
		}
	}
	require.Len(t, of, 4)
	g, err := grown(context.Background(), t.TempDir(), []string{"./."}, of)
	require.NoError(t, err)
	assert.Len(t, g.In, 3, "1000 is no int8")
}
