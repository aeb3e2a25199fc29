package store

import (
	"bytes"
	"context"
	"crypto/rand"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"fmt"
	"io"
	"net"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"sort"
	"strconv"
	"strings"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"
)

// Cluster is a private PostgreSQL server below a data folder, on a free
// loopback port, with its own password.
type Cluster struct {
	Dir  string // holds pgdata, port and password
	URL  string // of its own database, once it runs
	bin  string
	root bool
}

// binaries finds the newest PostgreSQL server programs of the machine.
func binaries() (string, error) {
	found, _ := filepath.Glob("/usr/lib/postgresql/*/bin/initdb")
	sort.Slice(found, func(i, j int) bool { return version(found[i]) < version(found[j]) })
	if len(found) > 0 {
		return filepath.Dir(found[len(found)-1]), nil
	}
	if p, err := exec.LookPath("initdb"); err == nil {
		return filepath.Dir(p), nil
	}
	return "", errors.New(
		"no PostgreSQL server programs found; run: apt-get install postgresql, or give --database-url",
	)
}

func version(path string) int {
	n, _ := strconv.Atoi(filepath.Base(filepath.Dir(filepath.Dir(path))))
	return n
}

// StartCluster starts the cluster below dir, making it on first use, and finds
// it when it already runs. It returns the URL of its database. As root, the
// server runs as the postgres user; where that user cannot reach dir, the
// cluster lies in /var/lib/zapbarn instead, and dir keeps a note of it. A
// database that was killed is waited for while it puts itself in order, and
// say (which may be nil) is told so.
func StartCluster(ctx context.Context, dir string, say func(string)) (*Cluster, error) {
	if say == nil {
		say = func(string) {}
	}
	bin, err := binaries()
	if err != nil {
		return nil, err
	}
	c := &Cluster{bin: bin, root: os.Geteuid() == 0}
	if c.Dir, err = c.home(ctx, dir); err != nil {
		return nil, full(err, "")
	}
	return c, full(c.start(ctx, say), "")
}

// home is where the cluster of a folder lies: in it, or, as root, where the user that the
// server runs as cannot reach it, in /var/lib/zapbarn. A note in the folder says so, and the
// cluster knows which folder that is; in a copy of the folder the note is the original's.
func (c *Cluster) home(ctx context.Context, dir string) (string, error) {
	dir, err := filepath.Abs(dir)
	if err != nil {
		return "", err
	}
	if err := os.MkdirAll(dir, 0o755); err != nil {
		return "", err
	}
	if !c.root || exec.CommandContext(ctx, "runuser", "-u", "postgres", "--", "test", "-x", dir).Run() == nil {
		return dir, nil
	}
	is, err := identity(dir)
	if err != nil {
		return "", err
	}
	sum := sha256.Sum256([]byte(dir))
	there := filepath.Join("/var/lib/zapbarn", hex.EncodeToString(sum[:8]))
	note := filepath.Join(dir, "moved")
	if said, err := os.ReadFile(note); err == nil {
		noted := strings.TrimSpace(string(said))
		of, err := os.ReadFile(filepath.Join(noted, "folder"))
		if noted != there && (err != nil || string(of) != is) {
			return "", fmt.Errorf("the data folder %s is a copy without its data: the original's lie in %s; make a copy with "+
				"zapbarn backup, or take away %s to begin afresh", dir, noted, note)
		}
		there = noted
	}
	if err := os.MkdirAll(there, 0o755); err != nil {
		return "", err
	}
	return there, errors.Join(os.WriteFile(note, []byte(there+"\n"), 0o644),
		os.WriteFile(filepath.Join(there, "folder"), []byte(is), 0o644))
}

// asServer makes a command that runs as the user who owns the server.
func (c *Cluster) asServer(ctx context.Context, name string, args ...string) *exec.Cmd {
	args = append([]string{filepath.Join(c.bin, name)}, args...)
	if c.root {
		args = append([]string{"runuser", "-u", "postgres", "--"}, args...)
	}
	cmd := exec.CommandContext(ctx, args[0], args[1:]...)
	cmd.Dir = "/"
	return cmd
}

func (c *Cluster) data() string { return filepath.Join(c.Dir, "pgdata") }

// PortFile holds the port the server listens on now.
func (c *Cluster) PortFile() string { return filepath.Join(c.Dir, "port") }

func (c *Cluster) start(ctx context.Context, say func(string)) error {
	unlock, err := lock(ctx, filepath.Join(c.Dir, "lock"), say)
	if err != nil {
		return err
	}
	defer unlock()
	pass := filepath.Join(c.Dir, "password")
	if _, err := os.Stat(filepath.Join(c.data(), "PG_VERSION")); err != nil {
		if err := c.initialise(ctx, pass); err != nil {
			return err
		}
	}
	if err := c.known(); err != nil {
		return err
	}
	secret, err := os.ReadFile(pass)
	if err != nil {
		return err
	}
	last := "0"
	if port, err := os.ReadFile(c.PortFile()); err == nil {
		last = strings.TrimSpace(string(port))
		c.URL = c.url(last, string(secret))
		if err := reach(ctx, c.URL); (err == nil || starting(err)) && c.alive() {
			return c.await(ctx, say)
		}
	}
	if err := c.unlock(); err != nil {
		return err
	}
	port, err := freePort(last) // the last one when it is free, so that open programs find it again
	if err != nil {
		return err
	}
	c.URL = c.url(port, string(secret))
	if err := c.launch(ctx, port, say); err != nil {
		return err
	}
	if err := os.WriteFile(c.PortFile(), []byte(port), 0o644); err != nil {
		return err
	}
	return c.await(ctx, say)
}

// launch starts the server. Where a killed one has not let go of its memory or
// its files yet, it is tried again for half a minute.
func (c *Cluster) launch(ctx context.Context, port string, say func(string)) error {
	opts := fmt.Sprintf(
		"-p %s -c listen_addresses=127.0.0.1 -c unix_socket_directories= -c log_min_messages=warning",
		port,
	)
	log := filepath.Join(c.data(), "server.log")
	for try := 0; ; try++ {
		written := lengthOf(log)
		out, err := c.asServer(ctx, "pg_ctl", "-D", c.data(), "-l", log, "-w", "-t", "10", "-o", opts, "start").
			CombinedOutput()
		if err == nil || c.alive() {
			return nil // it runs; whether it is in order yet, await finds out
		}
		why := fmt.Errorf("the database did not start: %v: %s%s", err, bytes.TrimSpace(out), tailOf(log, written))
		if f := full(why, c.Dir); errors.Is(f, ErrFull) || try == 30 || ctx.Err() != nil {
			return f
		}
		if try == 1 {
			say("The database was killed; waiting for what is left of it to end.")
		}
		time.Sleep(time.Second)
		if err := c.unlock(); err != nil {
			return err
		}
	}
}

// lengthOf is how long a file is; 0 where there is none.
func lengthOf(path string) int64 {
	info, err := os.Stat(path)
	if err != nil {
		return 0
	}
	return info.Size()
}

// tailOf is what a file says from a place on.
func tailOf(path string, from int64) string {
	f, err := os.Open(path)
	if err != nil {
		return ""
	}
	defer f.Close()
	b, _ := io.ReadAll(io.LimitReader(io.NewSectionReader(f, from, 64<<10), 64<<10))
	return " " + strings.TrimSpace(string(b))
}

// await waits until the server answers: after a crash it first puts itself in
// order, which takes as long as it takes.
func (c *Cluster) await(ctx context.Context, say func(string)) error {
	since := time.Now()
	for told := time.Duration(0); ; {
		err := reach(ctx, c.URL)
		if err == nil {
			return nil
		}
		if ctx.Err() != nil || !starting(err) {
			return Unreachable("its own port", err)
		}
		if d := time.Since(since); d-told > 2*time.Second || told == 0 {
			told = d
			say(
				fmt.Sprintf("The database puts itself in order after a crash; nothing is lost. %.0f s so far.", d.Seconds()),
			)
		}
		if time.Since(since) > 10*time.Minute {
			return errors.New(
				"the database has been putting itself in order for ten minutes; look at server.log beside its files",
			)
		}
		time.Sleep(200 * time.Millisecond)
	}
}

// starting reports a server that is there but not ready yet.
func starting(err error) bool {
	var said *pgconn.PgError
	return errors.As(err, &said) && said.Code == "57P03"
}

func (c *Cluster) initialise(ctx context.Context, pass string) error {
	b := make([]byte, 24)
	if _, err := rand.Read(b); err != nil {
		return err
	}
	if err := os.WriteFile(pass, []byte(hex.EncodeToString(b)), 0o600); err != nil {
		return err
	}
	if err := os.MkdirAll(c.data(), 0o700); err != nil {
		return err
	}
	if c.root {
		for _, f := range []string{c.data(), pass} {
			if out, err := exec.CommandContext(ctx, "chown", "postgres", f).CombinedOutput(); err != nil {
				return fmt.Errorf("%v: %s", err, out)
			}
		}
	}
	out, err := c.asServer(ctx, "initdb", "-D", c.data(), "-U", "zapbarn", "-A", "scram-sha-256", "--pwfile", pass, "-E",
		"UTF8", "--locale=C.UTF-8").
		CombinedOutput()
	if err != nil {
		return fmt.Errorf("the database could not be made: %v: %s", err, bytes.TrimSpace(out))
	}
	return nil
}

func (c *Cluster) url(port, secret string) string {
	u := url.URL{
		Scheme:   "postgres",
		User:     url.UserPassword("zapbarn", strings.TrimSpace(secret)),
		Host:     "127.0.0.1:" + port,
		Path:     "/postgres",
		RawQuery: "sslmode=disable",
	}
	return u.String()
}

// StopCluster stops the cluster of a folder, where it runs; nothing is lost. A copy of a
// folder does not stop the original's.
func StopCluster(ctx context.Context, dir string) error {
	bin, err := binaries()
	if err != nil {
		return err
	}
	c := &Cluster{bin: bin, root: os.Geteuid() == 0}
	if c.Dir, err = c.home(ctx, dir); err != nil {
		return err
	}
	if !c.alive() {
		return errors.New("no database of this folder is running")
	}
	out, err := c.asServer(ctx, "pg_ctl", "-D", c.data(), "-m", "fast", "-w", "stop").CombinedOutput()
	if err != nil {
		return fmt.Errorf("%v: %s", err, bytes.TrimSpace(out))
	}
	return nil
}

// StopCommand is the command that stops the server, for who outlives this
// program.
func (c *Cluster) StopCommand() []string {
	return c.asServer(context.Background(), "pg_ctl", "-D", c.data(), "-m", "fast", "-w", "stop").Args
}

func reach(ctx context.Context, u string) error {
	ctx, cancel := context.WithTimeout(ctx, 5*time.Second)
	defer cancel()
	conn, err := pgx.Connect(ctx, u)
	if err != nil {
		return err
	}
	return conn.Close(ctx)
}

func freePort(wanted string) (string, error) {
	l, err := net.Listen("tcp", "127.0.0.1:"+wanted)
	if err != nil {
		l, err = net.Listen("tcp", "127.0.0.1:0")
	}
	if err != nil {
		return "", err
	}
	defer l.Close()
	_, port, err := net.SplitHostPort(l.Addr().String())
	return port, err
}

// Database makes sure a database of that name is there and returns its URL.
func Database(ctx context.Context, server, name string) (string, error) {
	conn, err := pgx.Connect(ctx, server)
	if err != nil {
		return "", err
	}
	defer conn.Close(ctx)
	var there bool
	if err := conn.QueryRow(ctx, "select exists (select 1 from pg_database where datname = $1)",
		name).Scan(&there); err != nil {
		return "", err
	}
	if !there {
		var said *pgconn.PgError // another may make it at the same moment
		if _, err := conn.Exec(ctx, "create database "+pgx.Identifier{name}.Sanitize()); err != nil &&
			!(errors.As(err, &said) && (said.Code == "42P04" || said.Code == "23505")) {
			return "", err
		}
	}
	u, err := url.Parse(server)
	if err != nil {
		return "", err
	}
	u.Path = "/" + name
	return u.String(), nil
}
