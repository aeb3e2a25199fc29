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
	polyVolts   = 0.3 // dropped by a self-resetting one
	jointOhms   = 1e-6
	dataGauge   = 22 // AWG of a data lead and the ground beside it

	controllerAmps = 0.1 // a small controller board
)

// ControllerLogic is what a controller's pins give when not said, in V.
const ControllerLogic = 3.3

var smallPartsFrom = source.FromMemory(
	"closed contact or connector 10 mohm; a fuse drops about 0.1 V at its rating, a self-resetting one 0.3 V; a small " +
		"controller takes 100 mA",
)

// fuseOhms is a fuse's resistance.
func fuseOhms(d *Device) float64 {
	v := fuseVolts
	if d.Poly {
		v = polyVolts
	}
	return v / math.Max(d.Rating.Value(), 0.1)
}

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
	fed     map[string]string          // what feeds a device
	dead    map[string]circuit.Element // converters that give nothing in the state solved last, and what they would
	beside  map[string]bool            // supplies that a wire joins to another
	temp    float64
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
	case "resistive", "coil":
		return circuit.Element{Kind: circuit.Resistor, R: l.Volts / l.Amps, Name: d.ID}
	case "motor", "servo": // turns against its load with a steady current; below that it stands, a resistance
		return circuit.Element{Kind: circuit.Sink, I: l.Amps, Vf: l.Amps * l.Volts / l.Stall, Name: d.ID}
	case "power", "amplifier", "sensor": // a screen's current is found in solve
		return circuit.Element{Kind: circuit.Sink, I: l.Amps, Vf: l.Min, Name: d.ID}
	case "led":
		n := float64(max(1, d.Row))
		vt := 2 * 0.02585 // emission coefficient 2 at 27 C, per LED
		return circuit.Element{
			Kind: circuit.LED,
			R:    math.Max(d.Resistor.Or(0)+5*n, 0.1),
			Is:   circuit.SaturationCurrent(l.Vf-5*l.Amps, l.Amps, vt),
			Vt:   vt * n,
			Name: d.ID,
		}
	case "strip":
		return circuit.Element{Kind: circuit.Prewired, Vf: l.Vf, R: (l.Volts - l.Vf) / l.Amps, Name: d.ID}
	case "pixels":
		return circuit.Element{
			Kind: circuit.Sink,
			I:    l.Idle + (l.Amps-l.Idle)*bright(d),
			Vf:   0.74 * l.Volts,
			Name: d.ID,
		}
	}
	return circuit.Element{Kind: circuit.Prewired, Vf: l.Vf, R: (l.Volts - l.Vf) / l.Amps, Name: d.ID}
}

// NewRig builds the network of all devices that have somewhere to be fed from.
func NewRig(p *Plan, lib *stock.Library) *Rig {
	r := &Rig{
		Net:     &circuit.Network{},
		port:    map[string][2]int{},
		load:    map[string][]int{},
		series:  map[string][]int{},
		leads:   map[string][]lead{},
		gate:    map[string]int{},
		source:  map[string]int{},
		input:   map[string]int{},
		strip:   map[string][2]int{},
		back:    map[string][2]int{},
		Unfed:   map[string]bool{},
		supply:  map[string]string{},
		devices: p.Devices,
		fed:     map[string]string{},
		beside:  map[string]bool{},
		temp:    p.Temperature(),
	}
	temp := r.temp
	byID := map[string]*Device{}
	taps := map[string][]float64{}
	for i := range p.Devices {
		d := &p.Devices[i]
		byID[d.ID] = d
		r.fed[d.ID] = d.From
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
			r.source[d.ID] = r.Net.Add(
				circuit.Element{
					Kind:  circuit.Supply,
					A:     pos,
					B:     neg,
					E:     v,
					R:     sourceOhms(d, v, a),
					Limit: givesIn * a,
					Name:  d.ID,
				},
			)
			r.supply[d.ID] = d.ID
			r.port[d.ID] = [2]int{pos, neg}
		case "converter":
			v, a := SupplyOf(d, lib)
			out := r.Net.Node(d.ID + " out+")
			// it runs from a volt above what it gives; what it draws is found in solve
			r.input[d.ID] = r.Net.Add(
				circuit.Element{Kind: circuit.Sink, A: pos, B: neg, Vf: v + dropout, I: 1e-6, Name: d.ID},
			)
			r.source[d.ID] = r.Net.Add(
				circuit.Element{
					Kind:  circuit.Supply,
					A:     out,
					B:     neg,
					E:     v,
					R:     stock.SupplyResistance(v, a),
					Limit: givesIn * a,
					Name:  d.ID,
				},
			)
			r.port[d.ID] = [2]int{out, neg}
			r.supply[d.ID] = d.ID // what it feeds is judged by its volts
		case "controller":
			v := d.Volts.Or(5)
			r.load[d.ID] = []int{
				r.Net.Add(
					circuit.Element{
						Kind: circuit.Sink,
						A:    pos,
						B:    neg,
						I:    d.Amps.Or(controllerAmps),
						Vf:   .7 * v,
						Name: d.ID,
					},
				),
			}
			r.port[d.ID] = [2]int{pos, neg}
		case "connector":
			ohms := d.Resistor.Or(contactOhms)
			out, back := r.Net.Node(d.ID+" out+"), r.Net.Node(d.ID+" out-")
			r.gate[d.ID] = r.Net.Wire(d.ID, pos, out, ohms)
			r.Net.Wire(d.ID, neg, back, ohms)
			r.port[d.ID] = [2]int{out, back}
		case "fuse", "switch":
			ohms := contactOhms
			if d.Kind == "fuse" {
				ohms = fuseOhms(d)
			}
			out := r.Net.Node(d.ID + " out+")
			r.gate[d.ID] = r.Net.Wire(d.ID, pos, out, ohms)
			r.port[d.ID] = [2]int{out, neg}
		case "run":
			fed := d.FedAt.Value()
			stops := append([]float64{0, fed, d.Length.Value()}, taps[d.ID]...)
			sort.Float64s(stops) // those with no place given, at +Inf, sit at the end
			ohms := stock.CopperOhmsPerMetre(d.Gauge.Value(), temp)
			at := func(x float64) tap {
				if math.Abs(x-fed) < 1e-6 {
					return tap{fed, pos, neg}
				}
				return tap{x, r.Net.Node(fmt.Sprintf("%s+%.0f", d.ID, x)), r.Net.Node(fmt.Sprintf("%s-%.0f", d.ID, x))}
			}
			last := at(0)
			points[d.ID] = append(points[d.ID], last)
			for _, x := range stops {
				if x <= last.at+1e-6 || math.IsInf(x, 1) {
					continue
				}
				next := at(x)
				r.series[d.ID] = append(r.series[d.ID], r.Net.Wire(d.ID, last.pos, next.pos, ohms*(x-last.at)/1000))
				r.Net.Wire(d.ID, last.neg, next.neg, ohms*(x-last.at)/1000)
				points[d.ID] = append(points[d.ID], next)
				last = next
			}
			r.port[d.ID] = [2]int{last.pos, last.neg}
		case "lamp":
			l := lampOf(d, lib)
			ohms := stock.CopperOhmsPerMetre(l.LeadGauge.Value(), temp) / 1000
			join := func(mm float64, a, b int) {
				r.leads[d.ID] = append(
					r.leads[d.ID],
					lead{r.Net.Wire(d.ID+" lead", pos, a, ohms*mm), r.Net.Wire(d.ID+" lead", neg, b, ohms*mm)},
				)
			}
			long := l.Lead.Value() + d.Extension.Value()
			a, b := r.Net.Node(d.ID+"+"), r.Net.Node(d.ID+"-")
			turn := func(x, y int) (int, int) {
				if d.Reversed && l.Kind != "motor" { // which turns as well, backwards
					x, y = y, x
				}
				return x, y
			}
			a, b = turn(a, b)
			e := element(d, l)
			from := len(r.Net.Elements)
			switch {
			case l.Kind == "strip" || l.Kind == "pixels":
				n := Segments(d, lib)
				base := len(r.Net.Names)
				farPos, farNeg := r.Net.Strip(d.ID, a, b, n, l.Copper*float64(l.Cut)/l.PerMetre, e)
				r.strip[d.ID] = [2]int{farPos, farNeg}
				to := len(r.Net.Elements)
				feeds, _ := ParseFeeds(d.Feeds)
				for _, f := range feeds {
					p, q := a, b
					if k := int(math.Round(f * float64(n))); k > 0 {
						p, q = base+2*k-2, base+2*k-1
					}
					p, q = turn(p, q)
					join(long+f*d.Length.Value(), p, q)
				}
				for i := from; i < to; i++ {
					if r.Net.Elements[i].Kind == e.Kind {
						r.load[d.ID] = append(r.load[d.ID], i)
					}
				}
			default:
				p, q := turn(a, b)
				join(long, p, q)
				e.A, e.B = a, b
				r.load[d.ID] = []int{r.Net.Add(e)}
				if l.Kind == "power" || l.Kind == "sensor" {
					r.power = append(r.power, powered{r.load[d.ID][0], l.Volts * l.Amps})
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
			back := jointOhms // its far end lies there, or a second pair leads to it
			if !d.Back.IsZero() {
				back = stock.CopperOhmsPerMetre(d.Gauge.Value(), temp) * d.Back.Value() / 1000
			}
			r.back[d.ID] = [2]int{
				r.Net.Wire(d.ID+" far end", end[0], tp, back),
				r.Net.Wire(d.ID+" far end", end[1], tn, back),
			}
			if a, b := r.supply[d.ID], r.supply[d.To]; a != b {
				r.beside[a], r.beside[b] = true, true
			}
			if r.supply[d.ID] == "" {
				r.supply[d.ID] = r.supply[d.To]
			}
		}
	}
	r.commons(p, temp)
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

// commons joins the grounds that lie beside data wires.
func (r *Rig) commons(p *Plan, temp float64) {
	ohms := stock.CopperOhmsPerMetre(measure.AWGArea(dataGauge), temp) / 1000
	for i := range p.Devices {
		d := &p.Devices[i]
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

// dropout is how many volts a step-down converter wants above what it gives.
const dropout = 1.0

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
// unless it was left off; nil means everything on, none of them that scenes are
// off and servos hold still.
func (r *Rig) Solve(lib *stock.Library, on map[string]bool) *State {
	for i := range r.devices {
		d := &r.devices[i]
		if l := lib.Lamps[d.Product]; d.Kind == "lamp" && l.Kind == "servo" {
			if e := &r.Net.Elements[r.load[d.ID][0]]; e.Kind == circuit.Sink {
				if e.I = lampOf(d, lib).Amps; on != nil && len(on) == 0 {
					e.I = l.Idle
				}
			}
		}
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
			g.Lit = math.Max(0, works(lampOf(d, lib), g))
			g.State = lampState(d, g, RatedVolts(d, lib), r.Unfed[d.ID])
			if d.Reversed {
				g.Volts, g.FarVolt = -g.Volts, -g.FarVolt // as a meter on its leads reads
			}
		case "controller":
			e := r.load[d.ID][0]
			g.Volts, g.Amps, g.State = sol.Across(r.Net.Elements[e]), sol.I[e], "ok"
			if g.Volts < controllerLeast*d.Volts.Or(5) {
				g.State = "starved"
			}
		case "supply", "converter":
			e := r.source[d.ID]
			g.Volts, g.Amps = sol.Across(r.Net.Elements[e]), -sol.I[e]
			_, limit := SupplyOf(d, lib)
			g.Lit = g.Amps / limit
			g.State = loadState(g.Lit)
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

// controllerLeast is the share of its volts a controller still works at.
const controllerLeast = 0.9

// works is how much of its work a load does: of a lamp its share of rated
// current; of a motor its share of rated speed, which is the volts left over
// its winding; of a screen or an amplifier whether it has the volts it needs.
func works(l stock.Lamp, g Operating) float64 {
	switch l.Kind {
	case "motor", "servo":
		winding := l.Amps * l.Volts / l.Stall
		return math.Min(1, (g.Volts-winding)/(l.Volts-winding))
	case "power", "amplifier", "sensor":
		return math.Min(1, g.Volts/math.Max(l.Min, .1)) * math.Min(1, math.Max(g.Lit, 0)*2)
	}
	return g.Lit
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

// amps and volts are short for writing readings.
func amps(a float64) string  { return measure.Amps(a) }
func volts(v float64) string { return measure.Volts(v) }
