// Package show runs the behaviour of a display: inputs, states, scenes of cues and
// the movers they drive, as discrete events in whole milliseconds. The same machine
// and the same contacts give the same trace, always; whatever happens in one
// millisecond is settled before any output changes, so that no output is ever in
// two states. The controller's program that is handed over does the same.
package show

import (
	"fmt"
	"slices"
)

// Input is something that starts a reaction: a contact a guest or the crew works, or
// what the controller knows by itself: a timer, a scene that began or ended, power.
type Input struct {
	ID       string
	Closed   bool // normally closed: pressed means open contact
	MinPulse int  // ms it must be held before it counts
	HoldOff  int  // ms after an accepted press in which the next is ignored
	// of the contact itself, which the world does and no program knows
	Bounce  int // ms a contact bounces when it closes
	Hold    int // ms a sensor stays on after what it saw has gone
	WarmUp  int // ms after power in which a sensor sees nothing
	Latency int // ms until it is told: a remote
	// of what the controller knows by itself
	Kind  Source
	Every int    // ms: of a timer
	State string // of a timer: runs only in this state, from when it was entered
	Scene string // of a scene's beginning or end
	// of a limit switch: the mover that works it, and where along its travel
	Mover string
	At    int  // per cent of the travel
	Below bool // it is worked from there down, not from there up
}

// Source is what works an input.
type Source string

// The sources.
const (
	Contact Source = ""      // wired to a pin
	Timer   Source = "timer" // every so often, or once so long after a state began
	Began   Source = "began" // a scene begins
	Ended   Source = "ended" // a scene has played out
	Power   Source = "power" // the controller is powered up
)

// Channel is an output with the rule for two scenes that want it at once.
type Channel struct {
	ID      string
	Rule    Contention
	Never   string // never on together with this one: the first to be on holds
	Longest int    // ms it may be on at a stretch; 0 is no limit
}

// Contention is which of several scenes an output follows.
type Contention string

// The rules.
const (
	Highest  Contention = ""         // the highest level wins
	Latest   Contention = "latest"   // the scene that began last
	Priority Contention = "priority" // the trigger that stands first
)

// Cue works one channel from Start for Length, in ms from the scene's start.
type Cue struct {
	Channel       string
	Start, Length int
	Shape         Shape
	Level         int // per cent at most; 0 is 100
}

// Scene is a timeline of cues. A length of 0 ends with its last cue.
type Scene struct {
	ID     string
	Length int
	Cues   []Cue
}

// Latch is how presses start and stop a scene.
type Latch string

// The latches.
const (
	OneShot     Latch = "one-shot"  // runs once; presses meanwhile are ignored
	Retrigger   Latch = "retrigger" // every press starts it afresh
	Momentary   Latch = "momentary" // repeats while held
	Toggle      Latch = "toggle"    // one press starts it repeating, the next stops it
	Set         Latch = "set"       // starts it repeating; only a reset stops it
	Reset       Latch = "reset"     // stops it, whoever started it
	latchChoice       = "one-shot, retrigger, momentary, toggle, set or reset"
)

// Latches lists them.
var Latches = []Latch{OneShot, Retrigger, Momentary, Toggle, Set, Reset}

// shortest is the least duration of a scene in ms: a contact is no faster.
const shortest = 20

// Trigger ties an input to a scene.
type Trigger struct {
	ID, Input, Scene string
	Latch            Latch
	Rest             int    // ms after the scene ends in which presses are ignored
	While            string // only in this state; any when empty
	Then             string // the state that begins as it fires; the same when empty
}

// Mover is something driven along a travel between two ends: what limit switches see.
type Mover struct {
	ID       string
	Up, Down string // channels; no Down is let fall or springs back
	UpTime   int    // ms for the whole travel
	DownTime int    // ms; as long as UpTime when 0
	Falls    bool   // not held when nothing drives it: it goes back by itself
	Stops    bool   // its end switches take the motor's current away at the ends
	Circles  bool   // it goes round: there is no end to be driven into
}

// Load is what a supply gives with every channel off, and what each channel takes more.
type Load struct {
	Supply string
	Rest   float64 // A with every channel off
	Amps   map[string]float64
}

// Machine is the whole behaviour.
type Machine struct {
	Inputs   []Input
	Channels []Channel // those with a rule; any other is as it comes
	Scenes   []Scene
	Triggers []Trigger
	Movers   []Mover
	State    string // that power-up begins in
}

// Stimulus is a contact worked or let go at a moment; of the input "power", power
// lost (not Down) or back.
type Stimulus struct {
	At    int // ms
	Input string
	Down  bool
}

// Mains is the stimulus of power itself.
const Mains = "power"

// Event is one line of the trace.
type Event struct {
	At    int    `json:"at"`
	What  string `json:"what"` // press, release, ignored, start, end, on, off, level, state, power
	Who   string `json:"who"`  // input, scene, channel or state
	Why   string `json:"why,omitempty"`
	Level int    `json:"level,omitempty"` // per cent, of on and level
}

// Trace is all that happened up to Until.
type Trace struct {
	Events []Event
	Until  int
	Moves  []Move
}

// Move is a mover's place from a moment on, going on at its speed until the next.
type Move struct {
	At    int    `json:"at"`
	Mover string `json:"mover"`
	Pos   int    `json:"pos"` // thousandths of its travel
	Dir   int    `json:"dir"` // 1 up, -1 down, 0 still
}

// Span is a stretch of time a channel was on.
type Span struct{ From, To int }

// Duration is the scene's running time in ms.
func (s Scene) Duration() int {
	d := s.Length
	if d == 0 {
		for _, c := range s.Cues {
			d = max(d, c.Start+c.Length)
		}
	}
	return d
}

// Check refuses a machine that cannot run: unknown names, cues of no length,
// scenes that would repeat without time passing, timers that never stop.
func (m Machine) Check() error {
	inputs, scenes := map[string]bool{}, map[string]Scene{}
	for _, s := range m.Scenes {
		scenes[s.ID] = s
		for _, c := range s.Cues {
			if c.Length <= 0 || c.Start < 0 {
				return fmt.Errorf("scene %s: a cue on %s has no length", s.ID, c.Channel)
			}
		}
	}
	for _, i := range m.Inputs {
		inputs[i.ID] = true
		if _, ok := scenes[i.Scene]; !ok && (i.Kind == Began || i.Kind == Ended) {
			return fmt.Errorf("input %s: there is no scene %q", i.ID, i.Scene)
		}
		if i.Kind == Timer && i.Every < shortest {
			return fmt.Errorf("input %s: a timer of %d ms; make it %d ms or longer", i.ID, i.Every, shortest)
		}
	}
	for _, t := range m.Triggers {
		s, ok := scenes[t.Scene]
		switch {
		case !inputs[t.Input]:
			return fmt.Errorf("trigger %s: there is no input %q", t.ID, t.Input)
		case !ok:
			return fmt.Errorf("trigger %s: there is no scene %q", t.ID, t.Scene)
		case s.Duration() <= 0:
			return fmt.Errorf("scene %s has no cues; add one", s.ID)
		case s.Duration() < shortest:
			return fmt.Errorf("scene %s lasts %d ms; make it %d ms or longer", s.ID, s.Duration(), shortest)
		case !slices.Contains(Latches, t.Latch):
			return fmt.Errorf("trigger %s: latch %q; choose %s", t.ID, t.Latch, latchChoice)
		}
	}
	return nil
}

// Press is a press of an input held for some time.
func Press(input string, at, held int) []Stimulus {
	return []Stimulus{{at, input, true}, {at + held, input, false}}
}
