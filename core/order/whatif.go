package order

import (
	"fmt"
	"time"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
)

// Case is something that may happen, and when all is done then.
type Case struct {
	What  string
	End   int
	Later int // minutes later than as planned; less than nothing is sooner
	Late  int // minutes after the opening
	Lacks int // tasks that nobody can do then
}

// Cases are what may happen: somebody is away for a week or for good, a day is lost, the
// workshop is cold or damp, a parcel comes late, one more helps. Each is worked out afresh
// with the plan changed so, on a copy.
func Cases(w *work.Work) []Case {
	now := In(w)
	var out []Case
	try := func(what string, change func(p *plan.Plan)) {
		q := w.Plan.Clone()
		change(q)
		after, err := work.DoFrom(w, w.Watch, q, w.Lib, w.Today)
		if err != nil {
			return
		}
		t := In(after)
		if t.Loop != nil {
			return
		}
		undone, _ := t.Undone()
		out = append(out, Case{what, t.End, t.End - now.End, t.Late(), len(undone)})
	}
	off := func(x *plan.Person, from, days int) {
		for d := range days {
			x.Off += " " + now.First.AddDate(0, 0, from+d).Format(time.DateOnly)
		}
	}
	if now.Asked {
		try("Tomorrow is lost: nobody comes", func(p *plan.Plan) {
			for i := range p.People() {
				off(&p.People()[i], 1, 1)
			}
		})
		for i, x := range w.Plan.People() {
			try(x.Name+" is away for a week", func(p *plan.Plan) { off(&p.People()[i], 1, 7) })
			if len(w.Plan.People()) > 1 {
				try("Without "+x.Name, func(p *plan.Plan) { p.Doc().People = append(p.People()[:i:i], p.People()[i+1:]...) })
			}
			try("One more like "+x.Name, func(p *plan.Plan) {
				p.Doc().People = append(p.People(), plan.Person{ID: p.FreshID("person", "helper"), Name: "A helper",
					Hours: x.Hours, Trades: x.Trades, Off: x.Off})
			})
		}
	}
	for _, by := range []float64{-8, 8} {
		temp := w.Plan.Temperature() + by
		word := "warmer"
		if by < 0 {
			word = "colder"
		}
		try(fmt.Sprintf("The workshop is %s, at %.0f C", word, temp), func(p *plan.Plan) {
			p.Doc().Display.Temp = measure.Of[measure.CelsiusKind](temp)
		})
	}
	try("The air is damp, 85 %", func(p *plan.Plan) { p.Doc().Display.RH = 85 })
	for i, d := range w.Plan.Deliveries() {
		if at, err := time.Parse(time.DateOnly, d.Arrives); err == nil && !d.In {
			try(d.Name+" comes three days later", func(p *plan.Plan) {
				p.Deliveries()[i].Arrives = at.AddDate(0, 0, 3).Format(time.DateOnly)
			})
		}
	}
	return out
}
