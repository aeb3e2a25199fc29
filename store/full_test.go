package store_test

import (
	"crypto/rand"
	"encoding/base64"
	"fmt"
	"os"
	"path/filepath"
	"syscall"
	"testing"
	"time"

	"zapbarn/core/plan"
	"zapbarn/demo"
	"zapbarn/store"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// disk is a small disk of its own for a folder, where this program may make one (as root);
// fill takes all its room, the function it returns gives that back.
func disk(t *testing.T, dir string, mb int) (fill func() (free func())) {
	require.NoError(t, os.MkdirAll(dir, 0o755))
	if err := syscall.Mount("tmpfs", dir, "tmpfs", 0, fmt.Sprintf("size=%dm,mode=755", mb)); err != nil {
		t.Skipf("no disk can be made here: %v", err) // only root may
	}
	t.Cleanup(func() {
		_ = store.StopCluster(ctx, dir)
		_ = syscall.Unmount(dir, syscall.MNT_DETACH)
	})
	return func() func() {
		f, err := os.Create(filepath.Join(dir, "filling"))
		require.NoError(t, err)
		block := make([]byte, 64<<10)
		for {
			if _, err := f.Write(block); err != nil {
				require.ErrorIs(t, err, syscall.ENOSPC)
				break
			}
		}
		require.NoError(t, f.Close())
		return func() { require.NoError(t, os.Remove(f.Name())) }
	}
}

// A disk that fills up is said as that, with the cause in the log alone, while the database
// runs and where it is started; when there is room again it goes on, and what was acknowledged
// is there.
func TestAFullDiskIsSaidAsThat(t *testing.T) {
	dir := own(t)
	fill := disk(t, dir, 220)
	_, s := served(t, dir)
	const id = "thistledown-porch"
	require.NoError(t, s.Create(ctx, demo.Metric(today), false))
	kept := 0
	photo := func() error {
		_, err := s.Edit(ctx, id, store.By{}, func(p *plan.Plan) (plan.Edit, error) {
			b := make([]byte, 400_000)
			_, _ = rand.Read(b)
			key := fmt.Sprint("photo-", kept)
			x := plan.Photo{ID: key, Data: base64.StdEncoding.EncodeToString(b)}
			return plan.Edit{Label: "photo", Changes: []plan.Change{p.Put("photo", key, x)}}, nil
		})
		if err == nil {
			kept++
		}
		return err
	}
	require.NoError(t, photo())
	free := fill()
	var err error
	for range 120 {
		if err = photo(); err != nil {
			break
		}
	}
	require.ErrorIs(t, err, store.ErrFull)
	assert.Equal(t, store.ErrFull.Error(), err.Error(), "people are told that alone")
	assert.NotEqual(t, err.Error(), store.Cause(err).Error(), "the log has more")

	require.NoError(t, s.Close())
	_ = store.StopCluster(ctx, dir)
	if _, err := store.StartCluster(ctx, dir, nil); err != nil {
		assert.ErrorIs(t, err, store.ErrFull, "also at the start")
	}
	free()
	require.Eventually(t, func() bool {
		_, err = store.StartCluster(ctx, dir, nil)
		return err == nil
	}, 2*time.Minute, 500*time.Millisecond)
	_, s = served(t, dir)
	defer s.Close()
	p := load(t, s, id)
	assert.Len(t, p.Photos(), kept)
	require.NoError(t, photo())
}
