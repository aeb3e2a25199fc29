package work

import (
	"fmt"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/wiring"
)

// demandFrom is where the demand is from.
var demandFrom = source.Exact("the network solved with its supplies unlimited, everything on")

// Demand is what a supply or a converter is asked for with everything on, in
// A: one number for its ticket, its snags and their mends.
func (w *Work) Demand(id string) float64 { return w.powered().demand[id] }

// Load is that as a share of what it is rated to give.
func (w *Work) Load(d *plan.Device) float64 {
	_, limit := wiring.SupplyOf(d, w.Lib)
	return w.powered().demand[d.ID] / limit
}

// demands keeps the demand of every source, and judges its state by it.
func (x *powering) demands() {
	w := x.Work
	x.demand = x.rig.Demand()
	x.all = x.rig.Solve(nil)
	for i := range w.Plan.Devices() {
		d := &w.Plan.Devices()[i]
		if !d.Is(wiring.Source) {
			continue
		}
		g := x.all.Readings[d.ID]
		if g.State == "starved" || g.State == "off" || g.State == "reversed" {
			continue
		}
		_, limit := wiring.SupplyOf(d, w.Lib)
		g.Lit = x.demand[d.ID] / limit
		g.State = wiring.LoadState(g.Lit)
		x.all.Readings[d.ID] = g
	}
}

// loadResult is a source's load with its working.
func (w *powering) loadResult(d *plan.Device, gives float64) source.Result {
	_, limit := wiring.SupplyOf(d, w.Lib)
	asks := w.demand[d.ID]
	r := source.Result{
		Label: "Load, everything on",
		Value: asks,
		Unit:  "A",
		Text:  fmt.Sprintf("%s, %.0f %%", measure.Amps(asks), 100*asks/limit),
	}.
		With("current its loads ask for at its rated volts", "", measure.Amps(asks), demandFrom).
		With("load = current / rating", fmt.Sprintf("%s / %s", measure.Amps(asks), measure.Amps(limit)),
			fmt.Sprintf("%.0f %%", 100*asks/limit), circuit.LoadFrom)
	if asks > 1.02*gives+.001 {
		r = r.With(
			"what it gives instead, sagging",
			"",
			measure.Amps(gives),
			source.Exact("every node solved, its limit and inner resistance counted"),
		)
	}
	return r
}
