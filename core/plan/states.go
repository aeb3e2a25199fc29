package plan

import (
	"fmt"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
)

// Case is one state of the wiring that it should be looked at in.
type Case struct{ Key, Name string }

// Cases lists the states: everything on, all starting at once when something
// then takes more, scenes off, each scene, each supply
// missing, a cold night.
func (p *Plan) Cases(lib *stock.Library) []Case {
	out := []Case{{"all", "everything on"}}
	if p.Wiring(lib).Starts() {
		out = append(out, Case{"start", "all starting at once"})
	}
	out = append(out, Case{"rest", "scenes off"})
	for _, s := range p.Scenes() {
		out = append(out, Case{"scene:" + s.ID, "scene " + s.Name})
	}
	for _, d := range p.Devices() {
		if d.Is(wiring.Origin) {
			out = append(out, Case{"without:" + d.ID, "without " + d.Name})
		}
	}
	return append(out, Case{"cold", fmt.Sprintf("a night of %s", coldNight)})
}

// coldNight is the temperature of the cold case.
var coldNight = measure.Of[measure.CelsiusKind](-5)

// Case solves the wiring in one of its states: nil when there is none of that
// key. In a scene every switch it ever works is on, which is its worst moment.
func (p *Plan) Case(lib *stock.Library, key string) *wiring.State {
	_, st := p.CaseRig(lib, key)
	return st
}

// CaseRig is Case with the network as it was solved in that state.
func (p *Plan) CaseRig(lib *stock.Library, key string) (*wiring.Rig, *wiring.State) {
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
		return r, r.Solve(nil)
	case "start":
		r := NewRig(p, lib)
		r.Started()
		return r, r.Solve(nil)
	case "rest":
		r := NewRig(p, lib)
		return r, r.Solve(map[string]bool{})
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
		return r, r.Solve(on)
	case "without":
		d := p.Device(id)
		if d == nil || !d.Is(wiring.Origin) {
			return nil, nil
		}
		r := NewRig(p, lib)
		r.Unplug(id)
		return r, r.Solve(nil)
	case "cold":
		q := p.Clone()
		q.doc.Display.Temp = coldNight
		r := NewRig(q, lib)
		for i := range q.Devices() { // alkaline cells stiffen and sag in the cold
			if d := &q.Devices()[i]; d.Cell != "" {
				if c := circuit.Cells[d.Cell]; !c.Lead {
					r.Stiffen(d.ID, 2)
				}
			}
		}
		return r, r.Solve(nil)
	}
	return nil, nil
}
