package plan

import (
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/show"
)

var sources = map[string]show.Source{"timer": show.Timer, "scene begins": show.Began, "scene ends": show.Ended,
	"power": show.Power}

// Milliseconds of a time, whole.
func Milliseconds(d measure.Duration) int { return int(math.Round(d.Value() * 1000)) }

// Machine is the plan's behaviour for the simulator. travel says how long a mechanism
// takes to go up and down again, in ms, and whether it goes back by itself when nothing
// holds it; nil leaves movers out.
func (p *Plan) Machine(travel func(*Mechanism) (up, down int, falls bool)) show.Machine {
	ms := Milliseconds
	m := show.Machine{State: p.Display().Begins}
	for i := range p.Inputs() {
		x := &p.Inputs()[i]
		in := show.Input{
			ID: x.ID, Closed: x.Closed, MinPulse: ms(x.MinPulse), HoldOff: ms(x.HoldOff),
			Bounce: ms(x.Bounce), Hold: ms(x.Hold), WarmUp: ms(x.WarmUp), Latency: ms(x.Latency),
			Kind: sources[x.Kind], Every: ms(x.Every), Scene: x.Scene, At: x.Place, Below: x.Below,
		}
		if x.Kind == "timer" {
			in.State = x.State
		}
		if x.Kind == "switch" {
			in.Mover = x.Mover
		}
		m.Inputs = append(m.Inputs, in)
	}
	for i := range p.Devices() {
		if d := &p.Devices()[i]; d.Channel() {
			m.Channels = append(m.Channels, show.Channel{ID: d.ID, Rule: show.Contention(d.Wins), Never: d.Never,
				Longest: ms(d.Longest)})
		}
	}
	for _, s := range p.Scenes() {
		sc := show.Scene{ID: s.ID, Length: ms(s.Length)}
		for _, c := range s.Cues {
			sc.Cues = append(sc.Cues, show.Cue{Channel: c.Channel, Start: ms(c.Start), Length: ms(c.Length),
				Shape: show.Shape(c.Shape), Level: c.Level})
		}
		m.Scenes = append(m.Scenes, sc)
	}
	for _, t := range p.Triggers() {
		m.Triggers = append(m.Triggers, show.Trigger{ID: t.ID, Input: t.Input, Scene: t.Scene,
			Latch: show.Latch(t.Latch), Rest: ms(t.Rest), While: t.While, Then: t.Then})
	}
	if travel == nil {
		return m
	}
	for i := range p.Mechanisms() {
		x := &p.Mechanisms()[i]
		up, down, falls := travel(x)
		if x.Up == "" || up <= 0 {
			continue
		}
		m.Movers = append(m.Movers, show.Mover{ID: x.ID, Up: x.Up, Down: x.Down, UpTime: up, DownTime: down,
			Falls: falls || x.Springs, Stops: x.Stops, Circles: x.Kind == "turntable"})
	}
	return m
}
