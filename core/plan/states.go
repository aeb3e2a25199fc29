package plan

import (
	"fmt"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/stock"
)

// Case is one state of the wiring that it should be looked at in.
type Case struct{ Key, Name string }

// Cases lists the states: everything on, all starting at once when something
// then takes more, scenes off, each scene, each supply
// missing, a cold night.
func (p *Plan) Cases(lib *stock.Library) []Case {
	out := []Case{{"all", "everything on"}}
	if p.Starts(lib) {
		out = append(out, Case{"start", "all starting at once"})
	}
	out = append(out, Case{"rest", "scenes off"})
	for _, s := range p.Scenes {
		out = append(out, Case{"scene:" + s.ID, "scene " + s.Name})
	}
	for _, d := range p.Devices {
		if d.Kind == "supply" {
			out = append(out, Case{"without:" + d.ID, "without " + d.Name})
		}
	}
	return append(out, Case{"cold", fmt.Sprintf("a night of %s", coldNight)})
}

// coldNight is the temperature of the cold case.
var coldNight = measure.Of[measure.CelsiusKind](-5)

// Case solves the wiring in one of its states: nil when there is none of that
// key. In a scene every switch it ever works is on, which is its worst moment.
func (p *Plan) Case(lib *stock.Library, key string) *State {
	_, st := p.CaseRig(lib, key)
	return st
}

// CaseRig is Case with the network as it was solved in that state.
func (p *Plan) CaseRig(lib *stock.Library, key string) (*Rig, *State) {
	kind, id := key, ""
	for i := range key {
		if key[i] == ':' {
			kind, id = key[:i], key[i+1:]
			break
		}
	}
	switch kind {
	case "all":
		r := NewRig(p, lib)
		return r, r.Solve(lib, nil)
	case "start":
		r := NewRig(p, lib)
		r.started(lib)
		return r, r.Solve(lib, nil)
	case "rest":
		r := NewRig(p, lib)
		return r, r.Solve(lib, map[string]bool{})
	case "scene":
		s := p.Scene(id)
		if s == nil {
			return nil, nil
		}
		on := map[string]bool{}
		for _, c := range s.Cues {
			on[c.Channel] = true
		}
		r := NewRig(p, lib)
		return r, r.Solve(lib, on)
	case "without":
		d := p.Device(id)
		if d == nil || d.Kind != "supply" {
			return nil, nil
		}
		r := NewRig(p, lib)
		e := &r.Net.Elements[r.source[id]]
		e.E, e.R, e.Limit = 0, 1e9, 0 // unplugged
		return r, r.Solve(lib, nil)
	case "cold":
		q := p.Clone()
		q.Display.Temp = coldNight
		r := NewRig(q, lib)
		for i := range q.Devices { // alkaline cells stiffen and sag in the cold
			if d := &q.Devices[i]; d.Cell != "" {
				if c := circuit.Cells[d.Cell]; !c.Lead {
					r.Net.Elements[r.source[d.ID]].R *= 2
				}
			}
		}
		return r, r.Solve(lib, nil)
	}
	return nil, nil
}

// Starts reports whether anything takes more as it starts than as it runs.
func (p *Plan) Starts(lib *stock.Library) bool {
	for _, d := range p.Devices {
		if l := lib.Lamps[d.Product]; d.Kind == "lamp" && (l.Stall > 0 || l.Peak > 0) {
			return true
		}
	}
	return false
}

// started puts everything as it starts: motors and servos stand still and are no
// more than their windings, amplifiers are at their loudest. It returns what
// that replaced.
func (r *Rig) started(lib *stock.Library) map[int]circuit.Element {
	was := map[int]circuit.Element{}
	for i := range r.devices {
		d := &r.devices[i]
		l := lampOf(d, lib)
		for _, k := range r.load[d.ID] {
			e := &r.Net.Elements[k]
			switch {
			case l.Stall > 0:
				was[k] = *e
				*e = circuit.Element{Kind: circuit.Resistor, A: e.A, B: e.B, Name: e.Name, R: l.Volts / l.Stall}
			case l.Peak > 0:
				was[k] = *e
				e.I = l.Peak
			}
		}
	}
	return was
}

// starting calls f with everything as it starts, and puts it back.
func (r *Rig) starting(lib *stock.Library, f func()) {
	was := r.started(lib)
	f()
	for k, e := range was {
		r.Net.Elements[k] = e
	}
}

// Start solves the moment when everything is switched on together.
func (r *Rig) Start(lib *stock.Library) (st *State) {
	r.starting(lib, func() { st = r.Solve(lib, nil) })
	return st
}

// StartAmps is what each supply is asked for at that moment, had it no limit.
func (r *Rig) StartAmps(lib *stock.Library) map[string]float64 {
	limits, out := map[string]float64{}, map[string]float64{}
	for id, e := range r.source {
		limits[id], r.Net.Elements[e].Limit = r.Net.Elements[e].Limit, 0
	}
	st := r.Start(lib)
	for id, e := range r.source {
		r.Net.Elements[e].Limit, out[id] = limits[id], st.Readings[id].Amps
	}
	return out
}
