package check

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

var _ = rule("starts-late", Fix, "A screen or a player is switched on for less than it takes to start.",
	func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Devices() {
			d := &w.Plan.Devices()[i]
			l := w.Lib.Lamps[d.Product]
			if !d.Is(wiring.Load) || l.Starts <= 0 {
				continue
			}
			for _, s := range w.Plan.Scenes() {
				for k, q := range s.Cues {
					if q.Channel == "" || q.Length.Value() > l.Starts || !w.Feeds(q.Channel, d.ID) {
						continue
					}
					next := s
					next.Cues = append([]plan.Cue(nil), s.Cues...)
					next.Cues[k].Length = measure.Of[measure.DurationKind](l.Starts + q.Length.Value())
					if end := q.Start.Value() + next.Cues[k].Length.Value(); !s.Length.IsZero() && s.Length.Value() < end {
						next.Length = measure.Of[measure.DurationKind](end)
					}
					mends := []Mend{put(w, "Hold it on "+next.Cues[k].Length.String(), "scene", s.ID, next)}
					if up := w.Device(w.Device(q.Channel).From); up != nil { // before the switch
						always := *d
						always.From = up.ID
						mends = append(mends, put(w, "Leave it on all night", "device", d.ID, always))
					}
					say(Snag{Level: Fix, Place: "rehearsal", At: []string{"scene:" + s.ID, "device:" + d.ID}, Prop: s.Prop,
						key: "scene:" + s.ID + "/" + d.ID, Title: d.Name + " shows nothing in “" + s.Name + "”",
						Why: fmt.Sprintf("It takes %s to start, and the cue is %s. Leave it on with a dark picture, or begin it long "+
							"before.", measure.Span(l.Starts), q.Length),
						From:  []source.Source{source.FromMemory("start-up of small players; time yours once")},
						Mends: mends})
				}
			}
		}
	})
