package wiring

import (
	"fmt"
	"math"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
)

// gapOhms is an open wire: far above what a meter or a dark lamp leaks.
const gapOhms = 1e12

// FaultBench is a prop's wiring with every single fault tried on it.
type FaultBench struct {
	*circuit.Bench
	Devices []string // by probe: the device whose terminals it is
	Far     []bool   // by probe: at the far end of that strip
	byID    map[string]int
	byFar   map[string]int
	loads   map[string]int // a lamp's first element
}

// Suspects builds the bench for what one supply feeds: open and bad joints in
// every piece of every run, open leads, dead, shorted and reversed lamps,
// blown fuses, stuck switches, a wrong or weak supply; and nothing at all.
// Probes are each device's own terminals; a lamp's are at the end of its lead.
func Suspects(s Set, supply string) *FaultBench {
	s.Devices = IndexOf(s.Devices).FedBy(s.Devices, supply)
	rig := NewRig(s)
	for i := range s.Devices { // everything on
		if d := &s.Devices[i]; d.Is(Switch) {
			rig.Net.Elements[rig.at(d.ID).gate].R = contactOhms
		}
	}
	rig.solve() // what converters and screens draw when all is well
	x := &suspicion{
		FaultBench: &FaultBench{byID: map[string]int{}, byFar: map[string]int{}, loads: map[string]int{}},
		rig:        rig, set: s, rated: map[int]float64{},
		faults: []circuit.Fault{{Group: "none", Say: "nothing is wrong"}},
	}
	for i := range s.Devices {
		d := &s.Devices[i]
		if rig.at(d.ID).supply != supply {
			continue
		}
		switch d.Kind {
		case "controller":
			x.atPort(d)
		case "supply", "converter":
			x.source(d)
		case "fuse", "switch", "connector":
			x.contact(d)
		case "run":
			x.wire(d)
		case "lamp":
			x.lamp(d)
		}
	}
	x.Bench = circuit.NewBench(rig.solver, x.faults, x.probes, x.rated)
	return x.FaultBench
}

// suspicion gathers what may be wrong, and where it can be measured.
type suspicion struct {
	*FaultBench
	rig    *Rig
	set    Set
	faults []circuit.Fault
	probes []circuit.Probe
	rated  map[int]float64
}

// badOhms are the resistances that a bad joint or contact is tried with.
var badOhms = []float64{.5, 1, 2, 5, 15, 50}

func (x *suspicion) add(group, say string, set map[int]circuit.Element) {
	x.faults = append(x.faults, circuit.Fault{Group: group, Say: say, Set: set})
}

// with are elements changed.
func (x *suspicion) with(f func(*circuit.Element), elements ...int) map[int]circuit.Element {
	set := map[int]circuit.Element{}
	for _, i := range elements {
		e := x.rig.Net.Elements[i]
		f(&e)
		set[i] = e
	}
	return set
}

// open makes an element a gap, more adds resistance to it.
func open(e *circuit.Element) {
	*e = circuit.Element{Kind: circuit.Resistor, A: e.A, B: e.B, Name: e.Name, R: gapOhms}
}

func more(r float64) func(*circuit.Element) { return func(e *circuit.Element) { e.R += r } }

// probe is a pair of places to measure between.
func (x *suspicion) probe(d *Device, pos, neg int, far bool) {
	at, name := x.byID, d.Name
	if far {
		at, name = x.byFar, d.Name+", far end"
	}
	at[d.ID] = len(x.probes)
	x.probes = append(x.probes, circuit.Probe{Name: name, A: pos, B: neg})
	x.Devices, x.Far = append(x.Devices, d.ID), append(x.Far, far)
}

func (x *suspicion) atPort(d *Device) {
	q := x.rig.at(d.ID).port
	x.probe(d, q[0], q[1], false)
}

// source is dead, another one than it says, or weak.
func (x *suspicion) source(d *Device) {
	x.atPort(d)
	e := x.rig.at(d.ID).source
	x.add("dead:"+d.ID, d.Name+" gives nothing", x.with(func(y *circuit.Element) { y.E, y.R = 0, 1e6 }, e))
	for _, v := range []float64{5, 9, 12, 24} {
		if math.Abs(v-x.rig.Net.Elements[e].E) > 1 {
			x.add(fmt.Sprintf("wrong:%s:%g", d.ID, v), fmt.Sprintf("%s is a %g V one", d.Name, v),
				x.with(func(y *circuit.Element) { y.E = v }, e))
		}
	}
	for _, f := range []float64{.95, .9, .85, .8, .7, .6} {
		x.add("weak:"+d.ID, d.Name+" is weak, or turned down", x.with(func(y *circuit.Element) { y.E *= f }, e))
	}
}

// contact is open, or bad.
func (x *suspicion) contact(d *Device) {
	x.atPort(d)
	say := map[string]string{"fuse": d.Name + " has blown", "switch": d.Name + " does not close",
		"connector": d.Name + " is not seated"}[d.Kind]
	x.add("open:"+d.ID, say, x.with(open, x.rig.at(d.ID).gate))
	for _, r := range badOhms {
		x.add("bad:"+d.ID, "a bad contact in "+d.Name, x.with(more(r), x.rig.at(d.ID).gate))
	}
}

// wire is open, or has a bad joint, in each of its pieces.
func (x *suspicion) wire(d *Device) {
	x.atPort(d)
	at, total := 0.0, 0.0
	for _, e := range x.rig.at(d.ID).series {
		total += x.rig.Net.Elements[e].R
	}
	for k, e := range x.rig.at(d.ID).series {
		at += x.rig.Net.Elements[e].R / total * d.Length.Value()
		where := fmt.Sprintf("%s before %s", d.Name, measure.Run(at, x.set.Metric))
		x.add(fmt.Sprintf("open:%s:%d", d.ID, k), "a wire is open in "+where, x.with(open, e))
		for _, r := range badOhms {
			x.add(fmt.Sprintf("bad:%s:%d", d.ID, k), "a bad joint in "+where, x.with(more(r), e))
		}
	}
}

// lamp is dead, reversed or shorted, or one of its leads is open.
func (x *suspicion) lamp(d *Device) {
	load := x.rig.at(d.ID).load
	first := x.rig.Net.Elements[load[0]]
	pos, neg := first.A, first.B
	if d.Reversed {
		pos, neg = neg, pos
	}
	x.probe(d, pos, neg, false)
	if end := x.rig.at(d.ID).strip; end != [2]int{} {
		if d.Reversed {
			end[0], end[1] = end[1], end[0]
		}
		x.probe(d, end[0], end[1], true)
	}
	x.loads[d.ID] = load[0]
	x.rated[load[0]] = RatedAmps(d, x.set.Lib) / float64(len(load))
	x.add("dead:"+d.ID, d.Name+" is dead", x.with(open, load...))
	if first.Kind != circuit.Resistor {
		x.add("reversed:"+d.ID, d.Name+" is reversed",
			x.with(func(e *circuit.Element) { e.A, e.B = e.B, e.A }, load...))
		flips := []int{x.byID[d.ID]}
		if k, ok := x.byFar[d.ID]; ok {
			flips = append(flips, k)
		}
		x.faults[len(x.faults)-1].Flips = flips
	}
	x.add("short:"+d.ID, d.Name+" is shorted",
		map[int]circuit.Element{load[0]: {Kind: circuit.Resistor, A: first.A, B: first.B, R: 0.05}})
	for k, lead := range x.rig.at(d.ID).leads {
		if len(x.rig.at(d.ID).leads) == 1 {
			x.add("lead:"+d.ID, "a lead of "+d.Name+" is open", x.with(open, lead.pos))
		} else {
			x.add(fmt.Sprintf("lead:%s:%d", d.ID, k), fmt.Sprintf("feed %d of %s is open", k+1, d.Name),
				x.with(open, lead.pos))
		}
	}
}

// Volts is the observation of volts at a device's own terminals, for Rank. ok
// is false when the bench has no such device.
func (b *FaultBench) Volts(device string, v float64) (circuit.Seen, bool) {
	k, ok := b.byID[device]
	return circuit.Seen{Probe: k, Value: v}, ok
}

// VoltsFar is the same at the far end of a strip.
func (b *FaultBench) VoltsFar(device string, v float64) (circuit.Seen, bool) {
	k, ok := b.byFar[device]
	return circuit.Seen{Probe: k, Value: v}, ok
}

// Light is whether a lamp is seen lit.
func (b *FaultBench) Light(device string, lit bool) (circuit.Seen, bool) {
	e, ok := b.loads[device]
	v := 0.0
	if lit {
		v = 1
	}
	return circuit.Seen{Probe: -1, Load: e, Value: v}, ok
}

// Expected is what a device's terminals read with a fault, by its index.
func (b *FaultBench) Expected(fault int, device string) float64 {
	return b.Reads(fault, b.byID[device])
}
