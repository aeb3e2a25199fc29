package stores

import (
	"fmt"
	"math"
	"strings"
	"testing"
	"time"

	"zapbarn/core/order"
	"zapbarn/core/plan"
	"zapbarn/core/shorthand"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"
	"zapbarn/testkit/wirings"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// everyKind are plans of every form: the pattern book, the demo, careless props, and one of what
// is bought, modelled, laid up and lit by bare LEDs. Nothing of them is done yet.
func everyKind(t *testing.T) map[string]*plan.Plan {
	today := time.Date(2026, 9, 20, 12, 0, 0, 0, time.UTC)
	out := map[string]*plan.Plan{"pattern book": demo.Patterns().In(shop.Kept), "demo": demo.Apiary(today).In(shop.Kept)}
	for seed := range uint64(12) {
		out[fmt.Sprint("careless ", seed)] = wirings.RandomProp(seed).In(shop.Kept)
	}
	p := plan.New("x", "X", "in", "2026-10-31").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	for _, line := range []string{"bought jar 4 in x 6 in pet x24 $2.50", "bought skull 6 x 8 hips found",
		"modelled 8 x 9 x 11 skin 3/8 lightclay", "modelled 6 x 6 x 6 foamcan", "laminate 2 plies gel 9 x 11 x 5 glassmat",
		"pipe pvc1 40 in", "panel 10 x 10 eva5", "supply 12v 2a", "4 red leds on S1"} {
		r, err := shorthand.Read(p, shop.Kept, "a", line)
		require.NoError(t, err, line)
		p, err = p.Apply(r.Edit)
		require.NoError(t, err, line)
	}
	out["each"] = p
	for name, p := range out {
		q := p.Clone()
		for i := range q.Doc().Props {
			q.Doc().Props[i].Stage = ""
		}
		q.Doc().Jobs, q.Doc().Shelf, q.Doc().Layouts, q.Doc().Offcuts = nil, nil, nil, nil
		out[name] = q
	}
	return out
}

// Every solid that has a shape is made by a task and supplied by a good, or says why nothing is
// bought for it; nothing is worked on by a task before the one that makes it; and what is bought of
// a stock weighs at least what is made of it.
func TestWhatIsInThePlanIsMadeAndBought(t *testing.T) {
	today := time.Date(2026, 9, 20, 12, 0, 0, 0, time.UTC)
	kinds := map[string]bool{}
	for name, p := range everyKind(t) {
		w := work.Do(p, shop.Kept, today)
		o := order.In(w).Order
		goods := map[string]*Need{}
		for _, n := range Of(w) {
			goods[n.What] = n
		}
		takes := map[string]float64{} // kg by stock
		for i := range w.Plan.Solids() {
			s := &w.Plan.Solids()[i]
			shape := w.Shapes()[s.ID]
			if shape == nil {
				continue
			}
			kinds[s.Kind] = true
			at := fmt.Sprintf("%s: %s, %s", name, s.ID, s.Kind)
			m, makes := order.MakingOf(w, s)
			if !makes {
				require.NotNil(t, o.Task("cut:"+s.Prop), at)
				if sh := w.SheetsOf(s.Stock); sh == nil || len(sh.Layout.TooLarge) == 0 { // else it is a snag: none is large enough
					assert.Contains(t, goods, "material:"+s.Stock, at)
				}
				continue
			}
			if len(m.Jobs) == 0 {
				assert.NotNil(t, o.Task("lay:"+s.ID), at)
			}
			for _, j := range m.Jobs {
				x := o.Task(order.MakingKey(s, j))
				require.NotNil(t, x, at)
				assert.Positive(t, x.Hands, at)
			}
			assert.Equal(t, m.Have == "", len(m.Goods) > 0, at)
			for _, g := range m.Goods {
				if g.Use > 0 {
					require.Contains(t, goods, g.What, at)
				}
			}
			if w.Lib.Materials[s.Stock].Form == "modelled" || w.Lib.Materials[s.Stock].Form == "filament" {
				takes[s.Stock] += shape.Mass
			}
		}
		for id, kg := range takes {
			n := goods["material:"+id]
			require.NotNil(t, n, "%s: %s", name, id)
			bought := float64(n.Packs) * n.Pack / 1000 * w.Lib.Materials[id].Density
			assert.GreaterOrEqual(t, bought, kg, "%s: %s of %s", name, n.ToBuy(), n.Name)
		}
		nothingBeforeItIsMade(t, name, o)
	}
	for _, k := range []string{"bought", "modelled", "laminate", "box", "pipe"} {
		assert.True(t, kinds[k], "%s is among them", k)
	}
}

// nothingBeforeItIsMade goes back from each task that works on a solid to the one that makes it.
func nothingBeforeItIsMade(t *testing.T, name string, o *order.Order) {
	for _, x := range o.Tasks {
		if x.Kind != "coat" && x.Kind != "join" && x.Kind != "glue" {
			continue
		}
		for _, about := range x.About {
			id, ok := strings.CutPrefix(about, "solid:")
			if !ok {
				continue
			}
			for _, y := range o.Tasks {
				if strings.HasPrefix(y.Key, "make:"+id+":") {
					assert.True(t, comes(y, x, map[*order.Task]bool{}), "%s: %s before %s", name, y.Key, x.Key)
				}
			}
		}
	}
}

// comes is whether a task comes before another, through what that waits for.
func comes(a, b *order.Task, seen map[*order.Task]bool) bool {
	if seen[b] {
		return false
	}
	seen[b] = true
	for _, l := range b.After {
		if l.Task == a || comes(a, l.Task, seen) {
			return true
		}
	}
	return false
}

// One of a thing is bought as one; bare LEDs are bought by the LED, with what limits their row;
// jars by the jar at their price, and a skull that was found not at all.
func TestPiecesAreCountedAsTheyAre(t *testing.T) {
	w := work.Do(everyKind(t)["each"], shop.Kept, time.Date(2026, 9, 20, 12, 0, 0, 0, time.UTC))
	leds, found := 0.0, false
	for _, n := range Of(w) {
		switch {
		case strings.HasPrefix(n.What, "lamp:led"):
			leds += n.Use
			assert.Equal(t, int(math.Round(n.Use*1.05)), n.Packs, n.What)
		case strings.HasPrefix(n.What, "bought:jar"):
			assert.Equal(t, 24, n.Packs)
			assert.Equal(t, 60.0, n.Cost)
		case strings.HasPrefix(n.What, "supply:"):
			assert.Equal(t, 1, n.Packs, "one supply, no second")
			assert.Positive(t, n.Price)
		case strings.HasPrefix(n.What, "bought:skull"):
			found = true
		}
	}
	assert.Equal(t, 4.0, leds)
	assert.False(t, found)
}

// With weeks until the opening nothing is late: it is ordered by when it must be here, not by when
// it could be used tonight. With the opening the day after tomorrow, what takes six days is.
func TestOrderedByWhenItMustBeHere(t *testing.T) {
	today := time.Date(2026, 9, 20, 12, 0, 0, 0, time.UTC)
	p := everyKind(t)["each"]
	late := func() (n int) {
		for _, x := range Of(work.Do(p, shop.Kept, today)) {
			if x.First >= 0 && x.OrderBy < 0 {
				n++
			}
		}
		return n
	}
	p.Doc().Display.Opens = "2026-11-20"
	assert.Zero(t, late())
	p.Doc().Display.Opens = "2026-09-22"
	assert.Positive(t, late())
}

// By hand: clay with a tenth to spare, four pairs of magnets of a bag of ten, and glue along the
// rim of the smaller of two faces, 2 x (10 + 10) in.
func TestNeedsOfMakingByHand(t *testing.T) {
	today := time.Date(2026, 9, 20, 12, 0, 0, 0, time.UTC)
	p := everyKind(t)["each"]
	for _, line := range []string{"box 20 x 20 x 20 xps1 called Crate", "glue panel to Crate with pu"} {
		r, err := shorthand.Read(p, shop.Kept, "a", line)
		require.NoError(t, err, line)
		p, err = p.Apply(r.Edit)
		require.NoError(t, err, line)
	}
	for i := range p.Solids() {
		if p.Solids()[i].Name == "Crate" {
			p.Doc().Solids[i].Magnets = 4
		}
	}
	w := work.Do(p, shop.Kept, today)
	length, _, about := w.GlueRun(&p.Joints()[0])
	assert.True(t, about)
	assert.InDelta(t, 40*25.4, length, 1e-6)
	seen := 0
	for _, n := range Of(w) {
		switch {
		case n.What == "material:lightclay":
			seen++
			assert.InDelta(t, 1.1*n.Use, n.Wanted(), 1e-9)
		case strings.HasPrefix(n.What, "bought:magnets"):
			seen++
			assert.Equal(t, 4., n.Use)
			assert.Equal(t, 1, n.Packs)
		}
	}
	assert.Equal(t, 2, seen)
}
