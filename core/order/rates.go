package order

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/source"
)

// Rates are how long things take somebody who has done them before, in minutes. All are
// typical, from memory; what is logged as done corrects each kind of task.
const (
	SetUp     = 5.0  // to begin, and to clean up after
	LayOut    = 3.0  // a part drawn and marked
	CutMetre  = 6.0  // 10 m of cut an hour
	PipeCut   = 4.0  // a pipe measured, cut, cleaned
	FitSeam   = 2.0  // a seam held together dry
	GlueSeam  = 3.0  // a seam placed and held
	GlueMetre = 4.0  // a metre of glue line laid
	FillMetre = 4.0  // a metre of seam filled, then sanded
	CoatSqm   = 7.5  // 8 m2 of one coat an hour
	WireOne   = 6.0  // a lamp or device led and joined
	ProveOne  = 2.0  // one lit and written down
	CloseOne  = 10.0 // a body closed
	Mount     = 45.0 // a motor or servo with its linkage
	Tune      = 30.0
	Install   = 25.0
	DarkTest  = 60.0
)

var typical = source.FromMemory("typical of somebody who has done it before; what you log corrects it")

// FillerDries is how long filler dries at 21 C and 50 %, in minutes.
const FillerDries = 120.0

// portion is a part of a task's time: so many at so many minutes each.
type portion struct {
	what    string
	n, each float64
}

func portionOf(what string, n, each float64) portion { return portion{what, n, each} }

// hands adds up what a task takes.
func (t *Task) hands(parts ...portion) {
	total := SetUp
	for _, p := range parts {
		total += p.n * p.each
	}
	t.parts, t.Hands = parts, minutes(total)
}

// Working is how a task's hands-on time came about.
func (t *Task) Working() []source.Step {
	if t.parts == nil {
		return []source.Step{{Formula: "as you said", Value: fmt.Sprintf("%d min", t.Hands),
			Sources: []source.Source{source.Entered("")}}}
	}
	total := SetUp
	out := []source.Step{{Formula: "to begin and to clean up", Numbers: fmt.Sprintf("%g min", SetUp),
		Value: fmt.Sprintf("%g min", SetUp), Sources: []source.Source{typical}}}
	for _, p := range t.parts {
		v := p.n * p.each
		if v <= 0 {
			continue
		}
		total += v
		out = append(out, source.Step{
			Formula: p.what,
			Numbers: fmt.Sprintf("%s x %s min", measure.Decimal(p.n, 2), measure.Decimal(p.each, 1)),
			Value:   measure.Decimal(v, 1) + " min",
			Sources: []source.Source{typical},
		})
	}
	out = append(out, source.Step{Formula: "in all, to the next five minutes", Numbers: measure.Decimal(total, 1) + " min",
		Value: fmt.Sprintf("%d min", t.Planned)})
	if c := t.corrected; c.Tasks > 0 {
		out = append(out, source.Step{
			Formula: "x what this kind took / what was planned",
			Numbers: fmt.Sprintf("%d min x %d min / %d min", t.Planned, c.Took, c.Planned),
			Value:   fmt.Sprintf("%d min", t.Hands),
			Sources: []source.Source{source.Entered("your log")},
		})
	}
	return out
}

// Corrected is how a kind's times came out: what was planned and what it took, over the
// tasks that were logged with a time.
type Corrected struct {
	Planned, Took int // minutes
	Tasks         int
	Factor        float64 // that those to come are multiplied by
}

// correct makes the times of tasks to come follow what was logged of their kind: took over
// planned, between a quarter and four times.
func (o *Order) correct() {
	o.Rates = map[string]Corrected{}
	for _, t := range o.Tasks {
		if t.Job == nil || t.Job.State != "done" || t.Job.Took.IsZero() || t.Planned == 0 {
			continue
		}
		c := o.Rates[t.Kind]
		c.Planned, c.Took, c.Tasks = c.Planned+t.Planned, c.Took+int(t.Job.Took.Value()/60+.5), c.Tasks+1
		c.Factor = math.Min(4, math.Max(.25, float64(c.Took)/float64(c.Planned)))
		o.Rates[t.Kind] = c
	}
	for _, t := range o.Tasks {
		c, ok := o.Rates[t.Kind]
		if !ok || t.Done || t.Hands == 0 {
			continue
		}
		t.Hands = minutes(float64(t.Planned) * c.Factor)
		t.corrected = c
	}
}
