package check

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

var _ = rule(
	"back-to-back",
	Stop,
	"Wires join two supplies, so that one feeds into the other.",
	func(w *work.Work, say func(Snag)) {
		for _, d := range w.Plan.Devices() {
			a, b := w.Device(w.Rig().Supply(d.ID)), w.Device(w.Rig().Supply(d.To))
			if d.To == "" || a == nil || b == nil || a.ID == b.ID {
				continue
			}
			va, _ := wiring.SupplyOf(a, w.Lib)
			vb, _ := wiring.SupplyOf(b, w.Lib)
			s := Snag{
				Level:  Fix,
				Place:  "loom",
				At:     []string{"device:" + d.ID, "device:" + a.ID, "device:" + b.ID},
				Title:  d.Name + " joins two supplies",
				weight: 4,
				Why: fmt.Sprintf(
					"%s and %s never agree to the last millivolt: the higher one carries nearly all, and feeds the other when that "+
						"is switched off.",
					a.Name,
					b.Name,
				),
			}
			if math.Abs(va-vb) > .05*math.Max(va, vb) {
				s.Level = Stop
				s.Why = fmt.Sprintf(
					"%s gives %s and %s %s: %s is pushed from one into the other.",
					a.Name,
					measure.Volts(va),
					b.Name,
					measure.Volts(vb),
					measure.Amps(math.Max(0, -math.Min(w.All().Readings[a.ID].Amps, w.All().Readings[b.ID].Amps))),
				)
			}
			next := d
			next.To, next.ToAt = "", measure.Length{}
			s.Mends = []Mend{put(w, "Leave its far end open", "device", d.ID, next)}
			say(s)
		}
	},
)
