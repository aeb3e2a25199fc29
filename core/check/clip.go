package check

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/sound"
	"zapbarn/core/source"
	"zapbarn/core/work"
)

// heard registers a rule of one clip at a time.
func heard(code string, level Level, doc string, run func(w *work.Work, h work.Heard, say func(Snag))) bool {
	return rule(code, level, doc, func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Clips() {
			run(w, w.Heard(&w.Plan.Clips()[i]), func(s Snag) {
				s.Level, s.Place, s.At = level, "rehearsal", append([]string{"clip:" + w.Plan.Clips()[i].ID}, s.At...)
				say(s)
			})
		}
	})
}

// moved offers the nearest distance, in steps of so many metres, at which a clip's level
// will do.
func moved(w *work.Work, h work.Heard, step float64, label string, good func(db float64) bool) []Mend {
	for d := h.AtGuest + step; d > 0.5 && d < 30; d += step {
		if good(sound.Fall(h.Source, d)) {
			x := *h.Of
			x.Guests = written(w, d*1000)
			return []Mend{put(w, fmt.Sprintf(label, x.Guests), "clip", x.ID, x)}
		}
	}
	return nil
}

var _ = heard("clip-quiet", Mind, "A sound is drowned by the guests' own voices.",
	func(w *work.Work, h work.Heard, say func(Snag)) {
		if !h.Known || h.Guests >= sound.Crowd+sound.Over {
			return
		}
		out := moved(w, h, -0.5, "Stand its speaker %s from them", func(db float64) bool {
			return db >= sound.Crowd+sound.Over
		})
		say(Snag{
			Title: "Nobody hears “" + h.Of.Name + "”",
			Why: fmt.Sprintf(
				"It comes to %.0f dB at guests %s away; talk is some %d dB, and a sound wants %d dB more. Nearer, a "+
					"louder clip, or a stronger speaker.",
				h.Guests,
				w.Len(h.AtGuest*1000),
				sound.Crowd,
				sound.Over,
			),
			From:  []source.Source{source.FromMemory("lively talk at 1 m"), source.FromTrade("10 dB over the crowd")},
			Mends: out,
		})
	})

var _ = heard("clip-loud", Fix, "A sound is too loud for ears that are near it all evening.",
	func(w *work.Work, h work.Heard, say func(Snag)) {
		_, hours, duty := w.Plan.Season()
		if !h.Known || sound.Bears(h.Guests) >= hours*duty {
			return
		}
		out := moved(w, h, 0.5, "Keep guests and crew %s away", func(db float64) bool {
			return sound.Bears(db) >= hours*duty
		})
		say(Snag{
			Title: "“" + h.Of.Name + "” is too loud up close",
			Why: fmt.Sprintf(
				"%.0f dB at %s may be borne for %s a day; it plays for some %s of an evening. Those who stand by it "+
					"all night are the crew.",
				h.Guests,
				w.Len(h.AtGuest*1000),
				measure.Span(sound.Bears(h.Guests)*3600),
				measure.Span(hours*duty*3600),
			),
			From:  []source.Source{source.Std("NIOSH 98-126: 85 dBA for 8 h, half of it for every 3 dB")},
			Mends: out,
		})
	})

var _ = heard("clip-cut", Mind, "A cue ends before the sound that it plays.",
	func(w *work.Work, h work.Heard, say func(Snag)) {
		if h.Of.Loop {
			return // it is meant to go on until it is switched off
		}
		for _, s := range w.Plan.Scenes() {
			for i, q := range s.Cues {
				if q.Channel != h.Of.Channel || q.Channel == "" || q.Length.Value() >= h.Of.Long.Value()-.05 {
					continue
				}
				next := s
				next.Cues = append([]plan.Cue(nil), s.Cues...)
				next.Cues[i].Length = h.Of.Long
				say(Snag{
					At: []string{"scene:" + s.ID}, key: "scene:" + s.ID + "/" + q.Channel,
					Title: "“" + h.Of.Name + "” is cut off in “" + s.Name + "”",
					Why:   fmt.Sprintf("It lasts %s; the cue is %s.", h.Of.Long, q.Length),
					Mends: []Mend{put(w, "Play it to its end", "scene", s.ID, next)},
				})
				return
			}
		}
	})

var _ = heard("clip-ends", Mind, "A clip is over before the cue that plays it, and is not played on.",
	func(w *work.Work, h work.Heard, say func(Snag)) {
		if h.Of.Loop || h.Of.Long.IsZero() || h.Of.Channel == "" {
			return
		}
		for _, s := range w.Plan.Scenes() {
			for i, q := range s.Cues {
				if q.Channel != h.Of.Channel || q.Length.Value() <= h.Of.Long.Value()+.5 {
					continue
				}
				on, next := *h.Of, s
				on.Loop = true
				next.Cues = append([]plan.Cue(nil), s.Cues...)
				next.Cues[i].Length = h.Of.Long
				say(Snag{
					At: []string{"scene:" + s.ID}, key: "scene:" + s.ID + "/" + q.Channel,
					Title: "“" + h.Of.Name + "” is over before its cue in “" + s.Name + "”",
					Why: fmt.Sprintf(
						"It lasts %s; the cue is %s: a screen goes blank, a speaker still, for the rest.",
						h.Of.Long,
						q.Length,
					),
					Mends: []Mend{
						put(w, "Play it on, over and over", "clip", on.ID, on),
						put(w, "End the cue with it", "scene", s.ID, next),
					},
				})
				return
			}
		}
	})
