package store

import (
	"context"
	"errors"
	"fmt"
	"net"

	"zapbarn/core/plan"

	"github.com/jackc/pgx/v5/pgconn"
)

// The errors a caller tells apart.
var (
	ErrNone    = errors.New("there is no such display")
	ErrTaken   = errors.New("there is already a display of that name")
	ErrNothing = errors.New("nothing to undo")
	ErrDown    = errors.New("the database does not answer; start it again, nothing you entered is lost")
)

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
	for _, ours := range []error{ErrNone, ErrTaken, ErrNothing, errSame} {
		if errors.Is(err, ours) {
			return err
		}
	}
	var stale *plan.Stale
	if errors.As(err, &stale) {
		return err
	}
	var said *pgconn.PgError
	if s.Ping(ctx) != nil {
		return ErrDown
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
