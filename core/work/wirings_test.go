package work_test

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"zapbarn/core/circuit"
	"zapbarn/core/plan"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
	"zapbarn/testkit/shop"
	"zapbarn/testkit/wirings"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// eachWiring calls f with careless wirings that are valid.
func eachWiring(t *testing.T, n int, f func(seed uint64, w *work.Work)) {
	tried := 0
	for seed := uint64(5000); tried < n; seed++ {
		p := wirings.Random(seed)
		if p.Validate() != nil {
			continue
		}
		tried++
		f(seed, work.Do(p, shop.Kept, today))
	}
}

// Whatever is wired: every run, extension, feed and data wire is on the cut
// list once, at least as long as it lies; every tap is a splice; data lines
// count their pixels without a gap; every connector is listed.
func TestHarnessOfAnyWiring(t *testing.T) {
	eachWiring(t, 80, func(seed uint64, w *work.Work) {
		h := w.Harness("a")
		want := map[string]bool{}
		taps, plugs := 0, 0
		for i := range w.Plan.Devices() {
			d := &w.Plan.Devices()[i]
			up := w.Plan.Device(d.From)
			if up != nil && up.Kind == "run" {
				taps++
			}
			switch d.Kind {
			case "run":
				want[w.Flag(d.ID)] = true
			case "connector":
				plugs++
			case "lamp":
				feeds, err := wiring.ParseFeeds(d.Feeds)
				require.NoError(t, err)
				for k, f := range feeds {
					if k > 0 || f > 0 {
						want[fmt.Sprintf("%s feed %d", w.Flag(d.ID), k+1)] = true
					}
				}
				if !d.DataLead.IsZero() {
					want[w.Flag(d.ID)+" data"] = true
				}
			}
		}
		got := map[string]bool{}
		for _, x := range h.Wires {
			require.False(t, got[x.Label], "%d: %s twice", seed, x.Label)
			got[x.Label] = true
			require.GreaterOrEqual(t, x.Cut, x.Laid, x.Label)
			require.Positive(t, x.Laid, "%d: %s", seed, x.Label)
			require.NotEmpty(t, x.To, x.Label)
		}
		require.Equal(t, want, got, "seed %d", seed)
		require.Len(t, h.Plugs, plugs)
		joined := 0
		for _, s := range h.Splices {
			if strings.HasPrefix(s.Label, "J") {
				joined += len(s.Joins) - 1
			}
			require.Positive(t, s.Shrink)
		}
		for i := range w.Plan.Devices() { // where a run is fed along itself is a joint too
			if d := &w.Plan.Devices()[i]; d.Kind == "run" && !d.FedAt.IsZero() {
				taps++
			}
		}
		require.InDelta(t, taps, joined, float64(len(w.Plan.Devices())), "seed %d", seed)
		for _, c := range h.Chains {
			next := 1
			for _, s := range c.Strips {
				require.Equal(t, next, s.First, "%d: %s", seed, c)
				next = s.Last + 1
			}
			require.Equal(t, c.Pixels, next-1)
			require.InDelta(t, 1/circuit.PictureTime(c.Pixels), c.Rate, 1e-9)
		}
	})
}

// Whatever is wired: the way to each lamp begins at its supply, goes on
// without a step back, and ends at the volts the lamp sees.
func TestPathToAnyLamp(t *testing.T) {
	ways := 0
	eachWiring(t, 80, func(seed uint64, w *work.Work) {
		for i := range w.Plan.Devices() {
			d := &w.Plan.Devices()[i]
			way := w.Rig().PathTo(w.All(), d.ID)
			if d.Kind != "lamp" || way == nil || d.Feeds != "" || d.Reversed {
				continue
			}
			ways++
			for k := 1; k < len(way); k++ {
				require.GreaterOrEqual(t, way[k].At, way[k-1].At-1.5, "seed %d: %s", seed, d.ID)
			}
			g := w.All().Readings[d.ID]
			end := g.Volts
			if strip := w.Rig().StripVolts(w.All(), d.ID); strip != nil {
				end = strip[len(strip)-1]
				require.Len(t, strip, wiring.Segments(d, shop.Kept))
			}
			require.InDelta(t, end, way[len(way)-1].Volts, 1e-6+.002*math.Abs(end), "seed %d: %s", seed, d.ID)
			require.InDelta(t, w.All().Readings[way[0].Name].Volts, way[0].Volts, 1e-6, "at the supply")
		}
	})
	assert.Greater(t, ways, 100)
}

// Whatever is wired: with nothing wrong the bench reads what the plan reads,
// and nothing is ranked first from those readings.
func TestBenchOfAnyWiring(t *testing.T) {
	eachWiring(t, 25, func(seed uint64, w *work.Work) {
		for i := range w.Plan.Devices() {
			s := &w.Plan.Devices()[i]
			if s.Kind != "supply" {
				continue
			}
			b := wiring.Suspects(w.Plan.Wiring(shop.Kept), s.ID)
			require.Equal(t, len(b.Devices), len(b.Far))
			var seen []circuit.Seen
			for k, id := range b.Devices {
				d := w.Plan.Device(id)
				if d.Kind == "converter" || b.Far[k] {
					continue
				}
				v := w.All().Readings[id].Volts
				require.InDelta(t, v, b.Expected(0, id), .02+.01*math.Abs(v), "seed %d: %s", seed, id)
				if q, ok := b.Volts(id, v); ok && len(seen) < 5 {
					seen = append(seen, q)
				}
			}
			causes := b.Rank(seen, circuit.HandMeter)
			best := causes[0].Share
			for _, c := range causes {
				if c.Group == "none" {
					require.InDelta(
						t,
						best,
						c.Share,
						1e-3+.2*best,
						"seed %d: nothing explains it as well as anything",
						seed,
					)
				}
			}
			require.True(t, circuit.Explained(causes, seen), "seed %d", seed)
		}
	})
}

// Whatever is wired: the plan reads back as it is written, what a supply feeds
// alone reads as in the whole, and its bill is no less than nothing.
func TestAnyWiringInParts(t *testing.T) {
	eachWiring(t, 60, func(seed uint64, w *work.Work) {
		back, err := plan.Decode(w.Plan.Encode())
		require.NoError(t, err)
		require.Equal(t, string(w.Plan.Encode()), string(back.Encode()))
		for i := range w.Plan.Devices() {
			d := &w.Plan.Devices()[i]
			b := wiring.BillOf(d, shop.Kept)
			require.GreaterOrEqual(t, b.Money, 0.)
			require.GreaterOrEqual(t, b.Copper, 0.)
			if d.Kind != "supply" {
				continue
			}
			part := w.FedBy(d.ID)
			st := plan.NewRig(part, shop.Kept).Solve(nil)
			for _, x := range part.Devices() {
				v := w.All().Readings[x.ID].Volts
				require.InDelta(
					t,
					v,
					st.Readings[x.ID].Volts,
					1e-4+1e-4*math.Abs(v),
					"seed %d: %s alone with %s",
					seed,
					x.ID,
					d.ID,
				)
			}
		}
	})
}
