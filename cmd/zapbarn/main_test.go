package main

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"io"
	"os"
	"path/filepath"
	"testing"

	"zapbarn/core/plan"
	"zapbarn/store"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const apiary = "../../docs/examples/midnight-apiary.json"

func run(t *testing.T, args ...string) (string, error) {
	t.Helper()
	c := root()
	var out bytes.Buffer
	c.SetOut(&out)
	c.SetErr(&out)
	c.SetArgs(args)
	err := c.ExecuteContext(context.Background())
	return out.String(), err
}

// check ends with 1 where something is at stop, 0 where nothing is, 2 where the
// plan or the date cannot be read, and says which.
func TestCheckEndsWithItsCode(t *testing.T) {
	code := func(err error) int {
		var e exit
		switch {
		case err == nil:
			return 0
		case errors.As(err, &e):
			return e.code
		}
		return -1
	}
	out, err := run(t, "check", apiary, "--today", "2026-09-20")
	assert.Equal(t, 1, code(err))
	assert.Contains(t, out, "sealed in")
	out, err = run(t, "check", apiary, "--today", "2026-09-20", "--json")
	assert.Equal(t, 1, code(err))
	var said map[string]any
	require.NoError(t, json.Unmarshal([]byte(out), &said))
	assert.NotEmpty(t, said["snags"])
	assert.NotEmpty(t, said["results"])
	empty := filepath.Join(t.TempDir(), "empty.json")
	require.NoError(
		t,
		os.WriteFile(
			empty,
			[]byte(`{"format":"zapbarn-plan/1","display":{"id":"x","name":"X","units":"in"}}`),
			0o600,
		),
	)
	_, err = run(t, "check", empty)
	assert.Equal(t, 0, code(err))
	calm := filepath.Join(t.TempDir(), "calm.json")
	require.NoError(t, os.WriteFile(calm,
		[]byte(`{"format":"zapbarn-plan/2","display":{"id":"x","name":"X","units":"in"}}`), 0o600))
	_, err = run(t, "check", empty, "--today", "tomorrow")
	assert.Equal(t, 2, code(err))
	assert.ErrorContains(t, err, "tomorrow")
	require.NoError(t, os.WriteFile(empty, []byte(`{"format":"zapbarn-plan/9"}`), 0o600))
	_, err = run(t, "check", empty)
	assert.Equal(t, 2, code(err))
	assert.ErrorContains(t, err, "zapbarn-plan/9")
	_, err = run(t, "check", filepath.Join(t.TempDir(), "none.json"))
	assert.Equal(t, 2, code(err))
	_, err = run(t, "check", apiary, "--limit", "1ns")
	assert.Equal(t, 2, code(err))
	assert.ErrorContains(t, err, "--limit gives it longer")
	out, err = run(t, "check", calm, "--json")
	assert.Equal(t, 0, code(err))
	assert.Contains(t, out, `"snags": []`, "an empty list, not null")
}

// calc lists the calculators, answers one, in the units asked for, and refuses
// a field it does not have.
func TestCalcAnswers(t *testing.T) {
	out, err := run(t, "calc")
	require.NoError(t, err)
	assert.Contains(t, out, "near-stop")
	out, err = run(t, "calc", "disc", "d=24in", "t=1in")
	require.NoError(t, err)
	assert.Contains(t, out, "75") // pi x 24 in = 75.4 in
	out, err = run(t, "calc", "disc", "d=24in", "t=1in", "--units", "mm")
	require.NoError(t, err)
	assert.Contains(t, out, "1915") // pi x 609.6 mm = 1915.1 mm
	_, err = run(t, "calc", "disc", "d=24in", "t=1in", "wide=24in")
	assert.ErrorContains(t, err, "wide")
	_, err = run(t, "calc", "dsic")
	assert.Error(t, err)
}

// schema and docs write what is committed.
func TestSchemaAndDocsAreCurrent(t *testing.T) {
	dir := t.TempDir()
	_, err := run(t, "docs", dir)
	require.NoError(t, err)
	for _, name := range []string{"snags.md", "order.md", "calculators.md", "quickline.md", "plan.schema.json"} {
		want, err := os.ReadFile(filepath.Join("../../docs", name))
		require.NoError(t, err)
		got, err := os.ReadFile(filepath.Join(dir, name))
		require.NoError(t, err)
		assert.Equal(t, string(want), string(got), "%s: run zapbarn docs docs", name)
	}
	pages, err := os.ReadDir(filepath.Join(dir, "rules"))
	require.NoError(t, err)
	kept, err := os.ReadDir("../../docs/rules")
	require.NoError(t, err)
	assert.Len(t, kept, len(pages), "no page of a rule that is gone")
	for _, p := range pages {
		want, err := os.ReadFile(filepath.Join("../../docs/rules", p.Name()))
		require.NoError(t, err)
		got, err := os.ReadFile(filepath.Join(dir, "rules", p.Name()))
		require.NoError(t, err)
		assert.Equal(t, string(want), string(got), "%s: run zapbarn docs docs", p.Name())
	}
	out, err := run(t, "schema")
	require.NoError(t, err)
	want, err := os.ReadFile("../../docs/plan.schema.json")
	require.NoError(t, err)
	assert.JSONEq(t, string(want), out)
}

// The stand-in plays a plan file: what comes back is what the simulator says, and with
// packets lost it says what differs.
func TestTheStandInPlaysAFile(t *testing.T) {
	const file = "../../docs/examples/midnight-apiary.json"
	out, err := run(t, "standin", file, "--prop", "riser", "--press", "mat@500:300")
	require.NoError(t, err)
	assert.Contains(t, out, "K10          [{530 2030}] same")
	assert.Contains(t, out, "8 packets sent, 8 came")
	out, err = run(t, "standin", file, "--prop", "riser", "--press", "mat@500:300", "--lost", "60")
	assert.Error(t, err)
	assert.Contains(t, out, "differs, simulated")
	_, err = run(t, "standin", file, "--press", "moon@1:2")
	assert.ErrorContains(t, err, "--press")
	_, err = run(t, "standin", file, "--prop", "skep")
	assert.ErrorContains(t, err, "nothing starts anything here yet")
}

// The database commands on a folder of their own: a plan goes in, is exported with its log,
// comes back with it when asked; a backup is written, tried, and restored.
func TestDatabaseCommands(t *testing.T) {
	data, err := os.MkdirTemp("", "zapbarn-commands")
	require.NoError(t, err)
	require.NoError(t, os.Chmod(data, 0o755))
	t.Cleanup(func() { _, _ = run(t, "stop", "--data", data); _ = os.RemoveAll(data) })
	do := func(args ...string) string {
		t.Helper()
		out, err := run(t, append(args, "--data", data)...)
		require.NoError(t, err, out)
		return out
	}
	assert.Contains(t, do("import", apiary), "stored midnight-apiary with 0 edits in its log")
	_, err = run(t, "import", apiary, "--data", data)
	assert.ErrorContains(t, err, "already")
	url, _, err := (&settings{data: data}).found(context.Background(), io.Discard)
	require.NoError(t, err)
	st, err := store.Open(context.Background(), url)
	require.NoError(t, err)
	_, err = st.Edit(context.Background(), "midnight-apiary", store.By{Who: "Ola"},
		func(p *plan.Plan) (plan.Edit, error) {
			return p.Without("prop", "keeper"), nil
		})
	require.NoError(t, err)
	require.NoError(t, st.Close())
	file := filepath.Join(data, "with-log.json")
	require.NoError(t, os.WriteFile(file, []byte(do("export", "midnight-apiary", "--log")), 0o600))
	assert.Contains(t, do("import", file, "--log", "--replace"), "with 1 edit in its log")
	assert.Contains(t, do("import", file, "--replace"), "with 0 edits in its log")
	backup := filepath.Join(data, "barn.zapbarn")
	assert.Contains(t, do("backup", backup), "3 displays, restored once to try it, and alike", "two of them in the bin")
	assert.Contains(t, do("restore", backup),
		"restored 1 display; what was there before is kept as the database zapbarn_before_")
	assert.Contains(t, do("doctor"), "database: answers, 1 displays")
}
