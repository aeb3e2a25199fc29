// Package testkit gives tests a real PostgreSQL: one private cluster for all
// packages, and a fresh database for each test.
package testkit

import (
	"context"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"runtime"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"

	"zapbarn/store"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/require"
)

// Root is the project's folder.
func Root() string {
	_, file, _, _ := runtime.Caller(0)
	return filepath.Dir(filepath.Dir(file))
}

// Server is the test cluster's URL, started when it is not running. It is
// stopped when the last test program that uses it has ended, however it ends.
func Server(t testing.TB) string {
	dir := os.Getenv("ZAPBARN_TEST_DATA")
	if dir == "" {
		dir = filepath.Join(Root(), ".data", "test")
	}
	ctx, cancel := context.WithTimeout(context.Background(), 2*time.Minute)
	defer cancel()
	started.Do(func() { started.url, started.err = share(ctx, dir) })
	require.NoError(t, started.err)
	return started.url
}

// started is the cluster of this test program.
var started struct {
	sync.Once
	url   string
	err   error
	users *os.File // held, shared, for as long as this program runs
}

// share starts the cluster or joins it. Each program that uses it holds a
// shared lock, which the system lets go when the program ends; a command that
// outlives it waits for the last of them, and stops the server.
func share(ctx context.Context, dir string) (string, error) {
	if err := os.MkdirAll(dir, 0o755); err != nil {
		return "", err
	}
	users := filepath.Join(dir, "users")
	var err error
	if started.users, err = os.OpenFile(users, os.O_CREATE|os.O_RDWR, 0o644); err != nil {
		return "", err
	}
	if err := syscall.Flock(int(started.users.Fd()), syscall.LOCK_SH); err != nil {
		return "", err
	}
	c, err := store.StartCluster(ctx, dir, nil)
	if err != nil {
		return "", err
	}
	watch := exec.Command("flock", append([]string{"-x", users}, c.StopCommand()...)...)
	watch.SysProcAttr = &syscall.SysProcAttr{Setsid: true}
	watch.Dir = "/"
	return c.URL, watch.Start()
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

// Open is a store on a fresh database, its plans in the shop of the tests, closed when the test ends.
func Open(t testing.TB) *store.Store {
	s, err := store.Open(context.Background(), Database(t))
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	return s.In(shop.Kept)
}
