package web

import (
	"regexp"
	"strconv"
	"testing"

	"zapbarn/web/yard"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What is dragged goes where it was let go, to the inch, or in line with what is near; a wall
// keeps its length, a lamp on a turned prop goes the way it was dragged, a locked thing stays.
func TestThingsOfTheYardAreMoved(t *testing.T) {
	l, deg := measure.Len, measure.Must[measure.AngleKind]
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}, {ID: "b", Name: "B"}}
	p.Doc().Plots = []plan.Plot{{ID: "a", Prop: "a", X: l("10 ft"), Y: l("10 ft"), Turn: deg("90 deg")},
		{ID: "b", Prop: "b", X: l("20 ft"), Y: l("12 ft")}}
	move := func(v any, at int, dx, dy, near, turn float64) any {
		n, err := yard.Shifted(p, v, at, map[string]float64{"dx": dx, "dy": dy, "near": near, "turn": turn})
		require.NoError(t, err)
		return n
	}
	in := measure.Inch
	got := move(&p.Plots()[0], -1, 11.4*in, 0, 0, 15).(plan.Plot)
	assert.InDelta(t, 131*in, got.X.Value(), 1e-6)
	assert.Equal(t, p.Plots()[0].Y, got.Y, "what did not move is as it was written")
	assert.InDelta(t, 105, got.Turn.Value(), 1e-9)
	got = move(&p.Plots()[0], -1, 0, 23*in, 2*in, 0).(plan.Plot)
	assert.InDelta(t, 144*in, got.Y.Value(), 1e-6, "in line with the other")
	wall := plan.Wall{ID: "w", Name: "W", Kind: "wall", X: l("0 ft"), Y: l("0 ft"), ToX: l("8 ft"), ToY: l("0 ft")}
	w := move(&wall, -1, 30*in, 6*in, 0, 0).(plan.Wall)
	assert.InDelta(t, 96*in, w.ToX.Value()-w.X.Value(), 1e-6)
	w = move(&wall, 1, 12*in, 0, 0, 0).(plan.Wall)
	assert.InDelta(t, 108*in, w.ToX.Value(), 1e-6)
	assert.Equal(t, wall.X, w.X)
	way := plan.Walkway{ID: "p", Name: "P", Kind: "path", Through: "0 ft, 0 ft; 10 ft, 0 ft"}
	n := move(&way, 1, 0, 24*in, 0, 0).(plan.Walkway)
	again, err := plan.Route("through", n.Through, "in")
	require.NoError(t, err)
	assert.Equal(t, []plan.Corner{{X: 0, Y: 0}, {X: 120 * in, Y: 24 * in}}, again)
	lamp := plan.Fixture{ID: "f", Name: "F", Use: "fill", Prop: "a", X: l("0 in"), Y: l("0 in")}
	f := move(&lamp, -1, 10*in, 0, 0, 0).(plan.Fixture)
	assert.InDelta(t, 0, f.X.Value(), 1e-6)
	assert.InDelta(t, -10*in, f.Y.Value(), 1e-6, "its prop looks left: to the right is behind it")
	p.Plots()[1].Fixed = true
	_, err = yard.Shifted(p, &p.Plots()[1], -1, map[string]float64{"dx": 100})
	assert.ErrorContains(t, err, "locked in place")
}

// What is of one group moves by as much, whatever each stood on; what is locked stays, and a
// lamp on a prop moves with that, not twice.
func TestAGroupMovesTogether(t *testing.T) {
	l := measure.Len
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}, {ID: "b", Name: "B"}}
	p.Doc().Plots = []plan.Plot{{ID: "a", Prop: "a", X: l("10 ft"), Y: l("10 ft"), Group: "left"},
		{ID: "b", Prop: "b", X: l("20 ft 1/2 in"), Y: l("12 ft"), Group: "left"}}
	p.Doc().Walls = []plan.Wall{
		{ID: "w", Name: "W", Kind: "wall", X: l("0 ft"), Y: l("1 ft"), ToX: l("8 ft"), ToY: l("1 ft"), Group: "left"},
		{
			ID:    "v",
			Name:  "V",
			Kind:  "wall",
			X:     l("0 ft"),
			Y:     l("2 ft"),
			ToX:   l("8 ft"),
			ToY:   l("2 ft"),
			Group: "left",
			Fixed: true,
		},
	}
	p.Doc().Fixtures = []plan.Fixture{{ID: "f", Name: "F", Use: "fill", X: l("4 ft"), Y: l("4 ft"), Group: "left"},
		{ID: "g", Name: "G", Use: "fill", Prop: "a", Group: "left"}}
	p.Doc().Viewpoints = []plan.Viewpoint{{ID: "e", Name: "E", X: l("1 ft"), Y: l("1 ft")}}
	next, err := yard.Shifted(p, &p.Plots()[0], -1, map[string]float64{"dx": 25.4 * 24, "dy": -25.4 * 6})
	require.NoError(t, err)
	q, err := p.Apply(
		plan.Edit{Changes: append([]plan.Change{p.Put("plot", "a", next)}, yard.MovedWith(p, &p.Plots()[0], next)...)},
	)
	require.NoError(t, err)
	assert.InDelta(t, (20*12+.5+24)*25.4, q.Plots()[1].X.Value(), .1)
	assert.InDelta(t, (12*12-6)*25.4, q.Plots()[1].Y.Value(), .1)
	assert.InDelta(t, 24*25.4, q.Walls()[0].X.Value(), .1)
	assert.InDelta(t, (8*12+24)*25.4, q.Walls()[0].ToX.Value(), .1)
	assert.Equal(t, p.Walls()[1], q.Walls()[1])
	assert.InDelta(t, (48+24)*25.4, q.Fixtures()[0].X.Value(), .1)
	assert.Equal(t, p.Fixtures()[1], q.Fixtures()[1])
	assert.Equal(t, p.Viewpoints(), q.Viewpoints())
	assert.Empty(t, yard.MovedWith(q, &q.Viewpoints()[0], q.Viewpoints()[0]))
}

// By the light of practicals alone and of fills alone a prop's front is as bright together as
// by all; its number opens lamp by lamp.
func TestLampsOfOneUseAlone(t *testing.T) {
	s := site(t, demo.Apiary(today).In(shop.Kept))
	lux := func(use string) (sum float64) {
		page := fetch(t, s, "/p/midnight-apiary/yard?way=light&lamps="+use).Body.String()
		for _, m := range regexp.MustCompile(`([0-9.]+) lx on its face`).FindAllStringSubmatch(page, -1) {
			v, err := strconv.ParseFloat(m[1], 64)
			require.NoError(t, err)
			sum += v
		}
		return sum
	}
	all, fills, practicals := lux(""), lux("fill"), lux("practical")
	assert.Positive(t, practicals)
	assert.InDelta(t, all, fills+practicals, .5, "rounded, prop by prop")
	w := work.Do(demo.Apiary(today), shop.Kept, today)
	for _, x := range w.Yard().Placed {
		r := w.Results().At("plot", x.Of.ID, "lux")
		if x.Known {
			assert.InDelta(t, w.Yard().Face(x), r.Value, .05, x.Prop.Name)
		}
	}
}
