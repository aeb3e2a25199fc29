package plan

import (
	"math"
	"testing"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A note goes where its thing goes: away with it, once more with a copy of the
// prop; its photo goes only when nothing else shows it.
func TestANoteFollowsItsThing(t *testing.T) {
	p := New("n", "N", "in", "")
	p.doc.Props = []Prop{{ID: "arch", Name: "Arch"}}
	leaf := NewSolid("arch", "Leaf", "xps1", form.Panel{W: measure.Len("10 in"), H: measure.Len("12 in"), Copies: 1})
	leaf.ID = "leaf"
	p.doc.Solids = []Solid{leaf}
	p.doc.Photos = []Photo{{ID: "one", Data: "AAAA"}, {ID: "two", Data: "AAAB"}}
	p.doc.Notes = []Note{
		{
			ID:    "a",
			On:    "solid:leaf",
			Text:  "Sand the left edge first,\nthen the right one and the corners",
			Photo: "one",
		},
		{ID: "b", On: "prop:arch", Photo: "two"},
		{ID: "c", On: "note:a", Text: "done", Photo: "two"},
	}
	require.NoError(t, p.Validate())
	assert.Equal(t, "arch", p.Belongs(&p.Notes()[0]))
	assert.Equal(t, "arch", p.PropOf("note:c"), "a note on a note belongs where that does")
	assert.Equal(t, "Sand the left edge first, then the right...", NameOf(&p.Notes()[0]))
	assert.Equal(t, "photo", NameOf(&p.Notes()[1]))
	require.Len(t, p.NotesOn("solid:leaf"), 1)

	q, err := p.Apply(p.Without("solid", "leaf"))
	require.NoError(t, err)
	require.Len(t, q.Notes(), 1)
	require.Len(t, q.Photos(), 1)
	assert.Equal(t, "two", q.Photos()[0].ID, "the other note still shows it")

	e, id, err := p.CopyProp("arch", "Second arch")
	require.NoError(t, err)
	q, err = p.Apply(e)
	require.NoError(t, err)
	require.Len(t, q.Notes(), 6)
	on := map[string]int{}
	for _, n := range q.Notes() {
		on[n.On]++
	}
	assert.Equal(
		t,
		map[string]int{
			"solid:leaf":             1,
			"prop:arch":              1,
			"note:a":                 1,
			"solid:second-arch-leaf": 1,
			"prop:" + id:             1,
			"note:a-2":               1,
		},
		on,
	)

	for _, bad := range []Note{{ID: "x", On: "solid:leaf", Text: "  "}, {ID: "x", On: "solid:gone", Text: "so"},
		{ID: "x", Text: "so"},
		{ID: "x", On: "leaf", Text: "so"}, {ID: "x", On: "solid:leaf", Text: "so", Date: "yesterday"}} {
		_, err := p.Apply(Edit{Changes: []Change{p.Put("note", "x", bad)}})
		assert.Error(t, err, "%+v", bad)
	}
}

// A mirrored solid's shaped opening is mirrored with it: its corner that leant to
// the left leans to the right.
func TestAShapeIsMirroredWithItsSolid(t *testing.T) {
	p := New("n", "N", "in", "")
	p.doc.Props = []Prop{{ID: "a", Name: "A"}}
	x := NewSolid("a", "Leaf", "xps1", form.Panel{W: measure.Len("20 in"), H: measure.Len("20 in"), Copies: 1})
	x.ID = "leaf"
	x.Openings = []Opening{{Name: "Eye", Face: "panel", Kind: "shape", Path: "0,0 4,0 1,3", W: measure.Len("4 in"),
		H: measure.Len("3 in"), X: measure.Len("5 in"), Y: measure.Len("10 in")}}
	p.doc.Solids = []Solid{x}
	require.NoError(t, p.Validate())
	e, id, err := p.CopySolid("leaf", "Other leaf", true)
	require.NoError(t, err)
	q, err := p.Apply(e)
	require.NoError(t, err)
	hole := func(id string) []pattern.Point {
		s, err := q.Solid(id).Shape(shop.Kept)
		require.NoError(t, err)
		return s.Panels[0].Holes[0]
	}
	was, now := hole("leaf"), hole(id)
	require.Len(t, now, 3)
	for _, c := range was { // each corner stands as far to the other side of the face's middle, 10 in
		found := false
		for _, d := range now {
			found = found || math.Abs(d.X-(20*measure.Inch-c.X)) < 1e-6 && math.Abs(d.Y-c.Y) < 1e-6
		}
		assert.True(t, found, "%v in %v", c, now)
	}
}
