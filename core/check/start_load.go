package check

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

var _ = rule(
	"start-load",
	Fix,
	"All motors starting at once ask more of a supply than it can give.",
	func(w *work.Work, say func(Snag)) {
		if !w.Plan.Wiring(w.Lib).Starts() {
			return
		}
		wants := w.Rig().Twin().StartAmps()
		for i := range w.Plan.Devices() {
			d := &w.Plan.Devices()[i]
			if !d.Is(wiring.Source) {
				continue
			}
			v, limit := wiring.SupplyOf(d, w.Lib)
			need, runs := wants[d.ID], w.All().Readings[d.ID].Amps
			if need <= limit || need <= 1.05*runs {
				continue
			}
			s := Snag{
				Level:  Fix,
				Place:  "loom",
				At:     []string{"device:" + d.ID},
				Title:  d.Name + " sags when all starts at once",
				weight: need / limit,
				Why: fmt.Sprintf(
					"Started together its loads ask %s of its %s; running they take %s. Start motors a second apart, or give them "+
						"a supply that can.",
					measure.Amps(need),
					measure.Amps(limit),
					measure.Amps(runs),
				),
			}
			if id := smallest(w, v, need*.8); id != "" && d.Is(wiring.Origin) && d.Cell == "" {
				next := *d
				next.Product, next.Volts, next.Amps = id, measure.Voltage{}, measure.Current{}
				s.Mends = []Mend{put(w, "Use the "+w.Lib.Supplies[id].Name, "device", d.ID, next)}
			}
			say(s)
		}
	},
)
