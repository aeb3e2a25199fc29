package check

import (
	"zapbarn/core/plan"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

var _ = rule("no-data", Mind, "Addressable pixels are driven by no controller.", func(w *work.Work, say func(Snag)) {
	for i := range w.Plan.Devices() {
		d := &w.Plan.Devices()[i]
		if !d.Is(wiring.Load) || w.Lib.Lamps[d.Product].Kind != "pixels" || d.Data != "" {
			continue
		}
		s := Snag{
			Level: Mind,
			Place: "loom",
			At:    []string{"device:" + d.ID},
			Title: d.Name + does(d.Name, " gets", " get") + " no data",
			Why:   "Addressable pixels stay dark, or keep what they last showed, until a controller tells them.",
		}
		next := *d
		for k := range w.Plan.Devices() {
			c := &w.Plan.Devices()[k]
			if c.Is(wiring.Controller) && c.Prop == d.Prop {
				next.Data, next.Pin = c.ID, freePin(w.Plan, c.ID)
				s.Mends = append(s.Mends, put(w, "Drive from "+c.Name, "device", d.ID, next))
				break
			}
		}
		if len(s.Mends) == 0 && d.From != "" {
			id := w.FreshName("U")
			c := plan.Device{
				ID:   id,
				Prop: d.Prop,
				Kind: "controller",
				Name: "Controller " + id,
				From: d.From,
				At:   d.At,
			}
			next.Data, next.Pin = id, 1
			next.Shifter, next.Damper, next.Bulk = true, true, true // what its pins and the first pixel then want
			label := "Add a controller beside it, with level shifter, resistor and capacitor"
			s.Mends = []Mend{
				{
					Label: label,
					Edit: plan.Edit{
						Label:   label,
						Changes: []plan.Change{w.Plan.Put("device", id, c), w.Plan.Put("device", d.ID, next)},
					},
				},
			}
		}
		say(s)
	}
})

// freePin is the first data pin of a controller that nothing hangs on.
func freePin(p *plan.Plan, controller string) int {
	used := map[int]bool{}
	for i := range p.Devices() {
		if d := &p.Devices()[i]; d.Data == controller {
			used[d.Pin] = true
		}
	}
	n := 1
	for used[n] {
		n++
	}
	return n
}
