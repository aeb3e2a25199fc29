package store_test

import (
	"strings"
	"testing"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/store"
	"zapbarn/testkit"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// beforeTheBin takes away what the migration of the bin brought.
const beforeTheBin = `alter table plans drop column binned, drop column was_id; alter table edits drop column by;
	drop table settings`

// What lies in the database in format 1, its log of edits as well, means the
// same after the migration: undo leads to the same box.
func TestStoredPlansGoToTheNewestFormat(t *testing.T) {
	url := testkit.Database(t)
	s, err := store.Open(ctx, url)
	require.NoError(t, err)
	p := plan.New("lidded", "Lidded", "in", "")
	p.Doc().Props = []plan.Prop{{ID: "chest", Name: "Chest"}}
	box := plan.Solid{
		ID:    "box",
		Prop:  "chest",
		Name:  "Box",
		Kind:  "box",
		Stock: "xps1",
		Form:  form.Box{W: measure.Len("20 in"), D: measure.Len("12 in"), H: measure.Len("10 in"), Lid: true},
	}
	p.Doc().Solids = []plan.Solid{box}
	require.NoError(t, s.Create(ctx, p, true))
	taller := box
	taller = taller.Set("h", measure.Len("15 in"))
	require.NoError(
		t,
		s.Apply(ctx, "lidded", store.By{Who: "me"}, plan.Edit{Label: "taller",
			Changes: []plan.Change{p.Put("solid", "box", taller)}}),
	)
	require.NoError(t, s.Close())
	conn, err := pgx.Connect(ctx, url)
	require.NoError(t, err)
	_, err = conn.Exec(
		ctx,
		"delete from goose_db_version where version_id >= 12; drop table photos; "+beforeTheBin,
	) // as a program of before left it
	require.NoError(t, err)
	require.NoError(t, conn.Close(ctx))
	s, err = store.Open(ctx, url)
	require.NoError(t, err)
	defer s.Close()
	height := func() string {
		q, _, err := s.Load(ctx, "lidded")
		require.NoError(t, err)
		require.Empty(t, q.Broken())
		return q.Solids()[0].Length("h").String()
	}
	assert.Equal(t, `16"`, height())
	_, err = s.Undo(ctx, "lidded", store.By{})
	require.NoError(t, err)
	assert.Equal(t, `11"`, height())
	_, err = s.Redo(ctx, "lidded", store.By{})
	require.NoError(t, err)
	assert.Equal(t, `16"`, height())
}

// A display that is brought in beside its like has a name of its own, on the list and in
// itself.
func TestACopyBroughtInHasItsOwnName(t *testing.T) {
	st := testkit.Open(t)
	ctx := t.Context()
	long := strings.Repeat("W", 80)
	for _, want := range []string{long, strings.Repeat("W", 76) + " (2)", strings.Repeat("W", 76) + " (3)"} {
		id, err := st.CreateFresh(ctx, plan.New("porch", long, "in", ""))
		require.NoError(t, err)
		p, _, err := st.Load(ctx, id)
		require.NoError(t, err)
		assert.Equal(t, want, p.Display().Name)
		require.NoError(t, p.Validate())
	}
	list, err := st.List(ctx)
	require.NoError(t, err)
	names := map[string]bool{}
	for _, d := range list {
		names[d.Name] = true
	}
	assert.Len(t, names, 3)
}
