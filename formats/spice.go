// Package formats writes core values as open formats, and reads them back.
package formats

import (
	"fmt"
	"io"
	"strings"
	"unicode"

	"zapbarn/core/circuit"
)

// SPICE writes a network as a netlist for a general circuit simulator, with
// the same element models: PWL lamps and sinks as behavioural sources, bare
// LEDs as diodes with their resistor. Nodes keep their numbers; each island's
// ground is tied to 0 by a source of 0 V. State says which state of the wiring
// it is: a network is one state's.
func SPICE(out io.Writer, title, state string, n *circuit.Network, s *circuit.Solution) error {
	var b strings.Builder
	fmt.Fprintf(&b, "* %s\n", strings.ReplaceAll(title, "\n", " "))
	if state != "" {
		fmt.Fprintf(&b, "* state: %s\n", strings.ReplaceAll(state, "\n", " "))
	}
	names := NodeNames(n)
	node := func(i int) string { return names[i] }
	for i, g := range s.Ground {
		fmt.Fprintf(&b, "Vg%d %s 0 0\n", i, node(g))
	}
	for i, e := range n.Elements {
		b.WriteString(spiceElement(i, e, node(e.A), node(e.B)))
	}
	b.WriteString(".options reltol=1e-6 abstol=1e-12 vntol=1e-9 gmin=1e-12 temp=27\n.op\n.end\n")
	_, err := io.WriteString(out, b.String())
	return err
}

// spiceElement is element number i between nodes a and z.
func spiceElement(i int, e circuit.Element, a, z string) string {
	v := fmt.Sprintf("V(%s,%s)", a, z)
	switch {
	case e.Kind == circuit.Resistor:
		return fmt.Sprintf("R%d %s %s %.12g\n", i, a, z, e.R)
	case e.Kind == circuit.Supply && e.Limit > 0: // its current gives in at the limit
		return fmt.Sprintf("B%d %s %s I=max((%s-%.12g)/%.12g,-%.12g+(%s-%.12g)*1e-6)\n",
			i, a, z, v, e.E, e.R, e.Limit, v, e.E-e.Limit*e.R)
	case e.Kind == circuit.Supply:
		return fmt.Sprintf("V%d s%d %s %.12g\nR%d s%d %s %.12g\n", i, i, z, e.E, i, i, a, e.R)
	case e.Kind == circuit.Prewired:
		return fmt.Sprintf("B%d %s %s I=%g*min(%s,%.12g)+max(0,(%s-%.12g)/%.12g)\n",
			i, a, z, circuit.Leak, v, e.Vf, v, e.Vf, e.R)
	case e.Kind == circuit.Sink:
		return fmt.Sprintf("B%d %s %s I=%g*(min(%s,0)+max(0,%s-%.12g))+max(0,min(%s*%.12g,%.12g))\n",
			i, a, z, circuit.Leak, v, v, e.Vf, v, e.I/e.Vf, e.I)
	case e.Kind == circuit.LED:
		return fmt.Sprintf("R%d %s d%d %.12g\nD%d d%d %s m%d\n.model m%d D(IS=%.12g N=%.12g RS=0)\nRl%d %s %s %g\n",
			i, a, i, e.R, i, i, z, i, i, e.Is, e.Vt/thermal, i, a, z, 1/circuit.Leak)
	}
	return ""
}

// thermal is kT/q at 27 C, as circuit simulators take it.
const thermal = 0.025864186

// NodeNames are a network's nodes by what they feed, as a netlist may write them: n_ and
// the device, p or m for its plus and minus, and how far along a run, in mm. No two are
// the same, whatever the case.
func NodeNames(n *circuit.Network) []string {
	out := make([]string, len(n.Names))
	taken := map[string]bool{}
	for i, name := range n.Names {
		name = strings.NewReplacer("+", " p", "- ", " m ").Replace(name)
		if end, ok := strings.CutSuffix(name, "-"); ok {
			name = end + " m"
		}
		name = "n_" + strings.Map(func(r rune) rune {
			if r < 128 && (unicode.IsLetter(r) || unicode.IsDigit(r)) {
				return unicode.ToLower(r)
			}
			return '_'
		}, name)
		for k, base := 2, name; taken[name]; k++ {
			name = fmt.Sprintf("%s_%d", base, k)
		}
		taken[name], out[i] = true, name
	}
	return out
}
