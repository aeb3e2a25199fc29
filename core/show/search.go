package show

import (
	"cmp"
	"math"
	"slices"
	"sort"
)

// Search is a look for the shortest sequence of events that breaks a promise.
type Search struct {
	Machine  Machine
	Promises []Promise // the builder's own, besides those built in
	Depth    int       // events at most
	Most     int       // moments worked out at most, of each part; 0 is some two seconds' worth
	// told now and then; a false ends the search. May be nil.
	Progress func(Progress) bool
	only     bool // the promises are all: those built in are among them
	plain    bool // leave nothing out that cannot matter: what the quick way is tested against
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
	*snapshot
	closed  []int  // when each contact closed last
	pending []edge // contacts to be let go, power to come back
	since   []int  // of each promise: since when it is broken; -1 for not
	cut     bool   // there was a power cut
	pressed bool   // someone pressed something since power
	from    *state
	step    string
	stimuli []Stimulus // what this step was
	depth   int
	input   int // of this step
}

type searcher struct {
	Search
	p       *program
	watch   []monitor
	seen    map[string][][]int // what may come of each state: the gates that no other stands above
	gates   gates
	found   Found
	asleep  map[string]bool // quiet states that were tried for what starts
	canFire []bool          // from the beginning
	ticks   int
	tellAt  int
	states  int
	spares  []*state
	echoes  [][]int // by input
	most    int
	horizon int
	lasting bool // a promise is about how long something may be on
	chained bool // beginnings or ends of scenes start others: a press in their very moment comes between
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
	r := &searcher{Search: q, p: compile(q.Machine), seen: map[string][][]int{},
		asleep: map[string]bool{}, most: q.Most}
	if r.most == 0 {
		r.most = 1_500_000
	}
	all := q.Promises
	if !q.only {
		all = append(q.Machine.BuiltIn(), q.Promises...)
	}
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
	for i := range r.p.inputs {
		in := &r.p.inputs[i]
		r.chained = r.chained || (in.Kind == Began || in.Kind == Ended) && len(r.p.by[i]) > 0
	}
	r.gates = r.p.gates(r.watch, r.plain)
	for i := range r.p.inputs {
		r.echoes = append(r.echoes, r.echo(i))
	}
	r.search()
	return r.found, nil
}

// search goes depth by depth.
func (r *searcher) search() {
	s := &sim{p: r.p, snapshot: r.p.start(), coarse: true}
	s.woken()
	s.settled()
	first := &state{
		snapshot: s.snapshot,
		closed:   fill(len(r.p.inputs), never),
		since:    fill(len(r.watch), -1),
		pressed:  true,
		input:    -1,
	}
	r.observe(s, first, 0)
	r.canFire = r.starts(first, 2)
	front := []*state{first}
	whole := true
	for depth := 0; whole && len(front) > 0 && depth <= r.Depth; depth++ {
		last := depth == r.Depth
		var next []*state
		for i, st := range front {
			if r.ticks > r.most || !r.progressed(depth, float64(i)/float64(len(front)), false) {
				whole = false
				break
			}
			next = append(next, r.follow(st, last)...)
		}
		if whole = whole && r.ticks <= r.most; whole {
			r.found.Depth = depth
		}
		front = next
	}
	if whole {
		r.found.Depth = r.Depth // or nothing new can happen any more
	}
	r.progressed(r.found.Depth, 1, true)
	r.found.Exhaustive = whole
	r.found.States, r.found.Moments = r.states, r.ticks
	sort.SliceStable(
		r.found.Broken,
		func(i, j int) bool { return r.found.Broken[i].Events < r.found.Broken[j].Events },
	)
}

// told says how far it is, every so many moments: far is how much of a depth is done. What
// is deeper costs more, each depth some four times the one before it.
func (r *searcher) progressed(depth int, far float64, done bool) bool {
	if r.Progress == nil || !done && r.ticks < r.tellAt {
		return true
	}
	r.tellAt = r.ticks + 20_000
	p := Progress{Parts: 1, Depth: depth, States: r.states, Moments: r.ticks,
		Share: math.Pow(4, float64(depth)+far-float64(r.Depth)-1)}
	p.Share = min(.99, max(p.Share, float64(r.ticks)/float64(r.most)))
	if done {
		p.Done, p.Share = 1, 1
	}
	return r.Progress(p)
}

// follow plays a state on with nothing more happening, and watches it; then tries every
// event at every moment of that, unless it is the last.
func (r *searcher) follow(st *state, last bool) []*state {
	run := r.twin(st)
	defer r.done(run)
	s := &sim{p: r.p, snapshot: run.snapshot, coarse: true}
	times := []int{s.now}
	was := r.look(s)
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
		if is := r.look(s); is != was { // a contact let go is nothing to anybody
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

// look is that of the gates; where scenes start others also how often any began or ended, though
// nothing be seen of it.
func (r *searcher) look(s *sim) uint64 {
	h := r.gates.look(s)
	if r.chained {
		h = (h ^ uint64(s.acts)) * 1099511628211
	}
	return h
}

// look is what can be seen of a machine from outside, and what it will answer.
func (g *gates) look(s *sim) uint64 {
	h := uint64(14695981039346656037)
	mix := func(v int) { h = (h ^ uint64(v+7)) * 1099511628211 }
	for i := range s.runs {
		if s.runs[i].playing && !g.past(s.snapshot, i) {
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

// breach keeps the shortest way to break a promise. One of a depth may be come upon before
// all of the depth before it were followed.
func (r *searcher) breach(st *state, m *monitor, at int) {
	b := Broken{Promise: *m.Promise, At: at, Events: st.depth}
	if st.cut && m.Kind != Alone { // told by itself: what mends the one does not mend the other
		if had := r.found.Of(m.ID); had != nil && had.Events <= b.Events {
			return
		}
		b.Promise.ID = AfterPower + b.Promise.ID
	}
	had := r.found.Of(b.Promise.ID)
	if had != nil && had.Events <= b.Events {
		return
	}
	for x := st; x != nil; x = x.from {
		if x.step != "" {
			b.Steps = append(b.Steps, x.step)
			b.Stimuli = append(slices.Clone(x.stimuli), b.Stimuli...)
		}
	}
	slices.Reverse(b.Steps)
	sort.SliceStable(b.Stimuli, func(i, j int) bool { return b.Stimuli[i].At < b.Stimuli[j].At })
	if had != nil {
		*had = b
		return
	}
	r.found.Broken = append(r.found.Broken, b)
}

// choice is an event at a time.
type choice struct {
	at    int
	input int // -1 is power
	how   string
}

// choices are the events that can come, each so that it counts at, or between, the
// moments at which anything changes, or at which something of its own would change just
// then: so that whatever it sets going comes before and after whatever goes on.
func (r *searcher) choices(run *state, times []int) (out []choice) {
	begin := times[0]
	edges := r.edges(run, times)
	last := edges[len(edges)-1] + 1000
	add := func(c choice) { out = append(out, c) }
	for _, t := range append(slices.Clone(edges), last) { // a switch bounces just as it closes
		for i := range r.p.inputs {
			if in := &r.p.inputs[i]; in.mover >= 0 && in.MinPulse <= bouncing && len(r.p.by[i]) > 0 {
				add(choice{t, i, "bounce"})
			}
		}
	}
	for i := range r.p.inputs {
		in := &r.p.inputs[i]
		if in.Kind != Contact || in.mover >= 0 || len(r.p.by[i]) == 0 {
			continue
		}
		momentary := slices.ContainsFunc(r.p.by[i], func(k int) bool { return r.p.triggers[k].Latch == Momentary })
		var touch []int
		for _, t := range times {
			for _, e := range r.echoes[i] {
				if t-e > begin {
					touch = append(touch, t-e)
				}
			}
		}
		for _, t := range r.between(edges, touch, last) {
			from := max(begin, t-in.MinPulse)
			add(choice{from, i, "press"})
			if in.MinPulse <= bouncing {
				add(choice{from, i, "bounce"})
			}
			if momentary {
				add(choice{from, i, "hold"})
			}
		}
	}
	for _, t := range r.between(edges, nil, last) {
		add(choice{t, -1, "power"})
	}
	slices.SortStableFunc(out, func(a, b choice) int { // what people do falls into one moment with what goes on
		return cmp.Or(cmp.Compare(a.at, b.at), cmp.Compare(r.after(a), r.after(b)))
	})
	seen := map[choice]bool{}
	return slices.DeleteFunc(out, func(c choice) bool {
		was := seen[c]
		seen[c] = true
		return was
	})
}

// edges are the times at which anything changes, hold-offs and rests that end among them.
func (r *searcher) edges(run *state, times []int) []int {
	begin, edges := times[0], slices.Clone(times)
	for i := range r.p.inputs {
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
	return sorted(edges)
}

func sorted(list []int) []int {
	slices.Sort(list)
	return slices.Compact(list)
}

// between are the times at which something is tried: at first, just before each edge, which
// stands for all the time since the one before it, and when all is quiet again; where what
// adds up counts also just when its own would touch what goes on.
func (r *searcher) between(edges, touch []int, last int) []int {
	all := sorted(append(slices.Clone(edges), touch...))
	at := append(make([]int, 0, 2*len(all)+1), all[0])
	for i, t := range all[1:] {
		if t-1 > all[i] {
			at = append(at, t-1)
		}
		if r.chained {
			at = append(at, t)
		}
	}
	if r.lasting {
		at = append(at, touch...)
	}
	return sorted(append(at, last))
}

// echo is what a press of an input sets going, in ms from when it counts, by itself from
// where all rests, in any state.
func (r *searcher) echo(i int) (out []int) {
	in := &r.p.inputs[i]
	for state := range max(1, len(r.p.states)) {
		for _, how := range []int{tapped, r.horizon / 2} {
			s := &sim{p: r.p, snapshot: r.p.start(), coarse: true}
			if len(r.p.states) > 0 {
				s.state = state
			}
			s.settled()
			s.glide(in.WarmUp + in.HoldOff)
			begin := s.now
			was := r.gates.look(s)
			s.pressed(i, in.MinPulse+how, 60, begin+r.horizon, func(t int) bool {
				if is := r.gates.look(s); is != was {
					was = is
					out = append(out, t-begin-in.MinPulse)
				}
				return len(out) < mostEchoes
			})
		}
	}
	out = sorted(out)
	return slices.DeleteFunc(out, func(e int) bool { return e < 0 })
}

// mostEchoes bounds them: what repeats goes on for ever.
const mostEchoes = 24

// branch plays a state on to each choice's time and there makes the event: the states
// that are new.
func (r *searcher) branch(st *state, choices []choice) (out []*state) {
	run := r.twin(st)
	defer r.done(run)
	s := &sim{p: r.p, snapshot: run.snapshot, coarse: true}
	for _, c := range choices {
		for {
			t := r.upcoming(s, run)
			if t < 0 || t >= c.at+r.after(c) {
				break
			}
			r.advance(s, run, t)
		}
		to := c.at
		if t := r.upcoming(s, run); t == c.at { // what is done falls into one moment with what goes on
			to--
		}
		if s.now < to {
			r.observe(s, run, to)
			s.glide(to)
		}
		next := r.event(st, run, c)
		if next == nil {
			continue
		}
		if r.idle(run, next, c) || !r.fresh(next) {
			r.done(next)
			continue
		}
		out = append(out, next)
		if r.ticks > r.most {
			break
		}
	}
	return out
}

// event is the state after an event; nil when it cannot come now.
func (r *searcher) event(st, run *state, c choice) *state {
	if !run.powered || c.input >= 0 && (!r.plain && r.barred(run, c) || c.at == st.now && c.input < st.input) {
		return nil // those of one moment count in their order
	}
	now := c.at
	next, with := r.twin(run), []edge(nil)
	if st.from != nil && st.now == now && (c.input < 0 || r.p.inputs[c.input].mover < 0) {
		r.done(next)
		next, with = r.unmade(st)
	}
	next.from, next.depth, next.stimuli = st, st.depth+1, nil
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
		case run.raw[c.input] || slices.ContainsFunc(run.pending, func(e edge) bool { return e.input == c.input }):
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
	next.pending, next.input = append(append(next.pending, with...), edges...), c.input
	if next.now == now || len(with) > 0 {
		r.advance(&sim{p: r.p, snapshot: next.snapshot, coarse: true}, next, now)
	}
	return next
}

// unmade is a state as it was before the events that were made in its own moment, and what
// those were: another in that moment falls into one with them.
func (r *searcher) unmade(st *state) (*state, []edge) {
	var with []edge
	base := st
	for ; base.from != nil && base.now == st.now; base = base.from {
		var edges []edge
		for _, x := range base.stimuli {
			i := slices.IndexFunc(r.p.inputs, func(in input) bool { return in.ID == x.Input })
			edges = append(edges, edge{x.At, i, x.Down})
		}
		with = append(edges, with...)
	}
	a := r.twin(base)
	s := &sim{p: r.p, snapshot: a.snapshot, coarse: true}
	for {
		t := r.upcoming(s, a)
		if t < 0 || t >= st.now {
			break
		}
		r.advance(s, a, t)
	}
	a.cut = st.cut
	return a, with
}

// after is 1 of what comes after all else of its moment: a switch that bounces as it
// closes.
func (r *searcher) after(c choice) int {
	if c.input >= 0 && r.p.inputs[c.input].mover >= 0 {
		return 1
	}
	return 0
}

// idle is whether an event did nothing: nothing began or ended by it, and once the contact
// is let go all is as it would have been, but that a hold-off may run. That only keeps
// presses from counting, so that whatever can happen after it can without it. A contact
// that is held where that matters is not looked into.
func (r *searcher) idle(run, next *state, c choice) bool {
	if c.input < 0 || c.how == "hold" || r.plain {
		return false
	}
	in := &r.p.inputs[c.input]
	for _, k := range r.p.by[c.input] {
		if r.p.triggers[k].Latch == Momentary {
			return false
		}
	}
	until := next.stimuli[len(next.stimuli)-1].At + in.Latency
	with, without := r.ahead(next, until), r.ahead(run, until)
	defer r.done(with)
	defer r.done(without)
	if with.acts != without.acts {
		return false
	}
	with.closed[c.input] = without.closed[c.input]
	a, b := r.key(with), r.key(without)
	return a == b && above(r.gatesOf(without), r.gatesOf(with))
}

// barred is whether a press cannot count: all that it could start runs or rests until long
// after it, and nothing but presses can change that.
func (r *searcher) barred(st *state, c choice) bool {
	in := &r.p.inputs[c.input]
	counts := st.now + in.MinPulse + bouncing + apart
	for _, k := range r.p.by[c.input] {
		t := &r.p.triggers[k]
		run, ends := &st.runs[t.scene], st.runs[t.scene].ended
		if run.playing {
			ends = run.begin + r.p.scenes[t.scene].long
		}
		if r.gates.still[t.scene] < 0 || ends+t.Rest <= counts {
			return false
		}
	}
	return r.gates.free[c.input]
}

// ahead is a state gone on to a time, unwatched.
func (r *searcher) ahead(st *state, until int) *state {
	a := r.twin(st)
	s := &sim{p: r.p, snapshot: a.snapshot, coarse: true}
	for {
		t := r.upcoming(s, a)
		if t < 0 || t > until {
			break
		}
		var due []edge
		a.pending = slices.DeleteFunc(a.pending, func(e edge) bool {
			if e.at <= t {
				due = append(due, e)
			}
			return e.at <= t
		})
		s.tick(t, due)
		r.ticks++
	}
	s.glide(until)
	return a
}

// twin is a state of its own that stands as another does, one given back if there is any.
func (r *searcher) twin(st *state) *state {
	if len(r.spares) == 0 {
		c := *st
		c.snapshot = st.snapshot.copy()
		c.closed, c.pending, c.since = slices.Clone(st.closed), slices.Clone(st.pending), slices.Clone(st.since)
		return &c
	}
	c := r.spares[len(r.spares)-1]
	r.spares = r.spares[:len(r.spares)-1]
	m, closed, pending, since := c.snapshot, c.closed, c.pending, c.since
	*c = *st
	c.snapshot = m
	m.become(st.snapshot)
	c.closed = append(closed[:0], st.closed...)
	c.pending = append(pending[:0], st.pending...)
	c.since = append(since[:0], st.since...)
	return c
}

// done gives back a state that nothing leads on from.
func (r *searcher) done(st *state) { r.spares = append(r.spares, st) }

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
			run := r.twin(st)
			s := &sim{p: r.p, snapshot: run.snapshot, coarse: true}
			wait := s.now
			for k := range r.p.triggers {
				wait = max(wait, s.runs[r.p.triggers[k].scene].ended+r.p.triggers[k].Rest)
			}
			for k := range r.p.inputs {
				wait = max(wait, s.accepted[k]+r.p.inputs[k].HoldOff)
			}
			s.glide(wait)
			begin := s.now
			s.pressed(i, in.MinPulse+tapped, 400, begin+r.horizon, func(int) bool {
				r.ticks++
				for k := range s.fired {
					can[k] = can[k] || s.fired[k] >= begin
				}
				return true
			})
			if left > 1 {
				try(run, left-1)
			}
			r.done(run)
		}
	}
	try(st, taps)
	return can
}
