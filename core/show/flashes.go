package show

import "slices"

// Flash is how often light flashes at its worst.
type Flash struct {
	Rate    float64 // pairs of opposing changes in the worst second
	Channel string  // whose light it is; "" is all light in one view, taken together
	From    int     // ms at which that second begins
}

// A flash is a pair of opposing changes of a tenth of the most light and more, the darker of
// the two below four fifths of it (WCAG 2.2, general flash and red flash thresholds).
const (
	flashStep   = 0.1
	flashDarker = 0.8
)

// Flashes is how often what a trace shows flashes at its worst: the light of each channel by
// itself, and of all that are in one view, by how much light each gives. Channels that give
// none are left out.
func (t Trace) Flashes(light map[string]float64) (worst Flash) {
	var names []string
	all := 0.0
	for ch, much := range light {
		if much > 0 {
			names, all = append(names, ch), all+much
		}
	}
	slices.Sort(names)
	now := map[string]float64{}
	own := make(map[string]*flicks, len(names))
	for _, ch := range names {
		own[ch] = &flicks{}
	}
	view := &flicks{}
	events := t.Events
	for k := 0; k < len(events); {
		at, changed := events[k].At, false
		for ; k < len(events) && events[k].At == at; k++ {
			e := events[k]
			f := own[e.Who]
			if f == nil || e.What != "on" && e.What != "off" && e.What != "level" {
				continue
			}
			level := float64(e.Level) / 100
			if e.What == "off" {
				level = 0
			}
			f.see(at, level)
			now[e.Who], changed = level, true
		}
		if changed && len(names) > 1 {
			sum := 0.0
			for _, ch := range names {
				sum += now[ch] * light[ch] / all
			}
			view.see(at, sum)
		}
	}
	for _, ch := range names {
		if rate, from := own[ch].worst(); rate > worst.Rate {
			worst = Flash{rate, ch, from}
		}
	}
	if rate, from := view.worst(); rate > worst.Rate {
		worst = Flash{rate, "", from}
	}
	return worst
}

// flicks are the changes of one light, as they come.
type flicks struct {
	edge float64 // the least light since it last fell, or the most since it rose
	up   bool    // it rose last
	at   []int   // of the changes that count
}

// see is the light from a moment on.
func (f *flicks) see(at int, level float64) {
	var darker, change float64
	if f.up {
		f.edge = max(f.edge, level)
		darker, change = level, f.edge-level
	} else {
		f.edge = min(f.edge, level)
		darker, change = f.edge, level-f.edge
	}
	if change >= flashStep-1e-9 && darker < flashDarker {
		f.at, f.up, f.edge = append(f.at, at), !f.up, level
	}
}

// worst is the most flashes in any second, and where that begins.
func (f *flicks) worst() (rate float64, from int) {
	for first, last := 0, 0; last < len(f.at); last++ {
		for f.at[last]-f.at[first] >= 1000 {
			first++
		}
		if n := float64(last-first+1) / 2; n > rate {
			rate, from = n, f.at[first]
		}
	}
	return rate, from
}

// Worked is the trace of some triggers worked as hard as people work them: each whenever it
// takes a press, held for those that repeat while they are held, whatever state the show is in.
// IDs of triggers that only stop a scene do nothing. long is for how many ms at least.
func (m Machine) Worked(triggers []string, long int) Trace {
	n := Machine{Channels: m.Channels}
	var stimuli []Stimulus
	scenes := map[string]Scene{}
	for _, s := range m.Scenes {
		scenes[s.ID] = s
	}
	for _, t := range m.Triggers {
		s, ok := scenes[t.Scene]
		if !ok || t.Latch == Reset || !slices.Contains(triggers, t.ID) {
			continue
		}
		if long = max(long, min(longestLook, 2*s.Duration())); !slices.ContainsFunc(n.Scenes,
			func(o Scene) bool { return o.ID == s.ID }) {
			n.Scenes = append(n.Scenes, s)
		}
		in := Input{ID: t.ID}
		for _, o := range m.Inputs {
			if o.ID == t.Input {
				in.HoldOff, in.MinPulse = o.HoldOff, o.MinPulse
			}
		}
		t.While, t.Then, t.Input = "", "", t.ID
		n.Inputs, n.Triggers = append(n.Inputs, in), append(n.Triggers, t)
	}
	for _, t := range n.Triggers {
		in := n.Inputs[slices.IndexFunc(n.Inputs, func(i Input) bool { return i.ID == t.ID })]
		held := max(fastest/2, in.MinPulse+grain)
		switch t.Latch {
		case Momentary, Toggle, Set:
			if t.Latch == Momentary {
				held = long
			}
			stimuli = append(stimuli, Press(t.ID, 0, held)...)
		default: // as soon as it is taken again
			every := max(held+fastest/2, in.HoldOff+1)
			if t.Latch != Retrigger {
				every = max(every, scenes[t.Scene].Duration()+t.Rest+1)
			}
			for at := 0; at < long; at += every {
				stimuli = append(stimuli, Press(t.ID, at, held)...)
			}
		}
	}
	slices.SortStableFunc(stimuli, func(a, b Stimulus) int { return a.At - b.At })
	return n.Run(stimuli, long)
}

// fastest is how long a press and letting go take at the fastest, ms (from memory: five a
// second); longestLook is how long a scene is looked at, ms.
const fastest, longestLook = 200, 120_000
