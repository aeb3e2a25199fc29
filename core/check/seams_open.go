package check

import (
	"fmt"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/words"
	"zapbarn/core/work"
)

var _ = rule(
	"seams-open",
	Mind,
	"Some seams of a solid are glued and others are not planned: their glue is not bought and their wait not counted.",
	func(w *work.Work, say func(Snag)) {
		of := map[string][]*plan.Joint{} // by the solid of its first side
		for k := range w.Plan.Joints() {
			j := &w.Plan.Joints()[k]
			id, _, _ := strings.Cut(j.A, "/")
			of[id] = append(of[id], j)
		}
		for i := range w.Plan.Solids() {
			s := &w.Plan.Solids()[i]
			if shape := w.Shapes()[s.ID]; shape != nil && s.Seam == "" { // a split one's pieces have their own names
				seamsOpen(w, s, shape, of[s.ID], say)
			}
		}
	},
)

// seamsOpen tells of the seams of a solid that its joints leave out, where they glue any.
func seamsOpen(w *work.Work, s *plan.Solid, shape *pattern.Shape, joints []*plan.Joint, say func(Snag)) {
	closed, glue := map[[2]string]bool{}, ""
	for _, j := range joints {
		if j.A == s.ID && j.B == s.ID {
			return // all of them in one
		}
		if l, ok := w.FormLine(j); ok {
			closed[[2]string{l.A, l.B}] = true
			if glue == "" {
				glue = j.Glue
			}
		}
	}
	if glue == "" {
		return
	}
	label := "Glue the others with " + measure.Uncapital(w.Lib.Glues[glue].Name)
	mend := Mend{Label: label, Edit: plan.Edit{Label: label}}
	var open []string
	length := 0.0
	for _, l := range shape.Lines {
		if closed[[2]string{l.A, l.B}] {
			continue
		}
		open, length = append(open, l.A+" to "+l.B), length+l.Length
		j := plan.Joint{Prop: s.Prop, A: s.ID + "/" + l.A, B: s.ID + "/" + l.B, Glue: glue}
		j.ID = w.FreshID("joint", j.A+" "+j.B)
		mend.Edit.Changes = append(mend.Edit.Changes, w.Plan.Put("joint", j.ID, j))
	}
	if open == nil {
		return
	}
	say(Snag{
		Level:  Mind,
		Place:  "bench",
		At:     []string{"solid:" + s.ID},
		Title:  fmt.Sprintf("%s of %s not planned yet", words.Count(len(open), "seam"), measure.Uncapital(s.Name)),
		weight: length,
		Mends:  []Mend{mend},
		Why: fmt.Sprintf("%s: %s in all, with no glue named.",
			measure.Capital(strings.Join(open, ", ")), measure.Run(length, w.Plan.Metric())),
	})
}
