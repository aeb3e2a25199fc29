// Package testkit gives tests a real PostgreSQL: one private cluster for all
// packages, and a fresh database for each test.
package testkit

import (
	"context"
	"fmt"
	"os"
	"path/filepath"
	"runtime"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"zapbarn/store"
)

// Root is the project's folder.
func Root() string {
	_, file, _, _ := runtime.Caller(0)
	return filepath.Dir(filepath.Dir(file))
}

// Server is the test cluster's URL, started when it is not running.
func Server(t testing.TB) string {
	dir := os.Getenv("ZAPBARN_TEST_DATA")
	if dir == "" {
		dir = filepath.Join(Root(), ".data", "test")
	}
	ctx, cancel := context.WithTimeout(context.Background(), 2*time.Minute)
	defer cancel()
	url, err := store.StartCluster(ctx, dir)
	require.NoError(t, err)
	return url
}

// Database is the URL of a database of this test's own.
func Database(t testing.TB) string {
	name := fmt.Sprintf("t_%s_%d_%d", strings.Map(func(r rune) rune {
		if r >= 'a' && r <= 'z' {
			return r
		}
		return -1
	}, strings.ToLower(t.Name())), os.Getpid(), time.Now().UnixNano()%1e6)
	url, err := store.Database(context.Background(), Server(t), name[:min(60, len(name))])
	require.NoError(t, err)
	return url
}

// Open is a store on a fresh database, closed when the test ends.
func Open(t testing.TB) *store.Store {
	s, err := store.Open(context.Background(), Database(t))
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	return s
}
