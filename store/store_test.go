package store_test

import (
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"sync"
	"testing"
	"time"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/demo"
	"zapbarn/store"
	"zapbarn/testkit"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var (
	ctx   = context.Background()
	today = time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC)
)

func load(t *testing.T, s *store.Store, id string) *plan.Plan {
	p, _, err := s.Load(ctx, id)
	require.NoError(t, err)
	p, err = s.Whole(ctx, p)
	require.NoError(t, err)
	return p
}

func TestPlansRoundTripThroughRows(t *testing.T) {
	s := testkit.Open(t)
	want := demo.Apiary(today)
	require.NoError(t, s.Create(ctx, want, false))
	assert.Equal(t, want.Doc(), load(t, s, "midnight-apiary").Doc())
	assert.ErrorContains(t, s.Create(ctx, want, false), "already")
	require.NoError(t, s.Create(ctx, want, true))
	list, err := s.List(ctx)
	require.NoError(t, err)
	require.Len(t, list, 1)
	assert.Equal(t, "The Midnight Apiary", list[0].Name)
	require.NoError(t, s.Bin(ctx, "midnight-apiary", today))
	_, _, err = s.Load(ctx, "midnight-apiary")
	assert.ErrorIs(t, err, store.ErrNone)
	assert.ErrorIs(t, s.Bin(ctx, "midnight-apiary", today), store.ErrNone)
}

func TestUndoAndRedoEverything(t *testing.T) {
	s := testkit.Open(t)
	require.NoError(t, s.Create(ctx, demo.Apiary(today), false))
	id := "midnight-apiary"
	states := []string{string(load(t, s, id).Encode())}
	step := func(e func(p *plan.Plan) plan.Edit) {
		require.NoError(t, s.Apply(ctx, id, store.By{Who: "Ola"}, e(load(t, s, id))))
		states = append(states, string(load(t, s, id).Encode()))
	}
	step(func(p *plan.Plan) plan.Edit {
		d := *p.Device("W2")
		d.Gauge = measure.Must[measure.GaugeKind]("18 AWG")
		return plan.Edit{Label: "thicker", Changes: []plan.Change{p.Put("device", "W2", d)}}
	})
	step(func(p *plan.Plan) plan.Edit { return p.Without("prop", "keeper") }) // from the middle of its list
	step(func(p *plan.Plan) plan.Edit {
		return plan.Edit{
			Label:   "new",
			Changes: []plan.Change{p.Put("prop", "weathervane", plan.Prop{ID: "weathervane", Name: "Weathervane"})},
		}
	})
	steps, err := s.Steps(ctx, id, store.By{})
	require.NoError(t, err)
	assert.Equal(t, store.Steps{Undo: "new"}, steps)
	for i := len(states) - 2; i >= 0; i-- {
		_, err := s.Undo(ctx, id, store.By{})
		require.NoError(t, err)
		assert.Equal(t, states[i], string(load(t, s, id).Encode()))
	}
	_, err = s.Undo(ctx, id, store.By{})
	assert.ErrorIs(t, err, store.ErrNothing)
	for _, want := range states[1:] {
		_, err := s.Redo(ctx, id, store.By{})
		require.NoError(t, err)
		assert.Equal(t, want, string(load(t, s, id).Encode()))
	}
	_, err = s.Undo(ctx, id, store.By{})
	require.NoError(t, err)
	step(func(p *plan.Plan) plan.Edit {
		return plan.Edit{
			Label:   "other",
			Changes: []plan.Change{p.Put("lot", "epoxy5", plan.Lot{ID: "epoxy5", Glue: "epoxy5"})},
		}
	})
	_, err = s.Redo(ctx, id, store.By{})
	assert.ErrorIs(t, err, store.ErrNothing, "a new edit ends what could be redone")
	log, err := s.Log(ctx, id, 10)
	require.NoError(t, err)
	require.Len(t, log, 4)
	assert.Equal(t, "dropped", log[1].State)
}

func TestStaleEditChangesNothing(t *testing.T) {
	s := testkit.Open(t)
	require.NoError(t, s.Create(ctx, demo.Apiary(today), false))
	p := load(t, s, "midnight-apiary")
	a, b := *p.Device("S1"), *p.Device("S1")
	a.Product, b.Product = "ps12-5", "ps12-10"
	require.NoError(
		t,
		s.Apply(ctx, "midnight-apiary", store.By{Who: "Ola"}, plan.Edit{Label: "a",
			Changes: []plan.Change{p.Put("device", "S1", a)}}),
	)
	err := s.Apply(
		ctx,
		"midnight-apiary",
		store.By{Who: "Ira"},
		plan.Edit{Label: "b", Changes: []plan.Change{p.Put("device", "S1", b)}},
	)
	var stale *plan.Stale
	require.True(t, errors.As(err, &stale))
	assert.Equal(t, "ps12-5", load(t, s, "midnight-apiary").Device("S1").Product)
}

// Many at once on different elements: each lands, in some order.
func TestEditsAtOnce(t *testing.T) {
	s := testkit.Open(t)
	require.NoError(t, s.Create(ctx, demo.Apiary(today), false))
	p := load(t, s, "midnight-apiary")
	var wg sync.WaitGroup
	errs := make(chan error, 12)
	for i := range 12 {
		wg.Go(func() {
			d := p.Devices()[12+i]
			d.Proven = !d.Proven
			errs <- s.Apply(ctx, "midnight-apiary", store.By{Who: "crew"}, plan.Edit{Label: "x",
				Changes: []plan.Change{p.Put("device", d.ID, d)}})
		})
	}
	wg.Wait()
	close(errs)
	for err := range errs {
		assert.NoError(t, err)
	}
	_, rev, err := s.Load(ctx, "midnight-apiary")
	require.NoError(t, err)
	assert.EqualValues(t, 12, rev.Rev)
}

// The database itself refuses what no plan may hold.
func TestDatabaseKeepsItsOwnConstraints(t *testing.T) {
	url := testkit.Database(t)
	s, err := store.Open(ctx, url)
	require.NoError(t, err)
	defer s.Close()
	require.NoError(t, s.Create(ctx, demo.Apiary(today), false))
	conn, err := pgx.Connect(ctx, url)
	require.NoError(t, err)
	defer conn.Close(ctx)
	insert := `insert into elements(plan_id,kind,id,seq,body) values ('midnight-apiary',%s)`
	for what, q := range map[string]string{
		"own id":       fmt.Sprintf(insert, `'prop','a',9,'{"id":"b"}'`),
		"twice":        fmt.Sprintf(insert, `'prop','gate',9,'{"id":"gate"}'`),
		"no object":    fmt.Sprintf(insert, `'prop','a',9,'[]'`),
		"no kind":      fmt.Sprintf(insert, `'Prop 1','a',9,'{"id":"a"}'`),
		"two displays": fmt.Sprintf(insert, `'display','a',9,'{"id":"a"}'`),
		"a long id":    fmt.Sprintf(insert, `'prop',repeat('é',121),9,jsonb_build_object('id',repeat('é',121))`),
		"no plan":      `insert into elements(plan_id,kind,id,seq,body) values ('nowhere','prop','a',9,'{"id":"a"}')`,
		"too large":    fmt.Sprintf(insert, `'prop','a',9,jsonb_build_object('id','a','x',repeat('x',4194304))`),
	} {
		_, err := conn.Exec(ctx, q)
		assert.Error(t, err, what)
	}
	_, err = conn.Exec(ctx, fmt.Sprintf(insert, `'prop',repeat('é',120),9,jsonb_build_object('id',repeat('é',120))`))
	assert.NoError(t, err, "as long as core lets it be, in letters")
}

// A second start finds the cluster; stopping and starting loses nothing.
func TestClusterStartsTwiceStopsAndKeeps(t *testing.T) {
	dir, err := os.MkdirTemp("", "zapbarn-cluster")
	require.NoError(t, err)
	require.NoError(t, os.Chmod(dir, 0o755))
	defer os.RemoveAll(dir)
	dir = filepath.Join(dir, "data")
	one, err := store.StartCluster(ctx, dir, nil)
	require.NoError(t, err)
	defer store.StopCluster(ctx, dir)
	two, err := store.StartCluster(ctx, dir, nil)
	require.NoError(t, err)
	assert.Equal(t, one.URL, two.URL)
	url, err := store.Database(ctx, one.URL, "zapbarn")
	require.NoError(t, err)
	s, err := store.Open(ctx, url)
	require.NoError(t, err)
	require.NoError(t, s.Create(ctx, demo.Apiary(today), false))
	require.NoError(t, store.StopCluster(ctx, dir))
	assert.ErrorIs(t, s.Ping(ctx), store.ErrDown)
	_, _, err = s.Load(ctx, "midnight-apiary")
	assert.ErrorIs(t, err, store.ErrDown)
	_ = s.Close()
	again, err := store.StartCluster(ctx, dir, nil)
	require.NoError(t, err)
	url, err = store.Database(ctx, again.URL, "zapbarn")
	require.NoError(t, err)
	s, err = store.Open(ctx, url)
	require.NoError(t, err)
	defer s.Close()
	assert.Equal(t, demo.Apiary(today).Doc(), load(t, s, "midnight-apiary").Doc())
}
