package show

import (
	"fmt"
	"slices"
)

// Term is something that is so or not at an instant: an output that is on, a mover away
// from where it rests, a scene that runs, a state, a contact that is closed.
type Term struct {
	Kind string // channel, mover, scene, state or input
	ID   string
}

// Promise is a rule that the show must keep, whatever happens.
type Promise struct {
	ID   string
	Kind Kept
	A, B Term
	For  int // ms: of Longest the limit; of the others what may pass unnoticed
	Why  string
}

// Kept is what a promise says.
type Kept string

// What may be promised.
const (
	OnWhile Kept = "on while" // A is so while B is
	Never   Kept = "never"    // A and B are never so together
	Longest Kept = "longest"  // A is never so for longer than For
	// built in
	IntoStop Kept = "into its stop" // a mover is driven on at its end
	Alone    Kept = "alone"         // a mover starts after power returns with nobody pressing
	Silent   Kept = "silent"        // a trigger that no press starts any more
)

// BuiltIn are the promises that every machine makes: no output longer than its limit,
// no mover both ways or on at its end, none that starts by itself after a power cut,
// and of every trigger that it can be started again.
func (m Machine) BuiltIn() (out []Promise) {
	for _, c := range m.Channels {
		if c.Longest > 0 {
			out = append(out, Promise{ID: "longest:" + c.ID, Kind: Longest, A: Term{"channel", c.ID}, For: c.Longest})
		}
	}
	for _, v := range m.Movers {
		if v.Up != "" && v.Down != "" {
			out = append(out, Promise{ID: "both-ways:" + v.ID, Kind: Never, A: Term{"channel", v.Up},
				B: Term{"channel", v.Down}})
		}
		if !v.Stops && !v.Circles {
			out = append(
				out,
				Promise{ID: "into-stop:" + v.ID, Kind: IntoStop, A: Term{"mover", v.ID}, For: stopGrace},
			)
		}
		out = append(out, Promise{ID: "alone:" + v.ID, Kind: Alone, A: Term{"mover", v.ID}})
	}
	for _, t := range m.Triggers {
		if t.Latch != Reset {
			out = append(out, Promise{ID: "silent:" + t.ID, Kind: Silent, A: Term{"trigger", t.ID}})
		}
	}
	return out
}

// stopGrace is how long a motor may push on at its end, in ms: time for a contact and
// a coasting gear (common practice, no source).
const stopGrace = 300

// Grace is what passes unnoticed, in ms, of a thing that should be on while another is.
const Grace = 100

// monitor watches one promise over a run.
type monitor struct {
	*Promise
	a, b     int // of the term's kind
	up, down int // of a mover
}

// monitors binds promises to a program; an error names what it does not have.
func (p *program) monitors(promises []Promise) (out []monitor, err error) {
	for i := range promises {
		m := monitor{Promise: &promises[i], a: -1, b: -1, up: -1, down: -1}
		for _, t := range []struct {
			term *Term
			at   *int
		}{{&m.A, &m.a}, {&m.B, &m.b}} {
			if t.term.Kind == "" {
				continue
			}
			if *t.at = p.number(*t.term); *t.at < 0 {
				return nil, fmt.Errorf("there is no %s %s", t.term.Kind, t.term.ID)
			}
		}
		if m.A.Kind == "mover" {
			m.up, m.down = p.movers[m.a].up, p.movers[m.a].down
		}
		out = append(out, m)
	}
	return out, nil
}

// number finds what a term names; -1 for none.
func (p *program) number(t Term) int {
	switch t.Kind {
	case "channel":
		return slices.IndexFunc(p.channels, func(x Channel) bool { return x.ID == t.ID })
	case "mover":
		return slices.IndexFunc(p.movers, func(x mover) bool { return x.ID == t.ID })
	case "scene":
		return slices.IndexFunc(p.scenes, func(x scene) bool { return x.ID == t.ID })
	case "state":
		return slices.Index(p.states, t.ID)
	case "trigger":
		return slices.IndexFunc(p.triggers, func(x trigger) bool { return x.ID == t.ID })
	case "input":
		return slices.IndexFunc(p.inputs, func(x input) bool { return x.ID == t.ID })
	}
	return -1
}

// is reports whether a term is so now.
func (s *sim) is(t Term, n int) bool {
	switch t.Kind {
	case "channel":
		return s.out[n] > 0
	case "mover":
		return s.pos[n] > 0
	case "scene":
		return s.runs[n].playing
	case "state":
		return s.state == n
	case "input":
		return s.raw[n]
	}
	return false
}

// broken is whether a promise is broken at this very moment, but for its time.
func (s *sim) broken(m *monitor, pressed bool) bool {
	switch m.Kind {
	case OnWhile:
		return s.is(m.B, m.b) && !s.is(m.A, m.a)
	case Never:
		return s.is(m.A, m.a) && s.is(m.B, m.b)
	case Longest:
		return s.is(m.A, m.a)
	case IntoStop:
		v := &s.p.movers[m.a]
		up, down := m.up >= 0 && s.out[m.up] > 0, m.down >= 0 && s.out[m.down] > 0
		return up && !down && s.pos[m.a] >= v.travel || down && !up && s.pos[m.a] <= 0
	case Alone:
		return !pressed && (m.up >= 0 && s.out[m.up] > 0 || m.down >= 0 && s.out[m.down] > 0)
	}
	return false
}
