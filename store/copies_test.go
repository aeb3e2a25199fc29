package store_test

import (
	"bytes"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"syscall"
	"testing"

	"zapbarn/demo"
	"zapbarn/store"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// served is a cluster with a display in it, and its data folder.
func served(t *testing.T, dir string) (*store.Cluster, *store.Store) {
	t.Helper()
	c, err := store.StartCluster(ctx, dir, nil)
	require.NoError(t, err)
	url, err := store.Database(ctx, c.URL, "zapbarn")
	require.NoError(t, err)
	s, err := store.Open(ctx, url, c.PortFile())
	require.NoError(t, err)
	return c, s
}

// copied is a copy of a folder, as anybody makes one.
func copied(t *testing.T, from string) string {
	to := own(t)
	out, err := exec.Command("cp", "-a", from+"/.", to).CombinedOutput()
	require.NoError(t, err, string(out))
	return to
}

// After its server was killed and nobody reaped it, or when another process has its number by
// now, the first start works: what is looked at is the process itself, not its number.
func TestFirstStartBesideADeadProcess(t *testing.T) {
	dir := own(t)
	c, s := served(t, dir)
	require.NoError(t, s.Create(ctx, demo.Metric(today), false))
	require.NoError(t, s.Close())
	dead := exec.Command("true")
	require.NoError(t, dead.Start()) // it ends, and is not waited for: it stays in the table
	other := exec.Command("sleep", "600")
	require.NoError(t, other.Start())
	t.Cleanup(func() { _ = other.Process.Kill(); _ = other.Wait(); _ = dead.Wait() })
	for name, pid := range map[string]int{"a dead process": dead.Process.Pid, "another's number": other.Process.Pid} {
		kill(t, c)
		file := filepath.Join(c.Dir, "pgdata", "postmaster.pid")
		left, err := os.ReadFile(file)
		require.NoError(t, err)
		_, rest, _ := bytes.Cut(left, []byte("\n"))
		require.NoError(t, os.WriteFile(file, append(fmt.Appendf(nil, "%d\n", pid), rest...), 0o600))
		c, s = served(t, dir)
		list, err := s.List(ctx)
		require.NoError(t, err, name)
		assert.Len(t, list, 1, name)
		require.NoError(t, s.Close())
	}
	require.NoError(t, syscall.Kill(other.Process.Pid, 0), "the other process was left alone")
}

// A folder that was copied when its database was stopped is one of its own: it answers from
// its own files, and stopping it does not stop the original.
func TestACopyIsOfItsOwn(t *testing.T) {
	dir := own(t)
	_, s := served(t, dir)
	require.NoError(t, s.Create(ctx, demo.Metric(today), false))
	require.NoError(t, s.Close())
	require.NoError(t, store.StopCluster(ctx, dir))
	copy := copied(t, dir)
	first, a := served(t, dir)
	defer a.Close()
	assert.Error(t, store.StopCluster(ctx, copy), "none of its own runs")
	second, b := served(t, copy)
	assert.NotEqual(t, first.URL, second.URL)
	require.NoError(t, b.Bin(ctx, "thistledown-porch", today))
	require.NoError(t, b.Close())
	require.NoError(t, store.StopCluster(ctx, copy))
	list, err := a.List(ctx)
	require.NoError(t, err, "the original still answers")
	assert.Len(t, list, 1, "and nothing was taken away there")
}

// A folder that was copied while its database ran is said to be no copy, and not started; one
// that was moved after its server was killed is the same one.
func TestACopyMadeWhileItRunsIsNone(t *testing.T) {
	dir := own(t)
	c, s := served(t, dir)
	require.NoError(t, s.Create(ctx, demo.Metric(today), false))
	require.NoError(t, s.Close())
	torn := copied(t, dir)
	_, err := store.StartCluster(ctx, torn, nil)
	require.ErrorIs(t, err, store.ErrTornCopy)
	assert.ErrorContains(t, err, "zapbarn backup")
	assert.Error(t, store.StopCluster(ctx, torn))
	_, s = served(t, dir)
	list, err := s.List(ctx)
	require.NoError(t, err, "the original still answers")
	assert.Len(t, list, 1)
	require.NoError(t, s.Close())

	kill(t, c)
	moved := strings.TrimSuffix(dir, "/") + "-moved"
	require.NoError(t, os.Rename(dir, moved))
	t.Cleanup(func() { _ = store.StopCluster(ctx, moved); _ = os.RemoveAll(moved) })
	_, s = served(t, moved)
	list, err = s.List(ctx)
	require.NoError(t, err)
	assert.Len(t, list, 1)
	require.NoError(t, s.Close())
}
