package check

import (
	"fmt"
	"strings"

	"zapbarn/core/circuit"
	"zapbarn/core/source"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

var _ = rule(
	"data-parts",
	Mind,
	"Pixels lack the resistor in their data wire or the capacitor across their feed.",
	func(w *work.Work, say func(Snag)) {
		for _, d := range w.Plan.Devices() {
			by := w.Device(d.Data)
			if by == nil || !by.Is(wiring.Controller) {
				continue
			}
			var lack []string
			if !d.Damper {
				lack = append(lack, "330 ohm in the data wire")
			}
			if !d.Bulk {
				lack = append(lack, "1000 uF across the feed")
			}
			if lack == nil {
				continue
			}
			next := d
			next.Damper, next.Bulk = true, true
			say(
				Snag{
					Level: Mind,
					Place: "loom",
					At:    []string{"device:" + d.ID},
					Title: d.Name + does(d.Name, " lacks", " lack") + " parts at its first pixel",
					From:  []source.Source{circuit.PixelFrom},
					Why: fmt.Sprintf(
						"Fit %s, next to the first pixel: they keep ringing and the first rush of current off it.",
						strings.Join(lack, " and "),
					),
					Mends: []Mend{put(w, "Put them on the list", "device", d.ID, next)},
				},
			)
		}
	},
)
