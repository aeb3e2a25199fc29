package store_test

import (
	"fmt"
	"os"
	"path/filepath"
	"sync"
	"testing"

	"zapbarn/core/plan"
	"zapbarn/demo"
	"zapbarn/store"
	"zapbarn/testkit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A backup made while edits come in is of one moment, is tried before it counts, and restored
// it is that: displays, logs, pictures, the bin. What was there before is kept beside it.
func TestABackupIsOfOneMoment(t *testing.T) {
	dir := own(t)
	c, s := served(t, dir)
	const id = "midnight-apiary"
	require.NoError(t, s.Create(ctx, demo.Apiary(today), false))
	require.NoError(t, s.Create(ctx, demo.Metric(today), false))
	require.NoError(t, s.Bin(ctx, "thistledown-porch", today))
	rename := func(n int) {
		name := fmt.Sprint("Edit ", n)
		_, err := s.Edit(ctx, id, store.By{Who: "Ola"}, func(p *plan.Plan) (plan.Edit, error) {
			d := p.Display()
			d.Name = name
			return plan.Edit{Label: name, Changes: []plan.Change{p.Put("display", d.ID, d)}}, nil
		})
		require.NoError(t, err)
	}
	rename(1)
	url, err := store.Database(ctx, c.URL, "zapbarn")
	require.NoError(t, err)
	stop := make(chan struct{})
	var edits sync.WaitGroup
	edits.Go(func() {
		for n := 2; ; n++ {
			select {
			case <-stop:
				return
			default:
				rename(n)
			}
		}
	})
	file := filepath.Join(t.TempDir(), "barn.zapbarn")
	n, err := store.Backup(ctx, url, file)
	close(stop)
	edits.Wait()
	require.NoError(t, err)
	assert.Equal(t, 2, n, "the bin counts too")
	_, err = store.Backup(ctx, url, file)
	assert.ErrorContains(t, err, "is there already")
	now := load(t, s, id)
	nowLog, err := s.WholeLog(ctx, id)
	require.NoError(t, err)

	_, _, err = store.Restore(ctx, url, file, today)
	require.ErrorContains(t, err, "the database is in use")
	require.NoError(t, s.Close())
	_, _, err = store.Restore(ctx, url, filepath.Join(t.TempDir(), "none"), today)
	assert.ErrorContains(t, err, "no such file")
	whole, err := os.ReadFile(file)
	require.NoError(t, err)
	torn := filepath.Join(t.TempDir(), "torn.zapbarn")
	require.NoError(t, os.WriteFile(torn, whole[:len(whole)/2], 0o600))
	_, _, err = store.Restore(ctx, url, torn, today)
	assert.ErrorContains(t, err, "is no backup that can be read")

	displays, kept, err := store.Restore(ctx, url, file, today)
	require.NoError(t, err)
	assert.Equal(t, 1, displays)
	s, err = store.Open(ctx, url)
	require.NoError(t, err)
	p := load(t, s, id)
	var at int
	_, err = fmt.Sscanf(p.Display().Name, "Edit %d", &at)
	require.NoError(t, err, "the display is of a moment between")
	log, err := s.WholeLog(ctx, id)
	require.NoError(t, err)
	assert.Len(t, log, at, "and its log is of the same")
	assert.Equal(t, len(now.Photos()), len(p.Photos()))
	_, err = s.PutBack(ctx, "thistledown-porch-bin")
	require.NoError(t, err)
	_, err = s.Undo(ctx, id, store.By{})
	require.NoError(t, err)
	require.NoError(t, s.Close())
	old, err := store.Database(ctx, c.URL, kept)
	require.NoError(t, err)
	was, err := store.Open(ctx, old)
	require.NoError(t, err)
	assert.Equal(t, now.Doc(), load(t, was, id).Doc(), "what was there before is kept")
	wasLog, err := was.WholeLog(ctx, id)
	require.NoError(t, err)
	assert.Equal(t, nowLog, wasLog)
	require.NoError(t, was.Close())
}

// A display goes into a file with its log, and comes back with it: what was done can be undone
// there, what was undone done again.
func TestADisplayTravelsWithItsLog(t *testing.T) {
	s := testkit.Open(t)
	const id = "midnight-apiary"
	require.NoError(t, s.Create(ctx, demo.Apiary(today), false))
	for _, name := range []string{"One", "Two", "Three"} {
		renamed(t, s, id, name, store.By{Who: "Ola", Key: "a"})
	}
	_, err := s.Undo(ctx, id, store.By{Key: "a"})
	require.NoError(t, err)
	p := load(t, s, id)
	log, err := s.WholeLog(ctx, id)
	require.NoError(t, err)
	other := testkit.Open(t)
	require.NoError(t, other.CreateWithLog(ctx, p, log, false))
	assert.Equal(t, p.Doc(), load(t, other, id).Doc())
	entries, err := other.Log(ctx, id, 10)
	require.NoError(t, err)
	require.Len(t, entries, 3)
	assert.Equal(t, []string{"undone", "done", "done"}, []string{entries[0].State, entries[1].State, entries[2].State})
	assert.Equal(t, "Ola", entries[2].Who)
	_, err = other.Redo(ctx, id, store.By{Key: "anybody"})
	require.NoError(t, err)
	assert.Equal(t, "Three", load(t, other, id).Display().Name)
	for range 3 {
		_, err = other.Undo(ctx, id, store.By{Key: "anybody"})
		require.NoError(t, err)
	}
	assert.Equal(t, "The Midnight Apiary", load(t, other, id).Display().Name)
	log[0].State = "half done"
	assert.ErrorContains(t, other.CreateWithLog(ctx, p, log, true), "neither done, undone nor dropped")
}
