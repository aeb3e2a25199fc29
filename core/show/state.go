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
	still []int  // of each scene that only its own presses start, once: when its last cue is over; -1 of any other
}

// gates finds them in a program that is watched for some promises.
func (p *program) gates(watch []monitor, plain bool) gates {
	g := gates{free: make([]bool, len(p.inputs)), still: fill(len(p.scenes), -1)}
	if plain {
		return g
	}
	for i := range p.inputs {
		g.free[i] = p.inputs[i].Kind == Contact && p.inputs[i].mover < 0
	}
	for i := range p.scenes {
		only := true
		for k := range p.triggers {
			t := &p.triggers[k]
			only = only && (t.scene != i || t.Latch == OneShot && g.free[t.input])
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
func (g *gates) past(m *moment, i int) bool {
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
		if t := &r.p.triggers[k]; r.gates.free[t.input] {
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
	if run := &st.runs[t.scene]; r.gates.past(st.moment, t.scene) {
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
		if !r.gates.free[i] {
			num(max(0, st.accepted[i]+in.HoldOff-st.now))
		}
		num(max(0, st.moment.since+in.WarmUp-st.now))
		num(st.settle[i])
		rel(st.settleAt[i])
		bit(st.closed[i] == st.now && in.mover >= 0)
	}
	for k := range st.runs {
		if run := &st.runs[k]; run.playing && !r.gates.past(st.moment, k) {
			num(st.now - run.begin)
			num(run.by)
		} else {
			num(-1)
		}
	}
	for k := range r.p.triggers {
		if t := &r.p.triggers[k]; !r.gates.free[t.input] {
			num(max(0, st.runs[t.scene].ended+t.Rest-st.now))
		}
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
	r.spare = b
	return string(b)
}
