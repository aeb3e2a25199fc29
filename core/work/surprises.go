package work

import (
	"fmt"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/show"
	"zapbarn/core/wiring"
	"zapbarn/core/words"
)

// Surprises is what a search of the behaviour found, and the promises it was held to.
type Surprises struct {
	show.Found
	Promises []show.Promise
	Unclear  map[string]error // promises that cannot be read, by their IDs
	Err      error
}

// Looked is how many events deep every plan is searched as it is worked out; the Search
// goes on from there.
const Looked = 2

// Deepest is how many events a search goes to.
const Deepest = 6

// searchedTo is the name of what a search to a depth found.
func searchedTo(depth int) string { return fmt.Sprintf("surprises to %d", depth) }

// LookedTo are the surprises to a depth that were looked for already, nil when they were not.
func (w *Work) LookedTo(depth int) *Surprises {
	if depth <= Looked {
		return w.Surprises()
	}
	s, _ := Known[*Surprises](w, searchedTo(depth))
	return s
}

// SurprisesSoon are those of sequences of up to so many events where few moments show all of
// them, else nil.
func (w *Work) SurprisesSoon(depth, most int) *Surprises {
	if s := w.LookedTo(depth); s != nil {
		return s
	}
	tried := Derive(w, fmt.Sprintf("surprises to %d, few", depth), func(w *Work) *Surprises {
		return w.Search(depth, most, nil)
	})
	if tried.Exhaustive || tried.Err != nil {
		return w.found(depth, tried)
	}
	return nil
}

// SurprisesTo are those of sequences of up to so many events, found once, within a bound
// of moments for each part of the show. The progress, which may be nil, is told now and
// then; what it ends by a false is not kept.
func (w *Work) SurprisesTo(depth, most int, progress func(show.Progress) bool) *Surprises {
	if s := w.LookedTo(depth); s != nil {
		return s
	}
	over := false
	s := w.Search(depth, most, func(p show.Progress) bool {
		over = over || progress != nil && !progress(p)
		return !over
	})
	if over {
		return s
	}
	return w.found(depth, s)
}

// found keeps what a search found; what it searched is what it was made from.
func (w *Work) found(depth int, s *Surprises) *Surprises {
	return Derive(w, searchedTo(depth), func(w *Work) *Surprises {
		w.searched()
		return s
	})
}

// Surprises are those of sequences of few events, found once.
func (w *Work) Surprises() *Surprises {
	return Derive(w, "surprises", func(w *Work) *Surprises { return w.Search(Looked, 100_000, nil) })
}

// Search looks for sequences of up to so many events that break a promise.
func (w *Work) Search(depth, most int, progress func(show.Progress) bool) *Surprises {
	s := w.searched()
	if s.Err != nil {
		return s
	}
	q := show.Search{Machine: w.Machine(), Promises: s.Promises, Depth: depth, Most: most, Progress: progress}
	s.Found, s.Err = q.Whole()
	return s
}

// searched is what is searched: the show, and the promises that can be read.
func (w *Work) searched() *Surprises {
	s := &Surprises{Unclear: map[string]error{}}
	for i := range w.Plan.Promises() {
		x := &w.Plan.Promises()[i]
		p, err := w.Plan.Promise(x.ID, x.Says)
		if err == nil && p.A.Kind == "mover" && w.Moved(p.A.ID) != nil && w.Moved(p.A.ID).UpMS == 0 ||
			p.B.Kind == "mover" && w.Moved(p.B.ID) != nil && w.Moved(p.B.ID).UpMS == 0 {
			err = measure.Bad("says", "how long its travel takes is not known yet; give it a motor or a time")
		}
		if err != nil {
			s.Unclear[x.ID] = err
			continue
		}
		s.Promises = append(s.Promises, p)
	}
	s.Err = w.ShowErr()
	return s
}

// Named is what a term of a promise or a channel of the show is called.
func (w *Work) Named(t show.Term) string {
	switch t.Kind {
	case "channel":
		if d := w.Device(t.ID); d != nil {
			return d.Name
		}
	case "mover":
		if m := w.Plan.Mechanism(t.ID); m != nil {
			return m.Name
		}
	case "scene":
		if s := w.Plan.Scene(t.ID); s != nil {
			return s.Name
		}
	case "input":
		if i := w.Plan.Input(t.ID); i != nil {
			return i.Name
		}
	case "trigger":
		for i := range w.Plan.Triggers() {
			if x := &w.Plan.Triggers()[i]; x.ID == t.ID {
				return w.Plan.Name(x)
			}
		}
	}
	return t.ID
}

// Steps tells a sequence of events as a builder would.
func (w *Work) Steps(b *show.Broken) string {
	var out []string
	for _, s := range b.Steps {
		how, id, _ := strings.Cut(s, " ")
		name := w.Named(show.Term{Kind: "input", ID: id})
		switch {
		case how == "power":
			out = append(out, "power is lost for a second")
		case how == "bounce" && w.Plan.Input(id) != nil && w.Plan.Input(id).Mover != "":
			out = append(out, name+" bounces as it closes")
		case how == "bounce":
			out = append(out, name+" is worked, and its contact bounces")
		case how == "hold":
			out = append(out, name+" is held")
		default:
			out = append(out, name+" is worked")
		}
	}
	if len(out) == 0 {
		return "with nothing happening at all"
	}
	return strings.Join(out, ", then ")
}

// Presses writes stimuli as the Stage takes them: mat@1000:200 is a press, top!1390:2 a
// contact that opens so long, power!2000:1000 a cut.
func Presses(b *show.Broken) string {
	var out []string
	closed, opened := map[string]int{}, map[string]int{}
	for _, s := range b.Stimuli {
		from, was := closed[s.Input]
		cut, gone := opened[s.Input]
		switch {
		case s.Down && gone:
			out = append(out, fmt.Sprintf("%s!%d:%d", s.Input, cut, s.At-cut))
			delete(opened, s.Input)
		case s.Down:
			closed[s.Input] = s.At
		case was:
			out = append(out, fmt.Sprintf("%s@%d:%d", s.Input, from, s.At-from))
			delete(closed, s.Input)
		default:
			opened[s.Input] = s.At
		}
	}
	return strings.Join(out, ",")
}

// Loads are what each channel takes of each supply, worked out with it alone on, and what
// is taken with all off.
func (w *Work) Loads() []show.Load {
	own := plan.NewRig(w.Plan, w.Lib)
	rest := own.Solve(map[string]bool{})
	var out []show.Load
	at := map[string]int{}
	for i := range w.Plan.Devices() {
		if d := &w.Plan.Devices()[i]; d.Is(wiring.Origin) {
			at[d.ID] = len(out)
			out = append(
				out,
				show.Load{Supply: d.ID, Rest: rest.Readings[d.ID].Amps, Amps: map[string]float64{}},
			)
		}
	}
	for i := range w.Plan.Devices() {
		d := &w.Plan.Devices()[i]
		if !d.Channel() {
			continue
		}
		on := own.Solve(map[string]bool{d.ID: true})
		for id, k := range at {
			if more := on.Readings[id].Amps - out[k].Rest; more > 1e-6 {
				out[k].Amps[d.ID] = more
			}
		}
	}
	return out
}

// Events counts events in words.
func Events(n int) string { return words.Count(n, "event") }
