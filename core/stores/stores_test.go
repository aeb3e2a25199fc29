package stores

import (
	"math"
	"testing"
	"time"

	"zapbarn/core/calendar"
	"zapbarn/core/measure"
	"zapbarn/core/order"
	"zapbarn/core/plan"
	"zapbarn/core/shorthand"
	"zapbarn/core/stock"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"
	"zapbarn/testkit/wirings"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var today = time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC)

func shopped(t *testing.T, lines []string, change ...func(p *plan.Plan)) (map[string]*Need, *work.Work) {
	p := plan.New("x", "X", "in", "2026-10-10").In(shop.Kept)
	p.Doc().Display.Temp, p.Doc().Display.RH = measure.Must[measure.CelsiusKind]("21 C"), 50
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "Crate"}}
	p.Doc().People = []plan.Person{{ID: "ola", Name: "Ola", Hours: "mon-sun 9-17"}}
	for _, line := range lines {
		r, err := shorthand.Read(p, shop.Kept, "a", line)
		require.NoError(t, err, line)
		q, err := p.Apply(r.Edit)
		require.NoError(t, err, line)
		p = q
	}
	for _, c := range change {
		c(p)
	}
	require.NoError(t, p.Validate())
	w := work.Do(p, shop.Kept, today)
	out := map[string]*Need{}
	for _, n := range Of(w) {
		out[n.What] = n
	}
	return out, w
}

// Worked by hand: panels 24 x 48 in of 48 x 96 in foam, four to a sheet by area and three by
// the saw's kerf and margin; two coats of latex over 2 x 24 x 48 in a panel, both faces.
func TestNeedsByHand(t *testing.T) {
	needs, w := shopped(t, []string{"panel 40 x 40 xps1", "coat panel latex 2", "supply 12v 2a",
		"24 jars flicker12 20ma on S1 18awg 12 ft"})
	foam := needs["material:xps1"]
	require.NotNil(t, foam)
	assert.Equal(t, 1, foam.Packs)
	assert.Equal(t, stock.Shop.Materials["xps1"].Price, foam.Cost)
	area := w.StackOf(&w.Plan.Finishes()[0], false).Area
	latex := needs["coat:latex"]
	assert.InDelta(t, 2*area/10, latex.Use, 1e-9, "10 m2 a litre")
	assert.InDelta(t, 1.1*2*area/10, latex.Wanted(), 1e-9)
	assert.Equal(t, int(math.Ceil(1.1*2*area/10/.946)), latex.Packs)
	assert.Equal(t, float64(latex.Packs)*18, latex.Cost)
	lamps := needs["lamp:flicker12"]
	assert.Equal(t, 24.0, lamps.Use)
	assert.Equal(t, 25, lamps.Packs, "24 and one to spare, the whole ones of 5 %")
	assert.Equal(t, 75.0, lamps.Cost)
	wire := needs["wire:18 AWG"]
	assert.InDelta(t, 12*.3048, wire.Use, 1e-9)
	assert.Equal(t, 1, wire.Packs)
	// by what: $0.20 a metre and $0.50 more for each mm2; 18 AWG is 0.823 mm2
	assert.InDelta(t, 30*(.20+.50*.8230), wire.Price, 0.02)
	assert.Equal(t, []string{"Crate"}, lamps.Props)
	cost, unknown := Total(Of(w))
	sum := 0.0
	for _, n := range needs {
		sum += n.Cost
	}
	assert.InDelta(t, sum, cost, 1e-9)
	assert.Zero(t, unknown)
	// wanted when its task begins at the latest, ordered so many days before: all of it could begin two
	// whole weeks later, since some 18 days lie between its end and the opening
	tt := order.In(w)
	require.Equal(t, 2, (tt.Deadline-tt.End)/(7*calendar.Day))
	const later = 14 * calendar.Day
	for i, x := range tt.Row {
		if x.Key == "wire:a" {
			assert.Equal(t, tt.Latest[i]+later, lamps.First)
			assert.Equal(t, ((tt.Latest[i]+later)/calendar.Day-6)*calendar.Day, lamps.OrderBy)
		}
		if x.Key == "cut:a" {
			assert.Equal(t, ((tt.Latest[i]+later)/calendar.Day-1)*calendar.Day, foam.OrderBy)
		}
	}
}

// What lies on the shelf is taken off, never to less than nothing; days that are said count.
func TestTheShelf(t *testing.T) {
	lines := []string{
		"panel 40 x 40 xps1",
		"coat panel latex 2",
		"supply 12v 2a",
		"24 jars flicker12 20ma on S1 18awg 12 ft",
	}
	with := func(what, have, lead string) *Need {
		needs, _ := shopped(t, lines, func(p *plan.Plan) {
			p.Doc().Shelf = []plan.Stocked{{ID: "s", What: what, Have: have, Lead: lead, Bin: "B2"}}
		})
		return needs[what]
	}
	assert.Equal(t, 5, with("lamp:flicker12", "20", "").Packs, "25 less 20")
	assert.Equal(t, 0, with("lamp:flicker12", "25.2", "").Packs)
	assert.Equal(t, 0.0, with("lamp:flicker12", "100", "").Short())
	assert.Equal(t, 0, with("material:xps1", "1", "").Packs)
	far, near := with("lamp:flicker12", "", "14"), with("lamp:flicker12", "", "0")
	assert.Equal(t, 14*calendar.Day, near.OrderBy-far.OrderBy)
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	for _, bad := range []plan.Stocked{{ID: "s", What: "lamp"}, {ID: "s", What: "lamp:x", Have: "some"},
		{ID: "s", What: "lamp:x", Have: "-1"}, {ID: "s", What: "lamp:x", Lead: "soon"}} {
		p.Doc().Shelf = []plan.Stocked{bad}
		assert.Error(t, p.Validate())
	}
}

// What is done takes nothing more: by the stage of its prop, and by what was said of a task.
func TestWhatIsDoneIsNotBought(t *testing.T) {
	lines := []string{"box 20 x 20 x 20 xps1", "glue box with pu", "coat box masonry, latex 2", "supply 12v 2a",
		"lamp puck12 on S1"}
	has := func(change func(p *plan.Plan), what string) bool {
		needs, _ := shopped(t, lines, change)
		return needs[what] != nil
	}
	stage := func(s string) func(p *plan.Plan) { return func(p *plan.Plan) { p.Props()[0].Stage = s } }
	for s, want := range map[string][4]bool{"": {true, true, true, true}, "cut": {false, true, true, true},
		"glued": {false, false, true, true}, "wired": {false, false, true, false}, "closed": {}} {
		got := [4]bool{has(stage(s), "material:xps1"), has(stage(s), "glue:pu"), has(stage(s), "coat:latex"),
			has(stage(s), "lamp:puck12")}
		assert.Equal(t, want, got, s)
	}
	whole, _ := shopped(t, lines)
	half, _ := shopped(t, lines, func(p *plan.Plan) {
		p.Doc().Jobs = []plan.Job{{ID: "j", Task: "coat:" + p.Finishes()[0].ID + ":2:1", State: "done"}}
	})
	assert.InDelta(t, whole["coat:latex"].Use/2, half["coat:latex"].Use, 1e-9, "one of two coats")
}

// For any plan nothing is bought that is not wanted, packs cover what is short and no pack
// less would, costs are packs times price; more on the shelf never means more to buy.
func TestNeedsHold(t *testing.T) {
	for seed := range uint64(30) {
		p := wirings.Random(seed)
		if seed == 0 {
			p = demo.Apiary(today).In(shop.Kept)
		}
		for _, n := range Of(work.Do(p, shop.Kept, today)) {
			require.Positive(t, n.Use, n.What)
			assert.NotEmpty(t, n.Name, n.What)
			assert.GreaterOrEqual(t, float64(n.Packs)*n.Pack, n.Short()-1e-6, n.What)
			assert.Less(t, float64(n.Packs-1)*n.Pack, n.Short(), n.What)
			assert.InDelta(t, float64(n.Packs)*n.Price, n.Cost, 1e-9)
			assert.NotEmpty(t, n.Steps)
			q := p.Clone()
			q.Doc().Shelf = []plan.Stocked{{ID: "s", What: n.What, Have: "2"}}
			for _, m := range Of(work.Do(q, shop.Kept, today)) {
				if m.What == n.What && n.On == nil {
					assert.LessOrEqual(t, m.Packs, n.Packs, n.What)
				}
			}
			if seed > 3 {
				break
			}
		}
	}
}

func BenchmarkNeeds(b *testing.B) {
	for name, n := range map[string]int{"demo": 1, "20x": 20} {
		w := work.Do(wirings.Times(demo.Apiary(today).In(shop.Kept), n), shop.Kept, today)
		b.Run(name, func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				Of(w)
			}
		})
	}
}

// The props' shares are all of the money, but for what is of no prop; shipping counts each
// day of ordering once, and is parted as the goods are.
func TestSharesAddUp(t *testing.T) {
	p := demo.Apiary(today).In(shop.Kept)
	p.Doc().Display.Shipping = 12
	w := work.Do(p, shop.Kept, today)
	needs := Of(w)
	goods, _ := Total(needs)
	ship := float64(Orders(needs) * 12)
	require.Positive(t, ship)
	assert.InDelta(t, goods+ship, Money(w, needs).Value, 1e-9)
	sumGoods, sumShip := 0.0, 0.0
	for _, s := range Shares(w, needs) {
		sumGoods, sumShip = sumGoods+s.Goods, sumShip+s.Ship
		assert.InDelta(t, s.Goods/goods, s.Ship/ship, 1e-9, s.Prop.Name)
	}
	assert.InDelta(t, goods, sumGoods, 0.01*goods)
	for _, n := range needs {
		by := 0.0
		for _, u := range n.By {
			by += u
		}
		assert.InDelta(t, n.Use, by, 1e-6*math.Max(1, n.Use), n.What)
	}
	p.Doc().Display.Shipping = 0
	assert.InDelta(t, goods, Money(work.Do(p, shop.Kept, today), needs).Value, 1e-9)
}

// What is cut in parts, or together with something else, takes its sheets until all of it
// is done; what must be cut is told the same without the whole order.
func TestStocksUntilAllIsCut(t *testing.T) {
	lines := []string{"panel 40 x 40 xps1", "coat panel latex 1"}
	for name, c := range map[string]struct {
		jobs []plan.Job
		left bool
	}{
		"nothing said":         {nil, true},
		"cut":                  {[]plan.Job{{ID: "j", Task: "cut:a", State: "done", At: "2026-09-19 20:00"}}, false},
		"left out":             {[]plan.Job{{ID: "j", Task: "cut:a", State: "left out", Why: "no"}}, false},
		"the first of two":     {[]plan.Job{{ID: "j", Task: "cut:a", Parts: 2, State: "done", At: "2026-09-19 20:00"}}, true},
		"together with a coat": {[]plan.Job{{ID: "j", Task: "cut:a", With: "coat:a-panel:1:1"}}, true},
		"both of two": {[]plan.Job{{ID: "j", Task: "cut:a", Parts: 2, State: "done", At: "2026-09-19 20:00"},
			{ID: "k", Task: "cut:a/2", State: "done", At: "2026-09-19 21:00"}}, false},
	} {
		needs, w := shopped(t, lines, func(p *plan.Plan) { p.Doc().Jobs = c.jobs })
		assert.Equal(t, c.left, order.Uncut(w)["a"], name)
		assert.Equal(t, c.left, order.Of(w).Next("cut:a") != nil, name)
		if !c.left {
			assert.Nil(t, needs["material:xps1"], name)
			assert.Empty(t, Stocks(w), name)
			continue
		}
		foam := needs["material:xps1"]
		require.NotNil(t, foam, name)
		assert.Equal(t, 1, foam.Packs, name)
		assert.GreaterOrEqual(t, foam.First, 0, name+": it has a time")
		one := Stocks(w)
		require.Len(t, one, 1, name)
		one[0].First, one[0].OrderBy = foam.First, foam.OrderBy
		assert.Equal(t, foam, one[0], name+": but for its time the same")
	}
}

// A sheet that is marked as cut is not bought again, nor is the layout's rest.
func TestACutSheetIsNotBoughtAgain(t *testing.T) {
	lines := []string{"panel 40 x 40 xps1 x6"}
	needs, w := shopped(t, lines)
	whole := needs["material:xps1"].Packs
	require.Greater(t, whole, 2)
	layout, _, err := w.Sheets()[0].CutAt(0)
	require.NoError(t, err)
	needs, w = shopped(t, lines, func(p *plan.Plan) { p.Doc().Layouts = []plan.Layout{layout} })
	require.Equal(t, 1, w.Sheets()[0].Cut)
	assert.Equal(t, whole-1, needs["material:xps1"].Packs)
	one := Stocks(w)
	require.Len(t, one, 1)
	assert.Equal(t, whole-1, one[0].Packs)
}

// Stocks by themselves are those among all needs, on the demo.
func TestStocksAreTheNeedsOfSheets(t *testing.T) {
	w := work.Do(demo.Apiary(today), shop.Kept, today)
	all := map[string]*Need{}
	for _, n := range Of(w) {
		all[n.What] = n
	}
	stocks := Stocks(w)
	require.NotEmpty(t, stocks)
	for _, n := range stocks {
		require.NotNil(t, all[n.What], n.What)
		assert.Equal(t, all[n.What].Packs, n.Packs, n.What)
		assert.Equal(t, all[n.What].By, n.By, n.What)
		delete(all, n.What)
	}
	for what := range all {
		assert.NotContains(t, what, "material:", "told by Stocks as well")
	}
}

func TestWhatIsBoughtIsSaid(t *testing.T) {
	for want, n := range map[string]Need{
		"1 sheet":            {Packs: 1, Unit: "sheets", PackName: "sheet"},
		"3 sheets":           {Packs: 3, Unit: "sheets", PackName: "sheet"},
		"4 pieces":           {Packs: 4, Unit: "pieces"},
		"2 m":                {Packs: 2, Unit: "m"},
		"2 x spool of 30 m":  {Packs: 2, Unit: "m", PackName: "spool of 30 m"},
		"1 x bottle of 4 oz": {Packs: 1, Unit: "mL", PackName: "bottle of 4 oz"},
	} {
		assert.Equal(t, want, n.ToBuy())
	}
	assert.Equal(t, "$7.50", (&Need{Price: 2.5, Cost: 7.5}).Asks())
	assert.Equal(t, "price not known", (&Need{}).Asks())
}
