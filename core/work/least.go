package work

import (
	"zapbarn/core/measure"
	"zapbarn/core/show"
)

// lingers is for how long a bank is asked for too little before it switches itself off, ms
// (from memory: ten seconds to a minute); looks is how long is looked at, ms.
const lingers, looks = 10_000, 120_000

// Least is the least that a supply gives for longer than it takes a bank to switch itself off,
// A, and when that is: from power up with nobody there, or after an input was worked once.
func (w *Work) Least(supply string) (amps float64, when string) {
	if w.ShowErr() != nil {
		return w.Rest().Readings[supply].Amps, "while nothing happens"
	}
	amps = -1
	look := func(stimuli []show.Stimulus, say string) {
		trace := w.Machine().Run(stimuli, looks)
		frames := w.Frames(trace)
		for k, f := range frames {
			until := trace.Until
			if k+1 < len(frames) {
				until = frames[k+1].At
			}
			if a := f.State.Readings[supply].Amps; until-f.At >= lingers && (amps < 0 || a < amps-1e-9) {
				amps, when = a, say
			}
		}
	}
	look(nil, "while nothing happens")
	for i := range w.Plan.Inputs() {
		if in := &w.Plan.Inputs()[i]; in.Kind != "timer" && in.Mover == "" {
			held := max(1000, int(in.MinPulse.Value()*1000)+100)
			look(show.Press(in.ID, 1000, held), "after "+measure.Uncapital(in.Name)+" was worked")
		}
	}
	if amps < 0 { // never the same for so long: a bank stays on
		return w.All().Readings[supply].Amps, "at the least"
	}
	return amps, when
}
