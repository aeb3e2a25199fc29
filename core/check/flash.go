package check

import (
	"fmt"
	"math"
	"slices"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/show"
	"zapbarn/core/source"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

// flashes is how many flashes in any second are taken to be safe: WCAG 2.2, 2.3.1.
const flashes = 3

// flashSight is the share of the square of a distance that flashes must fill there to count: a
// quarter of any ten degrees of sight (WCAG 2.2, general flash and red flash thresholds).
var flashSight = math.Pi / 4 * math.Pow(2*math.Tan(5*math.Pi/180), 2) / 4

var _ = rule(
	"flashes",
	Fix,
	"A light flashes more than three times in a second.",
	func(w *work.Work, say func(Snag)) {
		if w.ShowErr() != nil {
			return
		}
		lit := lightOf(w)
		props := map[string][]string{} // triggers of its scenes, those that only stop one left out
		var names []string
		quick := map[string]bool{} // scenes that flash by themselves
		for i := range w.Plan.Scenes() {
			s := &w.Plan.Scenes()[i]
			if small(w, s.Prop) || !slices.ContainsFunc(s.Cues, func(q plan.Cue) bool { return lit[q.Channel] > 0 }) {
				continue
			}
			var worst show.Flash
			var by *plan.Trigger
			of := func(f show.Flash, t *plan.Trigger) {
				if f.Rate > worst.Rate {
					worst, by = f, t
				}
			}
			m := w.Machine()
			m.Triggers = append(slices.Clone(m.Triggers), show.Trigger{ID: "its scene", Scene: s.ID,
				Latch: show.OneShot, Rest: 1000})
			of(m.Worked([]string{"its scene"}, 1000).Flashes(lit), nil)
			for k := range w.Plan.Triggers() {
				t := &w.Plan.Triggers()[k]
				if t.Scene != s.ID || t.Latch == string(show.Reset) {
					continue
				}
				of(m.Worked([]string{t.ID}, 2000).Flashes(lit), t)
				if props[s.Prop] == nil {
					names = append(names, s.Prop)
				}
				props[s.Prop] = append(props[s.Prop], t.ID)
			}
			if worst.Rate <= flashes {
				continue
			}
			quick[s.ID] = true
			snag := flashing(w, worst, s.Prop, "scene:"+s.ID)
			snag.Mends = slower(w, s, by, worst.Channel)
			say(snag)
		}
		for _, prop := range names {
			together(w, prop, props[prop], quick, lit, say)
		}
	},
)

// together is what the scenes of a prop flash that may run at once, none of which does alone.
func together(w *work.Work, prop string, triggers []string, quick map[string]bool, lit map[string]float64,
	say func(Snag)) {
	states := []string{""}
	for _, t := range w.Plan.Triggers() {
		if !slices.Contains(states, t.While) {
			states = append(states, t.While)
		}
	}
	for _, state := range states {
		var ids, at []string
		for i := range w.Plan.Triggers() {
			t := &w.Plan.Triggers()[i]
			if (t.While == "" || t.While == state) && slices.Contains(triggers, t.ID) && !quick[t.Scene] {
				ids = append(ids, t.ID)
				if scene := "scene:" + t.Scene; !slices.Contains(at, scene) {
					at = append(at, scene)
				}
			}
		}
		if len(at) < 2 {
			continue
		}
		if f := w.Machine().Worked(ids, 2000).Flashes(lit); f.Rate > flashes {
			say(flashing(w, f, prop, at...))
			return
		}
	}
}

// flashing is the snag of what flashes too fast.
func flashing(w *work.Work, f show.Flash, prop string, at ...string) Snag {
	name := "All lamps of " + w.Plan.Prop(prop).Name + " together"
	verb := " flash "
	if f.Channel != "" {
		name = w.Named(show.Term{Kind: "channel", ID: f.Channel})
		verb = does(name, " flashes ", " flash ")
		at = append(at, "device:"+f.Channel)
	}
	rate := measure.Decimal(math.Floor(f.Rate), 0)
	if f.Rate < 4 {
		rate = measure.Decimal(f.Rate, 1)
	}
	far := 10 * 12 * measure.Inch
	if w.Plan.Metric() {
		far = 3000
	}
	return Snag{
		Level: Fix, Place: "rehearsal", At: at, weight: f.Rate, Title: name + verb + rate + " times in a second",
		Why: fmt.Sprintf(
			"More than %d flashes in any second can bring on a seizure where they fill much of what one sees: %s across, "+
				"from %s away. Put a sign at the entrance where it must be, and ask who runs the place.",
			flashes, w.Run(far*math.Sqrt(flashSight)), w.Run(far),
		),
		From: []source.Source{source.Std("WCAG 2.2, success criterion 2.3.1: a flash is a pair of opposing changes of a " +
			"tenth of the most light, the darker below four fifths; a quarter of ten degrees of sight")},
	}
}

// lightOf is how much light each channel gives, W of what shines behind it; one that nothing is
// wired behind yet is taken to give light.
func lightOf(w *work.Work) map[string]float64 {
	out := map[string]float64{}
	for i := range w.Plan.Devices() {
		d := &w.Plan.Devices()[i]
		if !d.Channel() {
			continue
		}
		any := false
		for k := range w.Plan.Devices() {
			l := &w.Plan.Devices()[k]
			if !l.Is(wiring.Load) || !w.Feeds(d.ID, l.ID) {
				continue
			}
			any = true
			if p := w.Lib.Lamps[l.Product]; p.Shines() {
				out[d.ID] += math.Max(w.All().Readings[l.ID].Watts, .01)
			}
		}
		if !any {
			out[d.ID] = 1
		}
	}
	return out
}

// small is whether a prop is known to fill less of what guests see than flashes are counted in.
func small(w *work.Work, prop string) bool {
	if len(w.Plan.Plots()) == 0 {
		return false
	}
	s := w.Yard().Of(prop)
	if s == nil || !s.Known || math.IsInf(s.Near, 1) {
		return false
	}
	return s.Box.Wide*s.Box.High < flashSight*s.Near*s.Near
}

// slower are ways to make a scene flash less: of its shapes, of cues that follow each other, of
// how soon it comes again.
func slower(w *work.Work, s *plan.Scene, by *plan.Trigger, channel string) (out []Mend) {
	its := func(q *plan.Cue) bool { return channel == "" || q.Channel == channel }
	calm := map[string]show.Shape{string(show.Strobe): show.Blink, string(show.Flicker): show.Pulse}
	next, changed := *s, false
	next.Cues = slices.Clone(s.Cues)
	for i := range next.Cues {
		if shape, ok := calm[next.Cues[i].Shape]; ok && its(&next.Cues[i]) {
			next.Cues[i].Shape, changed = string(shape), true
		}
	}
	if changed {
		out = append(out, put(w, "Once a second instead", "scene", s.ID, next))
	}
	steady := *s
	steady.Cues = nil
	first := map[string]int{}
	for _, q := range next.Cues {
		k, has := first[q.Channel]
		if !has || !its(&q) {
			first[q.Channel] = len(steady.Cues)
			steady.Cues = append(steady.Cues, q)
			continue
		}
		x := &steady.Cues[k]
		from := math.Min(x.Start.Value(), q.Start.Value())
		to := math.Max(x.Start.Value()+x.Length.Value(), q.Start.Value()+q.Length.Value())
		x.Start, x.Length = measure.Of[measure.DurationKind](from), measure.Of[measure.DurationKind](to-from)
	}
	if len(steady.Cues) < len(s.Cues) {
		out = append(out, put(w, "On all the while instead", "scene", s.ID, steady))
	}
	second := measure.Of[measure.DurationKind](1)
	if s.Length.Value() < 1 {
		longer := next
		longer.Length = second
		out = append(out, put(w, "A scene of "+second.String(), "scene", s.ID, longer))
	}
	if by != nil && by.Rest.Value() < 1 {
		rest := *by
		rest.Rest = second
		out = append(out, put(w, "Rest "+second.String()+" after it", "trigger", by.ID, rest))
	}
	if by != nil {
		if in := w.Plan.Input(by.Input); in != nil && in.HoldOff.Value() < 1 {
			hold := *in
			hold.HoldOff = second
			out = append(out, put(w, "Ignore presses for "+second.String(), "input", in.ID, hold))
		}
	}
	return out
}
