package store

import (
	"context"
	"fmt"
	"os"
	"syscall"
	"time"
)

// lock holds a file so that several starts at once wait for each other.
func lock(ctx context.Context, path string, say func(string)) (unlock func(), err error) {
	f, err := os.OpenFile(path, os.O_CREATE|os.O_RDWR, 0o644)
	if err != nil {
		return nil, err
	}
	for n := 0; ; n++ {
		err := syscall.Flock(int(f.Fd()), syscall.LOCK_EX|syscall.LOCK_NB)
		if err == nil {
			return func() { f.Close() }, nil
		}
		if err != syscall.EWOULDBLOCK || ctx.Err() != nil {
			f.Close()
			return nil, fmt.Errorf("lock %s: %w", path, err)
		}
		if n == 10 {
			say("Another start is at work on the same folder; waiting for it.")
		}
		time.Sleep(100 * time.Millisecond)
	}
}
