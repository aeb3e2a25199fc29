package check

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/work"
)

// What cold plug-in supplies take as they are switched on, and what a breaker
// bears for that moment.
const (
	supplyRush  = 30.0 // A peak each, for half a cycle
	breakerTrip = 5.0  // times its rating
)

// RushFrom is their source.
var RushFrom = []source.Source{
	source.FromMemory("a small switching supply takes 20 to 40 A for half a cycle when switched on cold"),
	source.Std("IEC 60898-1: a type B breaker trips at once between 3 and 5 times its rating"),
}

var _ = rule(
	"mains-inrush",
	Mind,
	"Many supplies switched on at once may trip the breaker, though they run well within it.",
	func(w *work.Work, say func(Snag)) {
		eachOutlet(w, func(o *plan.Outlet, loads []work.MainsLoad, _ float64) {
			n := 0
			for _, l := range loads {
				if l.Kind == "device" {
					n++
				}
			}
			rush, bears := supplyRush*float64(n), breakerTrip*o.Breaker.Value()
			if rush <= bears {
				return
			}
			s := Snag{
				Level:  Mind,
				Place:  "loom",
				At:     []string{"outlet:" + o.ID},
				Title:  "Switching " + o.Name + " on may trip its breaker",
				weight: rush / bears,
				From:   RushFrom,
				Why: fmt.Sprintf(
					"%d supplies switched on together rush to about %s for a moment; a %s breaker may trip at %s. Plug them in one "+
						"after another, or through two switched strips.%s",
					n,
					measure.Amps(rush),
					measure.Amps(o.Breaker.Value()),
					measure.Amps(bears),
					licensed,
				),
			}
			for _, l := range loads {
				for i := range w.Plan.Outlets() {
					to := &w.Plan.Outlets()[i]
					on := 0
					for _, x := range w.OnOutlet(to.ID) {
						if x.Kind == "device" {
							on++
						}
					}
					if l.Kind == "device" && to.ID != o.ID && len(s.Mends) == 0 &&
						supplyRush*float64(on+1) <= breakerTrip*to.Breaker.Value() &&
						rush-supplyRush <= bears {
						s.Mends = append(s.Mends, toOutlet(w, l, to))
					}
				}
			}
			say(s)
		})
	},
)
