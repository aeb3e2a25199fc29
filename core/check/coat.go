package check

import (
	"fmt"

	"zapbarn/core/bond"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
)

var coatTitles = map[string]string{
	"solvent-on-bare-foam": "Solvent paint meets bare foam", "pinholes": "Look for pinholes first",
	"heat-on-foam": "Heat gun on foam", "heat-near-foam": "Heat gun next to foam",
	"glaze-beads": "The glaze will bead", "wrinkles": "Solvent over uncured paint",
	"cracks-on-flex": "Hard paint where it bends", "flex-unsealed": "Foam drinks the paint",
	"blocks-light": "Opaque paint on a lit part", "too-few-coats": "Too few thin coats", "too-cold": "Too cold to paint",
	"not-outdoor": "The last coat is not for outdoors",
}

var _ = rule(
	"coat",
	Stop,
	"A coat does not stand on what lies under it, or on the part: from properties, see the reason named in the code.",
	func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Finishes() {
			f := &w.Plan.Finishes()[i]
			s := w.Solid(f.Solid)
			for _, r := range w.Finishes()[f.ID].Reasons {
				snag := Snag{
					Code:  "coat-" + r.Code,
					Level: levelOf(r.Verdict),
					Place: "bench",
					At:    []string{"solid:" + s.ID},
					Title: coatTitles[r.Code],
					Why:   fmt.Sprintf("%s, coat %d: %s.", s.Name, r.Layer+1, r.Text),
				}
				with := func(label string, at int, layers ...plan.Layer) {
					next := *f
					next.Layers = append(
						append(append([]plan.Layer(nil), f.Layers[:at]...), layers...),
						f.Layers[at:]...)
					snag.Mends = append(snag.Mends, put(w, label, "finish", f.ID, next))
				}
				without := func(label string, at int) {
					next := *f
					next.Layers = append(append([]plan.Layer(nil), f.Layers[:at]...), f.Layers[at+1:]...)
					snag.Mends = append(snag.Mends, put(w, label, "finish", f.ID, next))
				}
				switch r.Code {
				case "solvent-on-bare-foam":
					with("Add sealer", r.Layer, plan.Layer{Coat: "masonry", Coats: 1})
					next := *f
					next.Layers = append([]plan.Layer(nil), f.Layers...)
					next.Layers[r.Layer] = plan.Layer{Coat: "latex", Coats: 2}
					snag.Mends = append(snag.Mends, put(w, "Latex instead", "finish", f.ID, next))
				case "glaze-beads":
					with("Matte clear first", r.Layer, plan.Layer{Coat: "clear", Coats: 2})
				case "flex-unsealed":
					with("Flexible sealer first", r.Layer, plan.Layer{Coat: "flexseal", Coats: 2})
				case "not-outdoor":
					with("Add exterior clear", len(f.Layers), plan.Layer{Coat: "clear", Coats: 2})
				case "too-few-coats":
					next := *f
					next.Layers = append([]plan.Layer(nil), f.Layers...)
					next.Layers[r.Layer].Coats = w.Lib.Coats[next.Layers[r.Layer].Coat].Coats
					snag.Mends = append(
						snag.Mends,
						put(w, fmt.Sprintf("%d coats", next.Layers[r.Layer].Coats), "finish", f.ID, next),
					)
				case "heat-on-foam", "heat-near-foam", "blocks-light":
					without("Leave it out", r.Layer)
				}
				if r.Verdict != bond.Good {
					say(snag)
				}
			}
		}
	},
)

var _ = rule(
	"uncoated-foam",
	Mind,
	"Foam stands outdoors with no coat: sun and water take it within a season.",
	func(w *work.Work, say func(Snag)) {
		has := map[string]bool{}
		for _, f := range w.Plan.Finishes() {
			has[f.Solid] = len(f.Layers) > 0
		}
		for _, s := range w.Plan.Solids() {
			if m := w.Lib.Materials[s.Stock]; w.Plan.Display().Outdoors && m.Foam() && !has[s.ID] &&
				w.Shapes()[s.ID] != nil {
				f := plan.Finish{
					ID:     s.ID,
					Solid:  s.ID,
					Layers: []plan.Layer{{Coat: "masonry", Coats: 1}, {Coat: "latex", Coats: 2}},
				}
				say(
					Snag{
						Level: Mind,
						Place: "bench",
						At:    []string{"solid:" + s.ID},
						Title: "No coats on " + measure.Uncapital(s.Name),
						Why:   m.Name + " outdoors yellows and takes water at every cut edge.",
						Mends: []Mend{put(w, "Sealer, then latex x2", "finish", f.ID, f)},
					},
				)
			}
		}
	},
)

var _ = rule(
	"burns",
	Note,
	"Foam, fabric and plywood burn: flame treatment and the local fire authority come first in a public display.",
	func(w *work.Work, say func(Snag)) {
		for _, s := range w.Plan.Solids() {
			if x := w.Plan.PlotOf(s.Prop); x != nil && x.Treated != "" {
				continue
			}
			if w.Lib.Materials[s.Stock].Burns && w.Lib.Materials[s.Stock].Foam() {
				say(
					Snag{
						Level: Note,
						Place: "walkdown",
						At:    []string{"display:" + w.Plan.Display().ID},
						Title: "Foam burns",
						Why:   "Keep heat and flame away; in a public display ask the local fire authority about flame treatment first.",
					},
				)
				return
			}
		}
	},
)
