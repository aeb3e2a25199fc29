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
	for id, k := range r.source {
		out[id] = math.Max(0, st.Readings[id].Amps)
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
	r := source.Result{Label: "Load, everything on", Value: asks, Unit: "A", Text: fmt.Sprintf("%s, %.0f %%", amps(asks), 100*asks/limit)}.
		With("current its loads ask for at its rated volts", "", amps(asks), demandFrom).
		With("load = current / rating", fmt.Sprintf("%s / %s", amps(asks), amps(limit)), fmt.Sprintf("%.0f %%", 100*asks/limit), circuit.LoadFrom)
	if asks > 1.02*gives+.001 {
		r = r.With("what it gives instead, sagging", "", amps(gives), source.Exact("every node solved, its limit and inner resistance counted"))
	}
	return r
}
