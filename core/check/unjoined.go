package check

import (
	"fmt"
	"strings"

	"zapbarn/core/bond"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
)

var _ = rule("unjoined", Mind, "A solid of several parts has no joint yet: nothing says how it holds together.", func(w *plan.Work, say func(Snag)) {
	joined := map[string]bool{}
	for _, j := range w.Plan.Joints {
		for _, r := range []string{j.A, j.B} {
			id, _, _ := strings.Cut(r, "/")
			joined[id] = true
		}
	}
	for i := range w.Plan.Solids {
		s := &w.Plan.Solids[i]
		shape := w.Shapes[s.ID]
		if shape == nil || joined[s.ID] || (s.Kind == "pipe" || s.Kind == "disc" || s.Kind == "panel" || s.Kind == "outline") && s.Seam == "" {
			continue
		}
		m := w.Lib.Materials[s.Stock]
		c := bond.Joint{A: m, B: m, Temp: w.Plan.Temperature(), RH: w.Plan.Humidity(), Sun: w.Plan.Display.Outdoors}
		snag := Snag{Level: Mind, Place: "bench", At: []string{"solid:" + s.ID}, Title: "No glue yet for " + lowerFirst(s.Name), Why: fmt.Sprintf("%d parts, and nothing says how they meet.", len(w.Parts))}
		if s.Kind == "panel" || s.Kind == "outline" { // split: its pieces meet
			snag.Title = "No glue yet for the seam of " + lowerFirst(s.Name)
		}
		n := 0
		for _, p := range shape.Panels {
			n += p.Copies
		}
		snag.Why = fmt.Sprintf("%s, and nothing says how they meet.", plural(n, "part"))
		for _, g := range bond.Suggest(c, w.Lib.Glues) {
			if len(snag.Mends) == 2 {
				break
			}
			mend := Mend{Label: "Glue with " + lowerFirst(g.Name)}
			mend.Edit.Label = mend.Label
			for _, pair := range seams(s.Kind, s.Bottom) {
				j := plan.Joint{Prop: s.Prop, A: s.ID + "/" + pair[0], B: s.ID + "/" + pair[1], Glue: g.ID, Length: seamLength(s)}
				if pair[0] == "" {
					j.A, j.B = s.ID, s.ID
				}
				j.ID = w.FreshID("joint", j.A+" "+j.B)
				mend.Edit.Changes = append(mend.Edit.Changes, w.Plan.Put("joint", j.ID, j))
			}
			snag.Mends = append(snag.Mends, mend)
		}
		say(snag)
	}
})

func seams(kind string, bottom bool) [][2]string {
	if one := map[string]string{"tower": "face", "gores": "gore", "cone": "sector", "wrap": "wrap", "boards": "board1"}[kind]; one != "" {
		return [][2]string{{one, one}}
	}
	if kind != "box" { // rings and slices, layer on layer
		return [][2]string{{"", ""}}
	}
	s := [][2]string{{"front", "left"}, {"front", "right"}, {"back", "left"}, {"back", "right"}}
	if bottom {
		s = append(s, [2]string{"bottom", "front"})
	}
	return s
}

func seamLength(s *plan.Solid) measure.Length { return s.H }
