package shorthand

import (
	"fmt"
	"slices"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/show"
)

// scene finds one by its name or ID.
func (r *reader) scene(name string) *plan.Scene {
	for i := range r.p.Scenes() {
		if s := &r.p.Scenes()[i]; sameName(s.Name, name) || strings.EqualFold(s.ID, name) {
			return s
		}
	}
	return nil
}

// merge puts two scenes on one time line: merge Rise with Hum, wins, as Both.
func (r *reader) merge() (*Reading, error) {
	words := slices.DeleteFunc(slices.Clone(r.words[1:]), func(w string) bool { return w == "," })
	first, rest, ok := parted(words, "with", "and")
	if !ok {
		return nil, fmt.Errorf("say which two scenes, such as merge Rise with Hum wins as Both")
	}
	body, name, named := parted(rest, "as")
	if !named {
		body = rest
	}
	rule := show.Wins
	if n := len(body); n > 1 && slices.Contains(show.Rules, show.Rule(strings.ToLower(body[n-1]))) {
		rule, body = show.Rule(strings.ToLower(body[n-1])), body[:n-1]
	}
	a, b := r.scene(strings.Join(first, " ")), r.scene(strings.Join(body, " "))
	if a == nil {
		return nil, fmt.Errorf("there is no scene %q", strings.Join(first, " "))
	}
	if b == nil {
		return nil, fmt.Errorf("there is no scene %q", strings.Join(body, " "))
	}
	m := r.p.Machine(nil)
	find := func(id string) show.Scene {
		return m.Scenes[slices.IndexFunc(m.Scenes, func(s show.Scene) bool { return s.ID == id })]
	}
	got, err := show.Merge(find(a.ID), find(b.ID), rule)
	if err != nil {
		return nil, err
	}
	title := measure.Capital(asTyped(name))
	if title == "" {
		title = a.Name + " and " + measure.Uncapital(b.Name)
	}
	s := plan.Scene{ID: r.p.FreshID("scene", title), Prop: a.Prop, Name: title, Cues: cuesOf(got.Cues)}
	if got.Length > 0 {
		s.Length = millis(got.Length)
	}
	how := map[show.Rule]string{show.Wins: "has what both want", show.Follows: "begins when the first is over",
		show.Waits: "begins when its channels are free"}[rule]
	return r.put(fmt.Sprintf("“%s”, %d cues: %s with %s, which %s", title, len(s.Cues), a.Name, b.Name, how),
		"scene", s.ID, s)
}

func millis(ms int) measure.Duration { return measure.Of[measure.DurationKind](float64(ms) / 1000) }

func cuesOf(in []show.Cue) (out []plan.Cue) {
	for _, q := range in {
		out = append(out, plan.Cue{Channel: q.Channel, Start: millis(q.Start), Length: millis(q.Length),
			Shape: string(q.Shape), Level: q.Level})
	}
	return out
}

// perform makes a switch follow the loudness of a sound: perform jaw by Laugh in Talk.
func (r *reader) perform() (*Reading, error) {
	words := r.words[1:]
	who, rest, ok := parted(words, "by")
	if !ok {
		return nil, fmt.Errorf("say what moves by which sound, such as perform jaw by Laugh in Talk")
	}
	body, in, named := parted(rest, "in")
	if !named {
		body = rest
	}
	id, err := channelOf(r.p, strings.Join(who, " "))
	if err != nil {
		return nil, fmt.Errorf("%s %w", strings.Join(who, " "), err)
	}
	var clip *plan.Clip
	for i := range r.p.Clips() {
		if x := &r.p.Clips()[i]; sameName(x.Name, strings.Join(body, " ")) ||
			strings.EqualFold(x.ID, strings.Join(body, " ")) {
			clip = x
		}
	}
	if clip == nil {
		return nil, fmt.Errorf("there is no sound %q; bring it in on the Stage", strings.Join(body, " "))
	}
	cues := show.Perform(id, clip.Heights(), int(clip.Long.Value()*1000), 100, .12)
	if len(cues) == 0 || len(cues) > 400 {
		return nil, fmt.Errorf("%s is too quiet or too long to be followed", clip.Name)
	}
	title := measure.Capital(asTyped(in))
	if title == "" {
		title = clip.Name + " performed"
	}
	s := r.scene(title)
	if s == nil {
		fresh := plan.Scene{ID: r.p.FreshID("scene", title), Prop: r.prop, Name: title}
		if r.prop == "" {
			fresh.Prop = clip.Prop
		}
		s = &fresh
	}
	next := *s
	next.Cues = slices.DeleteFunc(slices.Clone(s.Cues), func(q plan.Cue) bool { return q.Channel == id })
	next.Cues = append(next.Cues, cuesOf(cues)...)
	return r.put(fmt.Sprintf("in “%s”, %s follows %s: %d cues", next.Name, r.p.Device(id).Name, clip.Name, len(cues)),
		"scene", next.ID, next)
}
