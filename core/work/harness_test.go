package work_test

import (
	"regexp"
	"strings"
	"testing"
	"time"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestHarnessOfTheShelf(t *testing.T) {
	p := apiary(t)
	p.Device("jar-10").Extension = measure.Len("3 in")
	w := work.Do(p, shop.Kept, today)
	h := w.Harness("shelf")
	byLabel := map[string]work.HarnessWire{}
	for _, x := range h.Wires {
		byLabel[x.Label] = x
	}
	require.Len(t, h.Wires, 6, "W1, W2, three extensions as shipped and a fourth")
	assert.InDelta(t, 35*12*25.4+200, byLabel["W2"].Cut, 1e-6, "35 ft and a hand's width at each end")
	assert.Equal(t, "W1 at 9'4\"", byLabel["W2"].From)
	assert.Contains(t, byLabel["W2"].Rail, "12 V: red and black")
	// every jar hangs on a splice of W2, each with two sleeves; W1's end carries the run and the switch
	jars, ends := 0, 0
	for _, s := range h.Splices {
		assert.Equal(t, 2, s.Sleeves)
		for _, j := range s.Joins {
			if strings.HasPrefix(j, "Jar ") && s.Joins[0] == "W2" {
				jars++
			}
		}
		if strings.HasPrefix(s.Where, "W1 at") {
			ends++
			assert.ElementsMatch(t, []string{"W1", "W2", "K1"}, s.Joins)
		}
	}
	assert.Equal(t, 24, jars)
	assert.Equal(t, 1, ends)
	require.Len(t, h.Pins, 1)
	assert.Equal(t, "K1", h.Pins[0].Device)
	assert.NotEmpty(t, h.Steps)
	assert.Empty(t, w.Harness("skep").Steps, "nothing is wired there")
}

// What enters a closed box: its supply's mains lead, whose plug wants the hole.
func TestHolesAreForThePlug(t *testing.T) {
	w := work.Do(apiary(t), shop.Kept, today)
	h := w.Harness("riser")
	require.Len(t, h.Entries, 1)
	e := h.Entries[0]
	assert.Equal(t, []string{"mains lead of Supply S2"}, e.Wires)
	assert.GreaterOrEqual(t, e.Hole, 40.0)
	assert.True(t, e.Fits, "the entrance slot of 1 5/8 in lets a plug of 40 mm through")
	last := h.Steps[len(h.Steps)-2]
	assert.Contains(t, last, "then close it", "what must be in and proven before it closes")
}

// Closed forms: one wire's bundle is the wire over sqrt 0.8; four equal wires
// are twice as thick as one; a tube slides over what it is for.
func TestBundlesAndShrink(t *testing.T) {
	assert.InEpsilon(t, work.Bundle(1.6)*2, work.Bundle(1.6, 1.6, 1.6, 1.6), 1e-9)
	assert.Equal(t, 1.6, work.Jacket(measure.AWGArea(22)))
	assert.Equal(t, 2.1, work.Jacket(measure.AWGArea(18)))
	assert.Equal(t, 2.1, work.Jacket(.75), "0.75 mm2 is as thick as 18 AWG over all")
	for _, n := range []int{2, 3, 4} {
		wires := make([]float64, n)
		for i := range wires {
			wires[i] = 1.8
		}
		s := work.Shrink(wires...)
		assert.GreaterOrEqual(t, s, 1.1*work.Bundle(wires...))
		assert.Less(t, s/2, work.Bundle(wires...), "and shrinks onto it")
	}
}

// What hangs on a data line, its feeds and its plug are all on the lists.
func TestHarnessOfPixels(t *testing.T) {
	ds := []plan.Device{{ID: "S", Kind: "supply", Product: "ps5-10"},
		{
			ID:     "W",
			Kind:   "run",
			From:   "S",
			Gauge:  gg("18 AWG"),
			Length: ln("6 ft"),
			FedAt:  ln("2 ft"),
			Path:   "0,0,0 60,0,0",
		},
		{ID: "X", Kind: "connector", From: "W", Rating: aa("5 A")},
		{ID: "U", Kind: "controller", From: "W", At: ln("1 ft"), Logic: vv("5 V")},
		{
			ID:       "P",
			Kind:     "lamp",
			From:     "X",
			Product:  "pixel5",
			Length:   ln("1 m"),
			Feeds:    "0% 50%",
			Data:     "U",
			Pin:      3,
			DataLead: ln("2 ft"),
			Common:   true,
			Damper:   true,
			Bulk:     true,
		},
		{ID: "Q", Kind: "lamp", From: "X", Product: "pixel5", Length: ln("0.5 m"), Data: "P", DataLead: ln("4 in")},
		{ID: "R", Kind: "lamp", From: "X", Product: "pixel5", Length: ln("0.5 m"), Data: "U", Pin: 3}}
	h := wired(t, ds...).Harness("a")
	by := map[string]work.HarnessWire{}
	for _, x := range h.Wires {
		by[x.Label] = x
	}
	assert.InDelta(t, 60*25.4, by["W"].Path, 1e-6)
	assert.InDelta(t, 500+6*25.4, by["P feed 2"].Laid, 1e-6, "half a metre along it, from where its lead begins")
	assert.Equal(t, "P at 50%", by["P feed 2"].To)
	assert.Equal(t, 2, by["P data"].Conductors, "data and its ground")
	assert.Equal(t, "U pin 3", by["P data"].From)
	assert.Equal(t, 1, by["Q data"].Conductors)
	assert.NotContains(t, by, "R data")
	require.Len(t, h.Chains, 2)
	c := h.Chains[0]
	assert.Equal(t, "U pin 3 > P (1 to 60) > Q (61 to 90)", c.String())
	assert.Equal(t, []string{"R"}, c.Copies)
	assert.Contains(t, c.Parts(), "330 ohm")
	assert.InDelta(t, 1/(90*30e-6+300e-6), c.Rate, 1e-9)
	require.Len(t, h.Plugs, 1)
	assert.Contains(t, h.Plugs[0].Before, "3 x Addressable pixels")
	fed := false
	for _, s := range h.Splices {
		fed = fed || strings.Contains(strings.Join(s.Joins, " "), "its feed from S")
	}
	assert.True(t, fed)
	assert.Contains(t, strings.Join(h.Steps, "\n"), "arrows on each strip")
}

// A run whose tap stands before it in the plan, at the very place it is fed:
// one joint, with both, whichever comes first.
func TestFeedAndTapAtOnePlace(t *testing.T) {
	ds := []plan.Device{
		{ID: "L", Kind: "lamp", From: "W", At: ln("2 ft"), Product: "puck12"},
		{ID: "S", Kind: "supply", Product: "ps12-1"},
		{ID: "W", Kind: "run", From: "S", Gauge: gg("22 AWG"), Length: ln("4 ft"), FedAt: ln("2 ft")},
	}
	for _, order := range [][]plan.Device{ds, {ds[1], ds[2], ds[0]}} {
		h := wired(t, order...).Harness("a")
		require.Len(t, h.Splices, 1)
		assert.Subset(t, h.Splices[0].Joins, []string{"W", "L", "its feed from S"})
	}
	bad := wired(t, ds...).Plan
	for _, rating := range []string{"-3 A", "9999 A", "0 A"} {
		bad.Doc().Devices = append(
			bad.Devices()[:3:3],
			plan.Device{ID: "X", Prop: "a", Kind: "connector", Name: "X", From: "W", Rating: aa(rating)},
		)
		assert.ErrorContains(t, bad.Validate(), "rating", rating)
	}
}

// A servo's lead has three wires: supply, ground and the signal, spliced alike.
func TestServoHasThreeWires(t *testing.T) {
	for product, n := range map[string]int{"servo5": 3, "puck12": 2} {
		p := plan.New("x", "X", "in", "").In(shop.Kept)
		p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
		p.Doc().Devices = []plan.Device{{ID: "S1", Prop: "a", Kind: "supply", Name: "S1", Product: "ps12-5"},
			{
				ID:        "L1",
				Prop:      "a",
				Kind:      "lamp",
				Name:      "L1",
				From:      "S1",
				Product:   product,
				Extension: measure.Len("20 in"),
			}}
		h := work.Do(p, shop.Kept, time.Time{}).Harness("a")
		require.Len(t, h.Wires, 1)
		assert.Equal(t, n, h.Wires[0].Conductors)
		assert.Equal(t, n == 3, strings.Contains(h.Wires[0].Rail, "signal"))
		require.Len(t, h.Splices, 1)
		assert.Equal(t, n, h.Splices[0].Sleeves)
	}
}

// On flags, ends and joints stand names: the short ones as they are, else the device's own,
// and no two alike.
func TestFlagsAreNames(t *testing.T) {
	flagged := regexp.MustCompile(`^[A-Z]{1,3}[0-9]+$`)
	p := demo.Apiary(today).In(shop.Kept)
	p.Device("glow-4").Name, p.Device("glow-3").Name = "Glow", "Glow"
	w := work.Do(p, shop.Kept, today)
	ids := map[string]bool{}
	for _, d := range p.Devices() {
		ids[d.ID] = !flagged.MatchString(d.ID)
	}
	ends := map[string]bool{}
	for _, prop := range p.Props() {
		h := w.Harness(prop.ID)
		for _, x := range h.Wires {
			assert.False(t, ids[x.Label] || ids[x.From] || ids[x.To], "%s from %s to %s", x.Label, x.From, x.To)
			ends[x.To] = true
		}
		for _, x := range h.Splices {
			for _, j := range x.Joins {
				assert.False(t, ids[j], j)
			}
		}
	}
	assert.Contains(t, ends, "Glow (2)")
}
