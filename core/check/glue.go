package check

import (
	"fmt"
	"strings"

	"zapbarn/core/bond"
	"zapbarn/core/measure"
	"zapbarn/core/work"
)

var glueTitles = map[string]string{
	"solvent-on-foam": "Solvent glue meets foam", "crazes": "Solvent crazes the clear sheet",
	"heat-on-thin": "Hot glue on a thin wall", "heat-on-foam": "Hot glue melts the foam",
	"low-energy": "Hardly any glue holds there", "fogs-clear": "The glue fogs clear plastic",
	"brittle-on-flex": "Brittle glue where it bends", "metal-drains-heat": "Metal drains the glue's heat",
	"wrong-family": "That glue does not weld this", "closed-faces": "Glue between two closed faces",
	"past-date": "The glue is past its date", "too-cold": "Too cold for the glue",
	"creeps-in-heat": "Glue that lets go in the sun", "brittle-in-strain": "Brittle glue in a strained seam",
	"no-grip": "Water glue on a smooth face", "unpaintable": "Paint will not stick to it",
}

func levelOf(v bond.Verdict) Level {
	return map[bond.Verdict]Level{bond.No: Stop, bond.TestFirst: Fix, bond.Works: Mind, bond.Good: Note}[v]
}

var _ = rule(
	"glue",
	Stop,
	"A glue does not hold on its pair of materials, is too old, or the shop is too cold: from properties, see the "+
		"reason named in the code.",
	func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Joints() {
			j := &w.Plan.Joints()[i]
			for _, r := range w.Joints()[j.ID].Reasons {
				if r.Verdict == bond.Good {
					continue
				}
				s := Snag{
					Code:  "glue-" + r.Code,
					Level: levelOf(r.Verdict),
					Place: "bench",
					At:    []string{"joint:" + j.ID},
					Title: glueTitles[r.Code],
					Why: fmt.Sprintf(
						"%s to %s: %s.",
						partName(w, j.A),
						partName(w, j.B),
						strings.TrimSuffix(r.Text, "."),
					),
				}
				if j.A == j.B || r.Verdict >= bond.TestFirst {
					for _, g := range w.Suggest(w.JointCase(j)) {
						if len(s.Mends) == 2 {
							break
						}
						if g.ID == j.Glue {
							continue
						}
						next := *j
						next.Glue = g.ID
						s.Mends = append(s.Mends, put(w, "Use "+measure.Uncapital(g.Name), "joint", j.ID, next))
					}
				}
				if len(s.Mends) == 0 && r.Verdict == bond.No && j.Glue != "tie" {
					next := *j
					next.Glue = "tie"
					s.Mends = append(s.Mends, put(w, "Use ties or rivets", "joint", j.ID, next))
				}
				say(s)
			}
		}
	},
)

func partName(w *work.Work, ref string) string {
	if p := w.Part(ref); p != nil {
		return p.Name()
	}
	if m, bought := strings.CutPrefix(ref, "="); bought {
		return w.Lib.Materials[m].Name
	}
	id, _, _ := strings.Cut(ref, "/")
	if s := w.Solid(id); s != nil {
		return s.Name
	}
	return ref
}
