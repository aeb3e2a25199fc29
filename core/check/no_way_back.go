package check

import (
	"fmt"

	"zapbarn/core/plan"
	"zapbarn/core/wiring"
	"zapbarn/core/words"
	"zapbarn/core/work"
)

var _ = rule(
	"no-way-back",
	Mind,
	"What will fail one day (a lamp, a strip, a motor, a pack of cells) is closed in for good.",
	func(w *work.Work, say func(Snag)) {
		in := map[string][]*plan.Device{}
		for i := range w.Plan.Devices() {
			if d := &w.Plan.Devices()[i]; d.Is(wiring.Load) || d.Cell != "" {
				in[d.In] = append(in[d.In], d)
			}
		}
		for i := range w.Plan.Solids() {
			s := &w.Plan.Solids()[i]
			list := in[s.ID]
			if len(list) == 0 || !s.Sealed || hasDoor(s) {
				continue
			}
			snag := Snag{
				Level:  Mind,
				Place:  "loom",
				At:     []string{"solid:" + s.ID},
				weight: float64(len(list)),
				Title:  fmt.Sprintf("No way back to %s in %s", words.Count(len(list), "lamp"), s.Name),
				Why: "A hundred nights on, one of them fails, and then the body is cut open. A door at the back costs one cut " +
					"now: " + names(
					list,
				) + ".",
			}
			if moves(w, list) {
				snag.Title = fmt.Sprintf("No way back to %s in %s", words.Count(len(list), "thing"), s.Name)
			}
			for _, d := range list {
				snag.At = append(snag.At, "device:"+d.ID)
			}
			snag.Mends = wayIn(w, s)
			say(snag)
		}
	},
)

// names are the names of some devices, three at most.
func names(list []*plan.Device) string {
	var out []string
	for _, d := range list {
		out = append(out, d.Name)
	}
	return words.Few(out, 3)
}

// moves is whether something among devices is no lamp that gives light.
func moves(w *work.Work, list []*plan.Device) bool {
	for _, d := range list {
		if !glows[w.Lib.Lamps[d.Product].Kind] {
			return true
		}
	}
	return false
}
