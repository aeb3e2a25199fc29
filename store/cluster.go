package store

import (
	"bytes"
	"context"
	"crypto/rand"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"fmt"
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
)

// Cluster is a private PostgreSQL server below a data folder, on a free
// loopback port, with its own password.
type Cluster struct {
	Dir  string // holds pgdata, port and password
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
	return "", errors.New("no PostgreSQL server programs found; run: apt-get install postgresql, or give --database-url")
}

func version(path string) int {
	n, _ := strconv.Atoi(filepath.Base(filepath.Dir(filepath.Dir(path))))
	return n
}

// StartCluster starts the cluster below dir, making it on first use, and finds
// it when it already runs. It returns the URL of its database. As root, the
// server runs as the postgres user; where that user cannot reach dir, the
// cluster lies in /var/lib/zapbarn instead, and dir keeps a note of it.
func StartCluster(ctx context.Context, dir string) (string, error) {
	bin, err := binaries()
	if err != nil {
		return "", err
	}
	dir, err = filepath.Abs(dir)
	if err != nil {
		return "", err
	}
	c := &Cluster{Dir: dir, bin: bin, root: os.Geteuid() == 0}
	if c.root {
		if err := os.MkdirAll(dir, 0o755); err != nil {
			return "", err
		}
		if exec.CommandContext(ctx, "runuser", "-u", "postgres", "--", "test", "-x", dir).Run() != nil {
			sum := sha256.Sum256([]byte(dir))
			c.Dir = filepath.Join("/var/lib/zapbarn", hex.EncodeToString(sum[:8]))
			if err := os.MkdirAll(c.Dir, 0o755); err != nil {
				return "", err
			}
			_ = os.WriteFile(filepath.Join(dir, "moved"), []byte(c.Dir+"\n"), 0o644)
		}
	} else if err := os.MkdirAll(dir, 0o755); err != nil {
		return "", err
	}
	return c.start(ctx)
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

func (c *Cluster) start(ctx context.Context) (string, error) {
	unlock, err := lock(filepath.Join(c.Dir, "lock"))
	if err != nil {
		return "", err
	}
	defer unlock()
	pass := filepath.Join(c.Dir, "password")
	if _, err := os.Stat(filepath.Join(c.data(), "PG_VERSION")); err != nil {
		if err := c.initialise(ctx, pass); err != nil {
			return "", err
		}
	}
	secret, err := os.ReadFile(pass)
	if err != nil {
		return "", err
	}
	last := "0"
	if port, err := os.ReadFile(filepath.Join(c.Dir, "port")); err == nil {
		last = strings.TrimSpace(string(port))
		u := c.url(last, string(secret))
		if reach(ctx, u) == nil {
			return u, nil
		}
	}
	port, err := freePort(last) // the last one when it is free, so that open programs find it again
	if err != nil {
		return "", err
	}
	opts := fmt.Sprintf("-p %s -c listen_addresses=127.0.0.1 -c unix_socket_directories= -c log_min_messages=warning", port)
	out, err := c.asServer(ctx, "pg_ctl", "-D", c.data(), "-l", filepath.Join(c.data(), "server.log"), "-w", "-t", "60", "-o", opts, "start").CombinedOutput()
	if err != nil {
		return "", fmt.Errorf("the database did not start: %v: %s", err, bytes.TrimSpace(out))
	}
	if err := os.WriteFile(filepath.Join(c.Dir, "port"), []byte(port), 0o644); err != nil {
		return "", err
	}
	u := c.url(port, string(secret))
	return u, reach(ctx, u)
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
	out, err := c.asServer(ctx, "initdb", "-D", c.data(), "-U", "zapbarn", "-A", "scram-sha-256", "--pwfile", pass, "-E", "UTF8", "--locale=C.UTF-8", "--no-sync").CombinedOutput()
	if err != nil {
		return fmt.Errorf("the database could not be made: %v: %s", err, bytes.TrimSpace(out))
	}
	return nil
}

func (c *Cluster) url(port, secret string) string {
	u := url.URL{Scheme: "postgres", User: url.UserPassword("zapbarn", strings.TrimSpace(secret)), Host: "127.0.0.1:" + port, Path: "/postgres", RawQuery: "sslmode=disable"}
	return u.String()
}

// StopCluster stops the cluster below dir; nothing is lost.
func StopCluster(ctx context.Context, dir string) error {
	bin, err := binaries()
	if err != nil {
		return err
	}
	dir, _ = filepath.Abs(dir)
	if moved, err := os.ReadFile(filepath.Join(dir, "moved")); err == nil {
		dir = strings.TrimSpace(string(moved))
	}
	c := &Cluster{Dir: dir, bin: bin, root: os.Geteuid() == 0}
	out, err := c.asServer(ctx, "pg_ctl", "-D", c.data(), "-m", "fast", "-w", "stop").CombinedOutput()
	if err != nil {
		return fmt.Errorf("%v: %s", err, bytes.TrimSpace(out))
	}
	return nil
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
	if err := conn.QueryRow(ctx, "select exists (select 1 from pg_database where datname = $1)", name).Scan(&there); err != nil {
		return "", err
	}
	if !there {
		if _, err := conn.Exec(ctx, "create database "+pgx.Identifier{name}.Sanitize()); err != nil {
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
