package store_test

import (
	"context"
	"encoding/base64"
	"strings"
	"testing"

	"zapbarn/core/plan"
	"zapbarn/store"
	"zapbarn/testkit"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A picture's data is a row of its own: it is neither in the plan in memory nor
// in the log, comes back in a file as it went in, and outlives being taken away
// and brought back. What an earlier program left in elements and log goes the
// same way.
func TestPicturesAreKeptApart(t *testing.T) {
	url := testkit.Database(t)
	s, err := store.Open(ctx, url)
	require.NoError(t, err)
	first, second := base64.StdEncoding.EncodeToString([]byte("a first picture")), base64.StdEncoding.EncodeToString(
		[]byte("a second one"),
	)
	p := plan.New("seen", "Seen", "in", "")
	p.Doc().Props = []plan.Prop{{ID: "arch", Name: "Arch"}}
	p.Doc().Photos = []plan.Photo{{ID: "one", Data: first}}
	require.NoError(t, s.Create(ctx, p, false))
	require.NoError(
		t,
		s.Apply(
			ctx,
			"seen",
			store.By{Who: "me"},
			plan.Edit{
				Label:   "bring in",
				Changes: []plan.Change{p.Put("photo", "two", plan.Photo{ID: "two", Data: second})},
			},
		),
	)
	look := func(s *store.Store) []plan.Photo {
		q, _, err := s.Load(ctx, "seen")
		require.NoError(t, err)
		for _, ph := range q.Photos() {
			assert.Empty(t, ph.Data, "the plan is loaded without it")
		}
		q, err = s.Whole(ctx, q)
		require.NoError(t, err)
		return q.Photos()
	}
	both := []plan.Photo{{ID: "one", Data: first}, {ID: "two", Data: second}}
	assert.Equal(t, both, look(s))
	data, err := s.Photo(ctx, "seen", sumOf(t, s, "two"))
	require.NoError(t, err)
	assert.Equal(t, "a second one", string(data))
	_, err = s.Photo(ctx, "seen", strings.Repeat("0", 64))
	require.ErrorIs(t, err, store.ErrPhotoGone)

	_, err = s.Undo(ctx, "seen", store.By{})
	require.NoError(t, err)
	assert.Equal(t, both[:1], look(s))
	_, err = s.Redo(ctx, "seen", store.By{})
	require.NoError(t, err)
	assert.Equal(t, both, look(s))

	_, err = s.Edit(ctx, "seen", store.By{Who: "me"}, func(q *plan.Plan) (plan.Edit, error) {
		return plan.Edit{
			Label:   "none",
			Changes: []plan.Change{q.Put("photo", "x", plan.Photo{ID: "x", Sum: strings.Repeat("0", 64)})},
		}, nil
	})
	require.ErrorIs(t, err, store.ErrPhotoGone, "a sum with nothing behind it")
	bad := p.Clone()
	bad.Doc().Display.ID, bad.Doc().Photos = "bad", []plan.Photo{{ID: "one", Data: "no base64!"}}
	require.ErrorContains(t, s.Create(ctx, bad, false), "bring the picture in again")
	require.NoError(t, s.Close())

	conn, err := pgx.Connect(ctx, url) // as a program of before left it
	require.NoError(t, err)
	old := func(text string) string { return `'` + strings.ReplaceAll(text, "'", "''") + `'` }
	for _, q := range []string{
		`update elements set body = ` + old(`{"id": "one", "data": "`+first+`"}`) + ` where kind = 'photo' and id = 'one'`,
		`update elements set body = ` + old(`{"id": "two", "data": "`+second+`"}`) + ` where kind = 'photo' and id = 'two'`,
		`update edits set changes = ` + old(`[{"kind": "photo", "id": "two", "at": -1, "after": {"id": "two", "data": "`+second+`"}}]`),
		`drop table photos`, beforeTheBin, `delete from goose_db_version where version_id >= 13`,
	} {
		_, err = conn.Exec(ctx, q)
		require.NoError(t, err)
	}
	s, err = store.Open(ctx, url)
	require.NoError(t, err)
	defer s.Close()
	assert.Equal(t, both, look(s))
	var left int
	require.NoError(
		t,
		conn.QueryRow(ctx, `select (select count(*) from elements where body ? 'data') + (select count(*) from edits where changes::text like '%"data"%')`).
			Scan(&left),
	)
	assert.Zero(t, left)
	require.NoError(t, conn.Close(context.Background()))
	_, err = s.Undo(ctx, "seen", store.By{})
	require.NoError(t, err)
	assert.Equal(t, both[:1], look(s))
}

func sumOf(t *testing.T, s *store.Store, id string) string {
	q, _, err := s.Load(ctx, "seen")
	require.NoError(t, err)
	v, _ := q.Get("photo", id)
	return v.(*plan.Photo).Sum
}
