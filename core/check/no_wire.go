package check

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

// firstWire is how long a run is that a mend adds where nothing says how far it is.
var firstWire = measure.Len("4 ft")

var _ = rule(
	"no-wire",
	Fix,
	"Lamps, motors or boards hang on a supply, fuse or switch by their leads alone: no wire is planned to them.",
	func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Devices() {
			feeder := &w.Plan.Devices()[i]
			if feeder.Is(wiring.Wire) || w.Rig().Unfed(feeder.ID) || wiredTo(w, feeder) {
				continue
			}
			var bare []*plan.Device
			for _, d := range w.Kids(feeder.ID) {
				if hangs(d) {
					bare = append(bare, d)
				}
			}
			if len(bare) > 0 {
				say(noWire(w, feeder, bare))
			}
		}
	},
)

// hangs is whether a device is one that a wire is led to: a lamp or motor, a board.
func hangs(d *plan.Device) bool {
	return d.Is(wiring.Load | wiring.Controller | wiring.Converter)
}

// wiredTo is whether a run lies between a device and its supply.
func wiredTo(w *work.Work, d *plan.Device) bool {
	for up := d; up != nil; up = w.Device(up.From) {
		if up.Is(wiring.Wire) {
			return true
		}
	}
	return false
}

func noWire(w *work.Work, feeder *plan.Device, bare []*plan.Device) Snag {
	s := Snag{
		Level: Fix,
		Place: "loom",
		Prop:  bare[0].Prop,
		key:   "device:" + feeder.ID,
		Title: fmt.Sprintf("%s has no wire to %s", names(bare), feeder.Name),
		Why: fmt.Sprintf("Only its own lead is planned between it and %s, so that no wire is cut, bought or led. Where it "+
			"really is that near, waive this.", feeder.Name),
	}
	it := "it"
	if len(bare) > 1 {
		it = fmt.Sprintf("all %d", len(bare))
		s.Title = fmt.Sprintf("%s have no wire to %s", names(bare), feeder.Name)
		s.Why = fmt.Sprintf("Only their own leads are planned between them and %s, so that no wire is cut, bought or led. "+
			"Where they really are that near, waive this.", feeder.Name)
	}
	amps := 0.0
	for _, d := range bare {
		s.At = append(s.At, "device:"+d.ID)
		amps += w.All().Readings[d.ID].Amps
	}
	if p := w.Plan.Prop(s.Prop); p != nil && w.StageOf(p) < plan.Wired {
		s.Level = Mind // it may still be planned
	}
	run := firstRun(w, s.Prop, feeder.ID, amps)
	label := fmt.Sprintf("Lead a run of %s, %s, to %s; set its length", run.Gauge, run.Length, it)
	e := plan.Edit{Label: label, Changes: []plan.Change{w.Plan.Put("device", run.ID, run)}}
	for _, d := range bare {
		next := *d
		next.From = run.ID
		e.Changes = append(e.Changes, w.Plan.Put("device", d.ID, next))
	}
	s.Mends = []Mend{{Label: label, Edit: e}}
	return s
}

// firstRun is a run that a mend leads from a device to what asks so many amperes: as long as
// nobody measured, to be set.
func firstRun(w *work.Work, prop, from string, amps float64) plan.Device {
	run := plan.Device{ID: w.FreshName("W"), Prop: prop, Kind: "run", From: from, Length: firstWire}
	if w.Plan.Metric() {
		run.Length = measure.Must[measure.LengthKind]("1200 mm")
	}
	run.Name, run.Gauge = "Run "+run.ID, measure.Must[measure.GaugeKind]("18 AWG")
	if amps > thickFrom {
		run.Gauge = measure.Must[measure.GaugeKind]("14 AWG")
	}
	return run
}

// thickFrom is from how many amperes on the mend's run is of 14 AWG, not 18: a thicker pair
// than hook-up wire in foam bears (from memory, editable as every run is).
const thickFrom = 5.0
