package check

import (
	"fmt"
	"math"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/source"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

var _ = rule(
	"logic-level",
	Fix,
	"A controller's data pin gives less than the pixels take for a one.",
	func(w *work.Work, say func(Snag)) {
		for _, d := range w.Plan.Devices() {
			by := w.Device(d.Data)
			if by == nil || !by.Is(wiring.Controller) || d.Shifter {
				continue
			}
			logic, chip := by.Logic.Or(wiring.ControllerLogic), math.Min(
				5,
				wiring.RatedVolts(&d, w.Lib),
			) // chips of higher rails make their own 5 V
			need := circuit.LogicHigh * chip
			if logic >= need-1e-9 {
				continue
			}
			next := d
			next.Shifter = true
			say(
				Snag{
					Level:  Fix,
					Place:  "loom",
					At:     []string{"device:" + d.ID, "device:" + by.ID},
					Title:  d.Name + " wants a level shifter",
					weight: need - logic,
					From:   []source.Source{circuit.PixelFrom},
					Why: fmt.Sprintf(
						"%s gives %s; at %s a one must reach %s. It may work on the bench and fail on a cold night.",
						by.Name,
						measure.Volts(logic),
						measure.Volts(chip),
						measure.Volts(need),
					),
					Mends: []Mend{put(w, "Fit a level shifter at the pin", "device", d.ID, next)},
				},
			)
		}
	},
)
