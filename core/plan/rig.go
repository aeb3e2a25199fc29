package plan

import (
	"fmt"
	"math"
	"sort"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/source"
	"zapbarn/core/stock"
)

// Resistances of small parts, in ohms.
const (
	contactOhms = 0.010 // a closed switch or relay contact
	openOhms    = 1e9
	fuseVolts   = 0.1 // dropped by a fuse at its rating
	jointOhms   = 1e-6
)

var smallPartsFrom = source.FromMemory("closed contact 10 mohm; a fuse drops about 0.1 V at its rating")

// tap is where something leaves a run.
type tap struct {
	at       float64
	pos, neg int
}

// Rig is the wiring as a network, ready to be solved in any state.
type Rig struct {
	Net     *circuit.Network
	solver  *circuit.Solver
	port    map[string][2]int // where each device hands on: positive, negative
	load    map[string][]int  // elements of a lamp
	series  map[string][]int  // positive elements of a run, in order from its feed
	leads   map[string][2]int // a lamp's two lead elements
	gate    map[string]int    // the element of a switch or fuse
	source  map[string]int    // the element of a supply or a converter's output
	input   map[string]int    // the element of a converter's input
	Unfed   map[string]bool   // nothing leads to it from a supply
	supply  map[string]string // which supply feeds it
	devices []Device
}

// lampOf is a lamp's shop entry with the device's own values laid over it.
func lampOf(d *Device, lib *stock.Library) stock.Lamp {
	l := lib.Lamps[d.Product]
	if !d.Volts.IsZero() {
		l.Volts = d.Volts.Value()
	}
	if !d.Amps.IsZero() {
		l.Amps = d.Amps.Value()
	}
	if !d.Lead.IsZero() {
		l.Lead = d.Lead
	}
	if !d.Gauge.IsZero() {
		l.LeadGauge = d.Gauge
	}
	return l
}

// SupplyOf is a supply's volts and amps, from the list or as written.
func SupplyOf(d *Device, lib *stock.Library) (volts, amps float64) {
	if c, ok := circuit.Cells[d.Cell]; ok {
		return c.Volts * float64(max(1, d.Cells)), c.Most * float64(max(1, d.Sets))
	}
	s := lib.Supplies[d.Product]
	return d.Volts.Or(s.Volts), d.Amps.Or(s.Amps)
}

// sourceOhms is what stands behind a supply's volts, inside it.
func sourceOhms(d *Device, volts, amps float64) float64 {
	if c, ok := circuit.Cells[d.Cell]; ok {
		return c.Ohms * float64(max(1, d.Cells)) / float64(max(1, d.Sets))
	}
	return stock.SupplyResistance(volts, amps)
}

// RatedVolts is what the lamp is made for: for bare LEDs with a resistor, what
// runs their row at its rated current.
func RatedVolts(d *Device, lib *stock.Library) float64 {
	l := lampOf(d, lib)
	if l.Kind == "led" {
		return float64(max(1, d.Row))*l.Vf + l.Amps*d.Resistor.Or(0)
	}
	return l.Volts
}

// Segments is how many cut segments or pixels a strip has.
func Segments(d *Device, lib *stock.Library) int {
	l := lib.Lamps[d.Product]
	return max(1, int(d.Length.Value()/1000*l.PerMetre+1e-6)/max(1, l.Cut))
}

// RatedAmps is what the lamp draws at its rated volts.
func RatedAmps(d *Device, lib *stock.Library) float64 {
	l := lampOf(d, lib)
	switch l.Kind {
	case "strip":
		return l.Amps * float64(Segments(d, lib))
	case "pixels":
		return float64(Segments(d, lib)) * (l.Idle + (l.Amps-l.Idle)*bright(d))
	}
	return l.Amps
}

func bright(d *Device) float64 {
	if d.Bright == 0 {
		return 1
	}
	return float64(d.Bright) / 100
}

// element is the load between two nodes.
func element(d *Device, l stock.Lamp) circuit.Element {
	switch l.Kind {
	case "resistive":
		return circuit.Element{Kind: circuit.Resistor, R: l.Volts / l.Amps, Name: d.ID}
	case "led":
		n := float64(max(1, d.Row))
		vt := 2 * 0.02585 // emission coefficient 2 at 27 C, per LED
		return circuit.Element{Kind: circuit.LED, R: math.Max(d.Resistor.Or(0)+5*n, 0.1), Is: circuit.SaturationCurrent(l.Vf-5*l.Amps, l.Amps, vt), Vt: vt * n, Name: d.ID}
	case "strip":
		return circuit.Element{Kind: circuit.Prewired, Vf: l.Vf, R: (l.Volts - l.Vf) / l.Amps, Name: d.ID}
	case "pixels":
		return circuit.Element{Kind: circuit.Sink, I: l.Idle + (l.Amps-l.Idle)*bright(d), Vf: 0.74 * l.Volts, Name: d.ID}
	}
	return circuit.Element{Kind: circuit.Prewired, Vf: l.Vf, R: (l.Volts - l.Vf) / l.Amps, Name: d.ID}
}

// NewRig builds the network of all devices that have somewhere to be fed from.
func NewRig(p *Plan, lib *stock.Library) *Rig {
	r := &Rig{Net: &circuit.Network{}, port: map[string][2]int{}, load: map[string][]int{}, series: map[string][]int{}, leads: map[string][2]int{},
		gate: map[string]int{}, source: map[string]int{}, input: map[string]int{}, Unfed: map[string]bool{}, supply: map[string]string{}, devices: p.Devices}
	temp := p.Temperature()
	byID := map[string]*Device{}
	taps := map[string][]float64{}
	for i := range p.Devices {
		d := &p.Devices[i]
		byID[d.ID] = d
		if d.From != "" {
			taps[d.From] = append(taps[d.From], d.At.Or(math.Inf(1)))
		}
		if d.To != "" {
			taps[d.To] = append(taps[d.To], d.ToAt.Or(math.Inf(1)))
		}
	}
	points := map[string][]tap{}
	state := map[string]int{} // 1 under way, 2 built
	var build func(d *Device)
	outlet := func(id string, at float64) (pos, neg int) {
		build(byID[id])
		for _, t := range points[id] {
			if t.at >= at-1e-6 {
				return t.pos, t.neg
			}
		}
		q := r.port[id]
		return q[0], q[1]
	}
	build = func(d *Device) {
		if state[d.ID] != 0 {
			return
		}
		state[d.ID] = 1
		var pos, neg int
		if d.From != "" {
			pos, neg = outlet(d.From, d.At.Or(math.Inf(1)))
			r.supply[d.ID] = r.supply[d.From]
		} else if d.Kind != "supply" {
			pos, neg = r.Net.Node(d.ID+" in+"), r.Net.Node(d.ID+" in-")
		}
		switch d.Kind {
		case "supply":
			v, a := SupplyOf(d, lib)
			neg, pos = r.Net.Node(d.ID+"-"), r.Net.Node(d.ID+"+")
			r.source[d.ID] = r.Net.Add(circuit.Element{Kind: circuit.Supply, A: pos, B: neg, E: v, R: sourceOhms(d, v, a), Limit: 1.3 * a, Name: d.ID})
			r.supply[d.ID] = d.ID
			r.port[d.ID] = [2]int{pos, neg}
		case "converter":
			v, a := SupplyOf(d, lib)
			out := r.Net.Node(d.ID + " out+")
			// it runs from a volt above what it gives; what it draws is found in solve
			r.input[d.ID] = r.Net.Add(circuit.Element{Kind: circuit.Sink, A: pos, B: neg, Vf: v + 1, I: 1e-6, Name: d.ID})
			r.source[d.ID] = r.Net.Add(circuit.Element{Kind: circuit.Supply, A: out, B: neg, E: v, R: stock.SupplyResistance(v, a), Limit: 1.3 * a, Name: d.ID})
			r.port[d.ID] = [2]int{out, neg}
			r.supply[d.ID] = d.ID // what it feeds is judged by its volts
		case "fuse", "switch":
			ohms := contactOhms
			if d.Kind == "fuse" {
				ohms = fuseVolts / math.Max(d.Rating.Value(), 0.1)
			}
			out := r.Net.Node(d.ID + " out+")
			r.gate[d.ID] = r.Net.Wire(d.ID, pos, out, ohms)
			r.port[d.ID] = [2]int{out, neg}
		case "run":
			stops := append([]float64{d.Length.Value()}, taps[d.ID]...)
			sort.Float64s(stops) // those with no place given, at +Inf, sit at the end
			ohms := stock.CopperOhmsPerMetre(d.Gauge.Value(), temp)
			last := 0.0
			points[d.ID] = append(points[d.ID], tap{0, pos, neg})
			for _, at := range stops {
				if at <= last+1e-6 || math.IsInf(at, 1) {
					continue
				}
				np, nn := r.Net.Node(fmt.Sprintf("%s+%.0f", d.ID, at)), r.Net.Node(fmt.Sprintf("%s-%.0f", d.ID, at))
				r.series[d.ID] = append(r.series[d.ID], r.Net.Wire(d.ID, pos, np, ohms*(at-last)/1000))
				r.Net.Wire(d.ID, neg, nn, ohms*(at-last)/1000)
				pos, neg, last = np, nn, at
				points[d.ID] = append(points[d.ID], tap{at, pos, neg})
			}
			r.port[d.ID] = [2]int{pos, neg}
		case "lamp":
			l := lampOf(d, lib)
			lead := (l.Lead.Value() + d.Extension.Value()) / 1000 * stock.CopperOhmsPerMetre(l.LeadGauge.Value(), temp)
			a, b := r.Net.Node(d.ID+"+"), r.Net.Node(d.ID+"-")
			r.leads[d.ID] = [2]int{r.Net.Wire(d.ID+" lead", pos, a, lead), r.Net.Wire(d.ID+" lead", neg, b, lead)}
			if d.Reversed {
				a, b = b, a
			}
			e := element(d, l)
			from := len(r.Net.Elements)
			if l.Kind == "strip" || l.Kind == "pixels" {
				r.Net.Strip(d.ID, a, b, Segments(d, lib), l.Copper*float64(l.Cut)/l.PerMetre, e)
			} else {
				e.A, e.B = a, b
				r.Net.Add(e)
			}
			for i := from; i < len(r.Net.Elements); i++ {
				if r.Net.Elements[i].Kind == e.Kind && (e.Kind != circuit.Resistor || i == len(r.Net.Elements)-1) {
					r.load[d.ID] = append(r.load[d.ID], i)
				}
			}
		}
		state[d.ID] = 2
	}
	for i := range p.Devices {
		build(&p.Devices[i])
	}
	for i := range p.Devices {
		d := &p.Devices[i]
		if d.To != "" {
			tp, tn := outlet(d.To, d.ToAt.Or(math.Inf(1)))
			end := r.port[d.ID]
			r.Net.Wire(d.ID+" far end", end[0], tp, jointOhms)
			r.Net.Wire(d.ID+" far end", end[1], tn, jointOhms)
			if r.supply[d.ID] == "" {
				r.supply[d.ID] = r.supply[d.To]
			}
		}
	}
	for i := range p.Devices {
		d := &p.Devices[i]
		for up := d; r.supply[d.ID] == "" && up.From != ""; up = byID[up.From] {
			r.supply[d.ID] = r.supply[up.From]
		}
		r.Unfed[d.ID] = r.supply[d.ID] == ""
	}
	r.solver = circuit.NewSolver(r.Net)
	return r
}

// Supply is the ID of the supply that feeds a device, or "".
func (r *Rig) Supply(id string) string { return r.supply[id] }

// Operating is what one device does in one state.
type Operating struct {
	Volts   float64 // across the lamp, or at the end of a run, fuse or supply
	Amps    float64 // through it; for a run, in its first piece
	Watts   float64
	Drop    float64 // from its supply's rated volts
	Lit     float64 // share of rated current; of a strip, its far end
	State   string  // lit, dim, dark, reversed, unfed, over; supplies: ok, heavy, overloaded
	FarVolt float64 // of a strip: at its worst segment
}

// State is every reading in one state of the switches.
type State struct {
	Readings map[string]Operating
	Solution *circuit.Solution
	Hidden   bool // drawn as the eye sees it: no numbers
}

// converterEfficiency is what a step-down converter makes of what it draws.
const converterEfficiency = 0.88

// converterFrom is its source.
var converterFrom = source.FromMemory("small step-down converters, 85 to 92 %")

// solve finds the network's state. A converter draws constant power: what it
// gives over its efficiency, as a current at the volts it then sees; the
// network is solved again until that no longer changes.
func (r *Rig) solve() *circuit.Solution {
	for _, e := range r.input {
		r.Net.Elements[e].I = 1e-6
	}
	sol := r.solver.Solve()
	for pass := 0; pass < 60 && len(r.input) > 0; pass++ {
		worst := 0.0
		for i := range r.devices { // in order, so that the same plan gives the same answer
			k, ok := r.input[r.devices[i].ID]
			if !ok {
				continue
			}
			in, out := &r.Net.Elements[k], r.source[r.devices[i].ID]
			watts := math.Max(0, -sol.I[out]*sol.Across(r.Net.Elements[out])) / converterEfficiency
			want := math.Max(1e-6, watts/math.Max(sol.Across(*in), in.Vf))
			worst = math.Max(worst, math.Abs(want-in.I)/want)
			in.I = want
		}
		if worst < 1e-7 {
			break
		}
		sol = r.solver.Solve()
	}
	return sol
}

// Solve solves the rig with the given driven switches on. A hand switch is on
// unless it was left off; nil means everything on.
func (r *Rig) Solve(lib *stock.Library, on map[string]bool) *State {
	for i := range r.devices {
		d := &r.devices[i]
		if d.Kind != "switch" {
			continue
		}
		closed := !d.Off || d.Driven
		if d.Driven && on != nil {
			closed = on[d.ID]
		}
		ohms := openOhms
		if closed {
			ohms = contactOhms
		}
		r.Net.Elements[r.gate[d.ID]].R = ohms
	}
	sol := r.solve()
	st := &State{Readings: make(map[string]Operating, len(r.devices)), Solution: sol}
	rated := map[string]float64{}
	for i := range r.devices {
		if d := &r.devices[i]; d.Kind == "supply" || d.Kind == "converter" {
			rated[d.ID], _ = SupplyOf(d, lib)
		}
	}
	for i := range r.devices {
		d := &r.devices[i]
		var g Operating
		switch d.Kind {
		case "lamp":
			ids := r.load[d.ID]
			g.Volts, g.FarVolt = sol.Across(r.Net.Elements[ids[0]]), math.Inf(1)
			full := RatedAmps(d, lib) / float64(len(ids))
			g.Lit = math.Inf(1)
			for _, e := range ids {
				v := sol.Across(r.Net.Elements[e])
				g.Amps += sol.I[e]
				g.Watts += sol.I[e] * v
				g.FarVolt = math.Min(g.FarVolt, v)
				g.Lit = math.Min(g.Lit, sol.I[e]/full)
			}
			g.Lit = math.Max(0, g.Lit)
			g.State = lampState(d, g, RatedVolts(d, lib), r.Unfed[d.ID])
			if d.Reversed {
				g.Volts, g.FarVolt = -g.Volts, -g.FarVolt // as a meter on its leads reads
			}
		case "supply", "converter":
			e := r.source[d.ID]
			g.Volts, g.Amps = sol.Across(r.Net.Elements[e]), -sol.I[e]
			_, limit := SupplyOf(d, lib)
			g.State, g.Lit = "ok", g.Amps/limit
			if g.Lit > 1 {
				g.State = "overloaded"
			} else if g.Lit > circuit.LoadLimit {
				g.State = "heavy"
			}
		case "run":
			q := r.port[d.ID]
			g.Volts = sol.V[q[0]] - sol.V[q[1]]
			for _, e := range r.series[d.ID] {
				if a := math.Abs(sol.I[e]); a > g.Amps {
					g.Amps = a
				}
			}
		default:
			q := r.port[d.ID]
			g.Volts, g.Amps = sol.V[q[0]]-sol.V[q[1]], math.Abs(sol.I[r.gate[d.ID]])
		}
		if d.Kind == "converter" {
			if in := r.Net.Elements[r.input[d.ID]]; sol.Across(in) < in.Vf {
				g.State = "starved"
			}
		}
		if d.Kind != "supply" {
			g.Watts = math.Max(g.Watts, g.Volts*g.Amps)
		}
		if s := r.supply[d.ID]; s != "" {
			g.Drop = rated[s] - g.Volts
			if d.Kind == "lamp" {
				g.Drop = rated[s] - math.Min(g.Volts, g.FarVolt)
			}
		}
		st.Readings[d.ID] = g
	}
	return st
}

// A lamp is dim below 90 % of its current and dark below 5 %; over from 10 %
// above its volts.
func lampState(d *Device, g Operating, rated float64, unfed bool) string {
	switch {
	case unfed:
		return "unfed"
	case d.Reversed && g.Lit < 0.05 && g.Volts < -0.1:
		return "reversed"
	case g.Volts > 1.1*rated:
		return "over"
	case g.Lit < 0.05:
		return "dark"
	case g.Lit < 0.90:
		return "dim"
	}
	return "lit"
}

// Profile is volts against distance along a run, from its feed.
func (r *Rig) Profile(st *State, run string) (at, volts []float64) {
	d := (*Device)(nil)
	for i := range r.devices {
		if r.devices[i].ID == run {
			d = &r.devices[i]
		}
	}
	if d == nil || d.Kind != "run" {
		return nil, nil
	}
	sum := 0.0
	total := 0.0
	for _, e := range r.series[run] {
		total += r.Net.Elements[e].R
	}
	for k, e := range r.series[run] {
		el := r.Net.Elements[e]
		neg := r.Net.Elements[e+1] // its return is added right after it
		if k == 0 {
			at, volts = append(at, 0), append(volts, st.Solution.V[el.A]-st.Solution.V[neg.A])
		}
		sum += el.R
		at, volts = append(at, sum/total*d.Length.Value()), append(volts, st.Solution.V[el.B]-st.Solution.V[neg.B])
	}
	return at, volts
}

// amps and volts are short for writing readings.
func amps(a float64) string  { return measure.Amps(a) }
func volts(v float64) string { return measure.Volts(v) }
