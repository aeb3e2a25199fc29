package wiring

import (
	"iter"
	"math"

	"zapbarn/core/circuit"
)

// idealOhms stands behind a supply that is taken to give whatever is asked.
const idealOhms = 1e-4

// sources are the elements of the supplies and of what converters give, by device.
func (r *Rig) sources() iter.Seq2[string, int] {
	return func(yield func(string, int) bool) {
		for i := range r.devices {
			id := r.devices[i].ID
			if k := r.at(id).source; k >= 0 && !yield(id, k) {
				return
			}
		}
	}
}

// Demand is what each supply and converter is asked for with everything on, in
// A: the network solved with every source ideal, its rated volts at any
// current. What a sagging or limited source gives says nothing of that.
func (r *Rig) Demand() map[string]float64 {
	r.revive()
	kept := map[string]circuit.Element{}
	for id, k := range r.sources() {
		e := &r.Net.Elements[k]
		kept[id] = *e
		e.Limit = 0
		if !r.at(id).beside { // two sources side by side share by what stands behind them
			e.R = idealOhms
		}
	}
	st := r.Solve(nil)
	out := map[string]float64{}
	for id := range r.sources() {
		out[id] = math.Max(0, st.Readings[id].Amps)
	}
	r.revive()
	for id, k := range r.sources() {
		r.Net.Elements[k] = kept[id]
	}
	return out
}

// Draws is what a converter draws in a solved state, in W, and the volts it sees,
// as the network has it.
func (r *Rig) Draws(st *State, converter string) (watts, volts float64) {
	in := r.Net.Elements[r.at(converter).input]
	volts = st.Solution.Across(in)
	return in.I * volts, volts
}

// Input is what a converter draws in a solved state, in W.
func (r *Rig) Input(st *State, converter string) float64 {
	e := r.Net.Elements[r.at(converter).input]
	i, _ := e.At(st.Solution.Across(e))
	return i * st.Solution.Across(e)
}
