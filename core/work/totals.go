package work

import (
	"fmt"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/source"
	"zapbarn/core/wiring"
)

// stockCosts is what a stock's sheets or lengths cost.
func (w *Work) stockCosts(id string) source.Result {
	if r := w.nested().numbers.At("stock", id, "cost"); r.Text != "" {
		return r
	}
	return w.barred().numbers.At("stock", id, "cost")
}

// totals are the display's own numbers.
func (w *Work) totals() {
	kg, cost, watts := 0.0, 0.0, 0.0
	var masses, costs []string
	for i := range w.Plan.Props() {
		r := w.At("prop", w.Plan.Props()[i].ID, "mass")
		kg += r.Value
		masses = append(masses, r.Text)
	}
	spent := func(id string) {
		r := w.stockCosts(id)
		cost += r.Value
		costs = append(costs, r.Text)
	}
	for _, s := range w.Sheets() {
		spent(s.Stock.ID)
	}
	for _, b := range w.Bars() {
		spent(b.Stock.ID)
	}
	for i := range w.Plan.Devices() {
		if d := &w.Plan.Devices()[i]; d.Is(wiring.Origin) {
			g := w.All().Readings[d.ID]
			watts += g.Volts * g.Amps
		}
	}
	of := func(what string) source.Key { return source.Key{Kind: "display", What: what} }
	w.keep(of("mass"), source.Num("Everything, bare", kg, "kg", measure.Kilograms(kg)).
		With("sum of the props", strings.Join(masses, " + "), measure.Kilograms(kg), source.Exact("sum")))
	dollars := fmt.Sprintf("$%.2f", cost)
	w.keep(of("cost"), source.Num("Sheets and pipe", cost, "$", dollars).
		With("sum over stock", strings.Join(costs, " + "), dollars, source.FromMemory("prices of the shop's list")))
	w.keep(of("watts"), source.Num("Out of all supplies", watts, "W", measure.Watts(watts)).
		With("sum of volts x amps, everything on", "", measure.Watts(watts), source.Exact("solved network")))
}
