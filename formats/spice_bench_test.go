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

	"zapbarn/core/circuit"
)

// lit is a tree of as many nodes, half of them LEDs at the end of their leads,
// with loops closed by as many more wires.
func lit(nodes, loops int) *circuit.Network {
	r := rand.New(rand.NewPCG(1, 2))
	n := &circuit.Network{}
	g, p := n.Node("0"), n.Node("p")
	n.Add(circuit.Element{Kind: circuit.Supply, A: p, B: g, E: 12, R: 1e-3})
	at := []int{p}
	for range nodes / 2 {
		joint, lead := n.Node("j"), n.Node("l")
		n.Wire("w", at[r.IntN(len(at))], joint, (.01+.2*r.Float64())*50/float64(nodes))
		n.Wire("lead", joint, lead, .05)
		n.Add(
			circuit.Element{
				Kind: circuit.LED,
				A:    lead,
				B:    g,
				R:    120,
				Is:   circuit.SaturationCurrent(9.6, .02, .15),
				Vt:   .15,
			},
		)
		at = append(at, joint)
	}
	for range loops {
		if a, b := at[r.IntN(len(at))], at[r.IntN(len(at))]; a != b {
			n.Wire("x", a, b, .1)
		}
	}
	return n
}

// ngspiceTime is the least of five analysis times ngspice reports for a
// network's operating point, its own start and reading taken off, in seconds.
func ngspiceTime(b *testing.B, n *circuit.Network, s *circuit.Solution) float64 {
	var deck bytes.Buffer
	if err := SPICE(&deck, "bench", "", n, s); err != nil {
		b.Fatal(err)
	}
	file := filepath.Join(b.TempDir(), "b.cir")
	// as ngspice likes it best: its own node 0 for ground, its usual tolerances
	body := regexp.MustCompile(`(?m)^(Vg|\.options).*\n`).ReplaceAllString(deck.String(), "")
	body = regexp.MustCompile(fmt.Sprintf(`\bn%d\b`, s.Ground[0])).ReplaceAllString(body, "0")
	body = strings.Replace(body, ".op\n", ".control\nop\nrusage time\n.endc\n", 1)
	if err := os.WriteFile(file, []byte(body), 0o644); err != nil {
		b.Fatal(err)
	}
	best := math.Inf(1)
	for range 5 {
		out, _ := exec.Command("ngspice", "-b", file).CombinedOutput()
		m := regexp.MustCompile(`(?i)analysis time[^=]*= *([0-9.e+-]+)`).FindSubmatch(out)
		if m == nil {
			b.Fatalf("ngspice says no time: %.400s", out)
		}
		v, _ := strconv.ParseFloat(string(m[1]), 64)
		best = min(best, v)
	}
	return best
}

// Side by side with ngspice in one run: its analysis time, ours with the
// preparation of the network, and how many times faster that is.
func BenchmarkAgainstNgspice(b *testing.B) {
	if _, err := exec.LookPath("ngspice"); err != nil {
		b.Skip("ngspice is not installed")
	}
	for _, c := range []struct{ nodes, loops int }{{500, 0}, {5000, 0}, {500, 100}} {
		n := lit(c.nodes, c.loops)
		theirs := ngspiceTime(b, n, circuit.Solve(n))
		b.Run(fmt.Sprintf("%dnodes%dloops", c.nodes, c.loops), func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				if !circuit.Solve(n).Settled {
					b.Fatal("not settled")
				}
			}
			ours := b.Elapsed().Seconds() / float64(b.N)
			b.ReportMetric(1000*theirs, "ngspice-ms")
			b.ReportMetric(theirs/ours, "times-faster")
		})
	}
}
