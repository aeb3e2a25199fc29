package check

import (
	"fmt"
	"strings"

	"zapbarn/core/work"
)

var _ = rule(
	"size-missing",
	Mind,
	"A solid still lacks a size, so it has no parts yet.",
	func(w *work.Work, say func(Snag)) {
		names := map[string]string{
			"w":       "width",
			"d":       "depth",
			"h":       "height",
			"low":     "bottom across",
			"high":    "top across",
			"wall":    "wall",
			"profile": "profile",
			"lengths": "lengths",
		}
		for _, s := range w.Plan.Solids() {
			var lacks []string
			for _, f := range w.Lacks(s.ID) {
				lacks = append(lacks, names[f])
			}
			if lacks != nil {
				say(
					Snag{
						Level: Mind,
						Place: "bench",
						At:    []string{"solid:" + s.ID},
						Title: s.Name + does(s.Name, " is", " are") + " half known",
						Why:   fmt.Sprintf("Still needs %s before it has parts.", strings.Join(lacks, ", ")),
					},
				)
			}
		}
	},
)

var _ = rule("prop-empty", Note, "A prop has no parts and no wiring yet.", func(w *work.Work, say func(Snag)) {
	used := map[string]bool{}
	for _, s := range w.Plan.Solids() {
		used[s.Prop] = true
	}
	for _, d := range w.Plan.Devices() {
		used[d.Prop] = true
	}
	for _, p := range w.Plan.Props() {
		if !used[p.ID] {
			say(
				Snag{
					Level: Note,
					Place: "bench",
					At:    []string{"prop:" + p.ID},
					Title: p.Name + does(p.Name, " is", " are") + " still an idea",
					Why:   "No parts yet. Type a solid in the quick line, such as box 22 x 18 x 26 xps1.",
				},
			)
		}
	}
})
