package check

import (
	"fmt"
	"math"
	"os"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"zapbarn/core/circuit"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
	"zapbarn/testkit/dense"
	"zapbarn/testkit/shop"
	"zapbarn/testkit/wirings"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// kirchhoff checks a solved rig against two laws that hold in any network:
// the currents of each node sum to nothing, and what sources give is what
// everything else takes (Tellegen's theorem).
func kirchhoff(t *testing.T, name string, rig *wiring.Rig, st *wiring.State) {
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
		require.InDelta(t, 0, x, 1e-4, "%s: node %s", name, rig.Net.Names[i])
	}
	require.InDelta(t, 0, power, 1e-5*moved+1e-6, name)
}

// level counts snags by level, worst first: what a mend must make smaller.
func tally(snags []Snag) (n [4]int) {
	for _, s := range snags {
		n[Stop-s.Level]++
	}
	return n
}

func fewer(a, b [4]int) bool {
	for i := range a {
		if a[i] != b[i] {
			return a[i] < b[i]
		}
	}
	return false
}

// random plans of every trade: careless wirings, and careless props of solids,
// joints, coats and known sizes with outlets.
func careless(t *testing.T, n uint64, visit func(name string, p *plan.Plan)) {
	if os.Getenv("ZAPBARN_SLOW") != "" {
		n *= 10
	}
	for seed := range n {
		if p := wirings.Random(seed); p.Validate() == nil {
			visit(fmt.Sprintf("wiring %d", seed), p)
		}
	}
	for seed := range n {
		p := wirings.RandomProp(seed)
		require.NoError(t, p.Validate(), "prop %d", seed)
		visit(fmt.Sprintf("prop %d", seed), p)
	}
}

// Careless plans of every trade: each wiring is solved and keeps to Kirchhoff
// and Tellegen; every mend that is offered applies to the whole plan and can be
// undone; its snag is then gone, none new is there at fix or stop, and what it
// promised is what an independent solver finds.
func TestMendsCureAndKeepTheirPromise(t *testing.T) {
	offered, promises := 0, 0
	codes := map[string]int{}
	careless(t, 45, func(name string, p *plan.Plan) {
		w := work.Do(p, shop.Kept, today)
		require.True(t, w.All().Solution.Settled, name)
		kirchhoff(t, name, w.Rig(), w.All())
		before := Check(w)
		levels := levelsOf(before)
		for _, s := range before {
			codes[s.Code]++
			require.NotEmpty(t, s.Why, "%s %s", name, s.Code)
			for _, m := range s.Mends {
				offered++
				q, err := p.Apply(m.Edit)
				require.NoError(t, err, "%s, %s: %s", name, s.Code, m.Label)
				back, err := q.Apply(m.Edit.Inverse())
				require.NoError(t, err)
				require.Equal(t, string(p.Encode()), string(back.Encode()), "undone")
				after := work.Do(q, shop.Kept, today)
				for id, level := range levelsOf(run(after)) {
					_, there := levels[id]
					assert.NotEqual(t, s.ID(), id, "%s: %q does not cure %s", name, m.Label, s.ID())
					assert.False(t, !there && level >= Fix, "%s: %q for %s raises %s %s", name, m.Label, s.ID(), level, id)
				}
				promises += kept(t, name, s, m, after)
			}
		}
	})
	t.Logf("%d mends cure, %d promises kept, over %d kinds of snag: %v", offered, promises, len(codes), codes)
	assert.Greater(t, offered, 500)
	assert.Greater(t, promises, 15)
}

var promised = regexp.MustCompile(`then ([0-9.]+) %`)

// kept holds what a mend promises against the network after it, solved by
// dense nodal analysis: 1 when it promised something that can be looked at so.
func kept(t *testing.T, name string, s Snag, m Mend, after *work.Work) int {
	found := promised.FindStringSubmatch(m.Effect)
	if found == nil || s.Code != "drop" && s.Code != "supply-load" {
		return 0
	}
	_, id, _ := strings.Cut(s.At[0], ":")
	d := after.Device(id)
	rig := plan.NewRig(after.Plan, shop.Kept)
	for _, x := range after.Plan.Devices() { // loads of constant power are found by steps of their own
		if k := stock.Shop.Lamps[x.Product].Kind; x.Kind == "converter" || k == "power" || k == "sensor" {
			return 0
		}
	}
	rig.Solve(nil) // sets the switches
	want := 0.0
	if s.Code == "drop" {
		supply := after.Device(rig.Supply(id))
		rated, _ := wiring.SupplyOf(supply, shop.Kept)
		v := dense.Solve(t, rig.Net)
		least := math.Inf(1)
		for _, e := range rig.Net.Elements {
			if e.Name == d.ID && e.Kind != circuit.Resistor && e.Kind != circuit.Supply {
				least = math.Min(least, v[e.A]-v[e.B])
			}
		}
		if k := stock.Shop.Lamps[d.Product].Kind; k == "resistive" || k == "coil" {
			for _, e := range rig.Net.Elements { // its leads have another name
				if e.Name == d.ID && e.Kind == circuit.Resistor {
					least = math.Min(least, v[e.A]-v[e.B])
				}
			}
		}
		want = 100 * (rated - least) / rated
	} else {
		_, limit := wiring.SupplyOf(d, shop.Kept)
		at := -1
		for i, e := range rig.Net.Elements {
			if e.Kind == circuit.Supply {
				rig.Net.Elements[i].Limit, rig.Net.Elements[i].R = 0, 1e-4
				if e.Name == d.ID {
					at = i
				}
			}
		}
		v := dense.Solve(t, rig.Net)
		e := rig.Net.Elements[at]
		i, _ := e.At(v[e.A] - v[e.B])
		want = -100 * i / limit
	}
	said, err := strconv.ParseFloat(found[1], 64)
	require.NoError(t, err)
	tol := .06
	if s.Code == "supply-load" {
		tol = .6 // said in whole per cent
	}
	assert.InDelta(t, want, said, tol, "%s: %q for %s promises %q", name, m.Label, s.ID(), m.Effect)
	return 1
}

// Pressing the first mend of the worst snag that has one, again and again, comes
// to an end, each press leaving fewer snags at the levels that count, and ends
// with no mend left.
func TestMendingEnds(t *testing.T) {
	longest := 0
	careless(t, 10, func(name string, p *plan.Plan) {
		last, did := [4]int{1 << 30}, ""
		for press := 0; ; press++ {
			require.Less(t, press, 60, name)
			snags := Check(work.Do(p, shop.Kept, today))
			now := tally(snags)
			if !fewer(now, last) {
				for _, s := range snags {
					t.Log(s.Level, s.ID(), s.Title)
				}
			}
			require.True(t, fewer(now, last), "%s, press %d: %v after %v by %s", name, press, now, last, did)
			last = now
			var m *Mend
			for _, s := range snags {
				if len(s.Mends) > 0 {
					m, did = &s.Mends[0], s.ID()+" "+s.Mends[0].Label
					break
				}
			}
			longest = max(longest, press)
			if m == nil {
				return
			}
			q, err := p.Apply(m.Edit)
			require.NoError(t, err)
			p = q
		}
	})
	t.Logf("the longest chain took %d presses", longest)
}
