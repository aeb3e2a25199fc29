package formats

import (
	"bytes"
	"fmt"
	"math"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"
	"time"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
	"zapbarn/demo"
	"zapbarn/testkit/shop"
	"zapbarn/testkit/wirings"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var today = time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC)

// ngspice solves a netlist and gives its node voltages by number.
func ngspice(t *testing.T, netlist string, n *circuit.Network) map[int]float64 {
	file := filepath.Join(t.TempDir(), "plan.cir")
	body := strings.Replace(netlist, ".op\n", ".control\nop\nset numdgt=10\nprint all\n.endc\n", 1)
	require.NoError(t, os.WriteFile(file, []byte(body), 0o644))
	out, err := exec.Command("ngspice", "-b", file).Output()
	_ = err // batch mode ends with 1 when a deck asks for no plot
	volts, at := map[int]float64{}, map[string]int{}
	for i, name := range NodeNames(n) {
		at[name] = i
	}
	for _, m := range regexp.MustCompile(`(?m)^(n_\w+) = (\S+)`).FindAllStringSubmatch(string(out), -1) {
		v, err := strconv.ParseFloat(m[2], 64)
		require.NoError(t, err)
		i, ours := at[m[1]]
		require.True(t, ours, m[1])
		volts[i] = v
	}
	return volts
}

// Every node of thirteen wiring plans, in several states, against ngspice: within
// 0.1 % + 1 mV.
func TestWiringPlansAgainstNgspice(t *testing.T) {
	l, g := measure.Len, measure.Must[measure.GaugeKind]
	apiary := demo.Apiary(today).In(shop.Kept)
	fed := demo.Apiary(today).In(shop.Kept) // the jar run fed from both ends: a mesh
	fed.Device("W2").To, fed.Device("W2").ToAt = "W1", l(`9'4"`)
	thin := demo.Apiary(today).In(shop.Kept)
	thin.Device("W2").Gauge = g("28 AWG")
	rail := demo.Apiary(today).In(shop.Kept)
	rail.Device("S1").Product = "ps24-5"
	leds := plan.New("leds", "LEDs", "mm", "").In(shop.Kept)
	leds.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	leds.Doc().Devices = []plan.Device{
		{ID: "S", Prop: "a", Kind: "supply", Name: "S", Product: "ps12-1"},
		{ID: "W", Prop: "a", Kind: "run", Name: "W", From: "S", Gauge: g("24 AWG"), Length: l("4 m")},
	}
	for i, p := range []string{"led-red", "led-white", "led-green", "led-amber", "bulb12", "motor12"} {
		leds.Doc().Devices = append(
			leds.Devices(),
			plan.Device{
				ID:       p,
				Prop:     "a",
				Kind:     "lamp",
				Name:     p,
				From:     "W",
				At:       l(fmt.Sprintf("%d cm", 60*(i+1))),
				Product:  p,
				Row:      1 + i%3,
				Resistor: measure.Must[measure.OhmKind]("330 ohm"),
			},
		)
	}
	strip := plan.New("strip", "Strip", "mm", "").In(shop.Kept)
	strip.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	strip.Doc().Devices = []plan.Device{
		{ID: "S", Prop: "a", Kind: "supply", Name: "S", Product: "ps12-5"},
		{ID: "W", Prop: "a", Kind: "run", Name: "W", From: "S", Gauge: g("18 AWG"), Length: l("3 m")},
		{ID: "L", Prop: "a", Kind: "lamp", Name: "L", From: "W", Product: "strip12", Length: l("5 m")},
	}
	step := plan.New("step", "Step", "in", "").In(shop.Kept)
	step.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	step.Doc().Devices = []plan.Device{
		{ID: "S", Prop: "a", Kind: "supply", Name: "S", Product: "ps12-5"},
		{ID: "W", Prop: "a", Kind: "run", Name: "W", From: "S", Gauge: g("20 AWG"), Length: l("20 ft")},
		{
			ID:    "C",
			Prop:  "a",
			Kind:  "converter",
			Name:  "C",
			From:  "W",
			Volts: measure.Must[measure.VoltKind]("5 V"),
			Amps:  measure.Must[measure.AmpKind]("4 A"),
		},
		{
			ID:      "P",
			Prop:    "a",
			Kind:    "lamp",
			Name:    "P",
			From:    "C",
			Product: "pixel5",
			Length:  l("1 m"),
			Bright:  50,
		},
		{ID: "L", Prop: "a", Kind: "lamp", Name: "L", From: "W", At: l("8 ft"), Product: "puck12"},
	}
	cells := step.Clone()
	cells.Devices()[0] = plan.Device{ID: "S", Prop: "a", Kind: "supply", Name: "S", Cell: "sla7"}
	v, a := measure.Must[measure.VoltKind], measure.Must[measure.AmpKind]
	works := plan.New("works", "Works", "in", "").In(shop.Kept)
	works.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	for _, d := range []plan.Device{{ID: "S", Kind: "supply", Product: "ps12-10"},
		{ID: "F", Kind: "fuse", From: "S", Rating: a("5 A"), Poly: true},
		{ID: "W", Kind: "run", From: "F", Gauge: g("16 AWG"), Length: l("18 ft"), FedAt: l("7 ft")},
		{ID: "X", Kind: "connector", From: "W", At: l("2 ft")},
		{ID: "M", Kind: "lamp", From: "X", Product: "motor12"}, {ID: "D", Kind: "lamp", From: "W", At: l("16 ft"),
			Product: "screen12"}, {ID: "A", Kind: "lamp", From: "W", Product: "amp12"},
		{ID: "R", Kind: "lamp", From: "W", At: l("9 ft"), Product: "relay12"}, {ID: "T", Kind: "supply", Product: "ps5-10"},
		{ID: "U", Kind: "controller", From: "W", At: l("1 ft"), Volts: v("12 V")},
		{ID: "P", Kind: "lamp", From: "T", Product: "pixel5", Length: l("2 m"), Bright: 40, Feeds: "17% 50% 83%", Data: "U",
			DataLead: l("9 ft"), Common: true},
		{ID: "V", Kind: "lamp", From: "T", Product: "servo5"}, {ID: "B", Kind: "lamp", From: "T", Product: "pixel5",
			Length: l("1 m"), Bright: 30, Feeds: "100%", Reversed: true}} {
		d.Prop, d.Name = "a", d.ID
		works.Doc().Devices = append(works.Devices(), d)
	}
	loop := works.Clone() // its grounds joined twice: some of the return runs beside the data
	loop.Device("P").From, loop.Device("V").From, loop.Device("B").From = "W", "W", "W"
	for _, id := range []string{"P", "V", "B"} {
		loop.Device(id).From = "C"
	}
	loop.Doc().Devices = append(
		loop.Devices(),
		plan.Device{ID: "C", Prop: "a", Kind: "converter", Name: "C", From: "W", Volts: v("5 V"), Amps: a("10 A")},
	)
	for name, c := range map[string]struct {
		p  *plan.Plan
		on map[string]bool
	}{"step-down converter": {step, nil}, "converter on a battery": {cells, nil}, "apiary, all on": {apiary, nil},
		"apiary, all off": {apiary, map[string]bool{}}, "apiary, fill only": {apiary, map[string]bool{"K1": true}},
		"motor, screen, amplifier, feeds, a common ground": {works, nil}, "grounds joined twice": {loop, nil},
		"two feeds": {fed, nil}, "far too thin": {thin, nil},
		"wrong rail": {rail, nil}, "bare LEDs, bulb, motor": {leds, nil}, "strip": {strip, nil},
		"pixels": {demo.Metric(today).In(shop.Kept), nil}} {
		require.NoError(t, c.p.Validate(), name)
		rig := plan.NewRig(c.p, shop.Kept)
		st := rig.Solve(c.on)
		require.True(t, st.Solution.Settled, name)
		compare(t, name, rig.Net, st.Solution)
	}
}

func compare(t *testing.T, name string, n *circuit.Network, s *circuit.Solution) {
	var b bytes.Buffer
	require.NoError(t, SPICE(&b, name, "", n, s))
	theirs := ngspice(t, b.String(), n)
	require.Len(t, theirs, len(n.Names), name)
	for i, v := range s.V {
		require.InDelta(t, theirs[i], v, .001+.001*math.Abs(theirs[i]), "%s: node %s", name, n.Names[i])
	}
}

// Twenty-four careless wirings of whole props, with every kind of device and
// load, overloaded and short of nothing: every node against ngspice.
func TestCarelessWiringsAgainstNgspice(t *testing.T) {
	seen := map[string]bool{}
	for seed := range uint64(30) {
		p := wirings.Random(1000 + seed)
		if p.Validate() != nil {
			continue
		}
		for _, d := range p.Devices() {
			seen[d.Kind], seen[stock.Shop.Lamps[d.Product].Kind] = true, true
		}
		rig := plan.NewRig(p, shop.Kept)
		st := rig.Solve(nil)
		require.True(t, st.Solution.Settled, seed)
		compare(t, fmt.Sprintf("careless wiring %d", seed), rig.Net, st.Solution)
	}
	for _, k := range []string{"supply", "run", "fuse", "switch", "connector", "controller", "prewired", "resistive",
		"strip", "pixels", "motor", "servo", "coil", "power", "amplifier", "led"} {
		require.True(t, seen[k], k)
	}
}

// randomNetwork is a tree or mesh with every kind of element, one or two
// supplies, some of them at their current limit, some lamps reversed.
func randomNetwork(seed uint64, nodes int) *circuit.Network {
	r := rand.New(rand.NewPCG(seed, 9))
	n := &circuit.Network{}
	g := n.Node("0")
	var at []int
	for range 1 + r.IntN(2) {
		p := n.Node("+")
		n.Add(
			circuit.Element{
				Kind:  circuit.Supply,
				A:     p,
				B:     g,
				E:     12,
				R:     .02 + .05*r.Float64(),
				Limit: 2 + 10*r.Float64(),
			},
		)
		at = append(at, p)
	}
	for len(n.Names) < nodes {
		next := n.Node("n")
		n.Wire("w", at[r.IntN(len(at))], next, .005+.1*r.Float64())
		at = append(at, next)
		a, b := next, g
		if r.IntN(12) == 0 {
			a, b = b, a
		}
		switch r.IntN(6) {
		case 0:
			n.Add(circuit.Element{Kind: circuit.Prewired, A: a, B: b, Vf: 3 + 5*r.Float64(), R: 100 + 500*r.Float64()})
		case 1:
			row := float64(1 + r.IntN(3))
			n.Add(
				circuit.Element{
					Kind: circuit.LED,
					A:    a,
					B:    b,
					R:    80 + 400*r.Float64(),
					Is:   circuit.SaturationCurrent(3.1, .02, .0517),
					Vt:   .0517 * row,
				},
			)
		case 2:
			n.Add(circuit.Element{Kind: circuit.Sink, A: a, B: b, I: .005 + .03*r.Float64(), Vf: 2 + 2*r.Float64()})
		case 3:
			n.Wire("bulb", a, b, 50+200*r.Float64())
		}
	}
	for range r.IntN(nodes / 5) {
		if a, b := at[r.IntN(len(at))], at[r.IntN(len(at))]; a != b {
			n.Wire("mesh", a, b, .02+.2*r.Float64())
		}
	}
	return n
}

// Sixteen random networks of 50 to 500 nodes, trees and meshes, against
// ngspice: every node within 0.1 % + 1 mV.
func TestRandomNetworksAgainstNgspice(t *testing.T) {
	for seed := range uint64(16) {
		n := randomNetwork(seed, 50+30*int(seed))
		s := circuit.Solve(n)
		require.True(t, s.Settled, "seed %d: look at %s", seed, s.Worst)
		compare(t, fmt.Sprintf("random %d", seed), n, s)
	}
}

// Printed as a netlist, the demo runs in ngspice as it is: what the download
// gives, without the test's own additions.
func TestNetlistRunsAsDownloaded(t *testing.T) {
	rig := plan.NewRig(demo.Apiary(today), shop.Kept)
	st := rig.Solve(nil)
	var b bytes.Buffer
	require.NoError(t, SPICE(&b, "The Midnight\nApiary", "everything\non", rig.Net, st.Solution))
	file := filepath.Join(t.TempDir(), "w.cir")
	require.NoError(t, os.WriteFile(file, b.Bytes(), 0o644))
	out, _ := exec.Command("ngspice", "-b", file).CombinedOutput()
	require.Contains(t, strings.ToLower(string(out)), "the midnight apiary")
	require.NotContains(t, strings.ToLower(string(out)), "error")
	require.Contains(t, string(out), "Node                                  Voltage")
}

// The file a person downloads, of every state, is the network of that state:
// ngspice on it gives every value shown. Among the states are converters that
// are off behind a switch, starved, and reversed.
func TestNetlistsOfEveryState(t *testing.T) {
	v, a := measure.Must[measure.VoltKind], measure.Must[measure.AmpKind]
	conv := plan.New("conv", "Conv", "in", "").In(shop.Kept)
	conv.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	conv.Doc().Devices = []plan.Device{
		{ID: "S", Prop: "a", Kind: "supply", Name: "S", Product: "ps12-5"},
		{ID: "K", Prop: "a", Kind: "switch", Name: "K", From: "S", Driven: true},
		{
			ID:    "C",
			Prop:  "a",
			Kind:  "converter",
			Name:  "C",
			From:  "K",
			Volts: v("5 V"),
			Amps:  a("3 A"),
		},
		{ID: "P", Prop: "a", Kind: "lamp", Name: "P", From: "C", Product: "pixel5", Length: measure.Len("0.4 m")},
		{
			ID:     "W",
			Prop:   "a",
			Kind:   "run",
			Name:   "W",
			From:   "S",
			Gauge:  measure.Must[measure.GaugeKind]("28 AWG"),
			Length: measure.Len("60 ft"),
		},
		{
			ID:    "D",
			Prop:  "a",
			Kind:  "converter",
			Name:  "D",
			From:  "W",
			Volts: v("5 V"),
			Amps:  a("3 A"),
		},
		{ID: "Q", Prop: "a", Kind: "lamp", Name: "Q", From: "D", Product: "pixel5", Length: measure.Len("0.9 m")},
		{
			ID:   "H",
			Prop: "a",
			Kind: "switch",
			Name: "H",
			From: "S",
			Off:  true,
		},
		{ID: "L", Prop: "a", Kind: "lamp", Name: "L", From: "H", Product: "puck12"},
	}
	for _, p := range []*plan.Plan{demo.Apiary(today).In(shop.Kept), demo.Metric(today).In(shop.Kept), conv} {
		require.NoError(t, p.Validate())
		for _, c := range p.Cases(shop.Kept) {
			rig, st := p.CaseRig(shop.Kept, c.Key)
			var b bytes.Buffer
			require.NoError(t, SPICE(&b, p.Display().Name, c.Name, rig.Net, st.Solution))
			require.Contains(t, b.String(), "* state: "+c.Name)
			theirs := ngspice(t, b.String(), rig.Net)
			for i, v := range st.Solution.V {
				require.InDelta(
					t,
					theirs[i],
					v,
					.001+.001*math.Abs(theirs[i]),
					"%s, %s: node %s",
					p.Display().Name,
					c.Name,
					rig.Net.Names[i],
				)
			}
			for _, d := range p.Devices() { // energy is kept by every converter that runs
				g := st.Readings[d.ID]
				if d.Kind != "converter" {
					continue
				}
				in := rig.Input(st, d.ID)
				if g.State == "off" || g.State == "starved" {
					require.InDelta(t, 0, in, 1e-3, "%s, %s: %s draws nothing", p.Display().Name, c.Name, d.ID)
					require.Zero(t, g.Amps)
					continue
				}
				require.InEpsilon(t, g.Volts*g.Amps/.88, in, 1e-4, "%s, %s: %s", p.Display().Name, c.Name, d.ID)
			}
		}
	}
	state := func(key, id string) wiring.Operating {
		_, st := conv.CaseRig(shop.Kept, key)
		return st.Readings[id]
	}
	require.Equal(t, "ok", state("all", "C").State)
	require.Equal(t, "off", state("rest", "C").State, "behind an open switch")
	require.Zero(t, state("rest", "C").Volts)
	require.Equal(t, "starved", state("all", "D").State, "at the end of too thin a wire")
	require.Equal(t, "off", state("without:S", "C").State)
	require.Zero(t, state("all", "L").Drop, "no drop behind a switch that is off")
}

// Nodes are called by what they feed, no two the same.
func TestNodesAreNamed(t *testing.T) {
	n := &circuit.Network{
		Names: []string{"S1+", "S1-", "W1+1500", "W1-1500", "jar-24+", "jar-24-", "JAR 24+", "K out+", "é+"},
	}
	assert.Equal(t, []string{
		"n_s1_p", "n_s1_m", "n_w1_p1500", "n_w1_1500", "n_jar_24_p", "n_jar_24_m", "n_jar_24_p_2", "n_k_out_p", "n___p",
	}, NodeNames(n))
	rig := plan.NewRig(demo.Apiary(today), shop.Kept)
	var b bytes.Buffer
	require.NoError(t, SPICE(&b, "x", "", rig.Net, rig.Solve(nil).Solution))
	assert.Contains(t, b.String(), "n_jar_24_p")
	seen := map[string]bool{}
	for _, name := range NodeNames(rig.Net) {
		assert.False(t, seen[name], name)
		seen[name] = true
	}
}
