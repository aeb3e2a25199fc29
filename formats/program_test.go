package formats

import (
	"bytes"
	"context"
	"fmt"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"sort"
	"strings"
	"testing"

	"zapbarn/core/show"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// streams are how many seeded streams of contacts each program is run over.
const streams = 2000

// The program that is handed over does what the simulator does: compiled with g++ against
// a board that is made up, its outputs change in the same milliseconds to the same levels
// over two thousand seeded streams of contacts, on every prop of the demo and on a machine
// with everything in it.
func TestProgramIsTheSimulator(t *testing.T) {
	gpp, err := exec.LookPath("g++")
	if err != nil {
		if os.Getenv("ZAPBARN_NEED_TOOLS") != "" {
			t.Fatal("g++ is missing")
		}
		t.Skip("g++ is not here")
	}
	for _, prop := range []string{"riser", "keeper", "gate", ""} {
		t.Run("prop "+prop, func(t *testing.T) {
			t.Parallel()
			w := work.Do(demo.Apiary(today), shop.Kept, today) // its own: it is changed below
			c, err := ControllerOf(w, prop)
			require.NoError(t, err)
			if prop == "" {
				everything(c)
			}
			same(t, gpp, c)
		})
	}
}

// everything gives a machine each latch, shape, rule, state and source there is.
func everything(c *Controller) {
	m := &c.Machine
	for i := range m.Scenes {
		for k := range m.Scenes[i].Cues {
			q := &m.Scenes[i].Cues[k]
			q.Shape, q.Level = show.Shapes[(i+k)%len(show.Shapes)], (37*(i+k))%101
		}
	}
	for i := range m.Triggers {
		m.Triggers[i].Latch = show.Latches[i%4]
	}
	m.Channels[0].Rule, m.Channels[1].Rule = show.Latest, show.Priority
	m.Channels[2].Never, m.Channels[3].Never = m.Channels[3].ID, m.Channels[4].ID
	m.State = "shut"
	id := m.Scenes[0].ID
	add := func(in show.Input, tr show.Trigger) {
		in.ID = m.Inputs[0].ID // its name in the comments
		m.Inputs = append(m.Inputs, in)
		m.Inputs[len(m.Inputs)-1].ID = fmt.Sprintf("own-%d", len(m.Inputs))
		tr.Input, tr.ID = m.Inputs[len(m.Inputs)-1].ID, fmt.Sprintf("own-%d", len(m.Triggers))
		m.Triggers = append(m.Triggers, tr)
		c.work.Plan.Doc().Inputs = append(c.work.Plan.Inputs(), c.work.Plan.Inputs()[0])
		c.work.Plan.Inputs()[len(c.work.Plan.Inputs())-1].ID = tr.Input
	}
	add(
		show.Input{Kind: show.Timer, Every: 7300},
		show.Trigger{Scene: m.Scenes[1].ID, Latch: show.OneShot, Then: "open"},
	)
	add(
		show.Input{Kind: show.Timer, Every: 2100, State: "open"},
		show.Trigger{Scene: id, Latch: show.Set, Then: "shut"},
	)
	add(
		show.Input{Kind: show.Ended, Scene: id},
		show.Trigger{Scene: m.Scenes[2].ID, Latch: show.OneShot, While: "shut"},
	)
	add(
		show.Input{Kind: show.Began, Scene: m.Scenes[2].ID},
		show.Trigger{Scene: m.Scenes[3].ID, Latch: show.Retrigger},
	)
	add(show.Input{Kind: show.Power}, show.Trigger{Scene: m.Scenes[2].ID, Latch: show.OneShot})
	m.Triggers = append(
		m.Triggers,
		show.Trigger{ID: "stop", Input: m.Inputs[0].ID, Scene: id, Latch: show.Reset},
	)
	m.Inputs[1].Closed = true
}

func same(t *testing.T, gpp string, c *Controller) {
	require.NoError(t, c.Machine.Check())
	dir := t.TempDir()
	var src bytes.Buffer
	require.NoError(t, c.Program(&src))
	host, err := os.ReadFile("testdata/host.cpp.txt")
	require.NoError(t, err)
	for name, data := range map[string][]byte{"program.cpp": src.Bytes(), "hardware.h": []byte(hardwareText),
		"host.cpp": host} {
		require.NoError(t, os.WriteFile(filepath.Join(dir, name), data, 0o644))
	}
	bin := filepath.Join(dir, "host")
	out, err := exec.Command(gpp, "-std=c++17", "-O2", "-Wall", "-Wextra", "-Werror", "-o", bin,
		filepath.Join(dir, "host.cpp")).
		CombinedOutput()
	require.NoError(t, err, "%s", out)
	var feed bytes.Buffer
	var want []string
	for seed := range streams {
		stim, until := stream(c.Machine, uint64(seed))
		tr, contacts := c.Machine.Contacts(stim, until)
		var edges []string
		for i, in := range c.Machine.Inputs {
			if in.Mover != "" && in.Below {
				edges = append(edges, fmt.Sprintf("0 %d 2", i))
			}
			for _, s := range contacts {
				if s.Input == in.ID {
					down := 0
					if s.Down {
						down = 1
					}
					edges = append(edges, fmt.Sprintf("%d %d %d", s.At, i, down))
				}
			}
		}
		sort.SliceStable(edges, func(i, j int) bool {
			var a, b int
			fmt.Sscan(edges[i], &a)
			fmt.Sscan(edges[j], &b)
			return a < b
		})
		fmt.Fprintf(&feed, "%d %d\n%s\n", until, len(edges), strings.Join(edges, "\n"))
		want = append(want, outputs(c.Machine, tr))
	}
	cmd := exec.Command(bin)
	cmd.Stdin = &feed
	got, err := cmd.Output()
	require.NoError(t, err)
	runs := strings.Split(strings.TrimSuffix(string(got), "end\n"), "end\n")
	require.Len(t, runs, streams)
	changes := 0
	for i := range runs {
		require.Equal(t, want[i], runs[i], "stream %d", i)
		changes += strings.Count(runs[i], "\n")
	}
	assert.Greater(t, changes, streams, "something happened")
}

// stream is twelve seconds of contacts, drawn by seed, no two of one input in one moment.
func stream(m show.Machine, seed uint64) (out []show.Stimulus, until int) {
	rng := rand.New(rand.NewPCG(seed, 99))
	until = 12_000
	for _, in := range m.Inputs {
		if in.Kind != show.Contact || in.Mover != "" {
			continue
		}
		t := rng.IntN(3000)
		for t < until {
			held := 1 + rng.IntN(60)
			if rng.IntN(2) == 0 {
				held = 1 + rng.IntN(2500)
			}
			out = append(out, show.Press(in.ID, t, held)...)
			t += held + 1 + rng.IntN(40)
			if rng.IntN(3) > 0 {
				t += rng.IntN(5000)
			}
		}
	}
	sort.SliceStable(out, func(i, j int) bool { return out[i].At < out[j].At })
	return out, until
}

// outputs is a trace as the board prints it: within a moment by channel.
func outputs(m show.Machine, tr show.Trace) string {
	at := map[string]int{}
	for i, c := range m.Channels {
		at[c.ID] = i
	}
	var b strings.Builder
	for _, e := range tr.Events {
		if ch, ok := at[e.Who]; ok && (e.What == "on" || e.What == "off" || e.What == "level") {
			fmt.Fprintf(&b, "%d %d %d\n", e.At, ch, e.Level)
		}
	}
	return b.String()
}

func TestPinsAndCueLists(t *testing.T) {
	p := demo.Apiary(today).In(shop.Kept)
	p.Device("K12").Pin = 3
	w := work.Do(p, shop.Kept, today)
	c, err := ControllerOf(w, "riser")
	require.NoError(t, err)
	seen := map[int]bool{}
	for _, x := range c.Pins {
		assert.False(t, seen[x.Pin], "pin %d twice", x.Pin)
		assert.GreaterOrEqual(t, x.Pin, firstPin)
		seen[x.Pin] = true
	}
	assert.Equal(t, 3, c.pin("K12"))
	_, err = ControllerOf(w, "skep")
	assert.ErrorContains(t, err, "nothing starts anything here yet")
	var b bytes.Buffer
	require.NoError(t, CueListCSV(&b, w, ""))
	e, err := ReadCueList(context.Background(), b.Bytes(), w, "")
	require.NoError(t, err)
	q, err := p.Apply(e)
	require.NoError(t, err)
	v := work.Do(q, shop.Kept, today)
	var again bytes.Buffer
	require.NoError(t, CueListCSV(&again, v, ""))
	assert.Equal(t, b.String(), again.String(), "both ways")
	var js bytes.Buffer
	require.NoError(t, CueListJSON(&js, w, "riser"))
	e, err = ReadCueList(context.Background(), js.Bytes(), w, "riser")
	require.NoError(t, err)
	q, err = p.Apply(e)
	require.NoError(t, err)
	var twice bytes.Buffer
	require.NoError(t, CueListJSON(&twice, work.Do(q, shop.Kept, today), "riser"))
	assert.Equal(t, js.String(), twice.String(), "both ways, as JSON")
	for text, want := range map[string]string{
		"[{\"scene\":\"Hum\"}]": "row 2", "[{\"tune\":\"Hum\"}]": "is no cue list",
		"scene,channel,start,length\nNo,K1,0 s,1 s":          `row 2: there is no scene "No"`,
		"scene,channel,start,length\nHum,Moon,0 s,1 s":       `row 2: "Moon" is no switch`,
		"scene,channel,start,length\nHum,K12,soon,1 s":       "row 2",
		"scene,channel,start,length,a,b\nHum,K12,0 s,1 s,,x": "row 2",
		"hello": "wants the columns",
	} {
		_, err := ReadCueList(context.Background(), []byte(text), w, "")
		assert.ErrorContains(t, err, want)
	}
}
