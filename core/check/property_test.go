package check

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
)

// randomWiring is one prop wired as a careless beginner might: supplies of any
// size and batteries, fuses of any rating or none, runs too long and too thin,
// every lamp of the shop on any of them, strips with feeds, data from anywhere.
func randomWiring(seed uint64) *plan.Plan {
	r := rand.New(rand.NewPCG(seed, 42))
	p := plan.New("x", "X", "in", "")
	p.Props = []plan.Prop{{ID: "a", Name: "A"}}
	add := func(d plan.Device) string {
		d.Prop, d.Name = "a", d.ID
		p.Devices = append(p.Devices, d)
		return d.ID
	}
	pick := func(list []string) string { return list[r.IntN(len(list))] }
	mm := func(low, high float64) measure.Length {
		return measure.Len(fmt.Sprintf("%.0f mm", low+r.Float64()*(high-low)))
	}
	amps := func(low, high float64) measure.Current {
		return measure.Must[measure.AmpKind](fmt.Sprintf("%.1f A", low+r.Float64()*(high-low)))
	}
	var feeders, runs, pixels, controllers []string
	for i := range 1 + r.IntN(3) {
		d := plan.Device{ID: fmt.Sprintf("S%d", i+1), Kind: "supply", Product: pick(stock.IDs(stock.Shop.Supplies))}
		if r.IntN(5) == 0 {
			d.Product, d.Cell, d.Cells = "", pick([]string{"aa", "d", "9v", "bank"}), 1+r.IntN(8)
		}
		feeders = append(feeders, add(d))
	}
	for i := range 3 + r.IntN(8) {
		d := plan.Device{From: pick(feeders)}
		if up := p.Device(d.From); up.Kind == "run" && r.IntN(2) == 0 {
			d.At = measure.Of[measure.LengthKind](math.Max(1, math.Floor(up.Length.Value()*r.Float64())))
		}
		switch r.IntN(6) {
		case 0:
			d.ID, d.Kind, d.Rating, d.Poly = fmt.Sprintf("F%d", i), "fuse", amps(.5, 8), r.IntN(4) == 0
		case 1:
			d.ID, d.Kind, d.Driven = fmt.Sprintf("K%d", i), "switch", true
		case 2:
			d.ID, d.Kind, d.Rating = fmt.Sprintf("X%d", i), "connector", amps(.5, 5)
		case 3:
			d.ID, d.Kind = fmt.Sprintf("U%d", i), "controller"
			controllers = append(controllers, d.ID)
		default:
			d.ID, d.Kind = fmt.Sprintf("W%d", i), "run"
			d.Gauge = measure.Of[measure.GaugeKind](measure.AWGArea(stock.Gauges[r.IntN(len(stock.Gauges))]))
			d.Length = mm(200, 12000)
			if r.IntN(4) == 0 {
				d.FedAt = measure.Of[measure.LengthKind](math.Floor(d.Length.Value() / 2))
			}
			runs = append(runs, d.ID)
		}
		feeders = append(feeders, add(d))
	}
	for i := range 2 + r.IntN(8) {
		d := plan.Device{ID: fmt.Sprintf("L%d", i), Kind: "lamp", From: pick(feeders), Product: pick(stock.IDs(stock.Shop.Lamps)), Reversed: r.IntN(9) == 0}
		l := stock.Shop.Lamps[d.Product]
		if l.Kind == "strip" || l.Kind == "pixels" {
			d.Length = mm(300, 4000)
			d.Feeds = pick([]string{"", "0% 100%", "50%", "25% 75%"})
		}
		if l.Kind == "pixels" {
			d.Bright = 10 + r.IntN(91)
			if len(controllers) > 0 && r.IntN(3) > 0 {
				d.Data, d.Pin, d.DataLead, d.Common = pick(append(controllers, pixels...)), 1, mm(100, 12000), r.IntN(2) == 0
			}
			pixels = append(pixels, d.ID)
		}
		if l.Kind == "led" && r.IntN(2) == 0 {
			d.Row, d.Resistor = 1+r.IntN(4), measure.Must[measure.OhmKind](fmt.Sprintf("%d ohm", 50+r.IntN(600)))
		}
		add(d)
	}
	if len(runs) > 1 && r.IntN(4) == 0 {
		p.Device(runs[0]).To = runs[len(runs)-1]
	}
	return p
}

// kirchhoff checks a solved rig against two laws that hold in any network:
// the currents of each node sum to nothing, and what sources give is what
// everything else takes (Tellegen's theorem).
func kirchhoff(t *testing.T, seed uint64, rig *plan.Rig, st *plan.State) {
	sum := make([]float64, len(rig.Net.Names))
	power, moved := 0.0, 0.0
	for i, e := range rig.Net.Elements {
		c := st.Solution.I[i]
		sum[e.A] += c
		sum[e.B] -= c
		w := c * st.Solution.Across(e)
		power, moved = power+w, moved+math.Abs(w)
	}
	for i, x := range sum {
		require.InDelta(t, 0, x, 1e-4, "seed %d: node %s", seed, rig.Net.Names[i])
	}
	require.InDelta(t, 0, power, 1e-5*moved+1e-6, "seed %d", seed)
}

// A hundred and twenty careless wirings: each is solved, keeps to Kirchhoff and
// Tellegen, and every mend that is offered applies, can be undone, and makes
// its snag go away or at least less bad.
func TestMendsOfRandomWirings(t *testing.T) {
	offered, cured := 0, 0
	codes := map[string]int{}
	for seed := range uint64(120) {
		p := randomWiring(seed)
		if p.Validate() != nil {
			continue // a loop of feeds or the like, refused in words
		}
		w := plan.Do(p, stock.Shop, today)
		require.True(t, w.All.Solution.Settled, "seed %d", seed)
		kirchhoff(t, seed, w.Rig, w.All)
		for _, s := range Check(w) {
			codes[s.Code]++
			require.NotEmpty(t, s.Why, "%d %s", seed, s.Code)
			for _, m := range s.Mends {
				offered++
				q, err := p.Apply(m.Edit)
				require.NoError(t, err, "seed %d, %s: %s", seed, s.Code, m.Label)
				back, err := q.Apply(m.Edit.Inverse())
				require.NoError(t, err)
				require.Equal(t, string(p.Encode()), string(back.Encode()), "undone")
				left := find(snags(t, q), s.Code, s.At[0])
				if left == nil || left.Level < s.Level || left.weight < s.weight {
					cured++
				} else {
					t.Logf("seed %d, %s (%s): %q leaves %s", seed, s.Code, s.Title, m.Label, left.Why)
				}
			}
		}
	}
	t.Logf("%d of %d mends cure, over %d kinds of snag: %v", cured, offered, len(codes), codes)
	assert.Greater(t, offered, 500)
	assert.Equal(t, offered, cured)
}
