package check

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/wiring"
	"zapbarn/core/words"
	"zapbarn/core/work"
)

// Lead is what a lamp's own lead measures, factory or as written, in mm.
func Lead(w *work.Work, d *plan.Device) float64 {
	return d.Lead.Or(w.Lib.Lamps[d.Product].Lead.Value())
}

var _ = rule(
	"lead-too-short",
	Fix,
	"A lamp's lead does not reach along its path.",
	func(w *work.Work, say func(Snag)) {
		groups := map[string][]*plan.Device{}
		var order []string
		for i := range w.Plan.Devices() {
			d := &w.Plan.Devices()[i]
			if d.Is(wiring.Load) && !d.Need.IsZero() && Lead(w, d)+d.Extension.Value() < d.Need.Value()-0.5 {
				if groups[d.From] == nil {
					order = append(order, d.From)
				}
				groups[d.From] = append(groups[d.From], d)
			}
		}
		for _, from := range order {
			say(shortLeads(w, groups[from]))
		}
	},
)

// shortLeads is of lamps that hang on one thing and whose leads do not reach.
func shortLeads(w *work.Work, short []*plan.Device) Snag {
	var longer []plan.Device
	s := Snag{Level: Fix, Place: "loom", weight: float64(len(short)) / 100}
	lo, hi, total := short[0].Need.Value(), 0.0, 0.0
	for _, d := range short {
		lack := d.Need.Value() - Lead(w, d)
		next := *d
		next.Extension = measure.Of[measure.LengthKind](ceilTo(lack, measure.Inch))
		if w.Plan.Metric() {
			next.Extension, _ = measure.Parse[measure.LengthKind](fmt.Sprintf("%.0f mm", ceilTo(lack, 10)))
		}
		lo, hi, total = min(lo, d.Need.Value()), max(hi, d.Need.Value()), total+next.Extension.Value()
		longer = append(longer, next)
		s.At = append(s.At, "device:"+d.ID)
	}
	label, need := "Extend it", w.Len(lo)
	s.Title = words.Whose(short[0].Name) + " lead is too short"
	if len(short) > 1 {
		label, s.Title = fmt.Sprintf("Extend all %d", len(short)), fmt.Sprintf("%d leads are too short", len(short))
	}
	if hi > lo {
		need += " to " + w.Len(hi)
	}
	s.Why = fmt.Sprintf("%s leads, %s needed: %s, %s of wire; heat-shrink on first.", w.Len(Lead(w, short[0])), need,
		words.Count(2*len(short), "splice"), measure.Run(2*total, w.Plan.Metric()))
	s.Mends = []Mend{{Label: label, make: func(w *work.Work) plan.Edit {
		e := plan.Edit{Label: label}
		for _, d := range longer {
			e.Changes = append(e.Changes, w.Plan.Put("device", d.ID, d))
		}
		return e
	}}}
	return s
}

func ceilTo(v, step float64) float64 {
	n := float64(int(v / step))
	if n*step < v-1e-9 {
		n++
	}
	return n * step
}
