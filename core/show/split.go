package show

import (
	"runtime"
	"slices"
	"strings"
	"sync"
)

// cone is what a promise hangs on: whatever can change what it says, and whatever can
// change that. Nothing else needs to be played for it: what it finds there is what it
// would find in the whole, and the same contacts break it in both.
type cone struct {
	m    *Machine
	has  map[string]bool // kind:id
	todo []string
}

func (c *cone) need(kind, id string) {
	if k := kind + ":" + id; id != "" && !c.has[k] {
		c.has[k] = true
		c.todo = append(c.todo, k)
	}
}

// grow adds what each thing hangs on, until there is no more.
func (c *cone) grow() {
	for len(c.todo) > 0 {
		kind, id, _ := strings.Cut(c.todo[0], ":")
		c.todo = c.todo[1:]
		switch kind {
		case "channel":
			c.channel(id)
		case "scene": // who starts it, or stops it
			for _, t := range c.m.Triggers {
				if t.Scene == id {
					c.need("trigger", t.ID)
				}
			}
		case "trigger":
			c.trigger(id)
		case "input":
			c.input(id)
		case "mover":
			for _, v := range c.m.Movers {
				if v.ID == id {
					c.need("channel", v.Up)
					c.need("channel", v.Down)
				}
			}
		case "state":
			for _, t := range c.m.Triggers {
				if t.Then != "" {
					c.need("trigger", t.ID)
				}
			}
		}
	}
}

// channel hangs on the scenes that have cues on it, and on what it is never on with.
func (c *cone) channel(id string) {
	for _, s := range c.m.Scenes {
		if slices.ContainsFunc(s.Cues, func(q Cue) bool { return q.Channel == id }) {
			c.need("scene", s.ID)
		}
	}
	for _, x := range c.m.Channels {
		if x.ID == id {
			c.need("channel", x.Never)
		}
		if x.Never == id {
			c.need("channel", x.ID)
		}
	}
}

// trigger hangs on its input, on whether its scene runs, and on the state it asks for.
func (c *cone) trigger(id string) {
	for _, t := range c.m.Triggers {
		if t.ID != id {
			continue
		}
		c.need("input", t.Input)
		c.need("scene", t.Scene)
		if t.While != "" {
			c.need("state", "*")
		}
	}
}

func (c *cone) input(id string) {
	for _, i := range c.m.Inputs {
		if i.ID != id {
			continue
		}
		c.need("scene", i.Scene)
		c.need("mover", i.Mover)
		if i.State != "" {
			c.need("state", "*")
		}
	}
}

// of is the cone of a promise.
func (m *Machine) coneOf(p Promise) *cone {
	c := &cone{m: m, has: map[string]bool{}}
	for _, t := range []Term{p.A, p.B} {
		if t.Kind == "state" {
			t.ID = "*"
		}
		c.need(t.Kind, t.ID)
	}
	c.grow()
	return c
}

// name tells cones apart.
func (c *cone) name() string {
	var keys []string
	for k := range c.has {
		keys = append(keys, k)
	}
	slices.Sort(keys)
	return strings.Join(keys, " ")
}

// machine is the part of the machine that lies in the cone.
func (c *cone) machine() Machine {
	m := Machine{State: c.m.State}
	for _, x := range c.m.Inputs {
		if c.has["input:"+x.ID] {
			m.Inputs = append(m.Inputs, x)
		}
	}
	for _, x := range c.m.Channels {
		if c.has["channel:"+x.ID] {
			m.Channels = append(m.Channels, x)
		}
	}
	for _, x := range c.m.Scenes {
		if !c.has["scene:"+x.ID] {
			continue
		}
		x.Length = x.Duration() // it lasts as long with fewer cues
		x.Cues = slices.DeleteFunc(slices.Clone(x.Cues), func(q Cue) bool { return !c.has["channel:"+q.Channel] })
		m.Scenes = append(m.Scenes, x)
	}
	for _, x := range c.m.Triggers {
		if c.has["trigger:"+x.ID] {
			m.Triggers = append(m.Triggers, x)
		}
	}
	for _, x := range c.m.Movers {
		if c.has["mover:"+x.ID] {
			m.Movers = append(m.Movers, x)
		}
	}
	return m
}

// Parts are the searches that a search falls into: promises that hang on the same things
// are looked at together, each in what it hangs on alone.
func (q Search) Parts() []Search {
	var order []string
	at := map[string]*Search{}
	for _, p := range append(q.Machine.BuiltIn(), q.Promises...) {
		c := q.Machine.coneOf(p)
		name := c.name()
		if at[name] == nil {
			s := q
			s.Machine, s.Promises = c.machine(), nil
			at[name], order = &s, append(order, name)
		}
		at[name].Promises = append(at[name].Promises, p)
	}
	out := make([]Search, len(order))
	for i, name := range order {
		out[i] = *at[name]
		out[i].only = true
	}
	return out
}

// Whole runs a search part by part, several at a time, and puts together what each found;
// the order of the parts, and so the answer, does not hang on which is done first. Each
// part has the whole bound of moments.
func (q Search) Whole() (Found, error) {
	if err := q.Machine.Check(); err != nil {
		return Found{}, err
	}
	parts := q.Parts()
	found, errs := make([]Found, len(parts)), make([]error, len(parts))
	t := teller{tell: q.Progress, parts: make([]Progress, len(parts))}
	for i := range t.parts {
		t.parts[i].Parts = 1
	}
	var work sync.WaitGroup
	next := make(chan int)
	for range min(len(parts), runtime.GOMAXPROCS(0)) {
		work.Go(func() {
			for i := range next {
				part := parts[i]
				part.Progress = func(p Progress) bool { return t.reports(i, p) }
				found[i], errs[i] = part.Run()
			}
		})
	}
	for i := range parts {
		next <- i
	}
	close(next)
	work.Wait()
	all := Found{Depth: q.Depth, Exhaustive: true}
	for i, f := range found {
		if errs[i] != nil {
			return Found{}, errs[i]
		}
		all.Broken = append(all.Broken, f.Broken...)
		all.Exhaustive = all.Exhaustive && f.Exhaustive
		all.Loops = all.Loops || f.Loops
		all.Depth = min(all.Depth, f.Depth)
		all.States += f.States
		all.Moments += f.Moments
	}
	return all, nil
}

// Progress is how far a search came.
type Progress struct {
	Parts   int     // that it falls into
	Done    int     // of those
	Depth   int     // to which all of them are looked at
	States  int     // found so far
	Moments int     // worked out so far
	Share   float64 // of the work, 0 to 1, as far as can be told
}

// teller adds up what the parts tell, and tells it on.
type teller struct {
	sync.Mutex
	tell  func(Progress) bool
	parts []Progress
	over  bool
}

func (t *teller) reports(i int, p Progress) bool {
	t.Lock()
	defer t.Unlock()
	t.parts[i] = p
	if t.tell == nil {
		return true
	}
	sum := Progress{Parts: len(t.parts), Depth: p.Depth}
	for _, x := range t.parts {
		sum.Done += x.Done
		sum.States += x.States
		sum.Moments += x.Moments
		sum.Depth = min(sum.Depth, x.Depth)
		sum.Share += x.Share / float64(len(t.parts))
	}
	t.over = t.over || !t.tell(sum)
	return !t.over
}
