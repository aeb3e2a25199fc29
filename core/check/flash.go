package check

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/show"
	"zapbarn/core/source"
	"zapbarn/core/work"
)

// flashes is how many flashes in any second are taken to be safe: WCAG 2.2, 2.3.1.
const flashes = 3

var _ = rule(
	"flashes",
	Fix,
	"A light flashes more than three times in a second.",
	func(w *work.Work, say func(Snag)) {
		for _, s := range w.Plan.Scenes {
			for i, q := range s.Cues {
				rate := show.Shape(q.Shape).FlashesPerSecond()
				if rate <= flashes || q.Length.Value() < 0.3 {
					continue
				}
				next := s
				next.Cues = append(next.Cues[:0:0], s.Cues...)
				next.Cues[i].Shape = string(show.Blink)
				say(Snag{
					Level: Fix, Place: "rehearsal", At: []string{"scene:" + s.ID, "device:" + q.Channel},
					Title: w.Named(
						show.Term{Kind: "channel", ID: q.Channel},
					) + " flashes " + measure.Decimal(
						rate,
						0,
					) + " times a second",
					Why: fmt.Sprintf(
						"More than %d flashes in a second over a large area can bring on a seizure. Put a sign at the "+
							"entrance where it must be, and ask who runs the place.",
						flashes,
					),
					From:  []source.Source{source.Std("WCAG 2.2, success criterion 2.3.1")},
					Mends: []Mend{put(w, "Once a second instead", "scene", s.ID, next)},
				})
			}
		}
	},
)
