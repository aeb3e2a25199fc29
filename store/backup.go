package store

import (
	"bytes"
	"context"
	"crypto/rand"
	"encoding/hex"
	"errors"
	"fmt"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"time"

	"github.com/jackc/pgx/v5"
)

// A backup is one file: an archive of the whole database as PostgreSQL's own pg_dump writes it
// (displays, their logs, pictures, drills, the bin), of one moment, made while others work. It
// is restored into a database of its own and compared, table by table, before it counts.

// program is one of PostgreSQL's own: beside its server's programs, or on the path.
func program(name string) (string, error) {
	if bin, err := binaries(); err == nil {
		if p := filepath.Join(bin, name); exec.Command("test", "-x", p).Run() == nil {
			return p, nil
		}
	}
	p, err := exec.LookPath(name)
	if err != nil {
		return "", fmt.Errorf("%s is not here; it comes with PostgreSQL's programs: apt-get install postgresql", name)
	}
	return p, nil
}

// Backup writes the database at u to a file, which must not be there yet, and tells how many
// displays it holds.
func Backup(ctx context.Context, u, file string) (displays int, err error) {
	dump, err := program("pg_dump")
	if err != nil {
		return 0, err
	}
	if _, err := os.Stat(file); err == nil {
		return 0, fmt.Errorf("%s is there already; give another name", file)
	}
	conn, err := pgx.Connect(ctx, u)
	if err != nil {
		return 0, Unreachable("its port", err)
	}
	defer conn.Close(ctx)
	tx, err := conn.BeginTx(ctx, pgx.TxOptions{IsoLevel: pgx.RepeatableRead, AccessMode: pgx.ReadOnly})
	if err != nil {
		return 0, err
	}
	defer func() { _ = tx.Rollback(ctx) }()
	var moment string // that both this and pg_dump see
	if err := tx.QueryRow(ctx, "select pg_export_snapshot()").Scan(&moment); err != nil {
		return 0, err
	}
	was, err := sums(ctx, tx)
	if err != nil {
		return 0, err
	}
	part := file + ".part"
	defer os.Remove(part)
	if err := run(ctx, u, dump, "--format=custom", "--no-owner", "--no-privileges", "--snapshot="+moment,
		"--file="+part); err != nil {
		return 0, full(fmt.Errorf("the backup could not be written: %w", err), filepath.Dir(file))
	}
	if err := compared(ctx, u, part, was); err != nil {
		return 0, err
	}
	if err := synced(part); err != nil {
		return 0, err
	}
	return was["plans"].rows, os.Rename(part, file)
}

// compared restores a backup into a database of its own and compares it with what it is of.
func compared(ctx context.Context, u, file string, was map[string]sum) error {
	test, drop, err := scratch(ctx, u, "zapbarn_verify_")
	if err != nil {
		return fmt.Errorf("the backup could not be tried, and was not kept: %w", err)
	}
	defer drop()
	if err := restored(ctx, test, file); err != nil {
		return fmt.Errorf("the backup could not be restored, and was not kept: %w", err)
	}
	conn, err := pgx.Connect(ctx, test)
	if err != nil {
		return err
	}
	defer conn.Close(ctx)
	tx, err := conn.Begin(ctx)
	if err != nil {
		return err
	}
	defer func() { _ = tx.Rollback(ctx) }()
	is, err := sums(ctx, tx)
	if err != nil {
		return err
	}
	for table, want := range was {
		if is[table] != want {
			return fmt.Errorf("the backup is not what it is of, and was not kept: %s differs (%d rows, %d were there)", table,
				is[table].rows, want.rows)
		}
	}
	return nil
}

// Restore puts a backup in the place of the database at u, which nobody may be using; that is
// kept beside it under the name it returns. A backup of an earlier program is brought up to
// date; one of a newer program is refused. now names what is kept.
func Restore(ctx context.Context, u, file string, now time.Time) (displays int, kept string, err error) {
	if _, err := os.Stat(file); err != nil {
		return 0, "", fmt.Errorf("%s: there is no such file", file)
	}
	to, err := url.Parse(u)
	if err != nil {
		return 0, "", err
	}
	name := strings.TrimPrefix(to.Path, "/")
	conn, err := pgx.Connect(ctx, at(*to, "postgres"))
	if err != nil {
		return 0, "", Unreachable("its port", err)
	}
	defer conn.Close(ctx)
	if err := unused(ctx, conn, name); err != nil {
		return 0, "", err
	}
	fresh, drop, err := scratch(ctx, u, "zapbarn_restored_")
	if err != nil {
		return 0, "", err
	}
	swapped := false
	defer func() {
		if !swapped {
			drop()
		}
	}()
	if err := restored(ctx, fresh, file); err != nil {
		return 0, "", fmt.Errorf("%s is no backup that can be read: %w", file, err)
	}
	s, err := Open(ctx, fresh) // brings it up to date, or refuses it
	if err != nil {
		return 0, "", err
	}
	list, err := s.List(ctx)
	if err = errors.Join(err, s.Close()); err != nil {
		return 0, "", err
	}
	kept = name + "_before_" + now.Format("20060102_150405")
	of, err := url.Parse(fresh)
	if err != nil {
		return 0, "", err
	}
	for _, do := range [][2]string{{name, kept}, {strings.TrimPrefix(of.Path, "/"), name}} {
		if _, err := conn.Exec(ctx, "alter database "+pgx.Identifier{do[0]}.Sanitize()+" rename to "+
			pgx.Identifier{do[1]}.Sanitize()); err != nil {
			return 0, "", fmt.Errorf("the database is in use; stop what serves it, then restore: %w", err)
		}
	}
	swapped = true
	return len(list), kept, nil
}

// unused refuses a database that others are connected to: a program that serves it would go
// on with what it remembers.
func unused(ctx context.Context, conn *pgx.Conn, name string) error {
	var others int
	err := conn.QueryRow(ctx, "select count(*) from pg_stat_activity where datname = $1 and pid <> pg_backend_pid()",
		name).Scan(&others)
	if err == nil && others > 0 {
		err = errors.New("the database is in use; stop what serves it, then restore")
	}
	return err
}

// scratch makes a database of a fresh name beside the one at u; drop takes it away.
func scratch(ctx context.Context, u, name string) (made string, drop func(), err error) {
	b := make([]byte, 6)
	if _, err := rand.Read(b); err != nil {
		return "", nil, err
	}
	name += hex.EncodeToString(b)
	to, err := url.Parse(u)
	if err != nil {
		return "", nil, err
	}
	admin := at(*to, "postgres")
	if made, err = Database(ctx, admin, name); err != nil {
		return "", nil, full(err, "")
	}
	return made, func() {
		conn, err := pgx.Connect(context.WithoutCancel(ctx), admin)
		if err != nil {
			return // it is empty, and named as what it is
		}
		defer conn.Close(ctx)
		_, _ = conn.Exec(context.WithoutCancel(ctx),
			"drop database if exists "+pgx.Identifier{name}.Sanitize()+" with (force)")
	}, nil
}

// at is the address of another database of the same server.
func at(u url.URL, name string) string {
	u.Path = "/" + name
	return u.String()
}

// restored reads an archive into a database that is empty.
func restored(ctx context.Context, u, file string) error {
	restore, err := program("pg_restore")
	if err != nil {
		return err
	}
	return run(ctx, u, restore, "--no-owner", "--no-privileges", "--exit-on-error", "--single-transaction", file)
}

// run runs one of PostgreSQL's programs on a database; its password is not seen in the list of
// processes.
func run(ctx context.Context, u, name string, args ...string) error {
	to, err := url.Parse(u)
	if err != nil {
		return err
	}
	pass, _ := to.User.Password()
	to.User = url.User(to.User.Username())
	cmd := exec.CommandContext(ctx, name, slices.Concat([]string{"--dbname=" + to.String()}, args)...)
	cmd.Env = append(os.Environ(), "PGPASSWORD="+pass)
	out, err := cmd.CombinedOutput()
	if err != nil {
		return fmt.Errorf("%w: %s", err, bytes.TrimSpace(out))
	}
	return nil
}

// sum is what a table holds: how many rows, and one sum over them in whatever order.
type sum struct {
	rows int
	md5  string
}

// sums are those of every table.
func sums(ctx context.Context, tx pgx.Tx) (map[string]sum, error) {
	rows, err := tx.Query(ctx, "select tablename from pg_tables where schemaname = 'public'")
	if err != nil {
		return nil, err
	}
	tables, err := pgx.CollectRows(rows, pgx.RowTo[string])
	if err != nil {
		return nil, err
	}
	out := map[string]sum{}
	for _, t := range tables {
		var s sum
		if err := tx.QueryRow(ctx, `select count(*), coalesce(md5(string_agg(h, '' order by h)), '') from
			(select md5(t::text) h from `+pgx.Identifier{t}.Sanitize()+` t) x`).Scan(&s.rows, &s.md5); err != nil {
			return nil, err
		}
		out[t] = s
	}
	return out, nil
}

// synced makes sure that a file is on its disk.
func synced(path string) error {
	f, err := os.OpenFile(path, os.O_RDWR, 0)
	if err != nil {
		return err
	}
	return errors.Join(f.Sync(), f.Close())
}
