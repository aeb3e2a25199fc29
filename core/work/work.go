// Package work works a whole plan out, the way a compiler reads a program: parts,
// sheets, verdicts, circuits and behaviour, each number with its working. It comes
// in stages, and an edit works out only those that stand on what it changed.
package work

import (
	"errors"
	"fmt"
	"math"
	"strings"
	"time"

	"zapbarn/core/bond"
	"zapbarn/core/circuit"
	"zapbarn/core/cutting"
	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/show"
	"zapbarn/core/source"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
)

// Work is the whole plan worked out: every part, layout, verdict, voltage and
// behaviour, and each number with its working.
type Work struct {
	Plan     *plan.Plan
	Lib      *stock.Library
	Today    time.Time
	Shapes   map[string]*pattern.Shape // by solid; nil while it lacks sizes
	Lacking  map[string]error          // *Missing by solid
	Parts    []*Part
	Sheets   []*cutting.Sheets
	Bars     []*cutting.Bars
	Joints   map[string]bond.Advice
	Finishes map[string]bond.Finish
	Rig      *wiring.Rig
	All      *wiring.State // everything on
	Rest     *wiring.State // scenes off
	Machine  show.Machine
	ShowErr  error
	Results  map[string]source.Result
	Plain    bool   // for trying a change on: nothing is searched for, no mends are sought
	Watch    *Watch // bounds what is worked out of it; nil does not
	partBy   map[string]*Part
	wires    wiring.Index
	taken    *plan.Plan                       // the whole that this is a portion of: names used there are taken
	demand   map[string]float64               // what each source is asked for, in A
	under    stage                            // that is being worked out
	of       [stages]map[string]source.Result // by the stage they are of
}

// Do works the plan out as of a day (which tells how old a glue is).
func Do(p *plan.Plan, lib *stock.Library, today time.Time) *Work {
	w, _ := DoWithin(nil, p, lib, today)
	return w
}

// DoWithin is Do within a watch; the error is *TooHeavy when its time ran out.
func DoWithin(watch *Watch, p *plan.Plan, lib *stock.Library, today time.Time) (*Work, error) {
	return DoFrom(nil, watch, p, lib, today)
}

func begun(watch *Watch, p *plan.Plan, lib *stock.Library, today time.Time) *Work {
	return &Work{
		Plan:     p,
		Lib:      p.Shop(lib),
		Today:    today,
		Shapes:   map[string]*pattern.Shape{},
		Lacking:  map[string]error{},
		Joints:   map[string]bond.Advice{},
		Finishes: map[string]bond.Finish{},
		Results:  map[string]source.Result{},
		Watch:    watch,
		partBy:   map[string]*Part{},
		wires:    wiring.IndexOf(p.Devices),
	}
}

// power is what runs: every state of the wiring that the rest is told from.
func (w *Work) power() {
	w.Rig = plan.NewRig(w.Plan, w.Lib)
	w.demands()
	w.devices()
	w.energy()
}

// Part returns the part with a reference such as box/front, or nil. A part that
// was split answers by its first piece.
func (w *Work) Part(ref string) *Part {
	if p := w.partBy[ref]; p != nil {
		return p
	}
	return w.partBy[ref+"-1"]
}

// Device returns the device with that ID, or nil, at once.
func (w *Work) Device(id string) *plan.Device { return w.wires.Device(id) }

// FedBy is Plan.FedBy at the cost of that supply's own devices alone.
func (w *Work) FedBy(supply string) *plan.Plan {
	q := *w.Plan
	q.Devices = w.wires.FedBy(w.Plan.Devices, supply)
	return &q
}

// Kids lists what a device feeds, in the plan's order.
func (w *Work) Kids(id string) []*plan.Device { return w.wires.Kids(id) }

// Len writes a length the display's way.
func (w *Work) Len(mm float64) string { return measure.Tape(mm, w.Plan.Metric()) }

// FreshName is Plan.FreshName, clear of the whole plan that this is a portion of.
func (w *Work) FreshName(prefix string) string {
	for n := 1; ; n++ {
		id := fmt.Sprintf("%s%d", prefix, n)
		if w.Device(id) == nil && (w.taken == nil || w.taken.Device(id) == nil) {
			return id
		}
	}
}

// FreshID is Plan.FreshID, clear of the whole as well.
func (w *Work) FreshID(kind, name string) string {
	id := w.Plan.FreshID(kind, name)
	if w.taken == nil {
		return id
	}
	base := id
	for n := 2; ; n++ {
		a, _ := w.Plan.Get(kind, id)
		b, _ := w.taken.Get(kind, id)
		if a == nil && b == nil {
			return id
		}
		id = plan.Numbered(base, n)
	}
}

func (w *Work) keep(key string, r source.Result) {
	r.Key = key
	r = r.InUnits(w.Plan.Metric())
	w.Results[key] = r
	if w.under < stages {
		w.of[w.under][key] = r
	}
}

// lay makes the parts.
func (w *Work) lay() {
	count := map[string]int{}
	for i := range w.Plan.Solids {
		s := &w.Plan.Solids[i]
		w.Watch.At("solid", s.ID)
		shape, err := s.Shape(w.Lib)
		if err != nil {
			w.Lacking[s.ID] = measure.ErrorIn(err, w.Plan.Metric())
			continue
		}
		w.Shapes[s.ID] = shape
		m := w.Lib.Materials[s.Stock]
		for _, r := range shape.Results {
			w.keep("solid:"+s.ID+":"+r.Key, r)
		}
		mass := shape.Mass
		for _, panel := range shape.Panels {
			if turned, deg, ok := cutting.Aslant(panel, m, w.Plan.Margin()); ok {
				panel = turned
				panel.Notes = append(append([]string(nil), panel.Notes...), cutting.SlantNote(deg))
			}
			panel.Notes = notesIn(panel.Notes, w.Plan.Metric())
			count[s.Prop]++
			kg := panel.Volume() * 1e-9 * m.Density
			part := &Part{Ref: s.ID + "/" + panel.ID, Solid: s, Panel: panel, No: count[s.Prop], Mass: kg}
			w.Parts = append(w.Parts, part)
			w.partBy[part.Ref] = part
			mass += kg * float64(panel.Copies)
			lo, hi := panel.Bounds()
			w.keep(
				"part:"+part.Ref+":size",
				source.Result{
					Label: "Cut size",
					Value: hi.X - lo.X,
					Unit:  "mm",
					Text:  w.Len(hi.X-lo.X) + " x " + w.Len(hi.Y-lo.Y),
				}.
					With(
						"extent of both faces",
						fmt.Sprintf("%.1f by %.1f mm", hi.X-lo.X, hi.Y-lo.Y),
						w.Len(hi.X-lo.X)+" x "+w.Len(hi.Y-lo.Y),
						source.Exact("outside sizes less joints, stock thickness counted"),
					),
			)
			w.keep(
				"part:"+part.Ref+":mass",
				source.Result{Label: "Mass, bare, each", Value: kg, Unit: "kg", Text: measure.Kilograms(kg)}.
					With(
						"m = volume x density",
						fmt.Sprintf("%.0f cm3 x %.0f kg/m3", panel.Volume()/1000, m.Density),
						measure.Kilograms(kg),
						source.Exact("volume with bevels and rabbets taken off"),
						m.Known("density"),
					),
			)
			w.keep(
				"part:"+part.Ref+":area",
				source.Result{
					Label: "Face area, each",
					Value: panel.Area() / 1e6,
					Unit:  "m2",
					Text:  areaText(panel.Area()/1e6, w.Plan.Metric()),
				}.
					With(
						"outside face less openings",
						"",
						areaText(panel.Area()/1e6, w.Plan.Metric()),
						source.Exact("shoelace formula"),
					),
			)
		}
		for _, c := range shape.Cuts {
			count[s.Prop]++
			kg := math.Pi / 4 * (sq(m.OD.Value()) - sq(m.Bore())) * c.Length * 1e-9 * m.Density
			mass += kg * float64(c.Count)
		}
		if shape.Mass == 0 { // else its own result says how
			w.keep(
				"solid:"+s.ID+":mass",
				source.Result{Label: "Mass, bare", Value: mass, Unit: "kg", Text: measure.Kilograms(mass)}.
					With("sum over parts of volume x density", s.Name, measure.Kilograms(mass), m.Known("density")),
			)
		}
		if m.Form == "pipe" {
			w.keep(
				"solid:"+s.ID+":bore",
				source.Result{
					Label: "Bore",
					Value: m.Bore(),
					Unit:  "mm",
					Text:  measure.Decimal(m.Bore()/measure.Inch, 3) + `"`,
				}.
					With(
						"bore = OD - 2 wall",
						fmt.Sprintf("%s - 2 x %s", m.OD, m.Wall),
						measure.Decimal(m.Bore()/measure.Inch, 3)+`"`,
						m.From(),
					),
			)
		}
	}
	for _, part := range w.Parts {
		part.Of = count[part.Solid.Prop]
	}
	for i := range w.Plan.Props {
		id, kg := w.Plan.Props[i].ID, 0.0
		var steps []string
		for k := range w.Plan.Solids {
			if s := &w.Plan.Solids[k]; s.Prop == id && w.Shapes[s.ID] != nil {
				m := w.Results["solid:"+s.ID+":mass"].Value
				kg += m
				steps = append(steps, measure.Kilograms(m))
			}
		}
		w.keep(
			"prop:"+id+":mass",
			source.Result{
				Label: "Mass, bare",
				Value: kg,
				Unit:  "kg",
				Text:  measure.Kilograms(kg),
			}.With(
				"sum of its solids",
				strings.Join(steps, " + "),
				measure.Kilograms(kg),
				source.Exact("sum"),
			),
		)
	}
}

// notesIn writes a part's notes in the display's units.
func notesIn(notes []string, metric bool) []string {
	out := make([]string, len(notes))
	for i, n := range notes {
		out[i] = measure.InUnits(n, metric)
	}
	return out
}

func sq(x float64) float64 { return x * x }

func areaText(m2 float64, metric bool) string {
	if metric {
		return measure.Decimal(m2, 3) + " m2"
	}
	return measure.Decimal(m2/0.09290304, 2) + " sq ft"
}

// bars cuts the pipes.
func (w *Work) bars() {
	var pipes []cutting.Pipe
	for i := range w.Plan.Solids {
		s := &w.Plan.Solids[i]
		if shape := w.Shapes[s.ID]; shape != nil {
			for _, c := range shape.Cuts {
				pipes = append(pipes, cutting.Pipe{Stock: w.Lib.Materials[s.Stock], Length: c.Length, Count: c.Count})
			}
		}
	}
	w.Bars = w.Cutting().Lengths(pipes)
	for _, b := range w.Bars {
		w.barResults(b)
	}
}

// barResults keeps the numbers of a stock of pipe.
func (w *Work) barResults(b *cutting.Bars) {
	m, n := b.Stock, len(b.Cutting.Bars)
	known := fmt.Sprintf("at least %d needed; proven least", b.Cutting.Bound)
	if !b.Cutting.Proven {
		known = fmt.Sprintf("at least %d needed; fewer not ruled out", b.Cutting.Bound)
	}
	w.keep("stock:"+m.ID+":bars", source.Result{Label: m.Name + ", lengths", Value: float64(n), Text: fmt.Sprint(n)}.
		With(
			"fewest lengths, exact search",
			fmt.Sprintf("%d pieces, kerf %s", b.Pieces, w.Len(w.Plan.Kerf())),
			fmt.Sprintf("%d of %s, %s", n, m.Length, known),
			sawFrom,
		))
	if n > 0 {
		y := 100 * b.Yield()
		w.keep("stock:"+m.ID+":yield", source.Num("Used", y, "%", measure.Decimal(y, 0)+" %").With(
			"pieces / stock length",
			fmt.Sprintf("%s / (%d x %s)", measure.Run(b.Total, w.Plan.Metric()), n, m.Length),
			measure.Decimal(y, 1)+" %",
			source.Exact("sum"),
		))
	}
}

// MaterialAt is the material of a joint's side.
func (w *Work) MaterialAt(ref string) stock.Material {
	if m, bought := strings.CutPrefix(ref, "="); bought {
		return w.Lib.Materials[m]
	}
	id, _, _ := strings.Cut(ref, "/")
	if s := w.Plan.Solid(id); s != nil {
		return w.Lib.Materials[s.Stock]
	}
	return stock.Material{}
}

// JointCase is a joint as package bond judges it.
func (w *Work) JointCase(j *plan.Joint) bond.Joint {
	c := bond.Joint{
		A:      w.MaterialAt(j.A),
		B:      w.MaterialAt(j.B),
		Glue:   w.Lib.Glues[j.Glue],
		Temp:   w.Plan.Temperature(),
		RH:     w.Plan.Humidity(),
		Sun:    w.Plan.Display.Outdoors,
		Strain: j.Strain,
	}
	newest := math.Inf(1)
	for _, l := range w.Plan.Lots {
		if l.Glue == j.Glue {
			if t, err := time.Parse(time.DateOnly, l.Opened); err == nil {
				newest = math.Min(newest, math.Max(0, w.Today.Sub(t).Seconds()))
			}
		}
	}
	if !math.IsInf(newest, 1) {
		c.Age = newest
	}
	return c
}

func (w *Work) bonds() {
	for i := range w.Plan.Joints {
		j := &w.Plan.Joints[i]
		w.Watch.At("joint", j.ID)
		a := bond.Judge(w.JointCase(j))
		w.Joints[j.ID] = a
		key := "joint:" + j.ID
		verdict := source.Result{Label: "Verdict", Value: float64(a.Verdict), Text: a.Verdict.String()}
		for _, r := range a.Reasons {
			verdict = verdict.With(r.Code, r.Text, r.Verdict.String(), r.From)
		}
		w.keep(key+":verdict", verdict)
		for name, s := range map[string]float64{"Clamp or hold": a.Clamp, "Handle after": a.Handling,
			"Full strength": a.Full} {
			r := source.Result{
				Label: name,
				Value: s,
				Unit:  "s",
				Text:  measure.Span(s),
			}.With(
				"the product's wait at 21 C, 50 %",
				name,
				measure.Span(s),
				w.Lib.Glues[j.Glue].Known(""),
			)
			r.Steps = append(r.Steps, a.Working...)
			w.keep(key+":"+strings.ToLower(strings.Fields(name)[0]), r)
		}
		length, width := w.GlueLine(j)
		if r, err := bond.Quantity(w.Lib.Glues[j.Glue], length, width); err == nil {
			w.keep(key+":takes", r)
		}
	}
	glued := map[string]bool{}
	for _, j := range w.Plan.Joints {
		ma, mb := w.MaterialAt(j.A), w.MaterialAt(j.B)
		for ref, other := range map[string]stock.Material{j.A: mb, j.B: ma} {
			if id, _, _ := strings.Cut(ref, "/"); other.Foam() {
				glued[id] = true
			}
		}
	}
	for i := range w.Plan.Finishes {
		f := &w.Plan.Finishes[i]
		s := w.Plan.Solid(f.Solid)
		c := bond.Stack{
			On:       w.Lib.Materials[s.Stock],
			OnFoam:   glued[s.ID],
			Outdoors: w.Plan.Display.Outdoors,
			Lit:      s.Lit,
			Temp:     w.Plan.Temperature(),
			RH:       w.Plan.Humidity(),
		}
		if shape := w.Shapes[s.ID]; shape != nil {
			c.Area += shape.Exposed() / 1e6
			for _, cut := range shape.Cuts {
				c.Area += math.Pi * c.On.OD.Value() * cut.Length * float64(cut.Count) / 1e6
			}
		}
		for _, l := range f.Layers {
			c.Layers = append(c.Layers, bond.Layer{Coat: w.Lib.Coats[l.Coat], Coats: l.Coats})
		}
		judged := bond.Coats(c)
		w.Finishes[f.ID] = judged
		key := "finish:" + f.ID
		wait := source.Result{Label: "Waiting in all", Value: judged.Total, Unit: "s", Text: measure.Span(judged.Total)}
		paint := 0.0
		for k, l := range c.Layers {
			wait = wait.With(
				"recoat wait x coats, then handling",
				fmt.Sprintf("%s, %d coats", l.Coat.Name, l.Coats),
				"then "+measure.Span(judged.Waits[k]),
				source.FromMemory(l.Coat.Name),
			)
			paint += judged.Litres[k]
		}
		wait.Steps = append(wait.Steps, judged.Working...)
		w.keep(key+":wait", wait)
		w.keep(
			key+":paint",
			source.Result{Label: "Coats take", Value: paint, Unit: "L", Text: measure.Decimal(paint, 2) + " L"}.
				With(
					"area x coats / coverage, one side",
					fmt.Sprintf("%.2f m2, layer by layer", c.Area),
					measure.Decimal(paint, 2)+" L",
					source.FromMemory("coverage per litre; a first coat over masonry sealer covers half"),
				),
		)
	}
}

// devices keeps each device's numbers with their working.
func (w *Work) devices() {
	lib := w.Lib
	for i := range w.Plan.Devices {
		d := &w.Plan.Devices[i]
		w.Watch.At("device", d.ID)
		g := w.All.Readings[d.ID]
		key := "device:" + d.ID
		solved := source.Exact("every node solved by Newton's method on nodal equations, everything on")
		rated := 0.0
		if s := w.Device(w.Rig.Supply(d.ID)); s != nil {
			rated, _ = wiring.SupplyOf(s, lib)
		}
		if d.Kind == "supply" {
			v, limit := wiring.SupplyOf(d, lib)
			w.keep(key+":load", w.loadResult(d, g.Amps))
			w.keep(
				key+":volts",
				source.Result{Label: "Volts at its terminals", Value: g.Volts, Unit: "V", Text: measure.Volts(g.Volts)}.
					With(
						"V = E - I Rs",
						fmt.Sprintf(
							"%s - %s x %s",
							measure.Volts(v),
							measure.Amps(g.Amps),
							measure.Ohms(wiring.SourceOhms(d, v, limit)),
						),
						measure.Volts(g.Volts),
						stock.SupplyResistanceFrom,
					),
			)
			head := circuit.LoadLimit*limit - w.demand[d.ID]
			w.keep(
				key+":headroom",
				source.Result{Label: "Headroom to 80 %", Value: head, Unit: "A", Text: measure.Amps(head)}.
					With(
						"0.8 rating - load",
						fmt.Sprintf("0.8 x %s - %s", measure.Amps(limit), measure.Amps(w.demand[d.ID])),
						measure.Amps(head),
						circuit.LoadFrom,
					),
			)
			continue
		}
		if d.Kind == "converter" {
			v, limit := wiring.SupplyOf(d, lib)
			draws, sees := w.Rig.Draws(w.All, d.ID)
			w.keep(key+":load", w.loadResult(d, g.Amps))
			w.keep(
				key+":volts",
				source.Result{Label: "Volts it gives", Value: g.Volts, Unit: "V", Text: measure.Volts(g.Volts)}.
					With(
						"V = E - I Rs",
						fmt.Sprintf(
							"%s - %s x %s",
							measure.Volts(v),
							measure.Amps(g.Amps),
							measure.Ohms(stock.SupplyResistance(v, limit)),
						),
						measure.Volts(g.Volts),
						stock.SupplyResistanceFrom,
					),
			)
			w.keep(
				key+":draws",
				source.Result{
					Label: "It draws",
					Value: draws,
					Unit:  "W",
					Text:  fmt.Sprintf("%s at %s", measure.Watts(draws), measure.Volts(sees)),
				}.
					With(
						"power out / efficiency",
						fmt.Sprintf(
							"%s x %s / %g",
							measure.Volts(g.Volts),
							measure.Amps(g.Amps),
							wiring.ConverterEfficiency,
						),
						measure.Watts(draws),
						wiring.ConverterFrom,
					),
			)
			continue
		}
		w.keep(
			key+":volts",
			source.Result{
				Label: map[string]string{"lamp": "Volts at the lamp"}[d.Kind],
				Value: g.Volts,
				Unit:  "V",
				Text:  measure.Volts(g.Volts),
			}.
				With(
					"node voltages of the whole network",
					fmt.Sprintf("%d nodes, %d Newton steps", len(w.Rig.Net.Names), w.All.Solution.Iterations),
					measure.Volts(g.Volts),
					solved,
				),
		)
		if r := w.Results[key+":volts"]; r.Label == "" {
			r.Label = "Volts at its end"
			w.keep(key+":volts", r)
		}
		w.keep(
			key+":amps",
			source.Result{
				Label: "Current",
				Value: g.Amps,
				Unit:  "A",
				Text:  measure.Amps(g.Amps),
			}.With(
				"branch current of the solved network",
				"",
				measure.Amps(g.Amps),
				solved,
			),
		)
		if rated > 0 {
			pct := 100 * g.Drop / rated
			w.keep(
				key+":drop",
				source.Result{
					Label: "Drop from " + w.Rig.Supply(d.ID),
					Value: g.Drop,
					Unit:  "V",
					Text:  fmt.Sprintf("%s, %.1f %%", measure.Volts(g.Drop), pct),
				}.
					With("drop = supply volts - volts here", fmt.Sprintf("%.3f V - %.3f V", rated, rated-g.Drop),
						measure.Volts(g.Drop),
						solved).
					With("share = drop / supply volts", fmt.Sprintf("%.4f V / %.3f V", g.Drop, rated), fmt.Sprintf("%.1f %%", pct),
						circuit.BudgetFrom),
			)
		}
		switch d.Kind {
		case "run":
			cap := stock.Ampacity(d.Gauge.Value())
			per := stock.CopperOhmsPerMetre(d.Gauge.Value(), w.Plan.Temperature())
			if need := d.PathNeeds(w.Plan.Metric()); need > 0 {
				path := need / (1 + wiring.PathSlack)
				w.keep(
					key+":path",
					source.Result{
						Label: "Its path wants",
						Value: need,
						Unit:  "mm",
						Text:  measure.Run(need, w.Plan.Metric()),
					}.
						With(
							"path along its corners x 1.05",
							fmt.Sprintf("%s x 1.05", w.Len(path)),
							w.Len(need),
							source.Exact("sum of straight pieces"),
							wiring.SlackFrom,
						),
				)
			}
			w.keep(
				key+":ohms",
				source.Result{
					Label: "Both conductors",
					Value: 2 * per * d.Length.Value() / 1000,
					Unit:  "ohm",
					Text:  measure.Ohms(2 * per * d.Length.Value() / 1000),
				}.
					With(
						"R = 2 rho L / A (1 + alpha (T - 20))",
						fmt.Sprintf("2 x %.3f mohm/m x %.4f m", per*1000, d.Length.Value()/1000),
						measure.Ohms(2*per*d.Length.Value()/1000),
						stock.CopperFrom,
						stock.GaugeFrom,
					),
			)
			w.keep(
				key+":carry",
				source.Result{
					Label: "May carry",
					Value: cap,
					Unit:  "A",
					Text:  measure.Amps(cap),
				}.With(
					"limit of the next smaller listed gauge",
					d.Gauge.String()+" wire",
					measure.Amps(cap),
					stock.AmpacityFrom,
				),
			)
		case "lamp":
			w.keep(
				key+":light",
				source.Result{
					Label: "Light against full",
					Value: 100 * g.Lit,
					Unit:  "%",
					Text:  measure.Decimal(100*g.Lit, 0) + " %",
				}.
					With(
						"share of rated current, worst segment",
						fmt.Sprintf("%s of %s", measure.Amps(g.Amps), measure.Amps(wiring.RatedAmps(d, lib))),
						measure.Decimal(100*g.Lit, 0)+" %",
						source.FromTrade("an LED's light follows its current"),
					),
			)
			l := wiring.LampOf(d, lib)
			if l.Kind == "led" && rated > 0 {
				if _, _, r, err := circuit.LEDResistor(rated, l.Vf, max(1, d.Row), l.Amps); err == nil {
					w.keep(key+":resistor", r)
				}
			}
		case "fuse":
			w.keep(
				key+":drop",
				source.Result{
					Label: "Drop in the fuse",
					Value: g.Amps * wiring.FuseVolts / math.Max(d.Rating.Value(), .1),
					Unit:  "V",
					Text:  measure.Volts(g.Amps * wiring.FuseVolts / math.Max(d.Rating.Value(), .1)),
				}.
					With(
						"I x 0.1 V / rating",
						fmt.Sprintf("%s x 0.1 V / %s", measure.Amps(g.Amps), d.Rating),
						measure.Volts(g.Amps*wiring.FuseVolts/math.Max(d.Rating.Value(), .1)),
						wiring.SmallPartsFrom,
					),
			)
		}
	}
}

// totals are the display's own numbers.
func (w *Work) totals() {
	kg, cost, watts := 0.0, 0.0, 0.0
	var masses, costs []string
	for i := range w.Plan.Props {
		r := w.Results["prop:"+w.Plan.Props[i].ID+":mass"]
		kg += r.Value
		masses = append(masses, r.Text)
	}
	for _, s := range w.Sheets {
		r := w.Results["stock:"+s.Stock.ID+":cost"]
		cost += r.Value
		costs = append(costs, r.Text)
	}
	for _, b := range w.Bars {
		c := float64(len(b.Cutting.Bars)) * b.Stock.Price
		cost += c
		costs = append(costs, fmt.Sprintf("$%.2f", c))
	}
	for i := range w.Plan.Devices {
		if d := &w.Plan.Devices[i]; d.Kind == "supply" {
			g := w.All.Readings[d.ID]
			watts += g.Volts * g.Amps
		}
	}
	w.keep(
		"display:mass",
		source.Result{
			Label: "Everything, bare",
			Value: kg,
			Unit:  "kg",
			Text:  measure.Kilograms(kg),
		}.With(
			"sum of the props",
			strings.Join(masses, " + "),
			measure.Kilograms(kg),
			source.Exact("sum"),
		),
	)
	w.keep(
		"display:cost",
		source.Result{
			Label: "Sheets and pipe",
			Value: cost,
			Unit:  "$",
			Text:  fmt.Sprintf("$%.2f", cost),
		}.With(
			"sum over stock",
			strings.Join(costs, " + "),
			fmt.Sprintf("$%.2f", cost),
			source.FromMemory("prices of the shop's list"),
		),
	)
	w.keep(
		"display:watts",
		source.Result{
			Label: "Out of all supplies",
			Value: watts,
			Unit:  "W",
			Text:  measure.Watts(watts),
		}.With(
			"sum of volts x amps, everything on",
			"",
			measure.Watts(watts),
			source.Exact("solved network"),
		),
	)
}

// Lacks reports the sizes a solid still needs.
func (w *Work) Lacks(solid string) []string {
	var m *plan.Missing
	if errors.As(w.Lacking[solid], &m) {
		return m.Fields
	}
	return nil
}

// Part is one cut part with its number in its prop.
type Part struct {
	Ref    string // solid/panel
	Solid  *plan.Solid
	Panel  pattern.Panel
	No, Of int     // number among the prop's parts
	Mass   float64 // kg, one copy
}

// Name is what the part is called on sheets and lists.
func (p *Part) Name() string { return p.Solid.Name + ", " + strings.ToLower(p.Panel.Name) }

// Face is what the drawn face of a part is called, and where its upper edge
// points: a part that lies flat shows its top.
func (p *Part) Face() (face, up string) {
	if p.Panel.Slant != 0 {
		return "OUTSIDE", "up, turned " + measure.Degrees(p.Panel.Slant)
	}
	if form.Lies(p.Solid.Form) {
		return "TOP", "back"
	}
	return "OUTSIDE", "up"
}
