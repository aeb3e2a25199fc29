package work

import (
	"zapbarn/core/plan"
	"zapbarn/core/show"
	"zapbarn/core/wiring"
)

// Frame is the wiring at one moment of a trace.
type Frame struct {
	At    int // ms; holds until the next frame
	On    map[string]bool
	State *wiring.State
}

// Frames solves the wiring at every moment of a trace. Equal sets of switches
// are solved once.
func (w *Work) Frames(t show.Trace) []Frame {
	solved := map[string]*wiring.State{}
	var out []Frame
	type channel struct {
		id    string
		spans []show.Span
		next  int // the first span not yet over
	}
	var channels []channel
	for _, d := range w.Plan.Devices() {
		if d.Channel() {
			channels = append(channels, channel{id: d.ID, spans: t.Spans(d.ID)})
		}
	}
	own := plan.NewRig(w.Plan, w.Lib) // it is solved in place: nobody else may be reading it
	for _, at := range t.Moments() {
		on, key := map[string]bool{}, ""
		for i := range channels {
			c := &channels[i]
			for c.next < len(c.spans) && c.spans[c.next].To <= at {
				c.next++
			}
			if c.next < len(c.spans) && at >= c.spans[c.next].From {
				on[c.id] = true
				key += c.id + ","
			}
		}
		if solved[key] == nil {
			solved[key] = own.Solve(on)
		}
		out = append(out, Frame{at, on, solved[key]})
	}
	return out
}
