package check

import (
	"fmt"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/show"
	"zapbarn/core/words"
	"zapbarn/core/work"
)

// surprising are the rules that the search of a behaviour serves: what was promised, how
// bad it is, and what is said of it.
var surprising = map[show.Kept]struct {
	code  string
	title func(name string) string
}{
	show.OnWhile: {"promise-broken", func(n string) string { return "A promise is broken: " + n }},
	show.Never:   {"both-at-once", func(n string) string { return n + " are on at once" }},
	show.Longest: {"on-too-long", func(n string) string { return n + " stays on too long" }},
	show.IntoStop: {
		"into-stop",
		func(n string) string { return n + does(n, " is", " are") + " driven into the stop" },
	},
	show.Alone: {
		"starts-alone",
		func(n string) string { return n + does(n, " starts", " start") + " alone after a power cut" },
	},
	show.Silent: {"goes-silent", func(n string) string { return n + " cannot be started again" }},
}

var _ = surprise("promise-broken", Stop, show.OnWhile,
	"A promise of the builder's own can be broken by presses, bounces or a power cut.")
var _ = surprise("both-at-once", Stop, show.Never,
	"Two outputs that must never be on together can be: forward and back of one motor.")
var _ = surprise("on-too-long", Fix, show.Longest, "An output can stay on longer than it may.")
var _ = surprise("into-stop", Fix, show.IntoStop, "A motor can be driven on at the end of its travel.")
var _ = surprise("starts-alone", Stop, show.Alone, "Something starts to move by itself when power comes back.")

var _ = surprise(
	"goes-silent",
	Stop,
	show.Silent,
	"After some sequence of events a scene can never be started again.",
)

func surprise(code string, level Level, kind show.Kept, doc string) bool {
	return rule(code, level, doc, func(w *work.Work, say func(Snag)) {
		for i := range w.Surprises().Broken {
			if b := &w.Surprises().Broken[i]; b.Promise.Kind == kind {
				say(surprised(w, code, level, b))
			}
		}
	})
}

func surprised(w *work.Work, code string, level Level, b *show.Broken) Snag {
	p := b.Promise
	cut := strings.HasPrefix(p.ID, show.AfterPower)
	name := w.Named(p.A)
	if own := w.Plan.PromiseOf(strings.TrimPrefix(p.ID, show.AfterPower)); own != nil {
		name = "“" + own.Says + "”"
	} else if p.Kind == show.Never {
		name += " and " + measure.Uncapital(w.Named(p.B))
	}
	title := surprising[p.Kind].title(name)
	if cut {
		title += " once power was lost"
	}
	if code != "promise-broken" && strings.HasPrefix(name, "“") {
		title = "A promise is broken: " + name
	}
	switch { // it takes a power cut as well, after which nothing runs
	case cut && p.Kind == show.OnWhile:
		level = Mind
	case cut && level == Stop:
		level = Fix
	}
	return Snag{
		Level: level, Place: "rehearsal", Title: title, At: surpriseAt(w, b), key: p.ID,
		Why: fmt.Sprintf("Shortest way there, %s: %s. At %s it is so.", words.Count(b.Events, "event"), w.Steps(b),
			measure.Span(float64(b.At)/1000)),
		Replay: work.Presses(b),
		Mends:  surpriseMends(w, b),
	}
}

// surpriseAt is what a breach concerns, the first to go to.
func surpriseAt(w *work.Work, b *show.Broken) (at []string) {
	id := strings.TrimPrefix(b.Promise.ID, show.AfterPower)
	if w.Plan.PromiseOf(id) != nil {
		at = append(at, "promise:"+id)
	}
	for _, t := range []show.Term{b.Promise.A, b.Promise.B} {
		if kind := map[string]string{"channel": "device", "mover": "mechanism", "scene": "scene", "input": "input",
			"trigger": "trigger"}[t.Kind]; kind != "" {
			at = append(at, kind+":"+t.ID)
		}
	}
	return at
}

// surpriseMends are edits that may cure a breach; those that do not are taken out when
// they are tried.
func surpriseMends(w *work.Work, b *show.Broken) (out []Mend) {
	p := w.Plan
	name := func(id string) string { return measure.Uncapital(p.Input(id).Name) }
	for i := range p.Triggers() { // of what the events worked, and of what they work on
		t := p.Triggers()[i]
		in := p.Input(t.Input)
		if !concerns(w, b, &t) {
			continue
		}
		switch {
		case t.Latch == "toggle" && in.Mover != "":
			t.Latch = "momentary"
			out = append(out, put(w, "Hold it on while "+name(in.ID)+" is closed", "trigger", t.ID, t))
			t.Latch = "one-shot"
			out = append(out, put(w, "Run it once at each "+name(in.ID), "trigger", t.ID, t))
		case t.Latch == "toggle":
			t.Latch = "one-shot"
			out = append(out, put(w, "Run it once at each press of "+name(in.ID), "trigger", t.ID, t))
		case t.Latch == "retrigger":
			t.Latch = "one-shot"
			out = append(out, put(w, "Let it play out before "+name(in.ID)+" counts again", "trigger", t.ID, t))
		}
		if t.While != "" && b.Promise.Kind == show.Silent {
			t.While = ""
			out = append(out, put(w, "Let "+name(in.ID)+" work it in any state", "trigger", t.ID, t))
		}
		if in.MinPulse.Value() < 0.03 && in.Wired() && usesBounce(b, in.ID) {
			next := *in
			next.MinPulse = measure.Must[measure.DurationKind]("30 ms")
			out = append(out, put(w, "Count "+name(in.ID)+" from 30 ms on", "input", in.ID, next))
		}
		if in.Kind == "power" {
			out = append(out, Mend{Label: "Start nothing when power comes on",
				Edit: plan.Edit{
					Label:   "start nothing when power comes on",
					Changes: []plan.Change{p.Drop("trigger", t.ID)},
				}})
		}
	}
	if m := p.Mechanism(b.Promise.A.ID); m != nil && b.Promise.Kind == show.IntoStop {
		next := *m
		next.Stops = true
		out = append(out, put(w, "End switches that cut its motor", "mechanism", m.ID, next))
		out = append(out, shorterCues(w, m)...)
	}
	if b.Promise.Kind == show.Never && b.Promise.A.Kind == "channel" && b.Promise.B.Kind == "channel" {
		if d := w.Device(b.Promise.A.ID); d != nil && d.Never == "" {
			next := *d
			next.Never = b.Promise.B.ID
			out = append(out, put(w, "Interlock the two: the first to be on holds", "device", d.ID, next))
		}
	}
	return out
}

func usesBounce(b *show.Broken, input string) bool {
	for _, s := range b.Steps {
		if s == "bounce "+input {
			return true
		}
	}
	return false
}

// concerns is whether a trigger has to do with a breach: an event works its input, or its
// scene works what was promised.
func concerns(w *work.Work, b *show.Broken, t *plan.Trigger) bool {
	for _, s := range b.Steps {
		if _, id, ok := strings.Cut(s, " "); ok && id == t.Input {
			return true
		}
	}
	if b.Promise.A.Kind == "trigger" {
		return b.Promise.A.ID == t.ID
	}
	touched := map[string]bool{}
	for _, term := range []show.Term{b.Promise.A, b.Promise.B} {
		touched[term.ID] = true
		if m := w.Plan.Mechanism(term.ID); m != nil && term.Kind == "mover" {
			touched[m.Up], touched[m.Down] = true, true
		}
	}
	s := w.Plan.Scene(t.Scene)
	for i := range s.Cues {
		if touched[s.Cues[i].Channel] {
			return true
		}
	}
	return touched[t.Scene]
}

// shorterCues end the cues that drive a mechanism as it arrives.
func shorterCues(w *work.Work, m *plan.Mechanism) (out []Mend) {
	moved := w.Moved(m.ID)
	if moved == nil || moved.UpMS == 0 {
		return nil
	}
	for _, s := range w.Plan.Scenes() {
		next, changed := s, false
		next.Cues = append([]plan.Cue(nil), s.Cues...)
		for i, q := range next.Cues {
			long := map[string]int{m.Up: moved.UpMS, m.Down: moved.DownMS}[q.Channel]
			if long > 0 && plan.Milliseconds(q.Length) > long+200 {
				next.Cues[i].Length = travels(long)
				changed = true
			}
		}
		if changed {
			out = append(out, put(w, "End the cues of “"+s.Name+"” as it arrives", "scene", s.ID, next))
		}
	}
	return out
}

var _ = rule("promise-unclear", Fix, "A promise of the builder's own cannot be understood.",
	func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Promises() {
			x := &w.Plan.Promises()[i]
			if err := w.Surprises().Unclear[x.ID]; err != nil {
				say(Snag{Level: Fix, Place: "rehearsal", At: []string{"promise:" + x.ID},
					Title: "A promise is not understood: “" + x.Says + "”",
					Why:   measure.Capital(strings.TrimPrefix(err.Error(), "says: ")) + "."})
			}
		}
	})
