package plan

import (
	"fmt"
	"math"

	"zapbarn/core/circuit"
	"zapbarn/core/source"
	"zapbarn/core/stock"
)

// idealOhms stands behind a supply that is taken to give whatever is asked.
const idealOhms = 1e-4

// demandFrom is where the demand is from.
var demandFrom = source.Exact("the network solved with its supplies unlimited, everything on")

// Demand is what each supply and converter is asked for with everything on, in
// A: the network solved with every source ideal, its rated volts at any
// current. What a sagging or limited source gives says nothing of that.
func (r *Rig) Demand(lib *stock.Library) map[string]float64 {
	r.revive()
	kept := map[string]circuit.Element{}
	for id, k := range r.source {
		e := &r.Net.Elements[k]
		kept[id] = *e
		e.Limit = 0
		if !r.beside[id] { // two sources side by side share by what stands behind them
			e.R = idealOhms
		}
	}
	st := r.Solve(lib, nil)
	out := map[string]float64{}
	for id := range r.source {
		out[id] = math.Max(0, st.Readings[id].Amps)
	}
	r.revive()
	for id, k := range r.source {
		r.Net.Elements[k] = kept[id]
	}
	return out
}

// Demand is what a supply or a converter is asked for with everything on, in
// A: one number for its ticket, its snags and their mends.
func (w *Work) Demand(id string) float64 { return w.demand[id] }

// Load is that as a share of what it is rated to give.
func (w *Work) Load(d *Device) float64 {
	_, limit := SupplyOf(d, w.Lib)
	return w.demand[d.ID] / limit
}

// demands keeps the demand of every source, and judges its state by it.
func (w *Work) demands() {
	w.demand = w.Rig.Demand(w.Lib)
	w.All = w.Rig.Solve(w.Lib, nil)
	for i := range w.Plan.Devices {
		d := &w.Plan.Devices[i]
		if d.Kind != "supply" && d.Kind != "converter" {
			continue
		}
		g := w.All.Readings[d.ID]
		if g.State == "starved" || g.State == "off" || g.State == "reversed" {
			continue
		}
		g.Lit = w.Load(d)
		g.State = loadState(g.Lit)
		w.All.Readings[d.ID] = g
	}
}

// loadState is how a source stands at a share of its rating.
func loadState(share float64) string {
	switch {
	case share > 1:
		return "overloaded"
	case share > circuit.LoadLimit:
		return "heavy"
	}
	return "ok"
}

// loadResult is a source's load with its working.
func (w *Work) loadResult(d *Device, gives float64) source.Result {
	_, limit := SupplyOf(d, w.Lib)
	asks := w.demand[d.ID]
	r := source.Result{
		Label: "Load, everything on",
		Value: asks,
		Unit:  "A",
		Text:  fmt.Sprintf("%s, %.0f %%", amps(asks), 100*asks/limit),
	}.
		With("current its loads ask for at its rated volts", "", amps(asks), demandFrom).
		With("load = current / rating", fmt.Sprintf("%s / %s", amps(asks), amps(limit)),
			fmt.Sprintf("%.0f %%", 100*asks/limit), circuit.LoadFrom)
	if asks > 1.02*gives+.001 {
		r = r.With(
			"what it gives instead, sagging",
			"",
			amps(gives),
			source.Exact("every node solved, its limit and inner resistance counted"),
		)
	}
	return r
}

// ShortAmps is what a supply can push into a short circuit, in A: of cells what
// their open volts drive through their own resistance; of a plug-in supply what
// it gives before it gives in.
func ShortAmps(d *Device, lib *stock.Library) float64 {
	v, limit := SupplyOf(d, lib)
	if d.Cell != "" {
		return v / sourceOhms(d, v, limit)
	}
	return givesIn * limit
}

// givesIn is how many times its rating a plug-in supply gives before its limit
// holds. From memory: 110 to 150 %.
const givesIn = 1.3

// Input is what a converter draws in a solved state, in W.
func (r *Rig) Input(st *State, converter string) float64 {
	e := r.Net.Elements[r.input[converter]]
	i, _ := e.At(st.Solution.Across(e))
	return i * st.Solution.Across(e)
}
