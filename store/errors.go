package store

import (
	"context"
	"errors"
	"fmt"
	"net"
	"strings"
	"syscall"

	"zapbarn/core/plan"

	"github.com/jackc/pgx/v5/pgconn"
)

// The errors a caller tells apart.
var (
	ErrNone    = errors.New("there is no such display")
	ErrTaken   = errors.New("there is already a display of that name")
	ErrNothing = errors.New("nothing to undo")
	ErrDown    = errors.New("the database does not answer; start it again, nothing you entered is lost")
	ErrFull    = errors.New("the disk that the database lies on is full; free some room, then send it once more")
)

// hiding is an error that is said to people in its own words, with what it came of for the
// log.
type hiding struct{ says, cause error }

func (h *hiding) Error() string        { return h.says.Error() }
func (h *hiding) Is(target error) bool { return target == h.says }
func (h *hiding) Unwrap() error        { return h.cause }

// full is ErrFull where an error says that a disk is full: PostgreSQL's code for it (its
// manual, appendix A), the system's, or what its server wrote; or where a folder's disk has
// hardly any room left, for then the server ends and nothing says why. Else it is the error.
func full(err error, dir string) error {
	if err == nil {
		return nil
	}
	var said *pgconn.PgError
	if errors.As(err, &said) && said.Code == "53100" || errors.Is(err, syscall.ENOSPC) ||
		strings.Contains(err.Error(), "No space left on device") || dir != "" && roomIn(dir) < leastRoom {
		return &hiding{ErrFull, err}
	}
	return err
}

// leastRoom is how much room PostgreSQL wants at least to start and to write: a segment of
// its log of writes (16 MB).
const leastRoom = 16 << 20

// roomIn is how much room is left on the disk of a folder; all there could be where that is
// not known.
func roomIn(dir string) uint64 {
	var st syscall.Statfs_t
	if syscall.Statfs(dir, &st) != nil {
		return 1 << 62
	}
	return st.Bavail * uint64(st.Bsize)
}

// Cause is what an error that hides its cause from people came of, for the log.
func Cause(err error) error {
	if f, ok := errors.AsType[*Fault](err); ok {
		return f.Err
	}
	if h, ok := errors.AsType[*hiding](err); ok {
		return fmt.Errorf("%w: %w", h.says, h.cause)
	}
	return err
}

// Fault is what the database said that is nobody's mistake but ours. Its own
// text is for the log; a person is told only that it went wrong.
type Fault struct{ Err error }

func (f *Fault) Error() string {
	return "this could not be stored, and it is our fault; nothing changed, and what was saved is safe"
}
func (f *Fault) Unwrap() error { return f.Err }

// down sorts an error of the database: a lost connection becomes ErrDown, what
// it says itself a *Fault, and what core or this package said stays.
func (s *Store) down(ctx context.Context, err error) error {
	if err == nil || ctx.Err() != nil {
		return err
	}
	for _, ours := range []error{ErrNone, ErrTaken, ErrNothing, errSame, ErrFull} {
		if errors.Is(err, ours) {
			return err
		}
	}
	var stale *plan.Stale
	if errors.As(err, &stale) {
		return err
	}
	if b, ok := errors.AsType[*Blocked](err); ok {
		return b
	}
	var said *pgconn.PgError
	if f := full(err, ""); errors.Is(f, ErrFull) {
		return f
	}
	if s.Ping(ctx) != nil {
		return full(&hiding{ErrDown, err}, s.dir)
	}
	if errors.As(err, &said) {
		return &Fault{err}
	}
	return err
}

// Unreachable says in words why a database could not be opened: nobody there,
// a wrong password, a wrong name. The text of the database stays out of it.
func Unreachable(host string, err error) error {
	var said *pgconn.PgError
	var dns *net.DNSError
	var op *net.OpError
	switch {
	case errors.As(err, &said):
		switch said.Code {
		case "28P01", "28000":
			return fmt.Errorf("the database at %s refuses the name or password; look at --database-url", host)
		case "3D000":
			return fmt.Errorf(
				"the database server at %s has no database of that name; make one, or look at --database-url",
				host,
			)
		case "57P03", "53300":
			return fmt.Errorf("the database at %s is busy starting or full; try again in a minute", host)
		}
		return fmt.Errorf("the database at %s refused (%s)", host, said.Code)
	case errors.As(err, &dns):
		return fmt.Errorf("there is no host %s; look at --database-url", host)
	case errors.As(err, &op):
		return fmt.Errorf("nothing answers at %s; is the database running there? look at --database-url", host)
	}
	return fmt.Errorf("the database at %s cannot be reached; look at --database-url", host)
}
