package work

import (
	"fmt"
	"math"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/pixel"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
	"zapbarn/core/words"
)

// solvedFrom is the source of every voltage and current.
var solvedFrom = source.Exact("every node solved by Newton's method on nodal equations, everything on")

// powering is the wiring as it is worked out.
type powering struct {
	*Work
	*powered
}

// power is what runs: every state of the wiring that the rest is told from.
func (w *Work) power() *powered {
	x := &powering{w, &powered{rig: plan.NewRig(w.Plan, w.Lib), numbers: w.numbers}}
	x.demands()
	x.devices()
	x.energy()
	return x.powered
}

// told is a device whose numbers are kept.
type deviceNumbers struct {
	*powering
	d     *plan.Device
	g     wiring.Operating
	rated float64 // volts of the supply that feeds it; 0 for none
}

func (t deviceNumbers) keep(what string, r source.Result) {
	t.Work.keep(source.KeyOf("device", t.d.ID, what), r)
}

// devices keeps each device's numbers with their working.
func (w *powering) devices() {
	w.Work.numbers.Room(len(w.Plan.Devices()) + len(w.Plan.Outlets()))
	for i := range w.Plan.Devices() {
		d := &w.Plan.Devices()[i]
		w.Watch.At("device", d.ID)
		t := deviceNumbers{powering: w, d: d, g: w.all.Readings[d.ID]}
		switch {
		case d.Is(wiring.Origin):
			t.supply()
			continue
		case d.Is(wiring.Converter):
			t.converter()
			continue
		}
		if s := w.Device(w.rig.Supply(d.ID)); s != nil {
			t.rated, _ = wiring.SupplyOf(s, w.Lib)
		}
		t.solved()
		switch {
		case d.Is(wiring.Wire):
			t.run()
		case d.Is(wiring.Load):
			t.lamp()
		case d.Is(wiring.Fuse):
			t.fuse()
		}
	}
}

// volts is a source's voltage under its load.
func (t deviceNumbers) volts(label string, e, ohms float64) source.Result {
	return source.Num(label, t.g.Volts, "V", measure.Volts(t.g.Volts)).With(
		"V = E - I Rs",
		fmt.Sprintf("%s - %s x %s", measure.Volts(e), measure.Amps(t.g.Amps), measure.Ohms(ohms)),
		measure.Volts(t.g.Volts),
		stock.SupplyResistanceFrom,
	)
}

func (t deviceNumbers) supply() {
	v, limit := wiring.SupplyOf(t.d, t.Lib)
	t.keep("load", t.loadResult(t.d, t.g.Amps))
	t.keep("volts", t.volts("Volts at its terminals", v, wiring.SourceOhms(t.d, v, limit)))
	head := circuit.LoadLimit*limit - t.demand[t.d.ID]
	t.keep("headroom", source.Num("Headroom to 80 %", head, "A", measure.Amps(head)).With(
		"0.8 rating - load",
		fmt.Sprintf("0.8 x %s - %s", measure.Amps(limit), measure.Amps(t.demand[t.d.ID])),
		measure.Amps(head),
		circuit.LoadFrom,
	))
}

func (t deviceNumbers) converter() {
	v, limit := wiring.SupplyOf(t.d, t.Lib)
	draws, sees := t.rig.Draws(t.all, t.d.ID)
	t.keep("load", t.loadResult(t.d, t.g.Amps))
	t.keep("volts", t.volts("Volts it gives", v, stock.SupplyResistance(v, limit)))
	text := fmt.Sprintf("%s at %s", measure.Watts(draws), measure.Volts(sees))
	t.keep("draws", source.Num("It draws", draws, "W", text).With(
		"power out / efficiency",
		fmt.Sprintf("%s x %s / %g", measure.Volts(t.g.Volts), measure.Amps(t.g.Amps), wiring.ConverterEfficiency),
		measure.Watts(draws),
		wiring.ConverterFrom,
	))
}

// solved are the numbers of whatever is fed.
func (t deviceNumbers) solved() {
	label := "Volts at its end"
	if t.d.Is(wiring.Load) {
		label = "Volts at the lamp"
	}
	nodes, steps := t.rig.Solved(t.all, t.d.ID)
	t.keep("volts", source.Num(label, t.g.Volts, "V", measure.Volts(t.g.Volts)).With(
		"node voltages of all that is wired together",
		words.Count(nodes, "node")+", "+words.Count(steps, "step")+" of Newton's",
		measure.Volts(t.g.Volts),
		solvedFrom,
	))
	t.keep("amps", source.Num("Current", t.g.Amps, "A", measure.Amps(t.g.Amps)).
		With("branch current of the solved network", "", measure.Amps(t.g.Amps), solvedFrom))
	if t.rated <= 0 {
		return
	}
	pct := 100 * t.g.Drop / t.rated
	text := fmt.Sprintf("%s, %.1f %%", measure.Volts(t.g.Drop), pct)
	t.keep("drop", source.Num("Drop from "+t.rig.Supply(t.d.ID), t.g.Drop, "V", text).
		With(
			"drop = supply volts - volts here",
			fmt.Sprintf("%.3f V - %.3f V", t.rated, t.rated-t.g.Drop),
			measure.Volts(t.g.Drop),
			solvedFrom,
		).
		With(
			"share = drop / supply volts",
			fmt.Sprintf("%.4f V / %.3f V", t.g.Drop, t.rated),
			fmt.Sprintf("%.1f %%", pct),
			circuit.BudgetFrom,
		))
}

func (t deviceNumbers) run() {
	d, metric := t.d, t.Plan.Metric()
	if need := d.PathNeeds(metric); need > 0 {
		path := need / (1 + wiring.PathSlack)
		t.keep("path", source.Num("Its path wants", need, "mm", measure.Run(need, metric)).With(
			"path along its corners x 1.05",
			fmt.Sprintf("%s x 1.05", t.Len(path)),
			t.Len(need),
			source.Exact("sum of straight pieces"),
			wiring.SlackFrom,
		))
	}
	per := stock.CopperOhmsPerMetre(d.Gauge.Value(), t.Plan.Temperature())
	both := 2 * per * d.Length.Value() / 1000
	t.keep("ohms", source.Num("Both conductors", both, "ohm", measure.Ohms(both)).With(
		"R = 2 rho L / A (1 + alpha (T - 20))",
		fmt.Sprintf("2 x %.3f mohm/m x %.4f m", per*1000, d.Length.Value()/1000),
		measure.Ohms(both),
		stock.CopperFrom,
		stock.GaugeFrom,
	))
	may := stock.Ampacity(d.Gauge.Value())
	t.keep("carry", source.Num("May carry", may, "A", measure.Amps(may)).
		With("limit of the next smaller listed gauge", d.Gauge.String()+" wire", measure.Amps(may), stock.AmpacityFrom),
	)
}

func (t deviceNumbers) lamp() {
	text := measure.Decimal(100*t.g.Lit, 0) + " %"
	t.keep("light", source.Num("Light against full", 100*t.g.Lit, "%", text).With(
		"share of rated current, worst segment",
		fmt.Sprintf("%s of %s", measure.Amps(t.g.Amps), measure.Amps(wiring.RatedAmps(t.d, t.Lib))),
		text,
		source.FromTrade("an LED's light follows its current"),
	))
	l := wiring.LampOf(t.d, t.Lib)
	if l.Columns > 0 {
		t.matrix(l)
	}
	if l.Kind == "led" && t.rated > 0 {
		if _, _, r, err := circuit.LEDResistor(t.rated, l.Vf, max(1, t.d.Row), l.Amps); err == nil {
			t.keep("resistor", r)
		}
	}
}

// matrix are the numbers of a matrix whose rows are lit one after another.
func (t deviceNumbers) matrix(l stock.Lamp) {
	m := pixel.Matrix{Columns: l.Columns, Rows: l.Scan, Bits: l.Bits, Clock: l.Clock}
	hz := measure.Decimal(m.Refresh(), 0) + " times a second"
	t.keep("refresh", source.Num("Shown whole", m.Refresh(), "Hz", hz).With(
		"clock / (columns x rows one after another x (2^bits - 1))",
		fmt.Sprintf("%g MHz / (%d x %d x %g)", l.Clock/1e6, l.Columns, l.Scan, math.Pow(2, float64(l.Bits))-1),
		hz, source.Exact("rows lit one after another; below 60 it is seen to flicker")))
	duty := measure.Decimal(m.Duty()*100, 1) + " % of the time"
	t.keep("duty", source.Num("Each row is lit", m.Duty()*100, "%", duty).With("1 / rows one after another",
		fmt.Sprintf("1 / %d", l.Scan), duty, source.Exact("scanning")))
}

func (t deviceNumbers) fuse() {
	drop := t.g.Amps * wiring.FuseVolts / math.Max(t.d.Rating.Value(), .1)
	t.keep("drop", source.Num("Drop in the fuse", drop, "V", measure.Volts(drop)).With(
		"I x 0.1 V / rating",
		fmt.Sprintf("%s x 0.1 V / %s", measure.Amps(t.g.Amps), t.d.Rating),
		measure.Volts(drop),
		wiring.SmallPartsFrom,
	))
}
