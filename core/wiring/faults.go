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
	lib := s.Lib
	s.Devices = IndexOf(s.Devices).FedBy(s.Devices, supply)
	rig := NewRig(s)
	net := rig.Net
	for i := range s.Devices { // everything on
		if d := &s.Devices[i]; d.Kind == "switch" {
			net.Elements[rig.gate[d.ID]].R = contactOhms
		}
	}
	rig.solve() // what converters and screens draw when all is well
	b := &FaultBench{byID: map[string]int{}, byFar: map[string]int{}, loads: map[string]int{}}
	faults := []circuit.Fault{{Group: "none", Say: "nothing is wrong"}}
	add := func(group, say string, set map[int]circuit.Element) {
		faults = append(faults, circuit.Fault{Group: group, Say: say, Set: set})
	}
	with := func(i int, f func(*circuit.Element)) map[int]circuit.Element {
		e := net.Elements[i]
		f(&e)
		return map[int]circuit.Element{i: e}
	}
	ohms := func(r float64) func(*circuit.Element) {
		return func(e *circuit.Element) {
			*e = circuit.Element{Kind: circuit.Resistor, A: e.A, B: e.B, Name: e.Name, R: r}
		}
	}
	more := func(r float64) func(*circuit.Element) { return func(e *circuit.Element) { e.R += r } }
	var probes []circuit.Probe
	probe := func(d *Device, pos, neg int) {
		b.byID[d.ID] = len(probes)
		probes, b.Devices, b.Far = append(probes, circuit.Probe{Name: d.Name, A: pos, B: neg}), append(
			b.Devices,
			d.ID,
		), append(b.Far, false)
	}
	far := func(d *Device, pos, neg int) {
		b.byFar[d.ID] = len(probes)
		probes, b.Devices, b.Far = append(probes, circuit.Probe{Name: d.Name + ", far end", A: pos, B: neg}), append(
			b.Devices,
			d.ID,
		), append(b.Far, true)
	}
	rated := map[int]float64{}
	for i := range s.Devices {
		d := &s.Devices[i]
		if rig.supply[d.ID] != supply {
			continue
		}
		switch d.Kind {
		case "controller":
			q := rig.port[d.ID]
			probe(d, q[0], q[1])
		case "supply", "converter":
			q := rig.port[d.ID]
			probe(d, q[0], q[1])
			e := rig.source[d.ID]
			add("dead:"+d.ID, d.Name+" gives nothing", with(e, func(x *circuit.Element) { x.E, x.R = 0, 1e6 }))
			for _, v := range []float64{5, 9, 12, 24} {
				if math.Abs(v-net.Elements[e].E) > 1 {
					add(
						fmt.Sprintf("wrong:%s:%g", d.ID, v),
						fmt.Sprintf("%s is a %g V one", d.Name, v),
						with(e, func(x *circuit.Element) { x.E = v }),
					)
				}
			}
			for _, f := range []float64{.95, .9, .85, .8, .7, .6} {
				add("weak:"+d.ID, d.Name+" is weak, or turned down", with(e, func(x *circuit.Element) { x.E *= f }))
			}
		case "fuse", "switch", "connector":
			q := rig.port[d.ID]
			probe(d, q[0], q[1])
			say := map[string]string{"fuse": d.Name + " has blown", "switch": d.Name + " does not close",
				"connector": d.Name + " is not seated"}[d.Kind]
			add("open:"+d.ID, say, with(rig.gate[d.ID], ohms(gapOhms)))
			for _, r := range []float64{.5, 1, 2, 5, 15, 50} {
				add("bad:"+d.ID, "a bad contact in "+d.Name, with(rig.gate[d.ID], more(r)))
			}
		case "run":
			q := rig.port[d.ID]
			probe(d, q[0], q[1])
			at := 0.0
			total := 0.0
			for _, e := range rig.series[d.ID] {
				total += net.Elements[e].R
			}
			for k, e := range rig.series[d.ID] {
				at += net.Elements[e].R / total * d.Length.Value()
				where := fmt.Sprintf("%s before %s", d.Name, measure.Run(at, s.Metric))
				add(fmt.Sprintf("open:%s:%d", d.ID, k), "a wire is open in "+where, with(e, ohms(gapOhms)))
				for _, r := range []float64{.5, 1, 2, 5, 15, 50} {
					add(fmt.Sprintf("bad:%s:%d", d.ID, k), "a bad joint in "+where, with(e, more(r)))
				}
			}
		case "lamp":
			load := rig.load[d.ID]
			first := net.Elements[load[0]]
			pos, neg := first.A, first.B
			if d.Reversed {
				pos, neg = neg, pos
			}
			probe(d, pos, neg)
			if end, ok := rig.strip[d.ID]; ok {
				if d.Reversed {
					end[0], end[1] = end[1], end[0]
				}
				far(d, end[0], end[1])
			}
			b.loads[d.ID] = load[0]
			rated[load[0]] = RatedAmps(d, lib) / float64(len(load))
			all := func(f func(*circuit.Element)) map[int]circuit.Element {
				set := map[int]circuit.Element{}
				for _, e := range load {
					x := net.Elements[e]
					f(&x)
					set[e] = x
				}
				return set
			}
			add("dead:"+d.ID, d.Name+" is dead", all(ohms(gapOhms)))
			if first.Kind != circuit.Resistor {
				add("reversed:"+d.ID, d.Name+" is reversed", all(func(e *circuit.Element) { e.A, e.B = e.B, e.A }))
				faults[len(faults)-1].Flips = []int{b.byID[d.ID]}
				if k, ok := b.byFar[d.ID]; ok {
					faults[len(faults)-1].Flips = append(faults[len(faults)-1].Flips, k)
				}
			}
			add(
				"short:"+d.ID,
				d.Name+" is shorted",
				map[int]circuit.Element{load[0]: {Kind: circuit.Resistor, A: first.A, B: first.B, R: 0.05}},
			)
			for k, lead := range rig.leads[d.ID] {
				if len(rig.leads[d.ID]) == 1 {
					add("lead:"+d.ID, "a lead of "+d.Name+" is open", with(lead.pos, ohms(gapOhms)))
				} else {
					add(fmt.Sprintf("lead:%s:%d", d.ID, k), fmt.Sprintf("feed %d of %s is open", k+1, d.Name),
						with(lead.pos, ohms(gapOhms)))
				}
			}
		}
	}
	b.Bench = circuit.NewBench(rig.solver, faults, probes, rated)
	return b
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
