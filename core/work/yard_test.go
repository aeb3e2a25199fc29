package work_test

import (
	"testing"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A sound is heard where guests pass and where the neighbours' fence is, as the yard has
// them, unless somebody said otherwise.
func TestASoundIsHeardInTheYard(t *testing.T) {
	p := apiary(t)
	require.NotEmpty(t, p.Clips())
	c := &p.Clips()[0]
	c.Guests, c.Fence = measure.Length{}, measure.Length{}
	w := work.Do(p, shop.Kept, today)
	h, s := w.Heard(c), w.Yard().Of(c.Prop)
	require.True(t, h.Known)
	assert.InDelta(t, max(1, s.Near), h.AtGuest, 1e-9)
	// by hand: the fence stands upright at 54 ft from 17 to 27 ft, the prop at its plot
	plot := p.PlotOf(c.Prop)
	far := measure.Len("54 ft").Value() - plot.X.Value()
	assert.InDelta(t, far/1000, h.AtFence, 0.01)
	c.Guests = measure.Len("20 ft")
	assert.InDelta(t, 6.096, work.Do(p, shop.Kept, today).Heard(c).AtGuest, 1e-9)
	p.Doc().Plots, c.Guests = nil, measure.Length{}
	assert.InDelta(t, 3, work.Do(p, shop.Kept, today).Heard(c).AtGuest, 1e-9, "set out nowhere: 3 m")
}

// A cord's length by hand: 3 and 4 m at right angles, up and down 1 m, and a tenth.
func TestACordAsItLies(t *testing.T) {
	p := plan.New("x", "X", "mm", "").In(shop.Kept)
	l := measure.Len
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	p.Doc().Outlets = []plan.Outlet{{ID: "o", Name: "O", Volts: measure.Must[measure.VoltKind]("230 V"),
		Breaker: measure.Must[measure.AmpKind]("16 A"), X: l("1 m"), Y: l("1 m")}}
	p.Doc().Plots = []plan.Plot{
		{ID: "a", Prop: "a", X: l("4 m"), Y: l("5 m"), Wide: l("1 m"), Deep: l("1 m"), High: l("1 m")},
	}
	p.Doc().Cords = []plan.Cord{{ID: "c", Name: "C", Outlet: "o", Prop: "a", Through: "4 m, 1 m", Drops: l("1 m")}}
	require.NoError(t, p.Validate())
	w := work.Do(p, shop.Kept, today)
	assert.InDelta(t, (3+4+1)*1.1, w.Yard().Cords[0].Needs, 1e-9)
}

// What comes down: solids that are glued are one piece, those that come apart are not; it
// goes through a door as it is turned best.
func TestPieces(t *testing.T) {
	p := apiary(t)
	w := work.Do(p, shop.Kept, today)
	kg, solids := 0.0, 0
	for i, x := range w.Pieces() {
		kg, solids = kg+x.Mass, solids+len(x.Solids)
		assert.GreaterOrEqual(t, x.Size[0], x.Size[1])
		assert.GreaterOrEqual(t, x.Size[1], x.Size[2])
		if i > 0 {
			assert.LessOrEqual(t, x.Mass, w.Pieces()[i-1].Mass, "the heaviest first")
		}
	}
	total := 0.0
	for _, s := range p.Solids() {
		total += w.Results().At("solid", s.ID, "mass").Value
	}
	assert.InDelta(t, total, kg, 1e-9, "nothing is left behind")
	before := len(w.Pieces())
	for i := range p.Joints() {
		p.Joints()[i].Apart = true
	}
	assert.Greater(t, len(work.Do(p, shop.Kept, today).Pieces()), before)
	x := &work.Piece{Size: [3]float64{2000, 900, 300}}
	assert.True(t, x.Through(900, 300))
	assert.True(t, x.Through(310, 910))
	assert.False(t, x.Through(899, 300))
	assert.True(t, x.Into(900, 2000, 300))
	assert.False(t, x.Into(900, 1999, 300))
}

// The season by hand: two nights of 2.5 and 3 h, eight props, 67 minutes lost.
func TestTheSeasonIsCounted(t *testing.T) {
	p := apiary(t)
	w := work.Do(p, shop.Kept, today)
	s := w.Season()
	assert.Equal(t, 150+180, s.Minutes)
	assert.Equal(t, 85, s.Guests)
	assert.Equal(t, 3, s.Cost)
	assert.InDelta(t, 100*(1-67.0/(330*float64(len(p.Props())))), s.Open.Value, 1e-9)
	assert.Equal(t, "Pull arm", s.Failed[0].What)
	assert.Len(t, s.Next, 2)
	n := plan.Night{Opened: "22:00", Closed: "00:30"}
	assert.Equal(t, 150, n.Open(), "past midnight")
}

// The opening list follows the plan: what wind takes down only when it is forecast, cells,
// outlets, foggers; keys stay as they are from night to night.
func TestRoundsFollowThePlan(t *testing.T) {
	p := apiary(t)
	w := work.Do(p, shop.Kept, today)
	keys := func(on string) map[string]bool {
		out := map[string]bool{}
		for _, r := range w.Rounds(on) {
			assert.False(t, out[r.Key], "%s twice", r.Key)
			out[r.Key] = true
		}
		return out
	}
	opening := p.Forecasts()[0].On
	calm, windy := keys("2027-01-01"), keys(opening)
	assert.True(t, windy["open:wind:sunflowers"])
	assert.False(t, calm["open:wind:sunflowers"])
	delete(windy, "open:wind:sunflowers")
	assert.Equal(t, calm, windy)
	for _, want := range []string{"open:guard:porch", "open:cells:B1", "close:cells:B1", "close:off", "close:count",
		"open:lens:gate-beam", "open:way:path"} {
		assert.True(t, calm[want], want)
	}
}

// Where a guest is by hand: a mat 10 ft along, 0.6 m/s, 0.5 s of latency and a first cue 2 s
// into its scene: 10 ft and 1.5 m. The page and the snag say the same of it.
func TestWhereAGuestIsThen(t *testing.T) {
	p := apiary(t)
	for i := range p.Inputs() {
		if p.Inputs()[i].ID == "mat" {
			p.Inputs()[i].Far, p.Inputs()[i].Latency = measure.Len("10 ft"), measure.Must[measure.DurationKind]("0.5 s")
		}
	}
	for i := range p.Scenes() {
		for k := range p.Scenes()[i].Cues {
			q := &p.Scenes()[i].Cues[k]
			q.Start = measure.Of[measure.DurationKind](q.Start.Value() + 2)
		}
	}
	for _, x := range work.Do(p, shop.Kept, today).Passings() {
		if x.Input.ID == "mat" {
			assert.InDelta(t, 2.5, x.Wait, 1e-9)
			assert.InDelta(t, 3.048+1.5, x.Then, 1e-9)
			assert.InDelta(t, x.Then-x.Stands.Along, x.Past(), 1e-12)
			return
		}
	}
	t.Fatal("the mat is on the path")
}
