package check

import (
	"fmt"

	"zapbarn/core/source"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

// A data wire straight from a pin, and from a level shifter that drives it.
const (
	dataReach  = 3000.0  // mm
	drivenFar  = 10000.0 // mm
	dataMetres = "about 3 m straight from a pin, 10 m from a level shifter that drives the wire"
)

// DataFrom is their source.
var DataFrom = source.FromMemory("one-wire pixel data: " + dataMetres)

var _ = rule(
	"data-line",
	Fix,
	"A data wire is longer than its signal is known to reach.",
	func(w *work.Work, say func(Snag)) {
		for _, d := range w.Plan.Devices() {
			if d.Data == "" {
				continue
			}
			reach := dataReach
			if by := w.Device(d.Data); d.Shifter || by.Is(wiring.Load) { // a pixel drives the next one afresh
				reach = drivenFar
			}
			if d.DataLead.Value() <= reach {
				continue
			}
			s := Snag{
				Level:  Fix,
				Place:  "loom",
				At:     []string{"device:" + d.ID},
				Title:  "The data wire to " + d.Name + " is long",
				weight: d.DataLead.Value() / reach,
				From:   []source.Source{DataFrom},
				Why: fmt.Sprintf(
					"It is %s; data reaches %s. Put the controller nearer, or a spare pixel half way to pass it on.",
					d.DataLead,
					dataMetres,
				),
			}
			if reach < drivenFar && d.DataLead.Value() <= drivenFar {
				next := d
				next.Shifter = true
				s.Mends = []Mend{put(w, "Drive it with a level shifter", "device", d.ID, next)}
			}
			say(s)
		}
	},
)
