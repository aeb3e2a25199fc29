package show

import "slices"

// never is a moment before any other.
const never = -1 << 40

// program is a machine with its names made numbers.
type program struct {
	m        Machine
	channels []Channel
	inputs   []input
	scenes   []scene
	triggers []trigger
	movers   []mover
	states   []string
	by       [][]int // triggers by input
	power    []int   // inputs that are power itself
	never    [][]int // channels that one is never on together with
}

type input struct {
	*Input
	state, scene int // -1 for none
	mover        int
	edge         int // of the mover's travel
}

type scene struct {
	*Scene
	long int
	cues []cue
}

type cue struct {
	*Cue
	channel int
}

type trigger struct {
	*Trigger
	input, scene, while, then int // -1 for none
}

type mover struct {
	*Mover
	up, down int // channels; -1 for none
	upBy     int // travel a ms
	downBy   int
	travel   int
	switches []int // inputs it works
}

// compile makes names numbers. Channels stand in the order they are first named.
func compile(m Machine) *program {
	p := &program{m: m, channels: slices.Clone(m.Channels)}
	sceneAt, moverAt, inputAt := map[string]int{}, map[string]int{}, map[string]int{}
	p.state(m.State)
	for i := range m.Scenes {
		s := &m.Scenes[i]
		sceneAt[s.ID] = i
		out := scene{Scene: s, long: s.Duration()}
		for k := range s.Cues {
			out.cues = append(out.cues, cue{&s.Cues[k], p.channel(s.Cues[k].Channel)})
		}
		p.scenes = append(p.scenes, out)
	}
	for i := range m.Movers {
		v := &m.Movers[i]
		up, down := max(1, v.UpTime), v.DownTime
		if down <= 0 {
			down = up
		}
		moverAt[v.ID] = i
		p.movers = append(p.movers, mover{Mover: v, up: p.channel(v.Up), down: p.channel(v.Down),
			upBy: down, downBy: up, travel: up * down})
	}
	for i := range m.Inputs {
		in := input{Input: &m.Inputs[i], state: p.state(m.Inputs[i].State), scene: -1, mover: -1}
		if n, ok := sceneAt[in.Scene]; ok {
			in.scene = n
		}
		if n, ok := moverAt[in.Mover]; ok {
			v := &p.movers[n]
			in.mover, in.edge = n, v.travel*in.At/100
			v.switches = append(v.switches, i)
		}
		if in.Kind == Power {
			p.power = append(p.power, i)
		}
		inputAt[in.ID] = i
		p.inputs = append(p.inputs, in)
	}
	p.by = make([][]int, len(p.inputs))
	for i := range m.Triggers {
		t := &m.Triggers[i]
		n := inputAt[t.Input]
		p.triggers = append(p.triggers, trigger{t, n, sceneAt[t.Scene], p.state(t.While), p.state(t.Then)})
		p.by[n] = append(p.by[n], i)
	}
	p.apart()
	return p
}

// channel is a channel's number, a new one where it is first named; -1 for none.
func (p *program) channel(id string) int {
	if id == "" {
		return -1
	}
	if i := slices.IndexFunc(p.channels, func(c Channel) bool { return c.ID == id }); i >= 0 {
		return i
	}
	p.channels = append(p.channels, Channel{ID: id})
	return len(p.channels) - 1
}

// state is a state's number, as channel is a channel's.
func (p *program) state(name string) int {
	if name == "" {
		return -1
	}
	if i := slices.Index(p.states, name); i >= 0 {
		return i
	}
	p.states = append(p.states, name)
	return len(p.states) - 1
}

// apart finds what each channel is never on together with.
func (p *program) apart() {
	p.never = make([][]int, len(p.channels))
	for a := range p.channels {
		for b := range p.channels {
			if x, y := &p.channels[a], &p.channels[b]; a != b && (x.Never == y.ID || y.Never == x.ID) {
				p.never[a] = append(p.never[a], b)
			}
		}
	}
}

// snapshot is all that a machine is at one time: copied whole, it can be come
// back to.
type snapshot struct {
	now      int
	powered  bool
	since    int // powered up
	raw      []bool
	held     []bool // counted as a press, and not let go yet
	seen     []int  // when a sensor last saw something; it holds on from there
	due      []int  // when a closed contact will count; -1 for not
	accepted []int
	settle   []int // bounces left, and when the next is
	settleAt []int
	runs     []run // by scene
	fired    []int // when each trigger began its scene last
	state    int
	entered  int
	acts     int   // scenes begun and ended, states entered, so far
	timer    []int // when it fires next; -1 for never
	out      []int // level of each channel
	on       []int // since when it is as it is
	pos      []int
	dir      []int
	ints     []int // what all of those lie in
	bools    []bool
}

// run is how a scene stands.
type run struct {
	playing      bool
	begin, ended int
	by           int // the trigger that began it
}

func fill(n, v int) []int {
	out := make([]int, n)
	for i := range out {
		out[i] = v
	}
	return out
}

// cutUp hands out the two slabs that a moment's lists lie in, so that it is copied at
// the cost of two.
func (s *snapshot) cutUp(ints []int, bools []bool, inputs, channels, movers, triggers int) {
	s.ints, s.bools = ints, bools
	take := func(n int) []int {
		out := ints[:n:n]
		ints = ints[n:]
		return out
	}
	s.seen, s.due, s.accepted = take(inputs), take(inputs), take(inputs)
	s.settle, s.settleAt, s.timer = take(inputs), take(inputs), take(inputs)
	s.out, s.on = take(channels), take(channels)
	s.pos, s.dir = take(movers), take(movers)
	s.fired = take(triggers)
	s.raw, s.held = bools[:inputs:inputs], bools[inputs:]
}

func (p *program) start() *snapshot {
	s := &snapshot{runs: make([]run, len(p.scenes))}
	n, c, m := len(p.inputs), len(p.channels), len(p.movers)
	k := len(p.triggers)
	s.cutUp(make([]int, 6*n+2*c+2*m+k), make([]bool, 2*n), n, c, m, k)
	for i := range n {
		s.seen[i], s.due[i], s.settleAt[i], s.timer[i], s.accepted[i] = -1, -1, -1, -1, never
	}
	for i, in := range p.inputs {
		if in.mover >= 0 && in.Below {
			s.raw[i], s.held[i] = true, true // it rests on its lower switch
		}
	}
	p.wake(s)
	return s
}

// wake is power-up: nothing runs, no contact counts as pressed by being closed already.
func (p *program) wake(s *snapshot) {
	s.powered, s.since = true, s.now
	s.state, s.entered = -1, s.now
	if p.m.State != "" {
		s.state = 0
	}
	for i := range s.runs {
		s.runs[i] = run{ended: never}
	}
	for k := range s.fired {
		s.fired[k] = never
	}
	for i := range p.inputs {
		s.held[i], s.due[i], s.accepted[i] = s.raw[i], -1, never
	}
	p.setTimers(s, true)
}

// setTimers sets the timers of power-up, or of a state that is entered.
func (p *program) setTimers(s *snapshot, power bool) {
	for i, in := range p.inputs {
		switch {
		case in.Kind != Timer:
		case in.state >= 0:
			s.timer[i] = -1
			if in.state == s.state {
				s.timer[i] = s.entered + in.Every
			}
		case power:
			s.timer[i] = s.now + in.Every
		}
	}
}

func (s *snapshot) copy() *snapshot {
	c := *s
	c.cutUp(slices.Clone(s.ints), slices.Clone(s.bools), len(s.seen), len(s.out), len(s.pos), len(s.fired))
	c.runs = slices.Clone(s.runs)
	return &c
}

// become makes a moment one that stands as another of the same machine does.
func (s *snapshot) become(o *snapshot) {
	ints, bools, runs := append(s.ints[:0], o.ints...), append(s.bools[:0], o.bools...), append(s.runs[:0], o.runs...)
	*s = *o
	s.cutUp(ints, bools, len(o.seen), len(o.out), len(o.pos), len(o.fired))
	s.runs = runs
}
