package work

import (
	"fmt"
	"math"
	"strings"

	"zapbarn/core/cutting"
	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/source"
)

// lay makes the parts.
func (w *Work) lay() *laid {
	solids := w.Plan.Solids()
	l := &laid{
		shapes:  make(map[string]*pattern.Shape, len(solids)),
		lacking: map[string]error{},
		partBy:  map[string]*Part{},
		mass:    map[string]float64{},
		bare:    make(map[string]float64, len(solids)),
		numbers: w.numbers,
	}
	count := map[string]int{}
	w.numbers.Room(2 * len(solids)) // each with a part or more
	for i := range solids {
		s := &solids[i]
		w.Watch.At("solid", s.ID)
		shape, err := s.Shape(w.Lib)
		if err != nil {
			l.lacking[s.ID] = measure.ErrorIn(err, w.Plan.Metric())
			continue
		}
		l.shapes[s.ID] = shape
		w.numbers.Take("solid", s.ID, s.Of(w.Lib, numbersKey{w.Plan.Metric()}, func() any {
			return resultsIn(shape.Results, w.Plan.Metric())
		}).([]source.Result))
		mass := shape.Mass
		for _, panel := range shape.Panels {
			count[s.Prop]++
			mass += w.cutPart(l, s, panel, count[s.Prop])
		}
		m := w.Lib.Materials[s.Stock]
		for _, c := range shape.Cuts {
			count[s.Prop]++
			mass += math.Pi / 4 * (sq(m.OD.Value()) - sq(m.Bore())) * c.Length * 1e-9 * m.Density * float64(c.Count)
		}
		w.solidResults(s, shape, mass)
	}
	for _, part := range l.parts {
		part.Of = count[part.Solid.Prop]
	}
	w.propMasses(l)
	return l
}

// cutPart adds a part of a solid, the number-th of its prop, and returns the mass
// of all its copies in kg.
func (w *Work) cutPart(l *laid, s *plan.Solid, panel pattern.Panel, number int) float64 {
	key := cutKey{panel.ID, w.Plan.Margin(), w.Plan.Metric()}
	c := s.Of(w.Lib, key, func() any { return w.asCut(s, panel) }).(cutPanel)
	part := &Part{Ref: s.ID + "/" + panel.ID, Solid: s, Panel: c.panel, No: number, Mass: c.kg, measured: c.measured}
	l.parts = append(l.parts, part)
	l.partBy[part.Ref] = part
	w.numbers.Take("part", part.Ref, c.results)
	return c.kg * float64(c.panel.Copies)
}

// cutKey is what else a panel is cut by than its solid's shape and stock.
type cutKey struct {
	panel  string
	margin float64
	metric bool
}

// numbersKey is what else a shape's numbers are written by.
type numbersKey struct{ metric bool }

// resultsIn are numbers written in a display's units.
func resultsIn(list []source.Result, metric bool) []source.Result {
	out := make([]source.Result, len(list))
	for i, r := range list {
		out[i] = r.InUnits(metric)
	}
	return out
}

// cutPanel is a panel as it is cut, what each weighs, and its numbers.
type cutPanel struct {
	panel   pattern.Panel
	kg      float64
	results []source.Result
	measured
}

// measured is a part's shape as it is asked for most, one copy.
type measured struct {
	Wide, High float64 // mm, of all of it
	Area       float64 // mm2 of its outside face
	Edges      float64 // mm to cut along: round its outside face and its holes
	box        *cutting.Box
}

// asCut is a solid's panel as it is cut.
func (w *Work) asCut(s *plan.Solid, panel pattern.Panel) (c cutPanel) {
	m := w.Lib.Materials[s.Stock]
	if turned, deg, ok := cutting.Aslant(panel, m, w.Plan.Margin()); ok {
		panel = turned
		panel.Notes = append(append([]string(nil), panel.Notes...), cutting.SlantNote(deg))
	}
	panel.Notes = notesIn(panel.Notes, w.Plan.Metric())
	kg := panel.Volume() * 1e-9 * m.Density
	keep := func(what string, r source.Result) {
		r.Key.What = what
		c.results = append(c.results, r.InUnits(w.Plan.Metric()))
	}
	lo, hi := panel.Bounds()
	size := w.Len(hi.X-lo.X) + " x " + w.Len(hi.Y-lo.Y)
	keep("size", source.Num("Cut size", hi.X-lo.X, "mm", size).With(
		"extent of both faces",
		fmt.Sprintf("%.1f by %.1f mm", hi.X-lo.X, hi.Y-lo.Y),
		size,
		source.Exact("outside sizes less joints, stock thickness counted"),
	))
	keep("mass", source.Num("Mass, bare, each", kg, "kg", measure.Kilograms(kg)).With(
		"m = volume x density",
		fmt.Sprintf("%.0f cm3 x %.0f kg/m3", panel.Volume()/1000, m.Density),
		measure.Kilograms(kg),
		source.Exact("volume with bevels and rabbets taken off"),
		m.Known("density"),
	))
	area := areaText(panel.Area()/1e6, w.Plan.Metric())
	keep("area", source.Num("Face area, each", panel.Area()/1e6, "m2", area).
		With("outside face less openings", "", area, source.Exact("shoelace formula")))
	c.panel, c.kg = panel, kg
	c.measured = measured{hi.X - lo.X, hi.Y - lo.Y, panel.Area(), panel.Around(), cutting.BoxOf(&panel, &m)}
	return c
}

// solidResults keeps a solid's mass, and the bore of a pipe.
func (w *Work) solidResults(s *plan.Solid, shape *pattern.Shape, mass float64) {
	m := w.Lib.Materials[s.Stock]
	if shape.Mass == 0 { // else its own result says how
		w.keep(source.KeyOf("solid", s.ID, "mass"), source.Num("Mass, bare", mass, "kg", measure.Kilograms(mass)).
			With("sum over parts of volume x density", s.Name, measure.Kilograms(mass), m.Known("density")))
	}
	if m.Form == "pipe" {
		bore := measure.Decimal(m.Bore()/measure.Inch, 3) + `"`
		w.keep(source.KeyOf("solid", s.ID, "bore"), source.Num("Bore", m.Bore(), "mm", bore).
			With("bore = OD - 2 wall", fmt.Sprintf("%s - 2 x %s", m.OD, m.Wall), bore, m.From()))
	}
}

// propMasses keeps what each prop weighs.
func (w *Work) propMasses(l *laid) {
	steps := map[string][]string{}
	for k := range w.Plan.Solids() {
		if s := &w.Plan.Solids()[k]; l.shapes[s.ID] != nil {
			m := w.numbers.At("solid", s.ID, "mass").Value
			l.bare[s.ID] = m
			l.mass[s.Prop] += m
			steps[s.Prop] = append(steps[s.Prop], measure.Kilograms(m))
		}
	}
	for i := range w.Plan.Props() {
		id := w.Plan.Props()[i].ID
		kg := l.mass[id]
		w.keep(source.KeyOf("prop", id, "mass"), source.Num("Mass, bare", kg, "kg", measure.Kilograms(kg)).
			With("sum of its solids", strings.Join(steps[id], " + "), measure.Kilograms(kg), source.Exact("sum")))
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
