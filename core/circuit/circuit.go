// Package circuit solves low-voltage wiring as the network it is: every node
// voltage and branch current, with the loads' real characteristics, by
// Newton's method on sparse nodal equations. It also chooses gauges, fuses and
// resistors. Volts, amperes, ohms.
package circuit

import "math"

// Kind is what an element does with the voltage across it.
type Kind int

// The kinds of element.
const (
	Resistor Kind = iota // R
	Supply               // E behind R, at most Limit amperes
	Prewired             // lamp with its resistor inside: nothing below Vf, then a line of slope 1/R
	LED                  // exponential junction of N LEDs in series with R
	Sink                 // constant current I above the knee voltage, a line below it
)

// Element joins node A to node B; its current is counted from A to B.
type Element struct {
	Kind  Kind
	A, B  int
	Name  string
	R     float64
	E     float64
	Limit float64 // of a supply; 0 is none
	Vf    float64 // of Prewired: threshold; of Sink: knee
	I     float64 // of Sink
	Is    float64 // of LED: saturation current
	Vt    float64 // of LED: emission coefficient times thermal voltage times N
	lnC   float64
}

// Leak, in siemens, keeps every branch faintly conducting, so that nothing is singular.
const Leak = 1e-9

// At is the current through the element and its slope at voltage v across it.
func (e *Element) At(v float64) (i, g float64) {
	switch e.Kind {
	case Resistor:
		return v / e.R, 1 / e.R
	case Supply:
		i, g = (v-e.E)/e.R, 1/e.R
		if e.Limit > 0 && i < -e.Limit {
			knee := e.E - e.Limit*e.R
			return -e.Limit + (v-knee)*1e-6, 1e-6
		}
		return i, g
	case Prewired:
		if v <= e.Vf {
			return v * Leak, Leak
		}
		return e.Vf*Leak + (v-e.Vf)/e.R, 1 / e.R
	case Sink:
		if v <= 0 {
			return v * Leak, Leak
		}
		if v < e.Vf {
			return v * e.I / e.Vf, e.I / e.Vf
		}
		return e.I + (v-e.Vf)*Leak, Leak
	case LED:
		i = junction(v, e.R, e.Is, e.Vt, e.lnC)
		return i + v*Leak, 1/(e.R+e.Vt/(i+e.Is)) + Leak
	}
	return 0, Leak
}

// junction is the current i with v = Vt ln(i/Is + 1) + i R. With
// u = (i + Is) R / Vt this is u + ln u = lnC + (v + Is R)/Vt, lnC = ln(Is R/Vt):
// the Lambert W function, by the fourth-order step of Fritsch, Shafer and
// Crowley (Communications of the ACM 16, 1973), one of which does for a lit LED, two for any v.
func junction(v, r, is, vt, lnC float64) float64 {
	l := lnC + (v+is*r)/vt
	if l < -30 {
		return is * math.Expm1(math.Max(v/vt, -40)) // the resistor drops nothing
	}
	var u float64
	if l > 2 { // the first terms of W's series for large arguments
		ln := roughLog(l)
		u = l - ln + ln/l
	} else {
		u = math.Exp(math.Min(l, 0.5))
	}
	for range 8 {
		z := l - u - math.Log(u)
		q := 2 * (1 + u) * (1 + u + z*2/3)
		step := z / (1 + u) * (q - z) / (q - 2*z)
		u *= 1 + step
		if math.Abs(step) < 1e-3 { // its fourth power is what is left
			break
		}
	}
	return u*vt/r - is
}

// roughLog is the natural logarithm of a positive number to 1e-4: its exponent,
// and a parabola of the fourth degree through its fraction, fitted by least
// squares. Good enough to start from.
func roughLog(x float64) float64 {
	b := math.Float64bits(x)
	m := math.Float64frombits(b&(1<<52-1) | 1023<<52)
	return float64(int(b>>52)-1023)*math.Ln2 - 1.7417939 + (2.8212026+(-1.4699568+(0.44717955-0.056570851*m)*m)*m)*m
}

// SaturationCurrent fits an LED's exponential through its rated point: vf at
// amps, with vt volts per e-fold.
func SaturationCurrent(vf, amps, vt float64) float64 { return amps / math.Expm1(vf/vt) }

// Network is nodes joined by elements.
type Network struct {
	Names    []string // of nodes
	Elements []Element
}

// Node adds a node and returns its number.
func (n *Network) Node(name string) int {
	n.Names = append(n.Names, name)
	return len(n.Names) - 1
}

// Add adds an element and returns its number.
func (n *Network) Add(e Element) int {
	if e.Kind == LED {
		e.lnC = math.Log(e.Is * e.R / e.Vt)
	}
	n.Elements = append(n.Elements, e)
	return len(n.Elements) - 1
}

// Wire adds a resistor between two nodes. Zero ohms becomes a micro-ohm.
func (n *Network) Wire(name string, a, b int, ohms float64) int {
	return n.Add(Element{Kind: Resistor, A: a, B: b, R: math.Max(ohms, 1e-6), Name: name})
}

// Strip adds a strip of count equal segments between (pos, neg) and its far
// end, whose nodes it returns. Each rail has ohms per segment; the load of each
// segment hangs at its far end, which makes the lump exact for cut strips.
func (n *Network) Strip(name string, pos, neg, count int, ohms float64, load Element) (farPos, farNeg int) {
	plus, minus := name+"+", name+"-"
	for range count {
		p, q := n.Node(plus), n.Node(minus)
		n.Wire(name, pos, p, ohms)
		n.Wire(name, neg, q, ohms)
		load.A, load.B, load.Name = p, q, name
		n.Add(load)
		pos, neg = p, q
	}
	return pos, neg
}

// StripOf is Strip for a long one: its segments are lumped to at most most, each lump with
// the current of its segments at their middle, so that its far end is right to the square of
// a lump's share of the length.
func (n *Network) StripOf(name string, pos, neg, count, most int, ohms float64, load Element) (farPos, farNeg int) {
	if count <= most {
		return n.Strip(name, pos, neg, count, ohms, load)
	}
	k := float64(count) / float64(most)
	p, q := n.Node(name+"+"), n.Node(name+"-")
	n.Wire(name, pos, p, ohms*(k+1)/2)
	n.Wire(name, neg, q, ohms*(k+1)/2)
	load = load.Times(k)
	load.A, load.B, load.Name = p, q, name
	n.Add(load)
	return n.Strip(name, p, q, most-1, ohms*k, load)
}

// Times is so many of a load side by side, as one; it is one that takes a current by a
// line or a constant.
func (e Element) Times(k float64) Element {
	e.R /= k
	e.I *= k
	return e
}

// Solution is every node voltage and element current.
type Solution struct {
	V       []float64
	I       []float64
	Settled bool
	Worst   string // the element next to the worst node when not settled
	Ground  []int  // the node taken as zero in each island
	Island  []int  // of each node
	Nodes   []int  // of each island: how many it has
	Steps   []int  // and how many of Newton's it took
}

// Across is the voltage over an element.
func (s *Solution) Across(e Element) float64 { return s.V[e.A] - s.V[e.B] }

// Of says how many nodes the island of a node has, and how many steps it took to solve.
func (s *Solution) Of(node int) (nodes, steps int) {
	n := s.Island[node]
	return s.Nodes[n], s.Steps[n]
}
