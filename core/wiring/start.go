package wiring

import "zapbarn/core/circuit"

// Starts reports whether anything takes more as it starts than as it runs.
func (s Set) Starts() bool {
	for _, d := range s.Devices {
		if l := s.Lib.Lamps[d.Product]; d.Is(Load) && (l.Stall > 0 || l.Peak > 0) {
			return true
		}
	}
	return false
}

// Started puts everything as it starts: motors and servos stand still and are no
// more than their windings, amplifiers are at their loudest. It returns what
// that replaced.
func (r *Rig) Started() map[int]circuit.Element {
	was := map[int]circuit.Element{}
	for i := range r.devices {
		d := &r.devices[i]
		l := LampOf(d, r.lib)
		for _, k := range r.at(d.ID).load {
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
func (r *Rig) starting(f func()) {
	was := r.Started()
	f()
	for k, e := range was {
		r.Net.Elements[k] = e
	}
}

// Start solves the moment when everything is switched on together.
func (r *Rig) Start() (st *State) {
	r.starting(func() { st = r.Solve(nil) })
	return st
}

// StartAmps is what each supply is asked for at that moment, had it no limit.
func (r *Rig) StartAmps() map[string]float64 {
	limits, out := map[string]float64{}, map[string]float64{}
	for id, e := range r.sources() {
		limits[id], r.Net.Elements[e].Limit = r.Net.Elements[e].Limit, 0
	}
	st := r.Start()
	for id, e := range r.sources() {
		r.Net.Elements[e].Limit, out[id] = limits[id], st.Readings[id].Amps
	}
	return out
}
