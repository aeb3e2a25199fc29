package store_test

import (
	"testing"

	"zapbarn/core/plan"
	"zapbarn/demo"
	"zapbarn/store"
	"zapbarn/testkit"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// renamed is an edit of the display itself.
func renamed(t *testing.T, s *store.Store, id, name string, by store.By) {
	p := load(t, s, id)
	d := p.Display()
	d.Name = name
	require.NoError(t, s.Apply(ctx, id, by, plan.Edit{Label: name, Changes: []plan.Change{p.Put("display", id, d)}}))
}

// A display that is taken away lies in the bin with its log and its pictures, its ID is free
// for another, and it comes back as it was: under a number where its ID was taken since, its
// log speaking of it by that. After its days, or by a press, it is gone for good.
func TestADisplayComesBackFromTheBin(t *testing.T) {
	s := testkit.Open(t)
	const id = "midnight-apiary"
	require.NoError(t, s.Create(ctx, demo.Apiary(today), false))
	renamed(t, s, id, "Second name", store.By{})
	renamed(t, s, id, "Third name", store.By{})
	was := load(t, s, id)
	require.NoError(t, s.Bin(ctx, id, today))
	_, _, err := s.Load(ctx, id)
	assert.ErrorIs(t, err, store.ErrNone)
	list, err := s.List(ctx)
	require.NoError(t, err)
	assert.Empty(t, list)
	bins, err := s.Bins(ctx)
	require.NoError(t, err)
	require.Len(t, bins, 1)
	assert.Equal(t, store.InBin{ID: "midnight-apiary-bin", WasID: id, Name: "Third name", At: bins[0].At}, bins[0])
	assert.True(t, today.Equal(bins[0].At))
	_, _, err = s.Load(ctx, bins[0].ID)
	assert.ErrorIs(t, err, store.ErrNone, "what lies in the bin is not opened")
	assert.ErrorIs(t, s.Apply(ctx, bins[0].ID, store.By{}, plan.Edit{}), store.ErrNone, "nor edited")

	back, err := s.PutBack(ctx, bins[0].ID)
	require.NoError(t, err)
	assert.Equal(t, id, back)
	assert.Equal(t, was.Doc(), load(t, s, id).Doc())
	_, err = s.Undo(ctx, id, store.By{})
	require.NoError(t, err)
	assert.Equal(t, "Second name", load(t, s, id).Display().Name)

	require.NoError(t, s.Bin(ctx, id, today))
	require.NoError(t, s.Create(ctx, demo.Apiary(today), false), "its ID is free for another")
	back, err = s.PutBack(ctx, "midnight-apiary-bin")
	require.NoError(t, err)
	assert.Equal(t, "midnight-apiary-2", back)
	_, err = s.Undo(ctx, back, store.By{})
	require.NoError(t, err)
	assert.Equal(t, "The Midnight Apiary", load(t, s, back).Display().Name)
	_, err = s.Redo(ctx, back, store.By{})
	require.NoError(t, err)
	assert.Equal(t, "Second name", load(t, s, back).Display().Name)

	require.NoError(t, s.Bin(ctx, back, today))
	require.NoError(t, s.Bin(ctx, id, today.AddDate(0, 0, 1)))
	n, err := s.EmptyOld(ctx, today.AddDate(0, 0, store.BinDays))
	require.NoError(t, err)
	assert.Zero(t, n, "not a day too early")
	n, err = s.EmptyOld(ctx, today.AddDate(0, 0, store.BinDays).Add(1e9))
	require.NoError(t, err)
	assert.Equal(t, 1, n)
	bins, err = s.Bins(ctx)
	require.NoError(t, err)
	require.Len(t, bins, 1)
	require.NoError(t, s.Empty(ctx, bins[0].ID))
	assert.ErrorIs(t, s.Empty(ctx, bins[0].ID), store.ErrNone)
	_, err = s.PutBack(ctx, bins[0].ID)
	assert.ErrorIs(t, err, store.ErrNone)
	assert.ErrorIs(t, s.Empty(ctx, "not-there"), store.ErrNone)
}

// What gives way to another of its ID goes to the bin too.
func TestWhatIsReplacedGoesToTheBin(t *testing.T) {
	s := testkit.Open(t)
	require.NoError(t, s.Create(ctx, demo.Apiary(today), true))
	renamed(t, s, "midnight-apiary", "Mine", store.By{})
	require.NoError(t, s.Create(ctx, demo.Apiary(today), true))
	bins, err := s.Bins(ctx)
	require.NoError(t, err)
	require.Len(t, bins, 1)
	assert.Equal(t, "Mine", bins[0].Name)
}

// Undo takes back one's own last edit, whoever edited since; where a later edit of another
// changed the same thing it says whose and which, and nothing changes. Edits of before their
// maker was known are anybody's.
func TestUndoIsOfOnesOwnEdits(t *testing.T) {
	s := testkit.Open(t)
	const id = "midnight-apiary"
	require.NoError(t, s.Create(ctx, demo.Apiary(today), false))
	ola, ben := store.By{Who: "Ola", Key: "a"}, store.By{Who: "Ben", Key: "b"}
	job := func(by store.By, key, name string) {
		p := load(t, s, id)
		x := plan.Job{ID: key, Name: name}
		require.NoError(t, s.Apply(ctx, id, by, plan.Edit{Label: name, Changes: []plan.Change{p.Put("job", key, x)}}))
	}
	names := func() (out []string) {
		for _, j := range load(t, s, id).Jobs() {
			if j.ID == "one" || j.ID == "two" {
				out = append(out, j.Name)
			}
		}
		return out
	}
	job(ola, "one", "Ola's task")
	job(ben, "two", "Ben's task")
	steps, err := s.Steps(ctx, id, ola)
	require.NoError(t, err)
	assert.Equal(t, store.Steps{Undo: "Ola's task", Since: "Ben"}, steps)
	label, err := s.Undo(ctx, id, ola)
	require.NoError(t, err)
	assert.Equal(t, "Ola's task", label)
	assert.Equal(t, []string{"Ben's task"}, names())
	_, err = s.Redo(ctx, id, ben)
	assert.ErrorIs(t, err, store.ErrNothing, "nor is another's edit done again")
	_, err = s.Redo(ctx, id, ola)
	require.NoError(t, err)
	assert.ElementsMatch(t, []string{"Ben's task", "Ola's task"}, names())

	job(ben, "one", "Ola's task, better")
	before := load(t, s, id)
	_, err = s.Undo(ctx, id, ola)
	assert.EqualError(t, err,
		"“Ola's task” cannot be taken back: Ben's later edit “Ola's task, better” changed the same thing; "+
			"that one is to be undone first")
	assert.Equal(t, before.Doc(), load(t, s, id).Doc())
	_, err = s.Undo(ctx, id, ben)
	require.NoError(t, err)
	_, err = s.Undo(ctx, id, ola)
	require.NoError(t, err)
	assert.Equal(t, []string{"Ben's task"}, names())
	job(ben, "three", "Another")
	steps, err = s.Steps(ctx, id, ola)
	require.NoError(t, err)
	assert.Equal(t, store.Steps{Redo: "Ola's task"}, steps, "what another enters drops nothing of mine")

	job(store.By{}, "four", "of before")
	for _, by := range []store.By{ola, ben} {
		steps, err = s.Steps(ctx, id, by)
		require.NoError(t, err)
		assert.Equal(t, "of before", steps.Undo)
	}
	log, err := s.Log(ctx, id, 50)
	require.NoError(t, err)
	assert.Equal(t, "Ben", log[1].Who)
}

// A database of a newer program is refused, and not touched.
func TestANewerDatabaseIsRefused(t *testing.T) {
	url := testkit.Database(t)
	s, err := store.Open(ctx, url)
	require.NoError(t, err)
	require.NoError(t, s.Create(ctx, demo.Metric(today), false))
	require.NoError(t, s.Close())
	conn, err := pgx.Connect(ctx, url)
	require.NoError(t, err)
	_, err = conn.Exec(ctx, "insert into goose_db_version (version_id, is_applied) values (900, true)")
	require.NoError(t, err)
	_, err = store.Open(ctx, url)
	assert.ErrorIs(t, err, store.ErrNewer)
	assert.ErrorContains(t, err, "use the newer program")
	var n int
	require.NoError(t, conn.QueryRow(ctx, "select count(*) from plans").Scan(&n))
	assert.Equal(t, 1, n)
	require.NoError(t, conn.Close(ctx))
}
