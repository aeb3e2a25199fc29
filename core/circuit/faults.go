package circuit

import (
	"math"
	"sort"
)

// Fault is one thing that could be wrong: what some elements turn into.
// Faults of one Group are the same thing at different severities.
type Fault struct {
	Group string
	Say   string // in words
	Set   map[int]Element
	Flips []int // probes whose two ends change places with it
}

// Probe is a pair of points a meter can be held to.
type Probe struct {
	Name string
	A, B int
}

// Seen is one observation: volts on a probe, or whether a load is lit.
type Seen struct {
	Probe int     // index, or -1 for a light
	Load  int     // element, for a light
	Value float64 // volts; 1 lit, 0 dark
}

// Meter is how far a reading may be off: a share and a fixed part, one sigma.
type Meter struct{ Share, Volts float64 }

// HandMeter is a common handheld meter: 0.5 % and a hundredth of a volt
// (from memory, typical).
var HandMeter = Meter{0.005, 0.010}

func (m Meter) sigma(v float64) float64 { return math.Hypot(m.Share*v, m.Volts) }

// Cause is a fault with how well it explains what was seen.
type Cause struct {
	Fault
	Share  float64   // of the probability, all causes together 1
	Volts  []float64 // what each probe would read
	misfit float64
}

// Bench holds what every fault would make every probe read: solved once a
// state of the wiring, then any number of readings are judged against it.
type Bench struct {
	Faults []Fault
	Probes []Probe
	volts  [][]float64
	lit    []map[int]float64 // share of rated current of each load
}

// NewBench solves the network with each fault in turn. rated gives the loads'
// rated currents by element. The network is left as it was.
func NewBench(s *Solver, faults []Fault, probes []Probe, rated map[int]float64) *Bench {
	b := &Bench{Faults: faults, Probes: probes}
	for _, f := range faults {
		old := make(map[int]Element, len(f.Set))
		for i, e := range f.Set {
			old[i] = s.net.Elements[i]
			s.net.Elements[i] = e
		}
		s.start = nil // each from rest, so that the order of faults cannot matter
		sol := s.Solve()
		for i, e := range old {
			s.net.Elements[i] = e
		}
		v := make([]float64, len(probes))
		for k, p := range probes {
			v[k] = sol.V[p.A] - sol.V[p.B]
		}
		for _, k := range f.Flips {
			v[k] = -v[k]
		}
		lit := make(map[int]float64, len(rated))
		for i, a := range rated {
			lit[i] = sol.I[i] / a
		}
		b.volts, b.lit = append(b.volts, v), append(b.lit, lit)
	}
	s.start = nil
	return b
}

// Reads is what a probe reads with a fault, both by index; Glows is whether a
// load is seen lit.
func (b *Bench) Reads(fault, probe int) float64 { return b.volts[fault][probe] }

// Glows reports whether a load is seen lit with a fault.
func (b *Bench) Glows(fault, load int) bool { return b.lit[fault][load] > 0.3 }

// Rank orders the causes by how well they explain all that was seen: equal
// chances for each group beforehand, readings off by the meter's error, a
// light seen wrong once in a hundred. Each group keeps its best severity.
func (b *Bench) Rank(seen []Seen, m Meter) []Cause {
	best := map[string]Cause{}
	var order []string
	for k, f := range b.Faults {
		c := Cause{Fault: f, Volts: b.volts[k]}
		for _, s := range seen {
			if s.Probe >= 0 {
				d := (s.Value - b.volts[k][s.Probe]) / m.sigma(s.Value)
				c.misfit += d * d
				continue
			}
			if on := b.lit[k][s.Load] > 0.3; on != (s.Value > 0.5) {
				c.misfit += 2 * math.Log(100)
			}
		}
		if o, ok := best[f.Group]; !ok || c.misfit < o.misfit {
			if !ok {
				order = append(order, f.Group)
			}
			best[f.Group] = c
		}
	}
	out := make([]Cause, 0, len(order))
	least := math.Inf(1)
	for _, g := range order {
		least = math.Min(least, best[g].misfit)
	}
	sum := 0.0
	for _, g := range order {
		c := best[g]
		c.Share = math.Exp(-(c.misfit - least) / 2)
		sum += c.Share
		out = append(out, c)
	}
	for i := range out {
		out[i].Share /= sum
	}
	sort.SliceStable(out, func(i, j int) bool { return out[i].Share > out[j].Share })
	return out
}

// Next is the probe that would tell most: after its reading the causes are
// expected to be the least mixed up (entropy). -1 when none helps.
func (b *Bench) Next(causes []Cause, m Meter, done map[int]bool) int {
	n := 0
	for n < len(causes) && n < 48 && causes[n].Share > 1e-4 {
		n++
	}
	if n < 2 {
		return -1
	}
	before := 0.0
	for _, c := range causes[:n] {
		before -= c.Share * math.Log(c.Share)
	}
	best, gain := -1, 0.02*before
	post := make([]float64, n)
	for k := range b.Probes {
		if done[k] {
			continue
		}
		after := 0.0
		for _, truth := range causes[:n] {
			sum := 0.0
			for j, c := range causes[:n] {
				d := (truth.Volts[k] - c.Volts[k]) / (1.4 * m.sigma(truth.Volts[k]))
				post[j] = c.Share * math.Exp(-d*d/2)
				sum += post[j]
			}
			h := 0.0
			for _, p := range post {
				if p > 0 {
					h -= p / sum * math.Log(p/sum)
				}
			}
			after += truth.Share * h
		}
		if g := before - after; g > gain {
			best, gain = k, g
		}
	}
	return best
}
