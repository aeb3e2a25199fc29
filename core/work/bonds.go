package work

import (
	"fmt"
	"math"
	"strings"
	"sync"
	"time"

	"zapbarn/core/bond"
	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/stock"
)

// MaterialAt is the material of a joint's side.
func (w *Work) MaterialAt(ref string) stock.Material {
	if m, bought := strings.CutPrefix(ref, "="); bought {
		return w.Lib.Materials[m]
	}
	id, _, _ := strings.Cut(ref, "/")
	if s := w.Solid(id); s != nil {
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
		Sun:    w.Plan.Display().Outdoors,
		Strain: j.Strain,
		Apart:  j.Apart,
	}
	c.Temp, c.RH = w.Plan.Air(j.Prop)
	newest := math.Inf(1)
	for _, l := range w.Plan.Lots() {
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

// wanted is all that tells which glues would do for a joint.
type wanted struct {
	a, b               string // materials of the shop
	temp, rh           float64
	sun, strain, apart bool
}

// Suggest ranks the glues of the shop that would do for a joint, as package bond does. The
// list is to be read only.
func (w *Work) Suggest(c bond.Joint) []stock.Glue {
	known := Derive(w, "glues suggested", func(*Work) *sync.Map { return &sync.Map{} })
	key := wanted{c.A.ID, c.B.ID, c.Temp, c.RH, c.Sun, c.Strain, c.Apart}
	if v, ok := known.Load(key); ok {
		return v.([]stock.Glue)
	}
	v, _ := known.LoadOrStore(key, bond.Suggest(c, w.Lib.Glues))
	return v.([]stock.Glue)
}

// bonds judges every joint and every stack of coats.
func (w *Work) bonds() *bonded {
	b := &bonded{map[string]bond.Advice{}, map[string]bond.Finish{}, w.numbers}
	for i := range w.Plan.Joints() {
		w.joint(b, &w.Plan.Joints()[i])
	}
	glued := map[string]bool{}
	for i := range w.Plan.Joints() {
		j := &w.Plan.Joints()[i]
		if !w.joined(j) {
			continue // it is planned: the order of work seals first (order, heat-before-foam)
		}
		ma, mb := w.MaterialAt(j.A), w.MaterialAt(j.B)
		for ref, other := range map[string]stock.Material{j.A: mb, j.B: ma} {
			if id, _, _ := strings.Cut(ref, "/"); other.Foam() {
				glued[id] = true
			}
		}
	}
	for i := range w.Plan.Finishes() {
		f := &w.Plan.Finishes()[i]
		w.finish(b, f, glued[f.Solid])
	}
	return b
}

// joined is whether a joint is glued already: its prop has come so far, or it was said.
func (w *Work) joined(j *plan.Joint) bool {
	if p := w.Plan.Prop(j.Prop); p != nil && plan.StageNamed(p.Stage) >= plan.Glued {
		return true
	}
	said := w.Plan.JobOf("join:" + j.ID)
	return said != nil && said.State == "done"
}

// joint judges a joint.
func (w *Work) joint(b *bonded, j *plan.Joint) {
	w.Watch.At("joint", j.ID)
	a := bond.Judge(w.JointCase(j))
	b.joints[j.ID] = a
	of := func(what string) source.Key { return source.KeyOf("joint", j.ID, what) }
	verdict := source.Num("Verdict", float64(a.Verdict), "", a.Verdict.String())
	for _, r := range a.Reasons {
		verdict = verdict.With(r.Code, r.Text, r.Verdict.String(), r.From)
	}
	w.keep(of("verdict"), verdict)
	length, width, about := w.GlueRun(j)
	if r, err := bond.Quantity(w.Lib.Glues[j.Glue], length, width); err == nil {
		if about {
			r.Steps = append([]source.Step{{Formula: "length: about the rim of the smaller face; write yours into the joint",
				Value: w.Len(length), Sources: []source.Source{source.FromTrade("where two bodies meet")}}}, r.Steps...)
		}
		w.keep(of("takes"), r)
	}
	for _, s := range []struct {
		what, label string
		wait        float64
	}{
		{"clamp", "Clamp or hold", a.Clamp},
		{"handle", "Handle after", a.Handling},
		{"full", "Full strength", a.Full},
	} {
		r := source.Num(s.label, s.wait, "s", measure.Span(s.wait)).With(
			"the product's wait at 21 C, 50 %", s.label, measure.Span(s.wait), w.Lib.Glues[j.Glue].Known(""))
		r.Steps = append(r.Steps, a.Working...)
		w.keep(of(s.what), r)
	}
}

// StackOf is a finish as package bond judges it.
func (w *Work) StackOf(f *plan.Finish, onFoam bool) bond.Stack {
	s := w.Solid(f.Solid)
	c := bond.Stack{
		On:       w.Lib.Materials[s.Stock],
		OnFoam:   onFoam,
		Outdoors: w.Plan.Display().Outdoors,
		Lit:      s.Lit,
	}
	c.Temp, c.RH = w.Plan.Air(s.Prop)
	if shape := w.Shapes()[s.ID]; shape != nil {
		c.Area += w.painted(s, shape) / 1e6
		for _, cut := range shape.Cuts {
			c.Area += math.Pi * c.On.OD.Value() * cut.Length * float64(cut.Count) / 1e6
		}
	}
	for _, l := range f.Layers {
		c.Layers = append(c.Layers, bond.Layer{Coat: w.Lib.Coats[l.Coat], Coats: l.Coats})
	}
	return c
}

// painted is what of a solid its coats go on, mm2: all that a brush meets, or what faces out
// alone where its prop is painted so. Where a flat part is glued to another no brush comes.
func (w *Work) painted(s *plan.Solid, shape *pattern.Shape) float64 {
	if w.Plan.Prop(s.Prop).Paint == plan.OutsideOnly {
		return shape.Exposed()
	}
	free := form.IsFree(s.Form)
	a := shape.Painted(free)
	if !free {
		return a
	}
	for i := range w.Plan.Joints() {
		j := &w.Plan.Joints()[i]
		of, _, _ := strings.Cut(j.A, "/")
		to, _, _ := strings.Cut(j.B, "/")
		if of != to && (of == s.ID || to == s.ID) {
			length, width := w.GlueLine(j)
			a -= length * width
		}
	}
	return math.Max(a, shape.Exposed())
}

// brushed says what of a solid is painted, and why not all of it.
func (w *Work) brushed(s *plan.Solid) string {
	switch p := w.Plan.Prop(s.Prop); {
	case p.Paint == plan.OutsideOnly:
		return "what faces out alone: " + p.PaintWhy
	case form.IsFree(s.Form):
		return "both faces and all edges, less what is glued"
	}
	return "its outside, and the edges of its openings"
}

// finish judges a stack of coats.
func (w *Work) finish(b *bonded, f *plan.Finish, onFoam bool) {
	c := w.StackOf(f, onFoam)
	judged := bond.Coats(c)
	b.finishes[f.ID] = judged
	wait := source.Num("Waiting in all", judged.Total, "s", measure.Span(judged.Total))
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
	w.keep(source.KeyOf("finish", f.ID, "wait"), wait)
	litres := measure.Decimal(paint, 2) + " L"
	w.keep(source.KeyOf("finish", f.ID, "paint"), source.Num("Coats take", paint, "L", litres).With(
		"area x coats / coverage",
		fmt.Sprintf("%.2f m2, layer by layer: %s", c.Area, w.brushed(w.Solid(f.Solid))),
		litres,
		source.FromMemory("coverage per litre; a first coat over masonry sealer covers half"),
	))
}
