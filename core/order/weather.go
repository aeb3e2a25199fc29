package order

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
)

// settles is how often waits are set by the days they fall on and all is put in time again:
// a wait that grows moves what follows to other days.
const settles = 4

// weathered puts tasks in time with waits as long as the air of the day they begin on makes
// them, where the workshop has the day's air and that is forecast.
func (t *Timetable) weathered(place func()) {
	w := t.Order.work
	place()
	if !w.Plan.Display.Airy {
		return
	}
	plain := make([]int, len(t.Row))
	for i, x := range t.Row {
		plain[i] = x.Wait
	}
	for range settles {
		changed := false
		for i := range t.Row {
			if wait := t.waitOn(i, plain[i]); wait != t.Problem.Tasks[i].Wait {
				t.Problem.Tasks[i].Wait, changed = wait, true
			}
		}
		if !changed {
			break
		}
		place()
	}
	for i, x := range t.Row {
		if x.Wait = t.Problem.Tasks[i].Wait; x.Wait != plain[i] {
			temp, rh, _ := t.airOn(i)
			x.Steps = append(
				x.Steps,
				fmt.Sprintf("In that day's air, %.0f C and %.0f %%, its wait is %s instead of %s.",
					temp, rh, measure.Span(float64(x.Wait)*60), measure.Span(float64(plain[i])*60)),
			)
		}
	}
}

// airOn is the air of the day on which a task's wait begins; ok is false where nothing is
// forecast, or its prop has a place of its own.
func (t *Timetable) airOn(i int) (temp, rh float64, ok bool) {
	p := t.Order.work.Plan
	if !t.Slots[i].Placed() {
		return 0, 0, false
	}
	if x := p.Prop(t.Row[i].Prop); x != nil && !x.Temp.IsZero() {
		return 0, 0, false
	}
	f := p.ForecastOf(t.At(t.Slots[i].End()).Format("2006-01-02"))
	if f == nil || f.Temp.IsZero() {
		return 0, 0, false
	}
	temp, rh = f.Temp.Value(), float64(f.RH)
	if f.RH == 0 {
		rh = p.Humidity()
	}
	return temp, rh, true
}

// waitOn is a task's wait on the day it falls on.
func (t *Timetable) waitOn(i, plain int) int {
	x := t.Row[i]
	temp, rh, ok := t.airOn(i)
	if !ok || x.dries == nil {
		return plain
	}
	shop, damp := t.Order.work.Plan.Air(x.Prop)
	return int(math.Ceil(float64(plain) * x.dries(temp, rh) / x.dries(shop, damp)))
}
