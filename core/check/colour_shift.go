package check

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

// whiteNeeds is the share of their volts below which 5 V pixels lose their
// blue and green: those LEDs want 3.2 V and their driver some 0.7 V.
const whiteNeeds = 0.78

// ColourFrom is its source.
var ColourFrom = source.FromMemory(
	"blue and green LEDs of a pixel want about 3.2 V and their driver 0.7 V; red wants 2 V",
)

var _ = rule(
	"colour-shift",
	Fix,
	"The far pixels see too little for their blue and green: white turns yellow.",
	func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Devices() {
			d := &w.Plan.Devices()[i]
			g := w.All().Readings[d.ID]
			rated := wiring.RatedVolts(d, w.Lib)
			if !d.Is(wiring.Load) || w.Lib.Lamps[d.Product].Kind != "pixels" || w.Rig().Unfed(d.ID) || d.Reversed ||
				g.FarVolt >= whiteNeeds*rated {
				continue
			}
			s := Snag{
				Level:  Fix,
				Place:  "loom",
				At:     []string{"device:" + d.ID},
				Title:  d.Name + " changes colour along its length",
				weight: 1 - g.FarVolt/rated,
				From:   []source.Source{ColourFrom},
				Why: fmt.Sprintf(
					"Its worst pixel sees %s; below %s blue and green give in before red, and white turns yellow.",
					measure.Volts(g.FarVolt),
					measure.Volts(whiteNeeds*rated),
				),
			}
			for _, m := range feedsMends(w, d.ID) {
				if st := resolve(w, d.ID, m); st != nil && st.Readings[d.ID].FarVolt >= whiteNeeds*rated {
					m.gives = func(w *work.Work) string { return "worst pixel " + measure.Volts(w.All().Readings[d.ID].FarVolt) }
					s.Mends = append(s.Mends, m)
					break
				}
			}
			if m, ok := dimmed(w, d, func(st *wiring.State) bool { return st.Readings[d.ID].FarVolt >= whiteNeeds*rated }); ok {
				s.Mends = append(s.Mends, m)
			}
			say(s)
		}
	},
)

// dimmed holds pixels to the highest share of full white, in steps of 5 %,
// that does.
func dimmed(w *work.Work, d *plan.Device, does func(*wiring.State) bool) (Mend, bool) {
	now := d.Bright
	if now == 0 {
		now = 100
	}
	var lower []Mend
	for b := (now - 1) / 5 * 5; b >= 10; b -= 5 {
		next := *d
		next.Bright = b
		lower = append(lower, put(w, fmt.Sprintf("Hold it to %d %%", b), "device", d.ID, next))
	}
	return least(lower, func(m Mend) bool {
		st := resolve(w, d.ID, m)
		return st != nil && does(st)
	})
}
