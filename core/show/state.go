package show

import (
	"encoding/binary"
	"slices"
)

// gates are what only keeps presses from counting: hold-offs and rests of what people
// work. Of two states that are else the same, all that can happen in the one whose gates
// open later can happen in the other: whoever may press may leave it.
type gates struct {
	free  []bool // inputs that people work, by number
	sole  []bool // of those, that work one trigger alone: where one of several rests, a press does something else
	still []int  // of each scene that only its own presses start, once: when its last cue is over; -1 of any other
}

// gates finds them in a program that is watched for some promises.
func (p *program) gates(watch []monitor, plain bool) gates {
	g := gates{free: make([]bool, len(p.inputs)), sole: make([]bool, len(p.inputs)), still: fill(len(p.scenes), -1)}
	if plain {
		return g
	}
	for i := range p.inputs {
		g.free[i] = p.inputs[i].Kind == Contact && p.inputs[i].mover < 0
		g.sole[i] = g.free[i] && len(p.by[i]) == 1
	}
	for i := range p.scenes {
		only := true
		for k := range p.triggers {
			t := &p.triggers[k]
			only = only && (t.scene != i || t.Latch == OneShot && g.sole[t.input])
		}
		for k := range p.inputs {
			only = only && (p.inputs[k].Kind != Ended || p.inputs[k].scene != i)
		}
		for k := range watch {
			m := &watch[k]
			only = only && (m.A.Kind != "scene" || m.a != i) && (m.B.Kind != "scene" || m.b != i)
		}
		if !only {
			continue
		}
		g.still[i] = 0
		for _, c := range p.scenes[i].cues {
			g.still[i] = max(g.still[i], c.Start+c.Length)
		}
	}
	return g
}

// past is whether a scene runs on with nothing more to come of it but that it cannot be
// started.
func (g *gates) past(m *snapshot, i int) bool {
	return g.still[i] >= 0 && m.runs[i].playing && m.now-m.runs[i].begin >= g.still[i]
}

// of are the gates of a state, each the ms until it opens, and of each promise how long it
// is broken already, below zero: less is always as able.
func (r *searcher) gatesOf(st *state) []int {
	out := make([]int, 0, len(r.p.inputs)+len(r.p.triggers)+len(r.watch))
	for i := range r.p.inputs {
		if r.gates.free[i] {
			out = append(out, max(0, st.accepted[i]+r.p.inputs[i].HoldOff-st.now))
		}
	}
	for k := range r.p.triggers {
		if t := &r.p.triggers[k]; r.gates.sole[t.input] {
			out = append(out, r.rests(st, t))
		}
	}
	for i := range r.watch {
		if st.since[i] < 0 {
			out = append(out, 1)
		} else {
			out = append(out, -min(st.now-st.since[i], r.watch[i].For+1))
		}
	}
	return out
}

// rests is how long a trigger will not start its scene.
func (r *searcher) rests(st *state, t *trigger) int {
	if run := &st.runs[t.scene]; r.gates.past(st.snapshot, t.scene) {
		return run.begin + r.p.scenes[t.scene].long - st.now + t.Rest
	}
	return max(0, st.runs[t.scene].ended+t.Rest-st.now)
}

// above is whether gates are as open as others, or more.
func above(a, b []int) bool {
	for i := range a {
		if a[i] > b[i] {
			return false
		}
	}
	return true
}

// fresh is whether a state can lead to anything that those seen before it cannot.
func (r *searcher) fresh(st *state) bool {
	key, mine := r.key(st), r.gatesOf(st)
	had := r.seen[key]
	if slices.ContainsFunc(had, func(g []int) bool { return above(g, mine) }) {
		return false
	}
	had = slices.DeleteFunc(had, func(g []int) bool { return above(mine, g) })
	r.seen[key] = append(had, mine)
	r.states++
	return true
}

// key is what tells one state from another, whenever it is, but for its gates.
func (r *searcher) key(st *state) string {
	k := keyed{b: r.spare[:0], now: st.now}
	k.bit(st.powered)
	k.bit(st.pressed)
	k.bit(st.cut)
	k.num(st.state)
	for i := range r.p.inputs {
		r.inputKey(&k, st, i)
	}
	for i := range st.runs {
		if run := &st.runs[i]; run.playing && !r.gates.past(st.snapshot, i) {
			k.num(st.now - run.begin)
			k.num(run.by)
		} else {
			k.num(-1)
		}
	}
	for i := range r.p.triggers {
		if t := &r.p.triggers[i]; !r.gates.sole[t.input] {
			k.num(max(0, st.runs[t.scene].ended+t.Rest-st.now))
		}
	}
	for ch := range st.out {
		k.num(st.out[ch])
	}
	for i := range st.pos {
		k.num(st.pos[i])
		k.num(st.dir[i])
	}
	for _, e := range st.pending {
		k.num(e.input)
		k.num(e.at - st.now)
		k.bit(e.down)
	}
	r.spare = k.b
	return string(k.b)
}

// inputKey is what an input adds to it.
func (r *searcher) inputKey(k *keyed, st *state, i int) {
	in := &r.p.inputs[i]
	k.bit(st.raw[i])
	k.bit(st.held[i])
	k.until(st.seen[i])
	k.until(st.due[i])
	k.until(st.timer[i])
	if !r.gates.free[i] {
		k.num(max(0, st.accepted[i]+in.HoldOff-st.now))
	}
	k.num(max(0, st.snapshot.since+in.WarmUp-st.now))
	k.num(st.settle[i])
	k.until(st.settleAt[i])
	k.bit(st.closed[i] == st.now && in.mover >= 0)
}

// keyed is a key as it is written.
type keyed struct {
	b   []byte
	now int
}

func (k *keyed) num(v int) { k.b = binary.AppendVarint(k.b, int64(v)) }

// until is a moment, from now; one below zero is none.
func (k *keyed) until(t int) {
	if t < 0 {
		k.num(-1)
		return
	}
	k.num(t - k.now)
}

func (k *keyed) bit(on bool) {
	v := byte(0)
	if on {
		v = 1
	}
	k.b = append(k.b, v)
}
