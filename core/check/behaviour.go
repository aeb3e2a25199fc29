package check

import (
	"fmt"
	"slices"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
)

var _ = rule(
	"cannot-run",
	Stop,
	"The behaviour cannot be rehearsed as it stands.",
	func(w *work.Work, say func(Snag)) {
		if w.ShowErr() == nil {
			return
		}
		at := "display:" + w.Plan.Display().ID
		for _, s := range w.Plan.Scenes() {
			if len(s.Cues) == 0 {
				return // said by scene-empty: nothing is wrong with it, it is only begun
			}
		}
		say(
			Snag{
				Level: Stop,
				Place: "rehearsal",
				At:    []string{at},
				Title: "The behaviour cannot run",
				Why:   w.ShowErr().Error() + ".",
			},
		)
	},
)

var _ = rule(
	"scene-empty",
	Mind,
	"A scene that something works has no cues yet.",
	func(w *work.Work, say func(Snag)) {
		for _, s := range w.Plan.Scenes() {
			if len(s.Cues) == 0 &&
				slices.ContainsFunc(w.Plan.Triggers(), func(t plan.Trigger) bool { return t.Scene == s.ID }) {
				say(Snag{
					Level: Mind,
					Place: "rehearsal",
					At:    []string{"scene:" + s.ID},
					Title: s.Name + does(s.Name, " does", " do") + " nothing yet",
					Why:   "It has no cues: hang lamps behind a driven switch, then say what comes on, and when.",
				})
			}
		}
	},
)

var _ = rule(
	"bounce-on-toggle",
	Stop,
	"A bouncing contact toggles twice and turns itself off again.",
	func(w *work.Work, say func(Snag)) {
		for _, t := range w.Plan.Triggers() {
			in := w.Plan.Input(t.Input)
			if t.Latch != "toggle" || in.MinPulse.Value() >= 0.02 || in.HoldOff.Value() >= 0.1 {
				continue
			}
			next := *in
			next.MinPulse = measure.Must[measure.DurationKind]("30 ms")
			again := t
			again.Latch = "one-shot"
			say(
				Snag{
					Level: Stop,
					Place: "rehearsal",
					At:    []string{"input:" + in.ID, "trigger:" + t.ID},
					Title: in.Name + " can silence itself",
					Why: fmt.Sprintf(
						"It toggles, and a contact bounces for 5 to 20 ms: counted twice it goes straight off. Its least pulse is %s.",
						measure.Span(in.MinPulse.Value()),
					),
					Mends: []Mend{
						put(w, "Count from 30 ms on", "input", in.ID, next),
						put(w, "One-shot instead", "trigger", t.ID, again),
					},
				},
			)
		}
	},
)

var _ = rule(
	"idle-behaviour",
	Mind,
	"An input, scene or driven switch is tied to nothing.",
	func(w *work.Work, say func(Snag)) {
		usedIn, usedScene, usedSwitch := map[string]bool{}, map[string]bool{}, map[string]bool{}
		for _, t := range w.Plan.Triggers() {
			usedIn[t.Input], usedScene[t.Scene] = true, true
		}
		for _, s := range w.Plan.Scenes() {
			for _, c := range s.Cues {
				usedSwitch[c.Channel] = true
			}
			if !usedScene[s.ID] {
				say(
					Snag{
						Level: Mind,
						Place: "rehearsal",
						At:    []string{"scene:" + s.ID},
						Title: "Nothing runs “" + s.Name + "”",
						Why:   "No input triggers this scene.",
					},
				)
			}
		}
		for _, i := range w.Plan.Inputs() {
			if !usedIn[i.ID] {
				say(
					Snag{
						Level: Mind,
						Place: "rehearsal",
						At:    []string{"input:" + i.ID},
						Title: i.Name + does(i.Name, " does", " do") + " nothing",
						Why:   "No scene is tied to it.",
					},
				)
			}
		}
		for _, d := range w.Plan.Devices() {
			if d.Driven && !usedSwitch[d.ID] {
				say(
					Snag{
						Level: Mind,
						Place: "rehearsal",
						At:    []string{"device:" + d.ID},
						Title: d.Name + does(d.Name, " is", " are") + " never switched on",
						Why:   "It is driven by scenes, and no cue names it.",
					},
				)
			}
		}
	},
)

var _ = rule(
	"cue-past-end",
	Fix,
	"A cue runs past the end of its scene and is cut off.",
	func(w *work.Work, say func(Snag)) {
		for _, s := range w.Plan.Scenes() {
			far := 0.0
			for _, c := range s.Cues {
				far = max(far, c.Start.Value()+c.Length.Value())
			}
			if s.Length.IsZero() || far <= s.Length.Value()+1e-9 {
				continue
			}
			next := s
			next.Length = measure.Duration{}
			say(
				Snag{
					Level: Fix,
					Place: "rehearsal",
					At:    []string{"scene:" + s.ID},
					Title: "A cue is cut off in “" + s.Name + "”",
					Why:   fmt.Sprintf("The scene ends at %s, its last cue at %s.", s.Length, measure.Span(far)),
					Mends: []Mend{put(w, "End with the last cue", "scene", s.ID, next)},
				},
			)
		}
	},
)
