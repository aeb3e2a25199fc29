package circuit

import (
	"maps"
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

// glows is the share of rated current above which a load is seen lit.
const glows = 0.3

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
	s      *Solver
	rated  map[int]float64
}

// NewBench solves the network with each fault in turn. rated gives the loads'
// rated currents by element. The network is left as it was.
func NewBench(s *Solver, faults []Fault, probes []Probe, rated map[int]float64) *Bench {
	b := &Bench{Faults: faults, Probes: probes, s: s, rated: rated}
	for _, f := range faults {
		v, lit := b.With(f)
		b.volts, b.lit = append(b.volts, v), append(b.lit, lit)
	}
	return b
}

// With is what every probe reads and how far every load is lit with a fault.
func (b *Bench) With(f Fault) (volts []float64, lit map[int]float64) {
	net := b.s.net
	old := make(map[int]Element, len(f.Set))
	for i, e := range f.Set {
		old[i] = net.Elements[i]
		net.Elements[i] = e
	}
	b.s.Rest() // each from rest, so that the order of faults cannot matter
	sol := b.s.Solve()
	b.s.Rest()
	for i, e := range old {
		net.Elements[i] = e
	}
	volts = make([]float64, len(b.Probes))
	for k, p := range b.Probes {
		volts[k] = sol.V[p.A] - sol.V[p.B]
	}
	for _, k := range f.Flips {
		volts[k] = -volts[k]
	}
	lit = make(map[int]float64, len(b.rated))
	for i, a := range b.rated {
		lit[i] = sol.I[i] / a
	}
	return volts, lit
}

// Reads is what a probe reads with a fault, both by index; Glows is whether a
// load is seen lit.
func (b *Bench) Reads(fault, probe int) float64 { return b.volts[fault][probe] }

// Glows reports whether a load is seen lit with a fault.
func (b *Bench) Glows(fault, load int) bool { return b.lit[fault][load] > glows }

// Rank orders the causes by how well they explain all that was seen: equal
// chances for each group beforehand, readings off by the meter's error, a
// light seen wrong once in a hundred. Each group keeps its best severity.
func (b *Bench) Rank(seen []Seen, m Meter) []Cause {
	best := map[string]Cause{}
	var order []string
	for k, f := range b.Faults {
		c := Cause{Fault: f, Volts: b.volts[k], misfit: misfit(b.volts[k], b.lit[k], seen, m)}
		if o, ok := best[f.Group]; !ok || c.misfit < o.misfit {
			if !ok {
				order = append(order, f.Group)
			}
			best[f.Group] = c
		}
	}
	out := make([]Cause, 0, len(order))
	for _, g := range order {
		out = append(out, best[g])
	}
	return shared(out)
}

// misfit is how badly readings and lights fit what was seen: squares of the
// deviations over the meter's error, and what a light seen wrong once in a
// hundred counts.
func misfit(volts []float64, lit map[int]float64, seen []Seen, m Meter) (sum float64) {
	for _, s := range seen {
		if s.Probe >= 0 {
			d := (s.Value - volts[s.Probe]) / m.sigma(s.Value)
			sum += d * d
		} else if on := lit[s.Load] > glows; on != (s.Value > 0.5) {
			sum += 2 * math.Log(100)
		}
	}
	return sum
}

// shared turns misfits into shares of the probability, the most likely first.
func shared(causes []Cause) []Cause {
	least, sum := math.Inf(1), 0.0
	for _, c := range causes {
		least = math.Min(least, c.misfit)
	}
	for i := range causes {
		causes[i].Share = math.Exp(-(causes[i].misfit - least) / 2)
		sum += causes[i].Share
	}
	for i := range causes {
		causes[i].Share /= sum
	}
	sort.SliceStable(causes, func(i, j int) bool { return causes[i].Share > causes[j].Share })
	return causes
}

// Explained reports whether the best of the causes fits what was seen: its
// misfit is no larger than chance makes it once in a thousand or so.
func Explained(causes []Cause, seen []Seen) bool {
	n := 0.0
	for _, s := range seen {
		if s.Probe >= 0 {
			n++
		}
	}
	return len(causes) > 0 && causes[0].misfit <= n+3*math.Sqrt(2*n)+5
}

// twice is what a second fault at once must gain: one in three hundred.
var twice = 2 * math.Log(300)

// RankTwo is the second stage, for what no single fault explains: it tries two
// at once. All pairs are judged by what each does alone to a probe, one share
// times the other; the best of them are then solved.
func (b *Bench) RankTwo(seen []Seen, m Meter) []Cause {
	out := b.Rank(seen, m)
	groups := map[string]int{}
	for _, p := range b.likeliest(seen, m) {
		f := both(b.Faults[p.a], b.Faults[p.b])
		v, lit := b.With(f)
		c := Cause{Fault: f, Volts: v, misfit: misfit(v, lit, seen, m) + twice}
		if at, ok := groups[f.Group]; !ok {
			groups[f.Group] = len(out)
			out = append(out, c)
		} else if c.misfit < out[at].misfit {
			out[at] = c
		}
	}
	return shared(out)
}

// pair are two faults at once, and how badly they fit, as far as can be told of each alone.
type pair struct {
	a, b   int
	misfit float64
}

// kept is how many pairs are solved.
const kept = 64

// likeliest are the pairs that fit best.
func (b *Bench) likeliest(seen []Seen, m Meter) []pair {
	share, g := b.shares(seen), b.glance(seen, m)
	var best []pair
	worst := math.Inf(1)
	least := func() {
		sort.SliceStable(best, func(x, y int) bool { return best[x].misfit < best[y].misfit })
		best = best[:min(kept, len(best))]
	}
	for i := 1; i < len(b.Faults); i++ {
		for j := i + 1; j < len(b.Faults); j++ {
			if b.Faults[i].Group == b.Faults[j].Group {
				continue
			}
			sum := g.misfit(share[i], share[j], worst)
			if sum >= worst || meet(b.Faults[i].Set, b.Faults[j].Set) {
				continue
			}
			if best = append(best, pair{i, j, sum}); len(best) >= 2*kept {
				least()
				worst = best[kept-1].misfit
			}
		}
	}
	least()
	return best
}

// shares are how far each fault alone turns each thing seen from what it is when all is
// well.
func (b *Bench) shares(seen []Seen) [][]float64 {
	share := make([][]float64, len(b.Faults))
	for k := range share {
		share[k] = make([]float64, len(seen))
		for i, s := range seen {
			switch {
			case s.Probe < 0:
				share[k][i] = 1
				if b.lit[k][s.Load] <= glows {
					share[k][i] = 0
				}
			case math.Abs(b.volts[0][s.Probe]) > .1:
				share[k][i] = b.volts[k][s.Probe] / b.volts[0][s.Probe]
			default:
				share[k][i] = 1
			}
		}
	}
	return share
}

// glance is what was seen, what it is when all is well, and by how much it may be off; 0
// of a light, which is on or is not.
type glance struct{ value, well, sigma []float64 }

func (b *Bench) glance(seen []Seen, m Meter) glance {
	n := len(seen)
	g := glance{make([]float64, n), make([]float64, n), make([]float64, n)}
	for i, s := range seen {
		if g.value[i], g.well[i] = s.Value, 1; s.Probe >= 0 {
			g.well[i], g.sigma[i] = b.volts[0][s.Probe], math.Max(2*m.sigma(s.Value), .05)
		} else if b.lit[0][s.Load] <= glows {
			g.well[i] = 0
		}
	}
	return g
}

// misfit is how badly two faults fit, one share times the other; from worst on it does not
// matter.
func (g glance) misfit(a, b []float64, worst float64) (sum float64) {
	for k := range g.value {
		v := g.well[k] * a[k] * b[k]
		if g.sigma[k] > 0 {
			d := (v - g.value[k]) / g.sigma[k]
			sum += math.Min(d*d, 50)
		} else if (v > .5) != (g.value[k] > .5) {
			sum += 9.2
		}
		if sum >= worst {
			break
		}
	}
	return sum
}

// both is a fault that is two.
func both(x, y Fault) Fault {
	f := Fault{
		Group: x.Group + " and " + y.Group,
		Say:   x.Say + ", and " + y.Say,
		Set:   maps.Clone(x.Set),
		Flips: append(append([]int(nil), x.Flips...), y.Flips...),
	}
	if f.Set == nil {
		f.Set = map[int]Element{}
	}
	maps.Copy(f.Set, y.Set)
	return f
}

func meet(a, b map[int]Element) bool {
	for i := range a {
		if _, ok := b[i]; ok {
			return true
		}
	}
	return false
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
