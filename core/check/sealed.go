package check

import (
	"fmt"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/wiring"
	"zapbarn/core/words"
	"zapbarn/core/work"
)

func hasDoor(s *plan.Solid) bool {
	for _, o := range s.Openings {
		if o.Door {
			return true
		}
	}
	return false
}

var _ = rule(
	"sealed-in",
	Stop,
	"What needs a hand later (supply, fuse, switch) is sealed in with no door.",
	func(w *work.Work, say func(Snag)) {
		for _, d := range w.Plan.Devices() {
			s := w.Solid(d.In)
			if s == nil || !s.Sealed || hasDoor(s) || d.Is(wiring.Load|wiring.Wire) {
				continue
			}
			snag := Snag{
				Level:  Stop,
				Place:  "loom",
				At:     []string{"device:" + d.ID, "solid:" + s.ID},
				Title:  d.Name + does(d.Name, " is", " are") + " sealed in",
				weight: 3,
				Why:    fmt.Sprintf("%s is closed up and has no door; a %s needs a hand again.", s.Name, d.Kind),
			}
			snag.Mends = wayIn(w, s)
			say(snag)
		}
	},
)

// wayIn is how a closed body comes to be opened: a door in a box's back, or not closed.
func wayIn(w *work.Work, s *plan.Solid) (out []Mend) {
	if box, ok := s.Form.(form.Box); ok && !box.H.IsZero() && !box.W.IsZero() {
		door := *s
		wide, high := min(box.W.Value()*0.5, 200), min(box.H.Value()*0.4, 150)
		door.Openings = append(
			append([]plan.Opening(nil), s.Openings...),
			plan.Opening{Name: "Door", Face: "back", Kind: "rect", Door: true,
				W: tape(w, wide), H: tape(w, high), Y: tape(w, box.H.Value()/2)},
		)
		out = append(out, put(w, "Cut a door in the back", "solid", s.ID, door))
	}
	open := *s
	open.Sealed = false
	return append(out, put(w, "Leave it to be opened", "solid", s.ID, open))
}

// tape is a length rounded to what a tape shows.
func tape(w *work.Work, mm float64) measure.Length { return measure.OnTape(mm, w.Plan.Metric()) }

var _ = rule(
	"unproven",
	Fix,
	"A lamp is closed in before it was lit on the bench.",
	func(w *work.Work, say func(Snag)) {
		groups := map[string][]plan.Device{}
		var order []string
		for _, d := range w.Plan.Devices() {
			if s := w.Solid(d.In); d.Is(wiring.Load) && s != nil && s.Sealed && !hasDoor(s) && !d.Proven {
				if groups[s.ID] == nil {
					order = append(order, s.ID)
				}
				groups[s.ID] = append(groups[s.ID], d)
			}
		}
		for _, id := range order {
			m := Mend{Label: "I lit them: proven"}
			m.Edit.Label = "lamps proven on the bench"
			s := Snag{
				Level: Fix,
				Place: "loom",
				Title: fmt.Sprintf("Prove %s before closing", words.Count(len(groups[id]), "lamp")),
				Why: fmt.Sprintf(
					"%s closes over them for good. Light each on the bench, polarity first.",
					w.Solid(id).Name,
				),
			}
			for _, d := range groups[id] {
				s.At = append(s.At, "device:"+d.ID)
				next := d
				next.Proven = true
				m.Edit.Changes = append(m.Edit.Changes, w.Plan.Put("device", d.ID, next))
			}
			s.Mends = []Mend{m}
			say(s)
		}
	},
)
