package plan

import (
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/show"
)

// Machine is the plan's behaviour for the simulator.
func (p *Plan) Machine() show.Machine {
	ms := func(d measure.Duration) int { return int(math.Round(d.Value() * 1000)) }
	var m show.Machine
	for _, i := range p.Inputs {
		m.Inputs = append(
			m.Inputs,
			show.Input{ID: i.ID, Closed: i.Closed, MinPulse: ms(i.MinPulse), HoldOff: ms(i.HoldOff)},
		)
	}
	for _, s := range p.Scenes {
		sc := show.Scene{ID: s.ID, Length: ms(s.Length)}
		for _, c := range s.Cues {
			sc.Cues = append(sc.Cues, show.Cue{Channel: c.Channel, Start: ms(c.Start), Length: ms(c.Length)})
		}
		m.Scenes = append(m.Scenes, sc)
	}
	for _, t := range p.Triggers {
		m.Triggers = append(
			m.Triggers,
			show.Trigger{ID: t.ID, Input: t.Input, Scene: t.Scene, Latch: show.Latch(t.Latch), Rest: ms(t.Rest)},
		)
	}
	return m
}
