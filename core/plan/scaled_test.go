package plan

import (
	"testing"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A prop made half as large has its openings half as large, in their places; only the stock is
// as thick as it was.
func TestOpeningsAreScaled(t *testing.T) {
	l := measure.Len
	p := New("x", "X", "mm", "")
	p.doc.Props = []Prop{{ID: "a", Name: "A"}}
	p.doc.Solids = []Solid{{ID: "b", Prop: "a", Name: "B", Kind: "box", Stock: "ply1/4", X: l("100 mm"), Z: l("50 mm"),
		Form: form.Box{W: l("600 mm"), D: l("400 mm"), H: l("500 mm"), Joint: "butt"},
		Openings: []Opening{{Name: "O", Face: "front", Kind: "rect", W: l("100 mm"), H: l("80 mm"), X: l("40 mm"),
			Y: l("250 mm")}}}}
	q, err := p.Apply(p.Scaled("a", .5))
	require.NoError(t, err)
	b, o := q.Solid("b"), q.Solid("b").Openings[0]
	for name, got := range map[string][2]float64{
		"w": {b.Length("w").Value(), 300}, "x": {b.X.Value(), 50}, "z": {b.Z.Value(), 25},
		"opening wide": {o.W.Value(), 50}, "high": {o.H.Value(), 40}, "right": {o.X.Value(), 20}, "up": {o.Y.Value(), 125}} {
		assert.InDelta(t, got[1], got[0], .1, name)
	}
}

// What is put round another must be larger both ways: wide enough and too shallow is refused.
func TestADeeperBodyDoesNotGoInto(t *testing.T) {
	l := measure.Len
	p := New("x", "X", "mm", "")
	p.doc.Props = []Prop{{ID: "a", Name: "A"}}
	box := func(id, w, d string) Solid {
		return Solid{ID: id, Prop: "a", Name: id, Kind: "box", Stock: "ply1/4",
			Form: form.Box{W: l(w), D: l(d), H: l("300 mm"), Joint: "butt"}}
	}
	p.doc.Solids = []Solid{box("outer", "500 mm", "300 mm")}
	for _, c := range []struct {
		w, d string
		ok   bool
	}{{"400 mm", "200 mm", true}, {"400 mm", "350 mm", false}, {"550 mm", "200 mm", false}} {
		s := box("inner", c.w, c.d)
		s.By, s.How = "outer", "in"
		_, err := p.Stood(s, shop.Kept)
		if c.ok {
			assert.NoError(t, err, "%s x %s", c.w, c.d)
		} else {
			assert.ErrorContains(t, err, "larger", "%s x %s", c.w, c.d)
		}
	}
}

// What is taken away takes with it what feeds, drives or stands by it: a lamp is no longer on the
// controller's pin, a body no longer by the other; all else stays.
func TestWithoutLetsGoOfWhatIsGone(t *testing.T) {
	p := New("x", "X", "mm", "")
	p.doc.Props = []Prop{{ID: "a", Name: "A"}}
	p.doc.Devices = []Device{
		{ID: "S", Prop: "a", Kind: "supply", Name: "S", Product: "ps5-10"},
		{ID: "C", Prop: "a", Kind: "controller", Name: "C", From: "S"},
		{ID: "P", Prop: "a", Kind: "lamp", Name: "P", From: "S", Product: "pixel5", Length: measure.Len("300 mm"),
			Data: "C", Pin: 3},
	}
	box := func(id string) Solid {
		return Solid{ID: id, Prop: "a", Name: id, Kind: "box", Stock: "ply1/4", Form: form.Box{W: measure.Len("300 mm"),
			D: measure.Len("300 mm"), H: measure.Len("300 mm"), Joint: "butt"}}
	}
	p.doc.Solids = []Solid{box("base"), box("top")}
	p.Solids()[1].By, p.Solids()[1].How, p.Solids()[1].ByAt = "base", "on", measure.Len("10 mm")
	q, err := p.Apply(p.Without("device", "C"))
	require.NoError(t, err)
	lamp := q.Device("P")
	require.NotNil(t, lamp)
	assert.Equal(t, "", lamp.Data)
	assert.Zero(t, lamp.Pin)
	assert.Equal(t, "S", lamp.From)
	q, err = p.Apply(p.Without("solid", "base"))
	require.NoError(t, err)
	require.Len(t, q.Solids(), 1)
	assert.Equal(t, "", q.Solids()[0].By)
	assert.Equal(t, "", q.Solids()[0].How)
	assert.True(t, q.Solids()[0].ByAt.IsZero())
}
