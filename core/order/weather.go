package order

import (
	"fmt"
	"math"
	"time"

	"zapbarn/core/calendar"
	"zapbarn/core/measure"
)

// drying is one wait of a task: minutes in its prop's air, and how many times longer it is in
// some air than at 21 C and 50 %; nil for one that no air changes.
type drying struct {
	wait float64
	slow func(temp, rh float64) float64
}

// dries gives a task a wait that the air is what it waits on; of several the longest counts.
func (b *builder) dries(t *Task, minutes float64, slow func(temp, rh float64) float64) {
	t.drying = append(t.drying, drying{minutes, slow})
	t.Wait = max(t.Wait, int(math.Ceil(minutes)))
}

// allDrying are all waits of a task, also the one that no air changes.
func (t *Task) allDrying() []drying {
	if len(t.drying) == 0 && t.Wait > 0 {
		return []drying{{float64(t.Wait), nil}}
	}
	return t.drying
}

// airOn is the air of a day where a prop dries in it; ok is false where nothing is forecast for
// it, the workshop keeps its own, or the prop has a place of its own.
func (o *Order) airOn(prop string, day time.Time) (temp, rh float64, ok bool) {
	p := o.work.Plan
	x := p.Prop(prop)
	if !p.Display().Airy || x != nil && !x.Temp.IsZero() {
		return 0, 0, false
	}
	f := p.ForecastOf(day.Format(time.DateOnly))
	if f == nil || f.Temp.IsZero() {
		return 0, 0, false
	}
	_, rh = p.Air(prop)
	if f.RH > 0 && (x == nil || x.RH == 0) {
		rh = float64(f.RH)
	}
	return f.Temp.Value(), rh, true
}

// foreseen is how many days on air is looked for.
const foreseen = 60

// inTheAir are a task's waits with the air of the days from one on, counted from the first of
// the order; none where no day's air is known.
func (o *Order) inTheAir(t *Task, from int) (out []calendar.Drying) {
	if !o.work.Plan.Display().Airy || len(t.drying) == 0 {
		return nil
	}
	shop, damp := o.work.Plan.Air(t.Prop)
	known := false
	for _, d := range t.drying {
		c := calendar.Drying{Wait: d.wait}
		for day := range foreseen {
			slow := 1.0
			temp, rh, ok := o.airOn(t.Prop, o.First.AddDate(0, 0, from+day))
			if ok && d.slow != nil {
				slow, known = d.slow(temp, rh)/d.slow(shop, damp), true
			}
			c.Slow = append(c.Slow, slow)
		}
		for n := len(c.Slow); n > 0 && c.Slow[n-1] == 1; n-- {
			c.Slow = c.Slow[:n-1]
		}
		out = append(out, c)
	}
	if !known {
		return nil
	}
	return out
}

// waitFrom is how long a task waits whose hands were off it at a minute.
func (o *Order) waitFrom(t *Task, minute int) int {
	day := int(math.Floor(float64(minute) / calendar.Day))
	return calendar.Task{Wait: t.Wait, Drying: o.inTheAir(t, day)}.WaitFrom(minute - day*calendar.Day)
}

// weathered gives each task the wait that it has in the air of its own hours, and says so where
// it is another than planned.
func (t *Timetable) weathered() {
	for i, x := range t.Row {
		if len(t.Problem.Tasks[i].Drying) == 0 || !t.Slots[i].Placed() {
			continue
		}
		wait := t.Slots[i].Free - t.Slots[i].End()
		if wait == x.Wait {
			continue
		}
		begins := t.At(t.Slots[i].End())
		days := "In that day's air"
		if over := t.At(t.Slots[i].Free); over.YearDay() != begins.YearDay() {
			days = "In the air of its days, first"
		}
		air := ""
		if temp, rh, ok := t.airOn(x.Prop, begins); ok {
			air = fmt.Sprintf(", %.0f C and %.0f %%", temp, rh)
		}
		x.Steps = append(x.Steps, fmt.Sprintf("%s%s, its wait is %s instead of %s.", days, air,
			measure.Span(float64(wait)*60), measure.Span(float64(x.Wait)*60)))
		x.Wait = wait
	}
}
