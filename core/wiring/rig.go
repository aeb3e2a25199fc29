package wiring

import (
	"math"
	"slices"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/source"
	"zapbarn/core/stock"
)

// Resistances of small parts, in ohms.
const (
	contactOhms = 0.010 // a closed switch or relay contact
	openOhms    = 1e9
	jointOhms   = 1e-6
)

// DataGauge is the AWG of a data lead and of the ground beside it.
const DataGauge = 22

// SmallPartsFrom is where the resistances of small parts are from.
var SmallPartsFrom = source.FromMemory(
	"closed contact or connector 10 mohm; a fuse drops about 0.1 V at its rating, a self-resetting one 0.3 V; a small " +
		"controller takes 100 mA",
)

// tap is where something leaves a run.
type tap struct {
	at       float64
	pos, neg int
}

// powered is an element that draws constant power.
type powered struct {
	element int
	watts   float64
}

// lead is the pair of wires from a tap to a lamp: its two elements.
type lead struct{ pos, neg int }

// node is one device in the network.
type node struct {
	port   [2]int // where it hands on: positive, negative; zero where it does not
	load   []int  // elements of a lamp
	series []int  // positive elements of a run, in order from its feed
	leads  []lead // a lamp's leads, one for each of its feeds
	gate   int    // the element of a switch or fuse; -1 for none
	source int    // the element of a supply or a converter's output; -1 for none
	input  int    // the element of a converter's input; -1 for none
	back   [2]int // the pair from a run's far end to what it joins
	strip  [2]int // a strip's far end: positive, negative
	supply string // which supply feeds it; "" where nothing leads to it from one
	fed    string // what feeds it
	beside bool   // a supply that a wire joins to another
	// while it is built
	of     *Device
	taps   []float64 // where something leaves a run
	points []tap     // and what its wires are there
	built  int       // 1 under way, 2 built
}

// nowhere is a node of no device.
func nowhere() *node { return &node{gate: -1, source: -1, input: -1} }

// Rig is the wiring as a network, ready to be solved in any state.
type Rig struct {
	Net        *circuit.Network
	solver     *circuit.Solver
	nodes      map[string]*node
	power      []powered // loads that take the same power at any volts
	devices    []Device
	lib        *stock.Library
	dead       map[string]circuit.Element // converters that give nothing in the state solved last, and what they would
	converters int                        // converters there are
	temp       float64
	rest       []circuit.Element // the network's elements as they were built, before any solve
}

// commons joins the grounds that lie beside data wires.
func (r *Rig) commons() {
	ohms := stock.CopperOhmsPerMetre(measure.AWGArea(DataGauge), r.temp) / 1000
	for i := range r.devices {
		d := &r.devices[i]
		by := r.at(d.Data).port
		if end := r.at(d.Data).strip; end != [2]int{} {
			by = end
		}
		if d.Common && by != [2]int{} && len(r.at(d.ID).leads) > 0 {
			r.Net.Wire(d.ID+" ground", by[1], r.Net.Elements[r.at(d.ID).leads[0].neg].B, ohms*d.DataLead.Value())
		}
	}
}

// Joined reports whether a wire of some kind leads from the minus of one
// device to that of another: without, their grounds float apart.
func (r *Rig) Joined(a, b string) bool {
	x, y := r.minus(a), r.minus(b)
	return x >= 0 && y >= 0 && r.solver.SameIsland(x, y)
}

func (r *Rig) minus(id string) int {
	if l := r.at(id).leads; len(l) > 0 {
		return r.Net.Elements[l[0].neg].B
	}
	if q := r.at(id).port; q != [2]int{} {
		return q[1]
	}
	return -1
}

// Solved says how large the network is that a device is part of, and how many steps it
// took to solve.
func (r *Rig) Solved(st *State, id string) (nodes, steps int) {
	if n := r.minus(id); n >= 0 {
		return st.Solution.Of(n)
	}
	return 0, 0
}

// Supply is the ID of the supply that feeds a device, or "".
func (r *Rig) Supply(id string) string { return r.at(id).supply }

// Unfed reports that nothing leads to a device from a supply.
func (r *Rig) Unfed(id string) bool { return r.Supply(id) == "" }

// at is a device in the network, whatever its ID.
func (r *Rig) at(id string) *node {
	if n := r.nodes[id]; n != nil {
		return n
	}
	return nowhere()
}

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

// Works is whether a lamp, a motor or whatever hangs there does anything.
func (g Operating) Works() bool { return g.State == "lit" || g.State == "dim" || g.State == "over" }

// State is every reading in one state of the switches.
type State struct {
	Readings map[string]Operating
	Solution *circuit.Solution
	Hidden   bool // drawn as the eye sees it: no numbers
}

// solve finds the network's state. A converter draws what it gives over its
// efficiency, as a current at the volts it then sees, and so does a screen; the
// network is solved again until that no longer changes. One that sees less than
// it needs gives nothing, and stays off: energy is kept in every state.
func (r *Rig) solve() *circuit.Solution {
	r.revive()
	for _, n := range r.nodes {
		if n.input >= 0 {
			r.Net.Elements[n.input].I = 1e-6
		}
	}
	sol := r.settled()
	for range r.converters {
		cut := ""
		for i := range r.devices { // the first one starved, from the supply on, takes what hangs behind it along
			id := r.devices[i].ID
			k := r.at(id).input
			if _, dead := r.dead[id]; k < 0 || dead ||
				sol.Across(r.Net.Elements[k]) >= r.Net.Elements[r.at(id).source].E+dropout-1e-6 {
				continue
			}
			if cut == "" || r.behind(cut, id) {
				cut = id
			}
		}
		if cut == "" {
			break
		}
		out := &r.Net.Elements[r.at(cut).source]
		r.dead[cut] = *out
		out.E, out.R, out.Limit = 0, openOhms, 0
		r.Net.Elements[r.at(cut).input].I = 1e-6
		sol = r.settled()
	}
	return sol
}

// revive undoes that converters gave nothing in the state solved before; until
// then the network stays as it was solved, to be written out.
func (r *Rig) revive() {
	for id, e := range r.dead {
		r.Net.Elements[r.at(id).source] = e
	}
	r.dead = map[string]circuit.Element{}
}

// behind reports whether device a hangs behind converter b.
func (r *Rig) behind(a, b string) bool {
	for n := 0; n < len(r.devices); n++ {
		up := r.at(a).fed
		if up == "" {
			return false
		}
		if up == b {
			return true
		}
		a = up
	}
	return false
}

// settled solves with every load of constant power at the current it then
// takes.
func (r *Rig) settled() *circuit.Solution {
	sol := r.solver.Solve()
	for pass := 0; pass < 60 && r.converters+len(r.power) > 0; pass++ {
		worst := 0.0
		for _, x := range r.power {
			e := &r.Net.Elements[x.element]
			if e.Kind != circuit.Sink {
				continue // taken out of the wiring by a fault
			}
			want := x.watts / math.Max(math.Abs(sol.Across(*e)), e.Vf)
			worst = math.Max(worst, math.Abs(want-e.I)/want)
			e.I = want
		}
		for i := range r.devices { // in order, so that the same plan gives the same answer
			id := r.devices[i].ID
			k := r.at(id).input
			if _, dead := r.dead[id]; k < 0 || dead {
				continue
			}
			in, out := &r.Net.Elements[k], r.at(id).source
			watts := math.Max(0, -sol.I[out]*sol.Across(r.Net.Elements[out])) / ConverterEfficiency
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
// unless it was left off; nil means everything on, none of them that scenes are
// off and servos hold still.
func (r *Rig) Solve(on map[string]bool) *State {
	for i := range r.devices {
		d := &r.devices[i]
		if l := r.lib.Lamps[d.Product]; d.Is(Load) && l.Kind == "servo" {
			if e := &r.Net.Elements[r.at(d.ID).load[0]]; e.Kind == circuit.Sink {
				if e.I = LampOf(d, r.lib).Amps; on != nil && len(on) == 0 {
					e.I = l.Idle
				}
			}
		}
		if !d.Is(Switch) {
			continue
		}
		ohms := openOhms
		if d.closed(on) {
			ohms = contactOhms
		}
		r.Net.Elements[r.at(d.ID).gate].R = ohms
	}
	sol := r.solve()
	st := &State{Readings: make(map[string]Operating, len(r.devices)), Solution: sol}
	rated := map[string]float64{}
	for i := range r.devices {
		if d := &r.devices[i]; d.Is(Source) {
			rated[d.ID], _ = SupplyOf(d, r.lib)
		}
	}
	for i := range r.devices {
		d := &r.devices[i]
		var g Operating
		kinds[d.Kind].read(r, sol, d, &g)
		if _, dead := r.dead[d.ID]; dead {
			switch in := sol.Across(r.Net.Elements[r.at(d.ID).input]); {
			case in < -.5:
				g.State = "reversed"
			case in < .5:
				g.State = "off"
			default:
				g.State = "starved"
			}
			g.Volts, g.Amps, g.Lit = 0, 0, 0
		}
		if !d.Is(Origin) {
			g.Watts = math.Max(g.Watts, g.Volts*g.Amps)
		}
		if s := r.at(d.ID).supply; s != "" && !r.open(d.ID) && !d.Reversed {
			g.Drop = rated[s] - g.Volts
			if d.Is(Load) {
				g.Drop = rated[s] - math.Min(g.Volts, g.FarVolt)
			}
		}
		st.Readings[d.ID] = g
	}
	return st
}

// open reports whether what feeds a device is switched off, or a converter
// that gives nothing: it then has no drop, it has no feed.
func (r *Rig) open(id string) bool {
	for n := 0; id != "" && n <= len(r.devices); n++ {
		if k := r.at(id).gate; k >= 0 && r.Net.Elements[k].R >= openOhms {
			return true
		}
		if _, dead := r.dead[id]; dead {
			return true
		}
		id = r.at(id).fed
	}
	return false
}

// builder makes a rig's network: device by device, what feeds one before it.
type builder struct{ *Rig }

// NewRig builds the network of all devices that have somewhere to be fed from.
func NewRig(s Set) *Rig {
	r := &Rig{
		Net: &circuit.Network{}, nodes: make(map[string]*node, len(s.Devices)), devices: s.Devices, lib: s.Lib, temp: s.Temp,
	}
	r.room()
	b := &builder{r}
	for i := range r.devices {
		d, n := &r.devices[i], nowhere()
		n.of, n.fed = d, d.From
		r.nodes[d.ID] = n
	}
	tap := func(id string, at measure.Length) {
		if n := r.nodes[id]; n != nil {
			n.taps = append(n.taps, at.Or(math.Inf(1)))
		}
	}
	for i := range r.devices {
		d := &r.devices[i]
		tap(d.From, d.At)
		tap(d.To, d.ToAt)
		if d.Is(Converter) {
			r.converters++
		}
	}
	for i := range r.devices {
		b.device(&r.devices[i])
	}
	for i := range r.devices {
		if d := &r.devices[i]; d.To != "" {
			b.farEnd(d)
		}
	}
	r.commons()
	for i := range r.devices {
		d := &r.devices[i]
		for up := d; r.at(d.ID).supply == "" && up.From != ""; up = r.nodes[up.From].of {
			r.at(d.ID).supply = r.at(up.From).supply
		}
	}
	r.solver, r.rest = circuit.NewSolver(r.Net, r.lib.Bench()).Remembers(), slices.Clone(r.Net.Elements)
	return r
}

// room makes room for the network of its devices, as large as most are.
func (r *Rig) room() {
	nodes, elements := 0, 0
	for i := range r.devices {
		d := &r.devices[i]
		nodes, elements = nodes+4, elements+4
		if d.Is(Load) && !d.Length.IsZero() {
			n := lumps(Segments(d, r.lib))
			nodes, elements = nodes+2*n, elements+3*n
		}
	}
	r.Net.Names, r.Net.Elements = make([]string, 0, nodes), make([]circuit.Element, 0, elements)
}

// Twin is the same rig, to be solved by itself: its network is a copy, at rest. What no
// solve changes is shared.
func (r *Rig) Twin() *Rig {
	t := *r
	t.dead = map[string]circuit.Element{}
	t.Net = &circuit.Network{Names: r.Net.Names, Elements: slices.Clone(r.rest)}
	t.solver = r.solver.Twin(t.Net)
	return &t
}

// outlet is the pair of nodes where something leaves a device.
func (b *builder) outlet(id string, at float64) (pos, neg int) {
	b.device(b.nodes[id].of)
	for _, t := range b.nodes[id].points {
		if t.at >= at-1e-6 {
			return t.pos, t.neg
		}
	}
	q := b.at(id).port
	return q[0], q[1]
}

func (b *builder) device(d *Device) {
	n := b.nodes[d.ID]
	if n.built != 0 {
		return
	}
	n.built = 1
	var pos, neg int
	if d.From != "" {
		pos, neg = b.outlet(d.From, d.At.Or(math.Inf(1)))
		b.at(d.ID).supply = b.at(d.From).supply
	} else if !d.Is(Origin) {
		pos, neg = b.Net.Node(d.ID+" in+"), b.Net.Node(d.ID+" in-")
	}
	kinds[d.Kind].build(b, d, pos, neg)
	n.built = 2
}

// farEnd joins a run's far end to something else.
func (b *builder) farEnd(d *Device) {
	tp, tn := b.outlet(d.To, d.ToAt.Or(math.Inf(1)))
	end := b.at(d.ID).port
	back := jointOhms // its far end lies there, or a second pair leads to it
	if !d.Back.IsZero() {
		back = stock.CopperOhmsPerMetre(d.Gauge.Value(), b.temp) * d.Back.Value() / 1000
	}
	b.at(d.ID).back = [2]int{
		b.Net.Wire(d.ID+" far end", end[0], tp, back),
		b.Net.Wire(d.ID+" far end", end[1], tn, back),
	}
	if x, y := b.at(d.ID).supply, b.at(d.To).supply; x != y {
		b.at(x).beside, b.at(y).beside = true, true
	}
	if b.at(d.ID).supply == "" {
		b.at(d.ID).supply = b.at(d.To).supply
	}
}

func (r *Rig) device(id string) *Device {
	for i := range r.devices {
		if r.devices[i].ID == id {
			return &r.devices[i]
		}
	}
	return nil
}

// Unplug takes a supply out of the wiring.
func (r *Rig) Unplug(supply string) {
	e := &r.Net.Elements[r.at(supply).source]
	e.E, e.R, e.Limit = 0, openOhms, 0
}

// Stiffen makes what stands behind a supply's volts a number of times larger.
func (r *Rig) Stiffen(supply string, times float64) { r.Net.Elements[r.at(supply).source].R *= times }
