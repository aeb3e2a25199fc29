package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"net"
	"net/http"
	"os"
	"os/signal"
	"path/filepath"
	"syscall"
	"time"

	"zapbarn/core/check"
	"zapbarn/core/memo"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/core/words"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/store"
	"zapbarn/web"
	"zapbarn/web/displays"

	"github.com/spf13/cobra"
)

// settings are given by flags, or else by the environment.
type settings struct {
	addr, data, database string
}

func (s *settings) flags(c *cobra.Command) {
	env := func(name, def string) string {
		if v := os.Getenv(name); v != "" {
			return v
		}
		return def
	}
	c.Flags().
		StringVar(&s.addr, "addr", env("ZAPBARN_ADDR", "127.0.0.1:8480"), "loopback address to serve on (ZAPBARN_ADDR)")
	c.Flags().
		StringVar(&s.data, "data", env("ZAPBARN_DATA", ".data"), "folder for the private database cluster (ZAPBARN_DATA)")
	c.Flags().
		StringVar(&s.database, "database-url", env("ZAPBARN_DATABASE_URL", ""), "use this PostgreSQL instead of a private "+
			"cluster (ZAPBARN_DATABASE_URL)")
}

// open finds or starts the database and opens the store.
func (s *settings) open(ctx context.Context, say io.Writer) (*store.Store, error) {
	url, port, err := s.found(ctx, say)
	if err != nil {
		return nil, err
	}
	return store.Open(ctx, url, port...)
}

// found is the address of the database, its server started where it is a private one; port is
// the file that says where it listens.
func (s *settings) found(ctx context.Context, say io.Writer) (url string, port []string, err error) {
	if s.database != "" {
		return s.database, nil, nil
	}
	server, err := store.StartCluster(
		ctx,
		filepath.Join(s.data, "postgres"),
		func(line string) { fmt.Fprintln(say, line) },
	)
	if err != nil {
		return "", nil, err
	}
	url, err = store.Database(ctx, server.URL, "zapbarn")
	return url, []string{server.PortFile()}, err
}

// listen refuses any address but loopback: accounts are not built yet.
func (s *settings) listen() (net.Listener, error) {
	host, _, err := net.SplitHostPort(s.addr)
	if err != nil {
		return nil, fmt.Errorf("--addr: %q is not host:port; write such as 127.0.0.1:8480", s.addr)
	}
	if ip := net.ParseIP(host); host != "localhost" && (ip == nil || !ip.IsLoopback()) {
		return nil, fmt.Errorf(
			"--addr: %q is not loopback; this version has no accounts, so it serves 127.0.0.1 only",
			s.addr,
		)
	}
	l, err := net.Listen("tcp", s.addr)
	if errors.Is(err, syscall.EADDRINUSE) {
		return nil, fmt.Errorf(
			"--addr: something serves at %s already; open it in the browser, or choose another such as 127.0.0.1:8481",
			s.addr,
		)
	}
	if err != nil {
		return nil, fmt.Errorf("--addr: %w; choose another such as 127.0.0.1:8481", err)
	}
	return l, nil
}

// serve answers on a listener that was taken before the database was started.
func (s *settings) serve(ctx context.Context, out io.Writer, l net.Listener, st *store.Store, path string) error {
	bench := memo.NewBench()
	defer bench.Close()
	site, err := web.New(st.In(stock.Shop.On(bench)), time.Now)
	if err != nil {
		return err
	}
	srv := &http.Server{
		Handler:           site.Handler(),
		ReadHeaderTimeout: 10 * time.Second,
		ReadTimeout:       time.Minute,
		IdleTimeout:       2 * time.Minute,
	}
	fmt.Fprintf(out, "Zap Barn is open at http://%s%s\n", l.Addr(), path)
	fmt.Fprintln(out, "Ctrl C closes it; what was saved stays.")
	ctx, stop := signal.NotifyContext(ctx, os.Interrupt, syscall.SIGTERM)
	defer stop()
	done := make(chan error, 1)
	go func() { done <- srv.Serve(l) }()
	select {
	case err := <-done:
		return err
	case <-ctx.Done():
		end, cancel := context.WithTimeout(context.Background(), 5*time.Second)
		defer cancel()
		return srv.Shutdown(end)
	}
}

func serveCommand() *cobra.Command {
	var s settings
	c := &cobra.Command{
		Use:   "serve",
		Short: "starts the database and serves the barn",
		Args:  cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			l, err := s.listen()
			if err != nil {
				return err
			}
			defer l.Close()
			st, err := s.open(cmd.Context(), cmd.ErrOrStderr())
			if err != nil {
				return err
			}
			defer st.Close()
			return s.serve(cmd.Context(), cmd.OutOrStdout(), l, st, "/")
		},
	}
	s.flags(c)
	return c
}

func demoCommand() *cobra.Command {
	var s settings
	var fresh, loadOnly bool
	c := &cobra.Command{
		Use:   "demo",
		Short: "loads the Midnight Apiary, when it is not there, and serves it",
		Args:  cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			ctx := cmd.Context()
			var l net.Listener
			if !loadOnly {
				var err error
				if l, err = s.listen(); err != nil {
					return err
				}
				defer l.Close()
			}
			st, err := s.open(ctx, cmd.ErrOrStderr())
			if err != nil {
				return err
			}
			defer st.Close()
			for _, p := range []*plan.Plan{demo.Apiary(time.Now()), demo.Metric(time.Now())} {
				_, _, err := st.Load(ctx, p.Display().ID)
				if errors.Is(err, store.ErrNone) || fresh {
					err = st.Create(ctx, p, true)
				}
				if err != nil {
					return err
				}
			}
			if loadOnly {
				return nil
			}
			return s.serve(ctx, cmd.OutOrStdout(), l, st, "/p/midnight-apiary")
		},
	}
	s.flags(c)
	c.Flags().BoolVar(&fresh, "fresh", false, "put the demo back to how it ships")
	c.Flags().BoolVar(&loadOnly, "load-only", false, "load it and stop")
	return c
}

func importCommand() *cobra.Command {
	var s settings
	var replace, keepLog bool
	c := &cobra.Command{
		Use:   "import FILE",
		Short: "stores a plan file",
		Args:  cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			p, log, err := readDisplay(args[0])
			if err != nil {
				return exit{2, err}
			}
			if !keepLog {
				log = nil
			}
			st, err := s.open(cmd.Context(), cmd.ErrOrStderr())
			if err != nil {
				return err
			}
			defer st.Close()
			if err := st.CreateWithLog(cmd.Context(), p, log, replace); err != nil {
				return err
			}
			fmt.Fprintln(cmd.OutOrStdout(), "stored", p.Display().ID, "with", words.Count(len(log), "edit"), "in its log")
			return nil
		},
	}
	s.flags(c)
	c.Flags().BoolVar(&replace, "replace", false, "let it take the place of one with the same ID, which goes to the bin")
	c.Flags().BoolVar(&keepLog, "log", false, "keep the log of edits that the file holds")
	return c
}

func exportCommand() *cobra.Command {
	var s settings
	var page, withLog bool
	c := &cobra.Command{
		Use:   "export ID",
		Short: "prints a stored plan as JSON, or as a page to take along",
		Args:  cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			st, err := s.open(cmd.Context(), cmd.ErrOrStderr())
			if err != nil {
				return err
			}
			defer st.Close()
			p, _, err := st.Load(cmd.Context(), args[0])
			if err != nil {
				return err
			}
			if p, err = st.Whole(cmd.Context(), p); err != nil {
				return err
			}
			if withLog {
				log, err := st.WholeLog(cmd.Context(), args[0])
				if err != nil {
					return err
				}
				return store.WriteDisplay(cmd.OutOrStdout(), p, log)
			}
			if page {
				w := work.Do(p, stock.Shop, time.Now())
				return displays.WriteAlong(cmd.OutOrStdout(), w, check.Check(w), time.Now().Format("2 January 2006"))
			}
			_, err = cmd.OutOrStdout().Write(p.Encode())
			return err
		},
	}
	s.flags(c)
	c.Flags().BoolVar(&withLog, "log", false, "with its log of edits, for import --log")
	c.Flags().BoolVar(&page, "page", false, "as one read-only HTML page with drawings, lists and snags")
	return c
}

func doctorCommand() *cobra.Command {
	var s settings
	c := &cobra.Command{
		Use:   "doctor",
		Short: "says whether the database and the demo work here",
		Args:  cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			out := cmd.OutOrStdout()
			st, err := s.open(cmd.Context(), cmd.ErrOrStderr())
			if err != nil {
				fmt.Fprintln(out, "database: no:", err)
				return exit{1, nil}
			}
			defer st.Close()
			list, err := st.List(cmd.Context())
			if err != nil {
				fmt.Fprintln(out, "database: no:", err)
				return exit{1, nil}
			}
			fmt.Fprintf(out, "database: answers, %d displays\n", len(list))
			return nil
		},
	}
	s.flags(c)
	return c
}

func stopCommand() *cobra.Command {
	var s settings
	c := &cobra.Command{
		Use:   "stop",
		Short: "stops the private database; nothing is lost",
		Args:  cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			return store.StopCluster(cmd.Context(), filepath.Join(s.data, "postgres"))
		},
	}
	s.flags(c)
	return c
}
