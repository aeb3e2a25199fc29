// Package show runs the behaviour of a display: inputs, triggers and scenes of
// on/off cues, as discrete events in whole milliseconds. The same machine and
// the same presses give the same trace, always.
package show

import (
	"container/heap"
	"fmt"
	"sort"
)

// Input is something a guest or a crew works.
type Input struct {
	ID       string
	Closed   bool // normally closed: pressed means open contact
	MinPulse int  // ms it must be held before it counts
	HoldOff  int  // ms after an accepted press in which the next is ignored
}

// Cue switches one channel on from Start for Length, in ms from the scene's start.
type Cue struct {
	Channel       string
	Start, Length int
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
	latchChoice       = "one-shot, retrigger, momentary or toggle"
)

// shortest is the least duration of a scene in ms: a contact is no faster.
const shortest = 20

// Trigger ties an input to a scene.
type Trigger struct {
	ID, Input, Scene string
	Latch            Latch
	Rest             int // ms after the scene ends in which presses are ignored
}

// Machine is the whole behaviour. Two scenes on one channel: on wins.
type Machine struct {
	Inputs   []Input
	Scenes   []Scene
	Triggers []Trigger
}

// Stimulus is a contact closing or opening at a moment.
type Stimulus struct {
	At    int // ms
	Input string
	Down  bool
}

// Event is one line of the trace.
type Event struct {
	At   int    `json:"at"`
	What string `json:"what"` // press, release, ignored, start, end, on, off
	Who  string `json:"who"`  // input, scene or channel
	Why  string `json:"why,omitempty"`
}

// Trace is all that happened up to Until.
type Trace struct {
	Events []Event
	Until  int
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
// scenes that would repeat without time passing.
func (m Machine) Check() error {
	inputs, scenes := map[string]bool{}, map[string]Scene{}
	for _, i := range m.Inputs {
		inputs[i.ID] = true
	}
	for _, s := range m.Scenes {
		scenes[s.ID] = s
		for _, c := range s.Cues {
			if c.Length <= 0 || c.Start < 0 {
				return fmt.Errorf("scene %s: a cue on %s has no length", s.ID, c.Channel)
			}
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
		}
		switch t.Latch {
		case OneShot, Retrigger, Momentary, Toggle:
		default:
			return fmt.Errorf("trigger %s: latch %q; choose %s", t.ID, t.Latch, latchChoice)
		}
	}
	return nil
}

// Press is a press of an input held for some time.
func Press(input string, at, held int) []Stimulus {
	return []Stimulus{{at, input, true}, {at + held, input, false}}
}

// happening is one entry of the event queue; order at equal times is by rank,
// then by number, so that runs never depend on map order.
type happening struct {
	at, rank, no int
	do           func()
}

type queue []happening

func (q queue) Len() int { return len(q) }
func (q queue) Less(i, j int) bool {
	a, b := q[i], q[j]
	if a.at != b.at {
		return a.at < b.at
	}
	if a.rank != b.rank {
		return a.rank < b.rank
	}
	return a.no < b.no
}
func (q queue) Swap(i, j int) { q[i], q[j] = q[j], q[i] }
func (q *queue) Push(x any)   { *q = append(*q, x.(happening)) }
func (q *queue) Pop() any {
	old := *q
	h := old[len(old)-1]
	*q = old[:len(old)-1]
	return h
}

// run is a scene that is playing.
type run struct {
	generation int // of the latest start; older happenings are void
	playing    bool
	ended      int
}

type sim struct {
	m      Machine
	q      queue
	no     int
	now    int
	trace  *Trace
	down   map[string]int // generation of a held input; 0 is up
	press  int
	last   map[string]int // last accepted press
	runs   map[string]*run
	lit    map[string]map[string]int // channel, by scene: cues on
	scenes map[string]Scene
}

// Run plays the stimuli and returns the trace up to until ms. The machine must
// pass Check.
func (m Machine) Run(stimuli []Stimulus, until int) Trace {
	s := &sim{
		m:      m,
		trace:  &Trace{Until: until},
		down:   map[string]int{},
		last:   map[string]int{},
		runs:   map[string]*run{},
		lit:    map[string]map[string]int{},
		scenes: map[string]Scene{},
	}
	for _, sc := range m.Scenes {
		s.scenes[sc.ID] = sc
	}
	for _, t := range m.Triggers {
		s.runs[t.ID] = &run{ended: -1 << 40}
	}
	for _, st := range stimuli {
		s.at(st.At, 1, func() { s.edge(st) })
	}
	for len(s.q) > 0 && s.q[0].at <= until {
		h := heap.Pop(&s.q).(happening)
		s.now = h.at
		h.do()
	}
	return *s.trace
}

func (s *sim) at(t, rank int, do func()) {
	s.no++
	heap.Push(&s.q, happening{t, rank, s.no, do})
}

func (s *sim) log(what, who, why string) {
	s.trace.Events = append(s.trace.Events, Event{s.now, what, who, why})
}

func (s *sim) edge(st Stimulus) {
	var in Input
	for _, i := range s.m.Inputs {
		if i.ID == st.Input {
			in = i
		}
	}
	if in.ID == "" || st.Down == (s.down[in.ID] > 0) {
		return // unknown, or no edge
	}
	if !st.Down {
		s.down[in.ID] = 0
		s.log("release", in.ID, "")
		for _, t := range s.m.Triggers {
			if r := s.runs[t.ID]; t.Input == in.ID && t.Latch == Momentary && r.playing {
				s.stop(t, "released")
			}
		}
		return
	}
	s.press++
	mine := s.press
	s.down[in.ID] = mine
	s.at(s.now+in.MinPulse, 2, func() {
		if s.down[in.ID] != mine {
			s.log("ignored", in.ID, fmt.Sprintf("shorter than its %d ms least pulse", in.MinPulse))
			return
		}
		if last, ok := s.last[in.ID]; ok && s.now-last < in.HoldOff {
			s.log("ignored", in.ID, fmt.Sprintf("in hold-off for another %d ms", in.HoldOff-(s.now-last)))
			return
		}
		s.last[in.ID] = s.now
		s.log("press", in.ID, "")
		for _, t := range s.m.Triggers {
			if t.Input == in.ID {
				s.pressed(t)
			}
		}
	})
}

func (s *sim) pressed(t Trigger) {
	r := s.runs[t.ID]
	switch {
	case !r.playing && s.now-r.ended < t.Rest:
		s.log("ignored", t.Input, fmt.Sprintf("%s rests for another %d ms", t.Scene, t.Rest-(s.now-r.ended)))
	case r.playing && t.Latch == OneShot:
		s.log("ignored", t.Input, t.Scene+" is still running")
	case r.playing && t.Latch == Toggle:
		s.stop(t, "toggled off")
	case r.playing && t.Latch == Retrigger:
		s.stop(t, "retriggered")
		s.start(t)
	case !r.playing:
		s.start(t)
	}
}

func (s *sim) start(t Trigger) {
	r, sc := s.runs[t.ID], s.scenes[t.Scene]
	r.generation++
	gen := r.generation
	r.playing = true
	s.log("start", sc.ID, string(t.Latch))
	begin := s.now
	live := func(do func()) func() {
		return func() {
			if r.playing && r.generation == gen {
				do()
			}
		}
	}
	for _, c := range sc.Cues {
		s.at(begin+c.Start, 4, live(func() { s.channel(c.Channel, t.ID, +1, sc.ID) }))
		s.at(begin+c.Start+c.Length, 3, live(func() { s.channel(c.Channel, t.ID, -1, sc.ID) }))
	}
	s.at(begin+sc.Duration(), 3, live(func() {
		s.stop(t, "played out")
		if t.Latch == Toggle || t.Latch == Momentary && s.down[t.Input] > 0 {
			s.start(t)
		}
	}))
}

// stop ends a scene and lets go of its channels.
func (s *sim) stop(t Trigger, why string) {
	r := s.runs[t.ID]
	r.playing, r.ended = false, s.now
	var held []string
	for ch, by := range s.lit {
		if by[t.ID] > 0 {
			held = append(held, ch)
		}
	}
	sort.Strings(held)
	for _, ch := range held {
		s.channel(ch, t.ID, -s.lit[ch][t.ID], t.Scene)
	}
	s.log("end", t.Scene, why)
}

func (s *sim) channel(ch, by string, delta int, why string) {
	m := s.lit[ch]
	if m == nil {
		m = map[string]int{}
		s.lit[ch] = m
	}
	total := func() (n int) {
		for _, k := range m {
			n += k
		}
		return
	}
	before := total()
	m[by] = max(0, m[by]+delta)
	switch after := total(); {
	case before == 0 && after > 0:
		s.log("on", ch, why)
	case before > 0 && after == 0:
		s.log("off", ch, why)
	}
}

// Spans is when a channel was on.
func (t Trace) Spans(channel string) []Span {
	var out []Span
	open := -1
	for _, e := range t.Events {
		if e.Who != channel {
			continue
		}
		if e.What == "on" {
			open = e.At
		} else if e.What == "off" && open >= 0 {
			if e.At > open {
				out = append(out, Span{open, e.At})
			}
			open = -1
		}
	}
	if open >= 0 && t.Until > open {
		out = append(out, Span{open, t.Until})
	}
	return out
}

// On reports whether a channel is on at a moment (its end not counted).
func (t Trace) On(channel string, at int) bool {
	for _, s := range t.Spans(channel) {
		if at >= s.From && at < s.To {
			return true
		}
	}
	return false
}

// Moments is every time at which a channel changes, in order, from 0.
func (t Trace) Moments() []int {
	out := []int{0}
	for _, e := range t.Events {
		if (e.What == "on" || e.What == "off") && e.At != out[len(out)-1] {
			out = append(out, e.At)
		}
	}
	return out
}
