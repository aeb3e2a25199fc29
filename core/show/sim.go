package show

import (
	"fmt"
	"slices"
)

// sim plays one moment after another.
type sim struct {
	p *program
	*snapshot
	coarse bool   // levels do not matter: only whether an output is on
	trace  *Trace // nil when only the state is wanted
	// contacts as the controller's pins see them, bounces and limit switches too
	contacts []Stimulus
	queue    []int // inputs that the controller worked itself, in this moment
	want     []int
}

// Run plays the stimuli and returns the trace up to until ms. The machine must
// pass Check.
func (m Machine) Run(stimuli []Stimulus, until int) Trace {
	t, _ := m.Contacts(stimuli, until)
	return t
}

// Contacts is Run with each contact as the controller's pins see it: those of limit
// switches, bounces and sensors' holds among them.
func (m Machine) Contacts(stimuli []Stimulus, until int) (Trace, []Stimulus) {
	p := compile(m)
	s := &sim{p: p, snapshot: p.start(), trace: &Trace{Until: until}}
	s.woken()
	s.settled()
	s.play(stimuli, until)
	return *s.trace, s.contacts
}

// play goes on until a time, with what is done meanwhile.
func (s *sim) play(stimuli []Stimulus, until int) {
	all := s.p.felt(stimuli)
	for {
		t := s.next()
		if len(all) > 0 && (t < 0 || all[0].at <= t) {
			t = all[0].at
		}
		if t < 0 || t > until {
			break
		}
		n := 0
		for n < len(all) && all[n].at <= t {
			n++
		}
		s.tick(max(t, s.now), all[:n])
		all = all[n:]
	}
	s.glide(until)
}

// pressed plays a press of an input that begins now and is held so long, and what it sets
// going, for so many moments and until a time; each is called after every one, a false ends
// it.
func (s *sim) pressed(i, held, moments, until int, each func(t int) bool) {
	edges := []edge{{s.now, i, true}, {s.now + held, i, false}}
	for range moments {
		t := s.next()
		if len(edges) > 0 && (t < 0 || edges[0].at <= t) {
			t = edges[0].at
		}
		if t < 0 || t > until {
			return
		}
		m := 0
		for m < len(edges) && edges[m].at <= t {
			m++
		}
		s.tick(t, edges[:m])
		edges = edges[m:]
		if !each(t) {
			return
		}
	}
}

// edge is a stimulus by its number; that of power itself is -1.
type edge struct {
	at, input int
	down      bool
}

// felt are the stimuli that a machine knows, later by their latency, in order.
func (p *program) felt(stimuli []Stimulus) (out []edge) {
	for _, st := range stimuli {
		if st.Input == Mains {
			out = append(out, edge{st.At, -1, st.Down})
			continue
		}
		for i, in := range p.inputs {
			if in.ID == st.Input && in.Kind == Contact {
				out = append(out, edge{st.At + in.Latency, i, st.Down})
			}
		}
	}
	slices.SortStableFunc(out, func(a, b edge) int { return a.at - b.at })
	return out
}

func (s *sim) log(what, who, why string, level int) {
	if s.trace != nil {
		s.trace.Events = append(s.trace.Events, Event{s.now, what, who, why, level})
	}
}

// next is when something happens by itself; -1 for never.
func (s *sim) next() int {
	best := -1
	at := func(t int) {
		if t >= 0 && (best < 0 || t < best) {
			best = t
		}
	}
	for i := range s.p.inputs {
		at(s.due[i])
		at(s.timer[i])
		at(s.settleAt[i])
		if s.seen[i] >= 0 {
			at(s.seen[i] + s.p.inputs[i].Hold)
		}
	}
	for i := range s.runs {
		r := &s.runs[i]
		if !r.playing {
			continue
		}
		sc := &s.p.scenes[i]
		at(r.begin + sc.long)
		for _, c := range sc.cues {
			switch since := s.now - r.begin - c.Start; {
			case since < 0:
				at(r.begin + c.Start)
			case since < c.Length && s.coarse:
				at(r.begin + c.Start + c.Length)
			case since < c.Length:
				at(r.begin + c.Start + c.next(since))
			}
		}
	}
	for i := range s.p.movers {
		if t := s.reaches(i); t > 0 {
			at(s.now + t)
		}
	}
	return best
}

// tick is one moment: all that happens in it, and then the outputs.
func (s *sim) tick(t int, edges []edge) {
	s.glide(t)
	for _, e := range edges {
		if e.input < 0 {
			s.powerIs(e.down)
		}
	}
	for i := range s.p.inputs { // what the travel works
		if in := &s.p.inputs[i]; in.mover >= 0 {
			was, is := s.works(i)
			if was != is {
				s.contact(i, is)
			}
		}
	}
	for i := range s.p.inputs {
		if s.settleAt[i] == t {
			s.settle[i]--
			s.settleAt[i] = -1
			closed := s.settle[i]%2 == 0
			if s.settle[i] > 0 {
				s.settleAt[i] = t + max(1, s.p.inputs[i].Bounce/4)
			}
			s.change(i, closed)
		}
		if s.seen[i] >= 0 && s.seen[i]+s.p.inputs[i].Hold == t {
			s.seen[i] = -1
			s.change(i, false)
		}
	}
	for _, e := range edges {
		if e.input >= 0 {
			s.contact(e.input, e.down)
		}
	}
	if s.powered {
		s.counts(t)
	}
	s.settled()
}

// counts is what the controller makes of its contacts and its clock in one moment.
func (s *sim) counts(t int) {
	for i := range s.p.inputs {
		if s.due[i] == t {
			s.due[i] = -1
			s.accept(i)
		}
	}
	for i := range s.p.inputs {
		if s.timer[i] == t {
			s.timer[i] = -1
			if s.p.inputs[i].state < 0 {
				s.timer[i] = t + s.p.inputs[i].Every
			}
			s.accept(i)
		}
	}
	for i := range s.runs {
		r := &s.runs[i]
		if !r.playing || r.begin+s.p.scenes[i].long != t {
			continue
		}
		s.stop(i, "played out")
		tr := &s.p.triggers[r.by]
		if tr.Latch == Toggle || tr.Latch == Set || tr.Latch == Momentary && s.held[tr.input] {
			s.begin(r.by)
		}
	}
	for len(s.queue) > 0 {
		i := s.queue[0]
		s.queue = s.queue[1:]
		s.accept(i)
	}
}

// contact is a contact worked: it may bounce, or hold on, or be a sensor not warm yet.
func (s *sim) contact(i int, down bool) {
	in := &s.p.inputs[i]
	if down && s.powered && s.now-s.since < in.WarmUp {
		s.log("ignored", in.ID, fmt.Sprintf("warms up for another %d ms", in.WarmUp-(s.now-s.since)), 0)
		return
	}
	if in.Hold > 0 {
		if !down {
			if s.raw[i] {
				s.seen[i] = s.now
			}
			return
		}
		s.seen[i] = -1
	}
	if down && !s.raw[i] && in.Bounce > 0 {
		s.settle[i], s.settleAt[i] = 2, s.now+max(1, in.Bounce/4)
	}
	if !down {
		s.settle[i], s.settleAt[i] = 0, -1
	}
	s.change(i, down)
}

// change is a contact as the pin sees it.
func (s *sim) change(i int, down bool) {
	if down == s.raw[i] {
		return
	}
	s.raw[i] = down
	in := &s.p.inputs[i]
	if s.trace != nil {
		s.contacts = append(s.contacts, Stimulus{s.now, in.ID, down})
	}
	if !s.powered {
		return
	}
	if down {
		s.due[i] = s.now + in.MinPulse
		return
	}
	if s.due[i] >= 0 {
		s.due[i] = -1
		s.log("ignored", in.ID, fmt.Sprintf("shorter than its %d ms least pulse", in.MinPulse), 0)
		return
	}
	if !s.held[i] {
		return
	}
	s.held[i] = false
	s.log("release", in.ID, "", 0)
	for _, k := range s.p.by[i] {
		t := &s.p.triggers[k]
		if r := &s.runs[t.scene]; t.Latch == Momentary && r.playing && r.by == k {
			s.stop(t.scene, "released")
		}
	}
}

// accept is an input that counts.
func (s *sim) accept(i int) {
	in := &s.p.inputs[i]
	if in.Kind == Contact {
		s.held[i] = true
		if left := s.accepted[i] + in.HoldOff - s.now; left > 0 {
			s.log("ignored", in.ID, fmt.Sprintf("in hold-off for another %d ms", left), 0)
			return
		}
		s.accepted[i] = s.now
	}
	s.log("press", in.ID, "", 0)
	state := s.state // all of its triggers see the state it came in
	for _, k := range s.p.by[i] {
		if t := &s.p.triggers[k]; t.while >= 0 && t.while != state {
			s.log("ignored", in.ID, "only while "+t.While, 0)
		} else if in.Kind == Contact || s.fired[k] != s.now {
			s.fire(k)
		}
	}
}

// fire is a trigger whose input counts.
func (s *sim) fire(k int) {
	t := &s.p.triggers[k]
	r := &s.runs[t.scene]
	switch {
	case t.Latch == Reset && r.playing:
		s.stop(t.scene, "stopped")
	case t.Latch == Reset:
		s.log("ignored", t.Input, t.Scene+" is not running", 0)
	case !r.playing && s.now-r.ended < t.Rest:
		s.log("ignored", t.Input, fmt.Sprintf("%s rests for another %d ms", t.Scene, t.Rest-(s.now-r.ended)), 0)
		return
	case r.playing && t.Latch == Toggle:
		s.stop(t.scene, "toggled off")
	case r.playing && t.Latch == Retrigger:
		s.stop(t.scene, "retriggered")
		s.begin(k)
	case r.playing:
		s.log("ignored", t.Input, t.Scene+" is still running", 0)
		return
	default:
		s.begin(k)
	}
	if t.then >= 0 && t.then != s.state {
		s.state, s.entered = t.then, s.now
		s.acts++
		s.log("state", t.Then, "", 0)
		s.p.setTimers(s.snapshot, false)
	}
}

// begin starts the scene of a trigger.
func (s *sim) begin(k int) {
	sc := s.p.triggers[k].scene
	r := &s.runs[sc]
	r.playing, r.begin, r.by = true, s.now, k
	s.acts++
	s.fired[k] = s.now
	s.log("start", s.p.scenes[sc].ID, string(s.p.triggers[k].Latch), 0)
	s.queued(Began, sc)
}

func (s *sim) stop(sc int, why string) {
	r := &s.runs[sc]
	r.playing, r.ended = false, s.now
	s.acts++
	s.log("end", s.p.scenes[sc].ID, why, 0)
	if why == "played out" {
		s.queued(Ended, sc)
	}
}

// queued queues the inputs that a scene's beginning or end is.
func (s *sim) queued(kind Source, sc int) {
	for i := range s.p.inputs {
		if s.p.inputs[i].Kind == kind && s.p.inputs[i].scene == sc {
			s.queue = append(s.queue, i)
		}
	}
}

// powerIs is power lost or back.
func (s *sim) powerIs(on bool) {
	if on == s.powered {
		return
	}
	if on {
		s.p.wake(s.snapshot)
		s.log("power", Mains, "back", 0)
		s.woken()
		return
	}
	s.powered = false
	s.log("power", Mains, "lost", 0)
	s.queue = nil
	for i := range s.runs {
		s.runs[i].playing = false
	}
	for i := range s.p.inputs {
		s.due[i], s.timer[i] = -1, -1
	}
}

// woken is what power-up starts.
func (s *sim) woken() {
	for _, i := range s.p.power {
		s.accept(i)
	}
	for len(s.queue) > 0 {
		i := s.queue[0]
		s.queue = s.queue[1:]
		s.accept(i)
	}
}

// wants is what the scenes that run want of a channel, by its rule.
func (s *sim) wants(ch int) int {
	rule := s.p.channels[ch].Rule
	level, chosen, begun := 0, false, 0
	for k := range s.runs {
		r := &s.runs[k]
		if !r.playing {
			continue
		}
		for i := range s.p.scenes[k].cues {
			c := &s.p.scenes[k].cues[i]
			since := s.now - r.begin - c.Start
			if c.channel != ch || since < 0 || since >= c.Length {
				continue
			}
			l := 100
			if !s.coarse || blinks[c.Shape] > 0 {
				l = c.level(since)
			}
			switch {
			case rule == Latest && (!chosen || r.begin >= begun):
				level, begun = l, r.begin
			case rule == Priority && !chosen:
				level = l
			case rule == Highest:
				level = max(level, l)
			}
			chosen = true
		}
	}
	return level
}

// settled sets the outputs to what this moment comes to: first those that were on, so
// that of two that must never be on together the one that holds keeps the other off.
func (s *sim) settled() {
	want := s.want[:0]
	for ch := range s.p.channels {
		l := 0
		if s.powered {
			l = s.wants(ch)
		}
		want = append(want, l)
	}
	s.want = want
	for _, held := range []bool{true, false} {
		for ch := range want {
			if (s.out[ch] > 0) != held || want[ch] == 0 {
				continue
			}
			for _, k := range s.p.never[ch] {
				// the other is granted already: it was on, or stands first
				if want[k] > 0 && (s.out[k] > 0 && !held || (s.out[k] > 0) == held && k < ch) {
					want[ch] = 0
				}
			}
		}
	}
	for ch, is := range want {
		was := s.out[ch]
		if is == was {
			continue
		}
		s.out[ch] = is
		if (is > 0) != (was > 0) {
			s.on[ch] = s.now
		}
		id := s.p.channels[ch].ID
		switch {
		case was == 0:
			s.log("on", id, "", is)
		case is == 0:
			s.log("off", id, "", 0)
		default:
			s.log("level", id, "", is)
		}
	}
	s.steer()
}
