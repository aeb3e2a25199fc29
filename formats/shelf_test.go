package formats

import (
	"bytes"
	"context"
	"testing"

	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A table of the shelf is read row by row: the good ones can be taken, the others say why;
// what is written out comes back as it was, from either kind of file.
func TestTheShelfComesByTable(t *testing.T) {
	p := demo.Apiary(bookDay).In(shop.Kept)
	w := work.Do(p, shop.Kept, bookDay)
	r, err := ReadShelf(context.Background(), []byte("what,name,have,unit,bin,days to come\nmaterial:xps1,,3,sheets,B2,\n"+
		"xps board 2\",,2,,,4\nmaterial:gold,,1\nmaterial:xps1,,many\n,,,\n"), w)
	require.NoError(t, err)
	require.Len(t, r.Rows, 4)
	assert.Equal(t, 2, r.Bad)
	assert.Contains(t, r.Rows[2].Error, "nothing the shop has")
	assert.Equal(t, 4, r.Rows[2].No)
	assert.Contains(t, r.Rows[3].Error, "no amount")
	q, err := p.Apply(r.Edit(p))
	require.NoError(t, err)
	require.NotNil(t, q.StockedOf("material:xps2"))
	assert.Equal(t, "4", q.StockedOf("material:xps2").Lead)
	for _, write := range []func(*bytes.Buffer) error{
		func(b *bytes.Buffer) error { return ShelfCSV(b, work.Do(q, shop.Kept, bookDay), "") },
		func(b *bytes.Buffer) error { return ShelfXLSX(b, work.Do(q, shop.Kept, bookDay), "") },
	} {
		var b bytes.Buffer
		require.NoError(t, write(&b))
		again, err := ReadShelf(context.Background(), b.Bytes(), work.Do(q, shop.Kept, bookDay))
		require.NoError(t, err)
		assert.Zero(t, again.Bad)
		same, err := q.Apply(again.Edit(q))
		require.NoError(t, err)
		assert.ElementsMatch(t, q.Shelf(), same.Shelf())
	}
	_, err = ReadShelf(context.Background(), []byte("PK not a zip"), w)
	assert.ErrorContains(t, err, "save it as XLSX or CSV")
	_, err = ReadShelf(context.Background(), []byte("what\n"), w)
	assert.ErrorContains(t, err, "has no rows")
	// what is shown is what is taken
	text, err := ReadShelf(context.Background(), []byte(r.Text), w)
	require.NoError(t, err)
	assert.Zero(t, text.Bad)
	assert.Len(t, text.Rows, 2)
}
