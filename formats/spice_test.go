package formats

import (
	"bytes"
	"fmt"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/demo"
)

var today = time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC)

// ngspice solves a netlist and gives its node voltages by number.
func ngspice(t *testing.T, netlist string) map[int]float64 {
	file := filepath.Join(t.TempDir(), "plan.cir")
	body := strings.Replace(netlist, ".op\n", ".control\nop\nset numdgt=10\nprint all\n.endc\n", 1)
	require.NoError(t, os.WriteFile(file, []byte(body), 0o644))
	out, err := exec.Command("ngspice", "-b", file).Output()
	_ = err // batch mode ends with 1 when a deck asks for no plot
	volts := map[int]float64{}
	for _, m := range regexp.MustCompile(`(?m)^n(\d+) = (\S+)`).FindAllStringSubmatch(string(out), -1) {
		k, _ := strconv.Atoi(m[1])
		v, err := strconv.ParseFloat(m[2], 64)
		require.NoError(t, err)
		volts[k] = v
	}
	return volts
}

// Every node of eight wiring plans, in several states, against ngspice: within
// 0.1 % + 1 mV.
func TestWiringPlansAgainstNgspice(t *testing.T) {
	l, g := measure.Len, measure.Must[measure.GaugeKind]
	apiary := demo.Apiary(today)
	fed := demo.Apiary(today) // the jar run fed from both ends: a mesh
	fed.Device("W2").To, fed.Device("W2").ToAt = "W1", l(`9'4"`)
	thin := demo.Apiary(today)
	thin.Device("W2").Gauge = g("28 AWG")
	rail := demo.Apiary(today)
	rail.Device("S1").Product = "ps24-5"
	leds := plan.New("leds", "LEDs", "mm", "")
	leds.Props = []plan.Prop{{ID: "a", Name: "A"}}
	leds.Devices = []plan.Device{{ID: "S", Prop: "a", Kind: "supply", Name: "S", Product: "ps12-1"}, {ID: "W", Prop: "a", Kind: "run", Name: "W", From: "S", Gauge: g("24 AWG"), Length: l("4 m")}}
	for i, p := range []string{"led-red", "led-white", "led-green", "led-amber", "bulb12", "motor12"} {
		leds.Devices = append(leds.Devices, plan.Device{ID: p, Prop: "a", Kind: "lamp", Name: p, From: "W", At: l(fmt.Sprintf("%d cm", 60*(i+1))), Product: p, Row: 1 + i%3, Resistor: measure.Must[measure.OhmKind]("330 ohm")})
	}
	strip := plan.New("strip", "Strip", "mm", "")
	strip.Props = []plan.Prop{{ID: "a", Name: "A"}}
	strip.Devices = []plan.Device{{ID: "S", Prop: "a", Kind: "supply", Name: "S", Product: "ps12-5"}, {ID: "W", Prop: "a", Kind: "run", Name: "W", From: "S", Gauge: g("18 AWG"), Length: l("3 m")},
		{ID: "L", Prop: "a", Kind: "lamp", Name: "L", From: "W", Product: "strip12", Length: l("5 m")}}
	for name, c := range map[string]struct {
		p  *plan.Plan
		on map[string]bool
	}{"apiary, all on": {apiary, nil}, "apiary, all off": {apiary, map[string]bool{}}, "apiary, fill only": {apiary, map[string]bool{"K1": true}}, "two feeds": {fed, nil}, "far too thin": {thin, nil},
		"wrong rail": {rail, nil}, "bare LEDs, bulb, motor": {leds, nil}, "strip": {strip, nil}, "pixels": {demo.Metric(today), nil}} {
		require.NoError(t, c.p.Validate(), name)
		rig := plan.NewRig(c.p, stock.Shop)
		st := rig.Solve(stock.Shop, c.on)
		require.True(t, st.Solution.Settled, name)
		compare(t, name, rig.Net, st.Solution)
	}
}

func compare(t *testing.T, name string, n *circuit.Network, s *circuit.Solution) {
	var b bytes.Buffer
	require.NoError(t, SPICE(&b, name, n, s))
	theirs := ngspice(t, b.String())
	require.Len(t, theirs, len(n.Names), name)
	for i, v := range s.V {
		require.InDelta(t, theirs[i], v, .001+.001*math.Abs(theirs[i]), "%s: node %s", name, n.Names[i])
	}
}
