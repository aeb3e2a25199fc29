package show

import (
	"encoding/binary"
	"slices"
	"sort"
)

// Search is a look for the shortest sequence of events that breaks a promise.
type Search struct {
	Machine  Machine
	Promises []Promise // the builder's own, besides those built in
	Depth    int       // events at most
	Most     int       // moments worked out at most, in all; 0 is some two seconds' worth
	// told after each depth; a false ends the search. May be nil.
	Progress func(depth, states int) bool
}

// Broken is a promise with the shortest sequence of events found that breaks it.
type Broken struct {
	Promise Promise
	Events  int // of the sequence
	At      int // ms, when it is broken
	Stimuli []Stimulus
	Steps   []string // the events in words, by IDs: "press mat", "bounce top", "power"
}

// Found is what a search came to.
type Found struct {
	Broken     []Broken
	Depth      int  // to which all was looked at
	Exhaustive bool // every order of events to the depth that was asked for
	Loops      bool // something repeats for ever: looked at for twice its time
	States     int  // that differ
	Moments    int  // worked out
}

// Of is the breach of a promise, or nil.
func (f Found) Of(id string) *Broken {
	for i := range f.Broken {
		if f.Broken[i].Promise.ID == id {
			return &f.Broken[i]
		}
	}
	return nil
}

// AfterPower stands before the ID of a promise that is broken only once power was lost.
const AfterPower = "power:"

const (
	bouncing = 19     // ms: a contact's first touch, of the 5 to 20 ms it bounces (common practice, no source)
	apart    = 2      // ms that it is open between
	tapped   = 60     // ms that a tap lasts beyond what it must
	cut      = 1000   // ms that a power cut lasts
	farthest = 600000 // ms: no scene is waited for longer
)

// state is a moment with what is still to come and what is watched.
type state struct {
	*moment
	closed  []int  // when each contact closed last
	pending []edge // contacts to be let go, power to come back
	since   []int  // of each promise: since when it is broken; -1 for not
	cut     bool   // there was a power cut
	pressed bool   // someone pressed something since power
	from    *state
	step    string
	stimuli []Stimulus // what this step was
	depth   int
}

type searcher struct {
	Search
	p       *program
	watch   []monitor
	seen    map[string]bool
	found   Found
	broken  map[string]bool
	asleep  map[string]bool // quiet states that were tried for what starts
	canFire []bool          // from the beginning
	ticks   int
	most    int
	horizon int
	lasting bool // a promise is about how long something may be on
	spare   []byte
	before  []bool
}

// Run searches breadth first, so that what it finds is shortest: over presses, taps
// that bounce, limit switches that bounce and power cuts, at every moment at which
// anything changes and between them.
func (q Search) Run() (Found, error) {
	if err := q.Machine.Check(); err != nil {
		return Found{}, err
	}
	r := &searcher{Search: q, p: compile(q.Machine), seen: map[string]bool{}, broken: map[string]bool{},
		asleep: map[string]bool{}, most: q.Most}
	if r.most == 0 {
		r.most = 400_000
	}
	all := append(q.Machine.BuiltIn(), q.Promises...)
	var err error
	if r.watch, err = r.p.monitors(all); err != nil {
		return Found{}, err
	}
	for i := range r.watch {
		r.lasting = r.lasting || r.watch[i].Kind == Longest
	}
	for i := range r.p.scenes {
		r.horizon = max(r.horizon, r.p.scenes[i].long)
	}
	far := 0
	for i := range r.p.triggers {
		far = max(far, r.p.triggers[i].Rest)
	}
	for i := range r.p.inputs {
		far = max(far, r.p.inputs[i].HoldOff, r.p.inputs[i].Every, r.p.inputs[i].WarmUp)
	}
	for i := range r.p.movers {
		far = max(far, r.p.movers[i].UpTime, r.p.movers[i].DownTime)
	}
	r.horizon = min(farthest, 2*(r.horizon+far)+3000)
	r.search()
	return r.found, nil
}

// search goes depth by depth.
func (r *searcher) search() {
	s := &sim{p: r.p, moment: r.p.start(), coarse: true}
	s.woken()
	s.settled()
	first := &state{
		moment:  s.moment,
		closed:  fill(len(r.p.inputs), never),
		since:   fill(len(r.watch), -1),
		pressed: true,
	}
	r.observe(s, first, 0)
	r.canFire = r.starts(first, 2)
	front := []*state{first}
	whole := true
	for depth := 0; ; depth++ {
		last := depth >= r.Depth
		var next []*state
		for _, st := range front {
			next = append(next, r.follow(st, last)...)
			if r.ticks > r.most {
				whole = false
				break
			}
		}
		if whole {
			r.found.Depth = depth
		}
		if last || !whole || len(next) == 0 || r.Progress != nil && !r.Progress(depth, len(r.seen)) {
			whole = whole && (last || len(next) == 0)
			if whole {
				r.found.Depth = r.Depth // nothing new can happen any more
			}
			break
		}
		front = next
	}
	r.found.Exhaustive = whole
	r.found.States, r.found.Moments = len(r.seen), r.ticks
	sort.SliceStable(
		r.found.Broken,
		func(i, j int) bool { return r.found.Broken[i].Events < r.found.Broken[j].Events },
	)
}

// follow plays a state on with nothing more happening, and watches it; then tries every
// event at every moment of that, unless it is the last.
func (r *searcher) follow(st *state, last bool) []*state {
	run := st.twin()
	s := &sim{p: r.p, moment: run.moment, coarse: true}
	times := []int{s.now}
	was := look(s)
	end := s.now + r.horizon
	for {
		t := r.upcoming(s, run)
		if t < 0 || t > end || r.ticks > r.most {
			if t > end {
				r.found.Loops = true
			}
			break
		}
		r.advance(s, run, t)
		if is := look(s); is != was { // a contact let go is nothing to anybody
			was = is
			times = append(times, t)
		}
	}
	if r.upcoming(s, run) < 0 {
		r.observe(s, run, end+farthest) // what goes on for ever
		r.quiet(run)
	}
	if last {
		return nil
	}
	return r.branch(st, r.choices(run, times))
}

// look is what can be seen of a machine from outside, and what it will answer.
func look(s *sim) uint64 {
	h := uint64(14695981039346656037)
	mix := func(v int) { h = (h ^ uint64(v+7)) * 1099511628211 }
	for i := range s.runs {
		if s.runs[i].playing {
			mix(i)
		}
	}
	for _, v := range s.out {
		mix(v)
	}
	for _, v := range s.dir {
		mix(v)
	}
	mix(s.state)
	if s.powered {
		mix(1)
	}
	for i := range s.raw {
		if s.raw[i] && s.p.inputs[i].mover >= 0 {
			mix(i)
		}
	}
	return h
}

// upcoming is when something happens next: by itself, or by what is pending; -1 for never.
func (r *searcher) upcoming(s *sim, st *state) int {
	t := s.next()
	for _, e := range st.pending {
		if t < 0 || e.at < t {
			t = e.at
		}
	}
	return t
}

// advance goes to a moment and watches what holds until then and from then on.
func (r *searcher) advance(s *sim, st *state, t int) {
	r.observe(s, st, t)
	var due []edge
	st.pending = slices.DeleteFunc(st.pending, func(e edge) bool {
		if e.at <= t {
			due = append(due, e)
			return true
		}
		return false
	})
	r.before = append(r.before[:0], s.raw...)
	s.tick(t, due)
	r.ticks++
	for i, was := range r.before {
		if s.raw[i] && !was {
			st.closed[i] = t
		}
	}
	for _, e := range due {
		if e.input < 0 && e.down {
			st.pressed = false
		} else if e.down {
			st.pressed = true
		}
	}
	r.observe(s, st, t)
}

// observe watches the promises over the time from now until t, in which nothing changes.
func (r *searcher) observe(s *sim, st *state, t int) {
	for i := range r.watch {
		m := &r.watch[i]
		if m.Kind == Silent {
			continue
		}
		if !s.powered || !s.broken(m, st.pressed) {
			st.since[i] = -1
			continue
		}
		if st.since[i] < 0 {
			st.since[i] = s.now
		}
		if t-st.since[i] > m.For || m.For == 0 {
			r.breach(st, m, st.since[i]+m.For)
		}
	}
}

// breach keeps the first, and so shortest, way to break a promise.
func (r *searcher) breach(st *state, m *monitor, at int) {
	b := Broken{Promise: *m.Promise, At: at, Events: st.depth}
	if st.cut && m.Kind != Alone { // told by itself: what mends the one does not mend the other
		if r.broken[m.ID] {
			return
		}
		b.Promise.ID = AfterPower + b.Promise.ID
	}
	if r.broken[b.Promise.ID] {
		return
	}
	r.broken[b.Promise.ID] = true
	for x := st; x != nil; x = x.from {
		if x.step != "" {
			b.Steps = append(b.Steps, x.step)
			b.Stimuli = append(slices.Clone(x.stimuli), b.Stimuli...)
		}
	}
	slices.Reverse(b.Steps)
	sort.SliceStable(b.Stimuli, func(i, j int) bool { return b.Stimuli[i].At < b.Stimuli[j].At })
	r.found.Broken = append(r.found.Broken, b)
}

// choice is an event at a time.
type choice struct {
	at    int
	input int // -1 is power
	how   string
}

// choices are the events that can come, each so that it counts at, or between, the
// moments at which anything changes.
func (r *searcher) choices(run *state, times []int) (out []choice) {
	begin := times[0]
	var edges []int
	edges = append(edges, times...)
	for i := range r.p.inputs { // hold-offs and rests that end
		if n := run.accepted[i] + r.p.inputs[i].HoldOff; r.p.inputs[i].HoldOff > 0 && n > begin {
			edges = append(edges, n)
		}
	}
	for k := range r.p.triggers {
		t := &r.p.triggers[k]
		if n := run.runs[t.scene].ended + t.Rest; t.Rest > 0 && n > begin {
			edges = append(edges, n)
		}
	}
	slices.Sort(edges)
	edges = slices.Compact(edges)
	edges = append(edges, edges[len(edges)-1]+1000)
	at := []int{begin}
	for i, t := range edges {
		if i+1 == len(edges) {
			break
		}
		at = append(at, (t+edges[i+1])/2)
		if r.lasting { // just before the change: what adds up to most
			at = append(at, edges[i+1]-1)
		}
	}
	at = append(at, edges[len(edges)-1]) // when all is quiet again
	add := func(c choice) {
		if !slices.Contains(out, c) {
			out = append(out, c)
		}
	}
	for _, t := range edges { // a switch bounces just as it closes
		for i := range r.p.inputs {
			if in := &r.p.inputs[i]; in.mover >= 0 && in.MinPulse <= bouncing && len(r.p.by[i]) > 0 {
				add(choice{t, i, "bounce"})
			}
		}
	}
	for _, t := range at {
		for i := range r.p.inputs {
			in := &r.p.inputs[i]
			if in.Kind != Contact || in.mover >= 0 || len(r.p.by[i]) == 0 {
				continue
			}
			from := max(begin, t-in.MinPulse)
			add(choice{from, i, "press"})
			if in.MinPulse <= bouncing {
				add(choice{from, i, "bounce"})
			}
			for _, k := range r.p.by[i] {
				if r.p.triggers[k].Latch == Momentary {
					add(choice{from, i, "hold"})
				}
			}
		}
		add(choice{t, -1, "power"})
	}
	sort.SliceStable(out, func(i, j int) bool { return out[i].at < out[j].at })
	return out
}

// branch plays a state on to each choice's time and there makes the event: the states
// that are new.
func (r *searcher) branch(st *state, choices []choice) (out []*state) {
	run := st.twin()
	s := &sim{p: r.p, moment: run.moment, coarse: true}
	for _, c := range choices {
		for {
			t := r.upcoming(s, run)
			if t < 0 || t > c.at {
				break
			}
			r.advance(s, run, t)
		}
		if s.now < c.at {
			r.observe(s, run, c.at)
			s.glide(c.at)
		}
		next := r.event(st, run, c)
		if next == nil {
			continue
		}
		if key := r.key(next); !r.seen[key] {
			r.seen[key] = true
			out = append(out, next)
		}
		if r.ticks > r.most {
			break
		}
	}
	return out
}

// event is the state after an event; nil when it cannot come now.
func (r *searcher) event(st, run *state, c choice) *state {
	if !run.powered {
		return nil
	}
	next := run.twin()
	next.from, next.depth, next.stimuli = st, st.depth+1, nil
	now := next.now
	var edges []edge
	if c.input < 0 {
		next.step, next.cut = "power", true
		edges = []edge{{now, -1, false}, {now + cut, -1, true}}
	} else {
		in := &r.p.inputs[c.input]
		next.step = c.how + " " + in.ID
		switch tap := in.MinPulse + tapped; {
		case in.mover >= 0: // just as it closes
			if !next.raw[c.input] || next.closed[c.input] != now {
				return nil
			}
			edges = []edge{{now + bouncing, c.input, false}, {now + bouncing + apart, c.input, true}}
		case next.raw[c.input] || slices.ContainsFunc(next.pending, func(e edge) bool { return e.input == c.input }):
			return nil // it is pressed already
		case c.how == "bounce":
			edges = []edge{{now, c.input, true}, {now + bouncing, c.input, false},
				{now + bouncing + apart, c.input, true}, {now + bouncing + apart + tap, c.input, false}}
		case c.how == "hold":
			edges = []edge{{now, c.input, true}, {now + r.horizon/2, c.input, false}}
		default:
			edges = []edge{{now, c.input, true}, {now + tap, c.input, false}}
		}
	}
	for _, e := range edges {
		name := Mains
		if e.input >= 0 {
			name = r.p.inputs[e.input].ID
		}
		next.stimuli = append(next.stimuli, Stimulus{e.at, name, e.down})
	}
	next.pending = append(next.pending, edges...)
	s := &sim{p: r.p, moment: next.moment, coarse: true}
	for _, e := range next.pending {
		if e.at <= now {
			r.advance(s, next, now)
			break
		}
	}
	return next
}

func (st *state) twin() *state {
	c := *st
	c.moment = st.moment.copy()
	c.closed, c.pending, c.since = slices.Clone(st.closed), slices.Clone(st.pending), slices.Clone(st.since)
	return &c
}

// quiet looks at a state in which nothing goes on: all that could be started at first
// must be startable still.
func (r *searcher) quiet(st *state) {
	if !st.powered {
		return
	}
	key := r.key(st)
	if r.asleep[key] {
		return
	}
	r.asleep[key] = true
	can := r.starts(st, 2)
	for i := range r.watch {
		m := &r.watch[i]
		if m.Kind != Silent || !r.canFire[m.a] || can[m.a] {
			continue
		}
		if can = r.starts(st, 4); !can[m.a] { // it may take more to get there from here
			r.breach(st, m, st.now)
		}
	}
}

// starts are the triggers that so many taps, each when all is quiet again, can start.
func (r *searcher) starts(st *state, taps int) []bool {
	can := make([]bool, len(r.p.triggers))
	var try func(st *state, left int)
	try = func(st *state, left int) {
		for i := range r.p.inputs {
			in := &r.p.inputs[i]
			if in.Kind != Contact || in.mover >= 0 || len(r.p.by[i]) == 0 {
				continue
			}
			run := st.twin()
			s := &sim{p: r.p, moment: run.moment, coarse: true}
			wait := s.now
			for k := range r.p.triggers {
				wait = max(wait, s.runs[r.p.triggers[k].scene].ended+r.p.triggers[k].Rest)
			}
			for k := range r.p.inputs {
				wait = max(wait, s.accepted[k]+r.p.inputs[k].HoldOff)
			}
			s.glide(wait)
			begin := s.now
			edges := []edge{{begin, i, true}, {begin + in.MinPulse + tapped, i, false}}
			for n := 0; n < 400; n++ {
				t := s.next()
				if len(edges) > 0 && (t < 0 || edges[0].at <= t) {
					t = edges[0].at
				}
				if t < 0 || t > begin+r.horizon {
					break
				}
				m := 0
				for m < len(edges) && edges[m].at <= t {
					m++
				}
				s.tick(t, edges[:m])
				r.ticks++
				edges = edges[m:]
				for k := range s.fired {
					if s.fired[k] >= begin {
						can[k] = true
					}
				}
			}
			if left > 1 {
				try(run, left-1)
			}
		}
	}
	try(st, taps)
	return can
}

// key is what tells one state from another, whenever it is.
func (r *searcher) key(st *state) string {
	b := r.spare[:0]
	num := func(v int) { b = binary.AppendVarint(b, int64(v)) }
	rel := func(t int) {
		if t < 0 {
			num(-1)
			return
		}
		num(t - st.now)
	}
	bit := func(on bool) {
		if on {
			b = append(b, 1)
		} else {
			b = append(b, 0)
		}
	}
	bit(st.powered)
	bit(st.pressed)
	bit(st.cut)
	num(st.state)
	for i := range r.p.inputs {
		in := &r.p.inputs[i]
		bit(st.raw[i])
		bit(st.held[i])
		rel(st.seen[i])
		rel(st.due[i])
		rel(st.timer[i])
		num(max(0, st.accepted[i]+in.HoldOff-st.now))
		num(max(0, st.moment.since+in.WarmUp-st.now))
		num(st.settle[i])
		rel(st.settleAt[i])
		bit(st.closed[i] == st.now)
	}
	for k := range st.runs {
		if run := &st.runs[k]; run.playing {
			num(st.now - run.begin)
			num(run.by)
		} else {
			num(-1)
		}
	}
	for k := range r.p.triggers {
		t := &r.p.triggers[k]
		num(max(0, st.runs[t.scene].ended+t.Rest-st.now))
	}
	for ch := range st.out {
		num(st.out[ch])
	}
	for i := range st.pos {
		num(st.pos[i])
		num(st.dir[i])
	}
	for _, e := range st.pending {
		num(e.input)
		num(e.at - st.now)
		bit(e.down)
	}
	for i := range r.watch {
		if st.since[i] < 0 {
			num(-1)
		} else {
			num(min(st.now-st.since[i], r.watch[i].For+1))
		}
	}
	r.spare = b
	return string(b)
}
