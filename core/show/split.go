package show

// Parts are the machines that a machine falls into: what shares no input, scene,
// output, mover or state, nor a promise or a load that it is held to, cannot disturb one
// another. What a search finds in each is what it would find in the whole.
func (q Search) Parts() []Search {
	m := q.Machine
	set := map[string]string{}
	var root func(k string) string
	root = func(k string) string {
		if up, ok := set[k]; ok && up != k {
			r := root(up)
			set[k] = r
			return r
		}
		set[k] = k
		return k
	}
	join := func(a, b string) { set[root(a)] = root(b) }
	for _, s := range m.Scenes {
		for _, c := range s.Cues {
			join("scene:"+s.ID, "channel:"+c.Channel)
		}
	}
	for _, i := range m.Inputs {
		if i.Scene != "" {
			join("input:"+i.ID, "scene:"+i.Scene)
		}
		if i.Mover != "" {
			join("input:"+i.ID, "mover:"+i.Mover)
		}
		if i.State != "" {
			join("input:"+i.ID, "state")
		}
	}
	for _, t := range m.Triggers {
		join("input:"+t.Input, "scene:"+t.Scene)
		if t.While != "" || t.Then != "" {
			join("input:"+t.Input, "state")
		}
		join("trigger:"+t.ID, "scene:"+t.Scene)
	}
	for _, c := range m.Channels {
		if c.Never != "" {
			join("channel:"+c.ID, "channel:"+c.Never)
		}
	}
	for _, v := range m.Movers {
		for _, ch := range []string{v.Up, v.Down} {
			if ch != "" {
				join("mover:"+v.ID, "channel:"+ch)
			}
		}
	}
	term := func(t Term) string {
		if t.Kind == "state" {
			return "state"
		}
		return t.Kind + ":" + t.ID
	}
	for _, p := range q.Promises {
		if p.B.Kind != "" {
			join(term(p.A), term(p.B))
		}
	}
	var order []string
	at := map[string]*Search{}
	part := func(k string) *Search {
		r := root(k)
		if at[r] == nil {
			s := q
			s.Machine, s.Promises = Machine{State: m.State}, nil
			at[r] = &s
			order = append(order, r)
		}
		return at[r]
	}
	for _, x := range m.Triggers { // those alone can set anything going
		p := part("trigger:" + x.ID)
		p.Machine.Triggers = append(p.Machine.Triggers, x)
	}
	had := func(k string) *Search { return at[root(k)] }
	for _, x := range m.Inputs {
		if p := had("input:" + x.ID); p != nil {
			p.Machine.Inputs = append(p.Machine.Inputs, x)
		}
	}
	for _, x := range m.Scenes {
		if p := had("scene:" + x.ID); p != nil {
			p.Machine.Scenes = append(p.Machine.Scenes, x)
		}
	}
	for _, x := range m.Channels {
		if p := had("channel:" + x.ID); p != nil {
			p.Machine.Channels = append(p.Machine.Channels, x)
		}
	}
	for _, x := range m.Movers {
		if p := had("mover:" + x.ID); p != nil {
			p.Machine.Movers = append(p.Machine.Movers, x)
		}
	}
	for _, x := range q.Promises {
		if p := had(term(x.A)); p != nil {
			p.Promises = append(p.Promises, x)
		}
	}
	out := make([]Search, len(order))
	for i, r := range order {
		out[i] = *at[r]
	}
	return out
}

// Whole runs a search part by part and puts together what each found.
func (q Search) Whole() (Found, error) {
	if err := q.Machine.Check(); err != nil {
		return Found{}, err
	}
	all := Found{Depth: q.Depth, Exhaustive: true}
	for _, part := range q.Parts() {
		f, err := part.Run()
		if err != nil {
			return Found{}, err
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
