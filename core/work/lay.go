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
		for _, r := range shape.Results {
			w.keep(source.KeyOf("solid", s.ID, r.Key.What), r)
		}
		mass := shape.Mass
		for _, panel := range shape.Panels {
			count[s.Prop]++
			mass += w.cutPart(s, panel, count[s.Prop])
		}
		m := w.Lib.Materials[s.Stock]
		for _, c := range shape.Cuts {
			count[s.Prop]++
			mass += math.Pi / 4 * (sq(m.OD.Value()) - sq(m.Bore())) * c.Length * 1e-9 * m.Density * float64(c.Count)
		}
		w.solidResults(s, shape, mass)
	}
	for _, part := range w.Parts {
		part.Of = count[part.Solid.Prop]
	}
	for i := range w.Plan.Props {
		w.propMass(w.Plan.Props[i].ID)
	}
}

// cutPart adds a part of a solid, the number-th of its prop, and returns the mass
// of all its copies in kg.
func (w *Work) cutPart(s *plan.Solid, panel pattern.Panel, number int) float64 {
	key := cutKey{panel.ID, w.Plan.Margin(), w.Plan.Metric()}
	c := s.Of(w.Lib, key, func() any { return w.asCut(s, panel) }).(cutPanel)
	part := &Part{Ref: s.ID + "/" + panel.ID, Solid: s, Panel: c.panel, No: number, Mass: c.kg}
	w.Parts = append(w.Parts, part)
	w.partBy[part.Ref] = part
	for _, r := range c.results {
		w.keep(source.KeyOf("part", part.Ref, r.Key.What), r)
	}
	return c.kg * float64(c.panel.Copies)
}

// cutKey is what else a panel is cut by than its solid's shape and stock.
type cutKey struct {
	panel  string
	margin float64
	metric bool
}

// cutPanel is a panel as it is cut, what each weighs, and its numbers.
type cutPanel struct {
	panel   pattern.Panel
	kg      float64
	results []source.Result
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
		c.results = append(c.results, r)
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

// propMass keeps what a prop weighs.
func (w *Work) propMass(id string) {
	kg := 0.0
	var steps []string
	for k := range w.Plan.Solids {
		if s := &w.Plan.Solids[k]; s.Prop == id && w.Shapes[s.ID] != nil {
			m := w.Results.At("solid", s.ID, "mass").Value
			kg += m
			steps = append(steps, measure.Kilograms(m))
		}
	}
	w.keep(source.KeyOf("prop", id, "mass"), source.Num("Mass, bare", kg, "kg", measure.Kilograms(kg)).
		With("sum of its solids", strings.Join(steps, " + "), measure.Kilograms(kg), source.Exact("sum")))
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
