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

// Rig is the wiring as a network, ready to be solved in any state.
type Rig struct {
	Net     *circuit.Network
	solver  *circuit.Solver
	port    map[string][2]int // where each device hands on: positive, negative
	load    map[string][]int  // elements of a lamp
	series  map[string][]int  // positive elements of a run, in order from its feed
	leads   map[string][]lead // a lamp's leads, one for each of its feeds
	gate    map[string]int    // the element of a switch or fuse
	source  map[string]int    // the element of a supply or a converter's output
	input   map[string]int    // the element of a converter's input
	power   []powered         // loads that take the same power at any volts
	back    map[string][2]int // the pair from a run's far end to what it joins
	strip   map[string][2]int // a strip's far end: positive, negative
	Unfed   map[string]bool   // nothing leads to it from a supply
	supply  map[string]string // which supply feeds it
	devices []Device
	lib     *stock.Library
	fed     map[string]string          // what feeds a device
	dead    map[string]circuit.Element // converters that give nothing in the state solved last, and what they would
	beside  map[string]bool            // supplies that a wire joins to another
	temp    float64
	rest    []circuit.Element // the network's elements as they were built, before any solve
}

// commons joins the grounds that lie beside data wires.
func (r *Rig) commons() {
	ohms := stock.CopperOhmsPerMetre(measure.AWGArea(DataGauge), r.temp) / 1000
	for i := range r.devices {
		d := &r.devices[i]
		by, ok := r.port[d.Data]
		if end, strip := r.strip[d.Data]; strip {
			by, ok = end, true
		}
		if d.Common && ok && len(r.leads[d.ID]) > 0 {
			r.Net.Wire(d.ID+" ground", by[1], r.Net.Elements[r.leads[d.ID][0].neg].B, ohms*d.DataLead.Value())
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
	if l := r.leads[id]; len(l) > 0 {
		return r.Net.Elements[l[0].neg].B
	}
	if q, ok := r.port[id]; ok {
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
	for _, e := range r.input {
		r.Net.Elements[e].I = 1e-6
	}
	sol := r.settled()
	for range len(r.input) {
		cut := ""
		for i := range r.devices { // the first one starved, from the supply on, takes what hangs behind it along
			id := r.devices[i].ID
			k, ok := r.input[id]
			if _, dead := r.dead[id]; !ok || dead ||
				sol.Across(r.Net.Elements[k]) >= r.Net.Elements[r.source[id]].E+dropout-1e-6 {
				continue
			}
			if cut == "" || r.behind(cut, id) {
				cut = id
			}
		}
		if cut == "" {
			break
		}
		out := &r.Net.Elements[r.source[cut]]
		r.dead[cut] = *out
		out.E, out.R, out.Limit = 0, openOhms, 0
		r.Net.Elements[r.input[cut]].I = 1e-6
		sol = r.settled()
	}
	return sol
}

// revive undoes that converters gave nothing in the state solved before; until
// then the network stays as it was solved, to be written out.
func (r *Rig) revive() {
	for id, e := range r.dead {
		r.Net.Elements[r.source[id]] = e
	}
	r.dead = map[string]circuit.Element{}
}

// behind reports whether device a hangs behind converter b.
func (r *Rig) behind(a, b string) bool {
	for n := 0; n < len(r.devices); n++ {
		up, ok := r.fed[a]
		if !ok || up == "" {
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
	for pass := 0; pass < 60 && len(r.input)+len(r.power) > 0; pass++ {
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
			k, ok := r.input[id]
			if _, dead := r.dead[id]; !ok || dead {
				continue
			}
			in, out := &r.Net.Elements[k], r.source[id]
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
		if l := r.lib.Lamps[d.Product]; d.Kind == "lamp" && l.Kind == "servo" {
			if e := &r.Net.Elements[r.load[d.ID][0]]; e.Kind == circuit.Sink {
				if e.I = LampOf(d, r.lib).Amps; on != nil && len(on) == 0 {
					e.I = l.Idle
				}
			}
		}
		if d.Kind != "switch" {
			continue
		}
		ohms := openOhms
		if d.closed(on) {
			ohms = contactOhms
		}
		r.Net.Elements[r.gate[d.ID]].R = ohms
	}
	sol := r.solve()
	st := &State{Readings: make(map[string]Operating, len(r.devices)), Solution: sol}
	rated := map[string]float64{}
	for i := range r.devices {
		if d := &r.devices[i]; d.Kind == "supply" || d.Kind == "converter" {
			rated[d.ID], _ = SupplyOf(d, r.lib)
		}
	}
	for i := range r.devices {
		d := &r.devices[i]
		var g Operating
		kinds[d.Kind].read(r, sol, d, &g)
		if _, dead := r.dead[d.ID]; dead {
			switch in := sol.Across(r.Net.Elements[r.input[d.ID]]); {
			case in < -.5:
				g.State = "reversed"
			case in < .5:
				g.State = "off"
			default:
				g.State = "starved"
			}
			g.Volts, g.Amps, g.Lit = 0, 0, 0
		}
		if d.Kind != "supply" {
			g.Watts = math.Max(g.Watts, g.Volts*g.Amps)
		}
		if s := r.supply[d.ID]; s != "" && !r.open(d.ID) && !d.Reversed {
			g.Drop = rated[s] - g.Volts
			if d.Kind == "lamp" {
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
		if k, ok := r.gate[id]; ok && r.Net.Elements[k].R >= openOhms {
			return true
		}
		if _, dead := r.dead[id]; dead {
			return true
		}
		id = r.fed[id]
	}
	return false
}

// builder makes a rig's network: device by device, what feeds one before it.
type builder struct {
	*Rig
	byID   map[string]*Device
	taps   map[string][]float64 // where something leaves a run
	points map[string][]tap     // and what its wires are there
	state  map[string]int       // 1 under way, 2 built
}

// NewRig builds the network of all devices that have somewhere to be fed from.
func NewRig(s Set) *Rig {
	r := &Rig{
		Net: &circuit.Network{}, port: map[string][2]int{}, load: map[string][]int{}, series: map[string][]int{},
		leads: map[string][]lead{}, gate: map[string]int{}, source: map[string]int{}, input: map[string]int{},
		strip: map[string][2]int{}, back: map[string][2]int{}, Unfed: map[string]bool{}, supply: map[string]string{},
		devices: s.Devices, lib: s.Lib, fed: map[string]string{}, beside: map[string]bool{}, temp: s.Temp,
	}
	r.room()
	b := &builder{r, map[string]*Device{}, map[string][]float64{}, map[string][]tap{}, map[string]int{}}
	for i := range r.devices {
		d := &r.devices[i]
		b.byID[d.ID] = d
		r.fed[d.ID] = d.From
		if d.From != "" {
			b.taps[d.From] = append(b.taps[d.From], d.At.Or(math.Inf(1)))
		}
		if d.To != "" {
			b.taps[d.To] = append(b.taps[d.To], d.ToAt.Or(math.Inf(1)))
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
		for up := d; r.supply[d.ID] == "" && up.From != ""; up = b.byID[up.From] {
			r.supply[d.ID] = r.supply[up.From]
		}
		r.Unfed[d.ID] = r.supply[d.ID] == ""
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
		if d.Kind == "lamp" && !d.Length.IsZero() {
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
	b.device(b.byID[id])
	for _, t := range b.points[id] {
		if t.at >= at-1e-6 {
			return t.pos, t.neg
		}
	}
	q := b.port[id]
	return q[0], q[1]
}

func (b *builder) device(d *Device) {
	if b.state[d.ID] != 0 {
		return
	}
	b.state[d.ID] = 1
	var pos, neg int
	if d.From != "" {
		pos, neg = b.outlet(d.From, d.At.Or(math.Inf(1)))
		b.supply[d.ID] = b.supply[d.From]
	} else if d.Kind != "supply" {
		pos, neg = b.Net.Node(d.ID+" in+"), b.Net.Node(d.ID+" in-")
	}
	kinds[d.Kind].build(b, d, pos, neg)
	b.state[d.ID] = 2
}

// farEnd joins a run's far end to something else.
func (b *builder) farEnd(d *Device) {
	tp, tn := b.outlet(d.To, d.ToAt.Or(math.Inf(1)))
	end := b.port[d.ID]
	back := jointOhms // its far end lies there, or a second pair leads to it
	if !d.Back.IsZero() {
		back = stock.CopperOhmsPerMetre(d.Gauge.Value(), b.temp) * d.Back.Value() / 1000
	}
	b.back[d.ID] = [2]int{
		b.Net.Wire(d.ID+" far end", end[0], tp, back),
		b.Net.Wire(d.ID+" far end", end[1], tn, back),
	}
	if x, y := b.supply[d.ID], b.supply[d.To]; x != y {
		b.beside[x], b.beside[y] = true, true
	}
	if b.supply[d.ID] == "" {
		b.supply[d.ID] = b.supply[d.To]
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
	e := &r.Net.Elements[r.source[supply]]
	e.E, e.R, e.Limit = 0, openOhms, 0
}

// Stiffen makes what stands behind a supply's volts a number of times larger.
func (r *Rig) Stiffen(supply string, times float64) { r.Net.Elements[r.source[supply]].R *= times }
