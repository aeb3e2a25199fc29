package check

import (
	"encoding/json"
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/words"
	"zapbarn/core/work"
)

var _ = rule(
	"set-aside",
	Stop,
	"A stored element cannot stand as it is, by a rule newer than it; it is set aside and kept as it was.",
	func(w *work.Work, say func(Snag)) {
		for _, b := range w.Plan.Broken() {
			var head struct{ Name, Prop, Solid string }
			_ = json.Unmarshal(b.Raw, &head) // of another shape: then it has no name
			at := []string{b.Kind + ":" + b.ID}
			if w.Plan.Prop(head.Prop) != nil {
				at = append(at, "prop:"+head.Prop)
			}
			called := measure.Capital(b.Kind) + " " + b.ID
			if head.Name != "" {
				called = head.Name
			}
			place := "walkdown"
			if in, ok := plan.ShownIn(b.Kind); ok && in.Place != "barn" {
				place = in.Place
			}
			say(Snag{
				Level:  Stop,
				Place:  place,
				At:     at,
				Title:  called + " is set aside",
				weight: 9,
				Why: fmt.Sprintf(
					"An earlier version took it, and it is kept as it was: %s. Until that is mended nothing is worked out with it.",
					measure.ErrorIn(b.Err, w.Plan.Metric()),
				),
				Mends: append(backIn(w, b), Mend{Label: "Take it away", Edit: plan.Edit{
					Label:   "take away " + b.Kind + " " + b.ID,
					Changes: []plan.Change{{Kind: b.Kind, ID: b.ID, At: -1, Before: b.Raw}},
				}}),
			})
		}
	},
)

// backIn are edits with which an element that is set aside stands again: a solid without the
// openings that its form has no place for, a plug in an outlet that there is.
func backIn(w *work.Work, b plan.Broken) (out []Mend) {
	var raw map[string]json.RawMessage
	if json.Unmarshal(b.Raw, &raw) != nil {
		return nil
	}
	as := func(label, field string, v any) {
		next := map[string]json.RawMessage{}
		for k, x := range raw {
			next[k] = x
		}
		text, err := json.Marshal(v)
		if err != nil {
			return
		}
		next[field] = text
		after, err := json.Marshal(next)
		if err != nil {
			return
		}
		e := plan.Edit{Label: "take " + b.Kind + " " + b.ID + " back in",
			Changes: []plan.Change{{Kind: b.Kind, ID: b.ID, At: -1, Before: b.Raw, After: after}}}
		if _, err := w.Plan.Apply(e); err == nil {
			out = append(out, Mend{Label: label, Edit: e})
		}
	}
	switch b.Kind {
	case "solid":
		var all []plan.Opening
		if json.Unmarshal(raw["openings"], &all) != nil || len(all) == 0 {
			return nil
		}
		var s plan.Solid
		if json.Unmarshal(b.Raw, &s) != nil {
			return nil
		}
		kept, gone := []plan.Opening{}, []string{}
		for _, o := range all {
			s.Openings = append(kept[:len(kept):len(kept)], o)
			if _, err := s.Shape(w.Lib); err != nil {
				gone = append(gone, o.Name)
				continue
			}
			kept = append(kept, o)
		}
		as("Take it back in without "+words.Few(gone, 3), "openings", kept)
	case "plug":
		for i := range min(3, len(w.Plan.Outlets())) {
			o := &w.Plan.Outlets()[i]
			as("Plug it into "+o.Name, "outlet", o.ID)
		}
	}
	return out
}
