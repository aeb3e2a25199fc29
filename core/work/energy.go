package work

import (
	"fmt"
	"math"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
)

// mainsEfficiency is what a plug-in supply makes of what it draws.
const mainsEfficiency = 0.85

var efficiencyFrom = source.FromMemory("plug-in supplies turn 80 to 90 % of what they draw into low voltage")

// Night is what a supply gives on average over a night, in A: everything on for
// the share of the night that scenes run, scenes off for the rest.
func (w *Work) Night(supply string) float64 { return w.powered().night(w.Plan, supply) }

// night is that of a plan's wiring.
func (x *powered) night(p *plan.Plan, supply string) float64 {
	_, _, duty := p.Season()
	on, rest := x.all.Readings[supply].Amps, x.rest.Readings[supply].Amps
	return duty*on + (1-duty)*rest
}

// MainsLoad is one thing on an outlet.
type MainsLoad struct {
	Kind, ID, Name string
	Watts, Average float64
	Heater         bool
}

// OnOutlet lists what hangs on an outlet.
func (w *Work) OnOutlet(id string) []MainsLoad {
	return w.powered().plugged[id]
}

// plugged is what hangs on each outlet.
func (w *powering) onOutlets() map[string][]MainsLoad {
	out := map[string][]MainsLoad{}
	for i := range w.Plan.Devices() {
		d := &w.Plan.Devices()[i]
		if id := d.Outlet; d.Is(wiring.Origin) && id != "" {
			g := w.all.Readings[d.ID]
			v, _ := wiring.SupplyOf(d, w.Lib)
			out[id] = append(
				out[id],
				MainsLoad{
					"device",
					d.ID,
					d.Name,
					g.Volts * g.Amps / mainsEfficiency,
					v * w.night(w.Plan, d.ID) / mainsEfficiency,
					false,
				},
			)
		}
	}
	for _, p := range w.Plan.Plugs() {
		if id := p.Outlet; id != "" {
			average := p.Watts.Value()
			if p.Duty > 0 {
				average *= float64(p.Duty) / 100
			}
			out[id] = append(out[id], MainsLoad{"plug", p.ID, p.Name, p.Watts.Value(), average, p.Heater})
		}
	}
	return out
}

// OutletLimit is what an outlet's circuit may carry for the show: 80 % of its
// breaker when it runs three hours or more.
func (w *Work) OutletLimit(o *plan.Outlet) float64 {
	if _, hours, _ := w.Plan.Season(); hours >= 3 {
		return circuit.LoadLimit * o.Breaker.Value()
	}
	return o.Breaker.Value()
}

// energy works out batteries and outlets over the season.
func (w *powering) energy() {
	w.rest = w.all
	for i := range w.Plan.Devices() {
		if d := &w.Plan.Devices()[i]; d.Channel() ||
			w.Lib.Lamps[d.Product].Idle > 0 && w.Lib.Lamps[d.Product].Stall > 0 {
			w.rest = w.rig.Solve(map[string]bool{})
			break
		}
	}
	w.plugged = w.onOutlets()
	for i := range w.Plan.Devices() {
		if d := &w.Plan.Devices()[i]; d.Is(wiring.Origin) && d.Cell != "" {
			w.cells(d)
		}
	}
	total := 0.0
	for i := range w.Plan.Outlets() {
		total += w.outlet(&w.Plan.Outlets()[i])
	}
	if len(w.Plan.Outlets()) > 0 {
		nights, _, _ := w.Plan.Season()
		kwh := measure.Decimal(total, 2) + " kWh"
		w.keep(source.KeyOf("display", "", "energy"), source.Num("From the mains, a night", total, "kWh", kwh).With(
			"sum of the outlets",
			fmt.Sprintf("%d nights: %s kWh", nights, measure.Decimal(total*float64(nights), 1)),
			kwh,
			source.Exact("sum"),
		))
	}
}

// cells keeps how long a battery lasts, and what the season takes.
func (w *powering) cells(d *plan.Device) {
	nights, hours, duty := w.Plan.Season()
	of := func(what string) source.Key { return source.KeyOf("device", d.ID, what) }
	avg := w.night(w.Plan, d.ID)
	all, rest := measure.Amps(w.all.Readings[d.ID].Amps), measure.Amps(w.rest.Readings[d.ID].Amps)
	w.keep(of("average"), source.Num("Over a night", avg, "A", measure.Amps(avg)).With(
		"duty x all on + rest x scenes off",
		fmt.Sprintf("%.0f %% x %s + %.0f %% x %s", 100*duty, all, 100*(1-duty), rest),
		measure.Amps(avg),
		source.Exact("mean over the night"),
	))
	cold := w.Plan.Temperature() < 5
	rs, err := circuit.Runtime(d.Cell, math.Max(avg, 1e-6), max(1, d.Sets), cold, hours, nights)
	if err != nil {
		return // said by a rule
	}
	for _, r := range rs {
		w.keep(of(r.Key.What), r)
		if r.Key.What != "sets" {
			continue
		}
		c, each := circuit.Cells[d.Cell], max(1, d.Cells)*max(1, d.Sets)
		n := r.Value * float64(each)
		cost := n * c.Price
		w.keep(of("season"), source.Num("For the season", cost, "$", fmt.Sprintf("%.0f cells, $%.2f", n, cost)).With(
			"sets x cells x price",
			fmt.Sprintf("%.0f x %d x $%.2f", r.Value, each, c.Price),
			fmt.Sprintf("$%.2f", cost),
			circuit.CellsFrom,
		))
	}
}

// outlet keeps what an outlet bears, and returns its kWh a night.
func (w *powering) outlet(o *plan.Outlet) float64 {
	_, hours, _ := w.Plan.Season()
	watts, avg := 0.0, 0.0
	for _, l := range w.plugged[o.ID] {
		watts, avg = watts+l.Watts, avg+l.Average
	}
	volts := measure.Volts(o.Volts.Value())
	a, limit := watts/o.Volts.Value(), w.OutletLimit(o)
	of := func(what string) source.Key { return source.KeyOf("outlet", o.ID, what) }
	text := fmt.Sprintf("%s of %s", measure.Amps(a), measure.Amps(limit))
	w.keep(of("amps"), source.Num("On the circuit, everything on", a, "A", text).
		With(
			"I = P / V, supplies at 85 %",
			measure.Watts(watts)+" / "+volts,
			measure.Amps(a),
			source.Std("Ohm's law, power factor 1"),
			efficiencyFrom,
		).
		With(
			"limit",
			fmt.Sprintf("%s breaker, %g h a night", measure.Amps(o.Breaker.Value()), hours),
			measure.Amps(limit),
			source.Std("NEC 210.20(A): continuous load at most 80 %"),
		))
	kwh := avg * hours / 1000
	night := measure.Decimal(kwh, 2) + " kWh"
	w.keep(of("energy"), source.Num("A night", kwh, "kWh", night).
		With("average power x hours", fmt.Sprintf("%s x %g h", measure.Watts(avg), hours), night, source.Exact("energy")),
	)
	if r := o.CordOhms(); r > 0 {
		drop := 100 * a * r / o.Volts.Value()
		lost := measure.Decimal(drop, 1) + " %"
		w.keep(of("cord"), source.Num("Lost in the cord", drop, "%", lost).With(
			"I R / V",
			fmt.Sprintf("%s x %s / %s", measure.Amps(a), measure.Ohms(r), volts),
			lost,
			stock.CopperFrom,
		))
	}
	return kwh
}
