package store

import (
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"syscall"
)

// A cluster knows itself by the file number and device of its folder of data, kept beside it:
// a folder that is moved on one disk keeps them, one that is copied does not. Its port and its
// server's process number are those of the folder they were written in: in a copy they are
// the original's, which a copy must neither answer from nor stop.

// identity is what a folder is known by.
func identity(dir string) (string, error) {
	info, err := os.Stat(dir)
	if err != nil {
		return "", err
	}
	st, ok := info.Sys().(*syscall.Stat_t)
	if !ok {
		return "", errors.New("this system does not number its files")
	}
	return fmt.Sprintf("%d %d\n", st.Dev, st.Ino), nil
}

func (c *Cluster) identityFile() string { return filepath.Join(c.Dir, "identity") }

// ErrTornCopy is of a data folder that was copied while its database ran.
var ErrTornCopy = errors.New("was copied while its database ran, and such a copy may be torn")

// known makes sure that the data folder is the one it was, or a sound copy, which from then
// on is one of its own. A copy made while the original ran is refused: it may hold half of
// what was being written.
func (c *Cluster) known() error {
	is, err := identity(c.data())
	if err != nil {
		return err
	}
	was, err := os.ReadFile(c.identityFile())
	if err == nil && string(was) == is {
		return nil
	}
	pid, running := c.pidFile()
	copied := err == nil || running && elsewhere(pid.dir, c.data()) // a cluster of before had no identity
	if copied && running {
		return fmt.Errorf("the data folder %s %w; make one with zapbarn backup, or stop the original first and copy it "+
			"again. If this is all there is left: take away %s, and look through everything once it has started", c.Dir,
			ErrTornCopy, filepath.Join(c.data(), "postmaster.pid"))
	}
	if copied {
		_ = os.Remove(c.PortFile()) // it is the original's
	}
	return os.WriteFile(c.identityFile(), []byte(is), 0o644)
}

// elsewhere reports whether a folder is there, and is another.
func elsewhere(dir, than string) bool {
	a, err := os.Stat(dir)
	b, err2 := os.Stat(than)
	return err == nil && err2 == nil && !os.SameFile(a, b)
}

// pidLines are what PostgreSQL writes of a running server in its data folder (its source,
// miscadmin.h: LOCK_FILE_LINE_PID, LOCK_FILE_LINE_DATA_DIR).
type pidLines struct {
	pid int
	dir string
}

// pidFile is what a server left in the data folder; false where there is nothing.
func (c *Cluster) pidFile() (pidLines, bool) {
	b, err := os.ReadFile(filepath.Join(c.data(), "postmaster.pid"))
	if err != nil {
		return pidLines{}, false
	}
	lines := strings.Split(string(b), "\n")
	if len(lines) < 2 {
		return pidLines{}, true
	}
	pid, _ := strconv.Atoi(strings.TrimSpace(lines[0]))
	return pidLines{pid, lines[1]}, true
}

// alive reports whether the server of the data folder runs: a process of the number it left,
// that is not dead and only waits to be reaped, and works in this very folder, as PostgreSQL
// does. A process number alone tells nothing: it may be a dead one's, or another's by now.
func (c *Cluster) alive() bool {
	left, ok := c.pidFile()
	if !ok || left.pid <= 0 {
		return false
	}
	stat, err := os.ReadFile(fmt.Sprintf("/proc/%d/stat", left.pid))
	if err != nil {
		return false
	}
	if _, after, ok := strings.Cut(string(stat), ") "); ok && strings.HasPrefix(after, "Z") {
		return false
	}
	works, err := os.Stat(fmt.Sprintf("/proc/%d/cwd", left.pid))
	here, err2 := os.Stat(c.data())
	return err == nil && err2 == nil && os.SameFile(works, here)
}

// unlock takes away what a dead server left in the data folder, by which the next would take
// it for running. PostgreSQL looks by itself, in shared memory, whether any of its processes
// still has the folder open.
func (c *Cluster) unlock() error {
	if _, left := c.pidFile(); !left || c.alive() {
		return nil
	}
	err := os.Remove(filepath.Join(c.data(), "postmaster.pid"))
	if errors.Is(err, os.ErrNotExist) {
		return nil
	}
	return err
}
