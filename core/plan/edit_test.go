package plan

import (
	"testing"

	"zapbarn/core/form"
	"zapbarn/core/measure"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A plan that was handed out stays as it was, whatever is made of it: lists that an edit
// does not touch are shared.
func TestAPlanHandedOutStays(t *testing.T) {
	p := pile(t)
	was := p.Sum()
	q, err := p.Apply(Edit{Changes: []Change{p.Put("display", p.Display().ID, p.Display())}})
	require.NoError(t, err)
	assert.Same(t, &p.Solids()[0], &q.Solids()[0], "not touched: shared")
	s := p.Solids()[0]
	s.Name = "Another"
	q, err = p.Apply(Edit{Changes: []Change{p.Put("solid", s.ID, s)}})
	require.NoError(t, err)
	assert.NotSame(t, &p.Solids()[0], &q.Solids()[0])
	assert.Equal(t, "Another", q.Solid(s.ID).Name)
	p.Settled(p.Scaled("a", 1.5))
	assert.Equal(t, was, p.Sum())

	// thicker foam lifts what stands on a disc of it: an edit of the shop moves solids
	foot := NewSolid("a", "foot", "xps1", form.Disc{W: measure.Len("20 in")})
	foot.ID = "foot"
	p, err = p.Apply(Edit{Changes: []Change{p.Put("solid", "foot", foot)}})
	require.NoError(t, err)
	top := *p.Solid("base")
	top.By, top.How = "foot", "on"
	p, err = p.Apply(p.Settled(Edit{Changes: []Change{p.Put("solid", "base", top)}}))
	require.NoError(t, err)
	was, z := p.Sum(), p.Solid("base").Z
	good := Good{ID: "material-xps1", Table: "material", Good: "xps1", Set: []Setting{{"thick", "3 in"}}}
	e := p.Settled(Edit{Changes: []Change{p.Put("good", good.ID, good)}})
	assert.Equal(t, was, p.Sum())
	q, err = p.Apply(e)
	require.NoError(t, err)
	assert.NotEqual(t, z, q.Solid("base").Z, "it stands higher")
}
