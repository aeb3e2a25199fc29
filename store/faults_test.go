package store_test

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"net"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"

	"zapbarn/core/check"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/store"
	"zapbarn/testkit"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// odd are values that no form sends and a file may hold.
var odd = []any{
	"",
	" ",
	"\x00",
	"a\x00b",
	"\ufffd",
	"étage",
	"=1+1",
	"=pet",
	"gate",
	"S1",
	"W2",
	"riser-box",
	"riser-box/front",
	"nope",
	"1e308 in",
	"-5 V",
	"0 A",
	"1 in",
	"9000 ft",
	"4'6\"",
	"100%",
	"sphere",
	"0,0 1,1",
	"0,0 9,0 9,9",
	"9@9in",
	"one-shot",
	"rect",
	"2026-13-45",
	strings.Repeat("é", 121),
	strings.Repeat("x", 5000),
	-1.0,
	0.0,
	7.0,
	1e9,
	true,
	nil,
	[]any{},
	map[string]any{},
}

// mutated is the demo with some of it taken away, doubled, exchanged, or put
// to odd values: plans by the schema, mostly broken.
func mutated(t *rapid.T, base []byte) []byte {
	var doc map[string]any
	if err := json.Unmarshal(base, &doc); err != nil {
		t.Fatal(err)
	}
	var lists []string
	for k, v := range doc {
		if l, ok := v.([]any); ok && len(l) > 0 {
			lists = append(lists, k)
		}
	}
	slices.Sort(lists)
	var fields func(v any) []func(any)
	fields = func(v any) (out []func(any)) {
		switch x := v.(type) {
		case map[string]any:
			keys := make([]string, 0, len(x))
			for k := range x {
				keys = append(keys, k)
			}
			slices.Sort(keys)
			for _, k := range keys {
				out = append(out, func(n any) { x[k] = n })
				out = append(out, fields(x[k])...)
			}
		case []any:
			for i := range x {
				out = append(out, fields(x[i])...)
			}
		}
		return out
	}
	for range rapid.IntRange(1, 4).Draw(t, "changes") {
		list := rapid.SampledFrom(lists).Draw(t, "list")
		l := doc[list].([]any)
		if len(l) == 0 {
			continue
		}
		i := rapid.IntRange(0, len(l)-1).Draw(t, "element")
		switch rapid.IntRange(0, 6).Draw(t, "how") {
		case 0:
			doc[list] = append(l[:i:i], l[i+1:]...)
		case 1:
			b, _ := json.Marshal(l[i])
			var c map[string]any
			_ = json.Unmarshal(b, &c)
			if rapid.Bool().Draw(t, "own id") {
				c["id"] = fmt.Sprintf("copy-%d", i)
			}
			doc[list] = append(l[:len(l):len(l)], c)
		default:
			if set := fields(l[i]); len(set) > 0 {
				set[rapid.IntRange(0, len(set)-1).Draw(t, "field")](rapid.SampledFrom(odd).Draw(t, "value"))
			}
		}
	}
	b, err := json.Marshal(doc)
	if err != nil {
		t.Fatal(err)
	}
	return b
}

// Whatever core accepts the database accepts, gives back the same, and is
// worked out and checked without a panic; the rest is refused by core with a
// sentence.
func TestWhatCoreAcceptsIsStored(t *testing.T) {
	s := testkit.Open(t)
	base := demo.Apiary(today).Encode()
	accepted := 0
	rapid.Check(t, func(t *rapid.T) {
		p, err := plan.Decode(mutated(t, base))
		if err != nil {
			if len(err.Error()) < 8 || strings.Contains(err.Error(), "SQL") {
				t.Fatalf("refused with %q", err)
			}
			return
		}
		accepted++
		if err := s.Create(ctx, p, true); err != nil {
			t.Fatalf("core accepted it, the database did not: %v", err)
		}
		back, _, err := s.Load(ctx, p.Display().ID)
		if err == nil {
			back, err = s.Whole(ctx, back)
		}
		if err != nil || !bytes.Equal(back.Encode(), p.Encode()) {
			t.Fatalf("not the same again: %v", err)
		}
		check.Check(work.Do(p, shop.Kept, today))
	})
	assert.Greater(t, accepted, 3, "not all are refused")
}

// own is a cluster in a folder of its own.
func own(t *testing.T) string {
	dir, err := os.MkdirTemp("", "zapbarn-cluster")
	require.NoError(t, err)
	require.NoError(t, os.Chmod(dir, 0o755))
	dir = filepath.Join(dir, "data")
	t.Cleanup(func() {
		_ = store.StopCluster(context.Background(), dir)
		os.RemoveAll(filepath.Dir(dir))
	})
	return dir
}

// postmaster is the process of a cluster's server.
func postmaster(t *testing.T, c *store.Cluster) int {
	b, err := os.ReadFile(filepath.Join(c.Dir, "pgdata", "postmaster.pid"))
	require.NoError(t, err)
	pid, err := strconv.Atoi(strings.Fields(string(b))[0])
	require.NoError(t, err)
	return pid
}

// kill ends a server and all it started, at once, as a power cut does.
func kill(t *testing.T, c *store.Cluster) {
	pid := postmaster(t, c)
	out, _ := exec.Command("pgrep", "-P", strconv.Itoa(pid)).Output()
	_ = syscall.Kill(pid, syscall.SIGKILL)
	for _, child := range strings.Fields(string(out)) {
		if n, err := strconv.Atoi(child); err == nil {
			_ = syscall.Kill(n, syscall.SIGKILL)
		}
	}
}

// Four first starts on one fresh folder: one makes it, three wait and join; all
// bring the schema up to date at once.
func TestFourFirstStarts(t *testing.T) {
	dir := own(t)
	var wg sync.WaitGroup
	urls, errs := make([]string, 4), make([]error, 4)
	for i := range 4 {
		wg.Go(func() {
			c, err := store.StartCluster(ctx, dir, nil)
			if err == nil {
				urls[i], err = store.Database(ctx, c.URL, "zapbarn")
			}
			if err == nil {
				var s *store.Store
				if s, err = store.Open(ctx, urls[i]); err == nil {
					_, err = s.List(ctx)
					s.Close()
				}
			}
			errs[i] = err
		})
	}
	wg.Wait()
	for i := range 4 {
		assert.NoError(t, errs[i])
		assert.Equal(t, urls[0], urls[i])
	}
}

// After a crash the first start works, and says that it waits. A store that was
// open finds its database again, on the port it moved to; what was acknowledged
// is there.
func TestFirstStartAfterACrashAndAMovedPort(t *testing.T) {
	dir := own(t)
	c, err := store.StartCluster(ctx, dir, nil)
	require.NoError(t, err)
	url, err := store.Database(ctx, c.URL, "zapbarn")
	require.NoError(t, err)
	s, err := store.Open(ctx, url, c.PortFile())
	require.NoError(t, err)
	defer s.Close()
	require.NoError(t, s.Create(ctx, demo.Apiary(today), false))
	rounds := 2
	if os.Getenv("ZAPBARN_SLOW") != "" {
		rounds = 40
	}
	acknowledged := 0
	for round := range rounds {
		stop := make(chan struct{})
		var wg sync.WaitGroup
		wg.Go(func() { // edits until the database is gone
			for {
				select {
				case <-stop:
					return
				default:
				}
				name := fmt.Sprintf("Edit %d", acknowledged+1)
				_, err := s.Edit(ctx, "midnight-apiary", store.By{}, func(p *plan.Plan) (plan.Edit, error) {
					d := p.Display()
					d.Name = name
					return plan.Edit{Label: name, Changes: []plan.Change{p.Put("display", d.ID, d)}}, nil
				})
				if err == nil {
					acknowledged++
				}
			}
		})
		time.Sleep(time.Duration(100+round*7) * time.Millisecond)
		port, err := os.ReadFile(c.PortFile())
		require.NoError(t, err)
		kill(t, c)
		close(stop)
		wg.Wait()
		// its port is taken by something else meanwhile
		var taken net.Listener
		for range 50 {
			if taken, err = net.Listen("tcp", "127.0.0.1:"+strings.TrimSpace(string(port))); err == nil {
				break
			}
			time.Sleep(50 * time.Millisecond)
		}
		require.NoError(t, err)
		c, err = store.StartCluster(ctx, dir, nil)
		require.NoError(t, err, "the first start after a crash")
		now, err := os.ReadFile(c.PortFile())
		require.NoError(t, err)
		assert.NotEqual(t, string(port), string(now))
		taken.Close()
		var p *plan.Plan
		require.Eventually(
			t,
			func() bool { p, _, err = s.Load(ctx, "midnight-apiary"); return err == nil },
			20*time.Second,
			50*time.Millisecond,
			"the open store finds it again",
		)
		var n int
		_, _ = fmt.Sscanf(p.Display().Name, "Edit %d", &n)
		assert.GreaterOrEqual(t, n, acknowledged, "nothing acknowledged is lost")
		acknowledged = n // one under way may have landed
	}
	t.Logf("%d kill rounds, %d acknowledged edits, none lost", rounds, acknowledged)
}

// A wrong password, a wrong name, a wrong address say so, without the
// database's own text.
func TestUnreachableIsSaidPlainly(t *testing.T) {
	url := testkit.Database(t)
	for from, want := range map[string]string{
		strings.Replace(url, "zapbarn:", "zapbarn:x", 1): "refuses the name or password",
		url + "-none":                                      "has no database of that name",
		"postgres://zapbarn:x@127.0.0.1:1/x":               "nothing answers at 127.0.0.1:1",
		"postgres://zapbarn:x@no-such-host.invalid:5432/x": "no host no-such-host.invalid",
		"postgres://:::/":                                  "not understood",
	} {
		if strings.HasSuffix(from, "-none") {
			from = strings.Replace(url, "?", "-none?", 1)
		}
		_, err := store.Open(ctx, from)
		require.Error(t, err, want)
		assert.Contains(t, err.Error(), want)
		assert.NotContains(t, err.Error(), "SQLSTATE")
	}
}
