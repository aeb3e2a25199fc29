package shorthand

import (
	"fmt"
	"math"
	"regexp"
	"slices"
	"sort"
	"strconv"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/show"
	"zapbarn/core/wiring"
)

// The notation of a prop's behaviour, a sentence for each thing that starts another:
//
//	when Path mat, if ready, run Rise: frames up 0.9s, glow embers 5.6s, hum 4s at 0.9s;
//	  then frames down 1.6s; rest 12s
//	when Button, toggles, run Hum: hum 4s
//	when Stop button, stops, run Hum
//	every 10 min, if ready, run Chime: bell 2s
//	after 30s in open, if ready, run Lower: lid down 1.6s; state shut
//	when Rise ends, if ready, run Sigh: fog 2s
//	when power, if ready, run Glow: glow fade 4s
//	always hum is on while frames are up
//
// A cue is a channel, how its level goes, its greatest level, how long it lasts, when it
// starts: glow flicker 70% 4s at 1s. "then" begins when all before it are over.

// NotationError is what is wrong in a text of behaviour, and at which of its letters.
type NotationError struct {
	At, Long int // where in the text, and how many letters
	Line     int // from 1
	Word     string
	Why      string
}

func (e *NotationError) Error() string {
	return fmt.Sprintf("line %d, “%s”: %s", e.Line, e.Word, e.Why)
}

var latchWords = map[string]string{"if ready": "one-shot", "restarts": "retrigger", "while held": "momentary",
	"toggles": "toggle", "sets": "set", "stops": "reset"}

func latchWord(latch string) string {
	for w, l := range latchWords {
		if l == latch {
			return w
		}
	}
	return "if ready"
}

// ---- writing

// WriteBehaviour is all that a prop does, in the notation.
func WriteBehaviour(p *plan.Plan, prop string) string {
	var out []string
	written := map[string]bool{}
	for i := range p.Triggers() {
		t := &p.Triggers()[i]
		in, s := p.Input(t.Input), p.Scene(t.Scene)
		if in == nil || s == nil || in.Prop != prop {
			continue
		}
		cues := !written[s.ID] && t.Latch != "reset" && len(s.Cues) > 0
		written[s.ID] = written[s.ID] || cues
		out = append(out, sentenceOf(p, t, in, s, cues))
	}
	for i := range p.Promises() {
		if x := &p.Promises()[i]; x.Prop == prop {
			out = append(out, "always "+x.Says)
		}
	}
	return strings.Join(out, "\n")
}

// sentenceOf is one trigger as a sentence, with what its scene does or without.
func sentenceOf(p *plan.Plan, t *plan.Trigger, in *plan.Input, s *plan.Scene, cues bool) string {
	line := starts(p, in) + ", " + latchWord(t.Latch)
	if t.While != "" {
		line += ", while " + t.While
	}
	line += ", run " + s.Name
	if cues {
		line += ": " + writeCues(p, s)
	}
	if !t.Rest.IsZero() {
		line += "; rest " + t.Rest.String()
	}
	if t.Then != "" {
		line += "; state " + t.Then
	}
	return line
}

func starts(p *plan.Plan, in *plan.Input) string {
	sceneName := func() string {
		if s := p.Scene(in.Scene); s != nil {
			return s.Name
		}
		return in.Scene
	}
	switch in.Kind {
	case "timer":
		if in.State != "" {
			return "after " + in.Every.String() + " in " + in.State
		}
		return "every " + in.Every.String()
	case "scene begins":
		return "when " + sceneName() + " begins"
	case "scene ends":
		return "when " + sceneName() + " ends"
	case "power":
		return "when power"
	}
	return "when " + in.Name
}

// writeCues writes a scene's cues, those that begin when all before are over behind a
// "then".
func writeCues(p *plan.Plan, s *plan.Scene) string {
	cues := slices.Clone(s.Cues)
	sort.SliceStable(cues, func(i, j int) bool { return cues[i].Start.Value() < cues[j].Start.Value() })
	var out strings.Builder
	begin, end := 0.0, 0.0
	for i, c := range cues {
		at := c.Start.Value()
		switch {
		case i > 0 && math.Abs(at-end) < 5e-4:
			out.WriteString("; then ")
			begin = end
		case i > 0:
			out.WriteString(", ")
		}
		out.WriteString(channelName(p, c.Channel))
		if c.Shape != "" {
			out.WriteString(" " + c.Shape)
		}
		if c.Level > 0 && c.Level < 100 {
			fmt.Fprintf(&out, " %d%%", c.Level)
		}
		out.WriteString(" " + c.Length.String())
		if d := at - begin; d > 5e-4 {
			out.WriteString(" at " + measure.Of[measure.DurationKind](math.Round(d*1000)/1000).String())
		}
		end = math.Max(end, at+c.Length.Value())
	}
	if l := s.Length.Value(); l > 0 {
		out.WriteString("; lasts " + s.Length.String())
	}
	return out.String()
}

// channelName is what a channel is called, where that means it alone.
func channelName(p *plan.Plan, id string) string {
	d := p.Device(id)
	if d == nil || !plainName.MatchString(d.Name) || strings.Contains(d.Name, ",") {
		return id
	}
	for _, w := range strings.Fields(strings.ToLower(d.Name)) {
		if shapeWord(w) || w == "at" || w == "then" || w == "rest" || w == "state" || w == "lasts" {
			return id
		}
	}
	if got, err := channelOf(p, d.Name); err != nil || got != id {
		return id
	}
	return d.Name
}

func shapeWord(w string) bool {
	return w != "" && slices.Contains(show.Shapes, show.Shape(w)) || w == "embers"
}

// ---- reading

// piece is a stretch of the text.
type piece struct {
	text string
	at   int
}

func (x piece) trim() piece {
	lead := len(x.text) - len(strings.TrimLeft(x.text, " \t\n"))
	return piece{strings.TrimSpace(x.text), x.at + lead}
}

// cut splits at every sep, keeping where each piece stands.
func (x piece) cut(sep string) (out []piece) {
	at := x.at
	for _, t := range strings.Split(x.text, sep) {
		out = append(out, piece{t, at}.trim())
		at += len(t) + len(sep)
	}
	return out
}

var sentence = regexp.MustCompile(`(?mi)^[ \t]*(when|every|after|always)\b`)

// notation reads a text of behaviour onto a plan.
type notation struct {
	p     *plan.Plan // as it becomes
	prop  string
	text  string
	taken map[string]bool // triggers that the text says
	said  map[string]bool // promises
}

func (n *notation) bad(x piece, why string, args ...any) error {
	e := &NotationError{At: x.at, Long: len(x.text), Word: x.text, Why: fmt.Sprintf(why, args...)}
	e.Line = 1 + strings.Count(n.text[:min(x.at, len(n.text))], "\n")
	return e
}

// ReadBehaviour is the edit that makes a prop behave as the text says: what it says no
// more is taken away. A text that says what the plan does changes nothing. An error is
// *NotationError.
func ReadBehaviour(p *plan.Plan, prop, text string) (plan.Edit, error) {
	n := &notation{p: p.Clone(), prop: prop, text: text, taken: map[string]bool{}, said: map[string]bool{}}
	if p.Prop(prop) == nil {
		return plan.Edit{}, n.bad(piece{"", 0}, "open a prop first: behaviour belongs to one")
	}
	if len(text) > 20_000 {
		return plan.Edit{}, n.bad(piece{"", 0}, "is too long; 20,000 letters at most")
	}
	marks := sentence.FindAllStringIndex(text, -1)
	if len(marks) == 0 && strings.TrimSpace(text) != "" ||
		len(marks) > 0 && strings.TrimSpace(text[:marks[0][0]]) != "" {
		first := piece{strings.SplitN(strings.TrimSpace(text), "\n", 2)[0], 0}
		return plan.Edit{}, n.bad(
			first,
			"begin with when, every, after or always, such as when mat, if ready: glow 5s",
		)
	}
	for i, m := range marks {
		end := len(text)
		if i+1 < len(marks) {
			end = marks[i+1][0]
		}
		if err := n.sentence(piece{text[m[0]:end], m[0]}.trim()); err != nil {
			return plan.Edit{}, err
		}
	}
	n.tidy(p)
	return plan.Edit{Label: "behaviour of " + p.Prop(prop).Name, Changes: difference(p, n.p)}, nil
}

// tidy takes away what the text says no more: triggers, their scenes when nothing else
// works them, inputs that only the controller knew, promises.
func (n *notation) tidy(before *plan.Plan) {
	n.p.Doc().Triggers = slices.DeleteFunc(n.p.Triggers(), func(t plan.Trigger) bool {
		in := before.Input(t.Input)
		return in != nil && in.Prop == n.prop && !n.taken[t.ID]
	})
	n.p.Doc().Promises = slices.DeleteFunc(
		n.p.Promises(),
		func(x plan.Promise) bool { return x.Prop == n.prop && !n.said[x.ID] },
	)
	works := map[string]bool{}
	worked := map[string]bool{}
	for _, t := range n.p.Triggers() {
		works[t.Scene], worked[t.Input] = true, true
	}
	n.p.Doc().Inputs = slices.DeleteFunc(n.p.Inputs(), func(x plan.Input) bool {
		return x.Prop == n.prop && !x.Wired() && !worked[x.ID]
	})
	for _, x := range n.p.Inputs() {
		works[x.Scene] = true
	}
	n.p.Doc().Scenes = slices.DeleteFunc(n.p.Scenes(), func(s plan.Scene) bool {
		had := slices.ContainsFunc(before.Triggers(), func(t plan.Trigger) bool { return t.Scene == s.ID })
		return s.Prop == n.prop && had && !works[s.ID]
	})
}

// difference are the changes that lead from one plan to another in what behaves.
func difference(a, b *plan.Plan) (out []plan.Change) {
	for _, kind := range []string{"scene", "input", "trigger", "promise"} {
		for _, e := range b.Elements(kind) {
			old, _ := a.Get(kind, e.ID)
			if old == nil || fmt.Sprintf("%+v", old) != fmt.Sprintf("%+v", e.Value) {
				out = append(out, a.Put(kind, e.ID, e.Value))
			}
		}
	}
	for _, kind := range []string{"trigger", "promise", "input", "scene"} {
		for _, e := range a.Elements(kind) {
			if now, _ := b.Get(kind, e.ID); now == nil {
				out = append(out, a.Drop(kind, e.ID))
			}
		}
	}
	return out
}

func (n *notation) sentence(x piece) error {
	word, _, _ := strings.Cut(x.text, " ")
	rest := piece{strings.TrimPrefix(x.text, word), x.at + len(word)}.trim()
	if strings.EqualFold(word, "always") {
		return n.always(rest)
	}
	head, body := rest, piece{}
	if i := strings.Index(rest.text, ":"); i >= 0 {
		head, body = piece{rest.text[:i], rest.at}.trim(), piece{rest.text[i+1:], rest.at + i + 1}.trim()
	}
	var tails []piece
	if body.text == "" {
		tails = head.cut(";")
		head, tails = tails[0], tails[1:]
	} else {
		tails = body.cut(";")
	}
	parts := unjoined(head.cut(","))
	if body.text == "" { // no colon: what is no condition is what happens
		for i, q := range parts {
			if i > 0 && !condition(q.text) {
				tails = append([]piece{{strings.TrimSuffix(head.text[q.at-head.at:], ","), q.at}}, tails...)
				parts = parts[:i]
				break
			}
		}
	}
	in, err := n.input(strings.ToLower(word), parts[0])
	if err != nil {
		return err
	}
	t := plan.Trigger{Input: in, Latch: "one-shot"}
	run := piece{}
	for _, q := range parts[1:] {
		low := strings.ToLower(q.text)
		switch {
		case latchWords[low] != "":
			t.Latch = latchWords[low]
		case strings.HasPrefix(low, "while "):
			t.While = strings.TrimSpace(q.text[6:])
		case strings.HasPrefix(low, "run "):
			run = piece{q.text[4:], q.at + 4}.trim()
		case low == "runs":
		default:
			return n.bad(q, "is not understood; write if ready, restarts, while held, toggles, sets, stops, "+
				"while a state, or run a scene")
		}
	}
	cues, length, err := n.tails(&t, tails)
	if err != nil {
		return err
	}
	return n.trigger(t, run, head, cues, length)
}

// condition is whether a part of a sentence says how, while what, or which scene.
func condition(text string) bool {
	low := strings.ToLower(text)
	return latchWords[low] != "" || low == "runs" || strings.HasPrefix(low, "while ") ||
		strings.HasPrefix(low, "run ")
}

// unjoined parts what was said with no comma between: if ready run Rise.
func unjoined(parts []piece) (out []piece) {
	for _, q := range parts {
		low := strings.ToLower(q.text)
		for w := range latchWords {
			if rest, ok := strings.CutPrefix(low, w+" "); ok && latchWords[low] == "" && condition(rest) {
				out = append(out, piece{q.text[:len(w)], q.at})
				q = piece{q.text[len(w):], q.at + len(w)}.trim()
				break
			}
		}
		out = append(out, q)
	}
	return out
}

// tails reads what stands behind the colon: cues, then cues, rest, state, lasts.
func (n *notation) tails(t *plan.Trigger, tails []piece) (cues []plan.Cue, length measure.Duration, err error) {
	end := 0.0
	for _, q := range tails {
		low := strings.ToLower(q.text)
		for { // "then" may stand before rest and state too
			rest, ok := strings.CutPrefix(low, "then ")
			if !ok {
				break
			}
			q = piece{q.text[len(q.text)-len(rest):], q.at + len(q.text) - len(rest)}.trim()
			low = strings.ToLower(q.text)
		}
		if low == "" {
			continue
		}
		if v, ok := strings.CutPrefix(low, "state "); ok {
			t.Then = strings.TrimSpace(q.text[len(q.text)-len(v):])
			continue
		}
		if _, ok := strings.CutPrefix(low, "lasts "); ok {
			if length, err = n.time(piece{q.text[6:], q.at + 6}.trim()); err != nil {
				return nil, length, err
			}
			continue
		}
		group, far := []piece{}, end
		for _, one := range q.cut(",") {
			if _, ok := strings.CutPrefix(strings.ToLower(one.text), "rest "); ok {
				if t.Rest, err = n.time(piece{one.text[5:], one.at + 5}.trim()); err != nil {
					return nil, length, err
				}
				continue
			}
			group = append(group, one)
		}
		var open []int // cues with no length of their own: they last as long as the others
		for _, one := range group {
			c, bare, err := n.cue(one, end)
			if err != nil {
				return nil, length, err
			}
			if bare {
				open = append(open, len(cues))
			} else {
				far = math.Max(far, c.Start.Value()+c.Length.Value())
			}
			cues = append(cues, c)
		}
		for _, i := range open {
			long := far - cues[i].Start.Value()
			if long <= 0 {
				long = 1
				far = math.Max(far, cues[i].Start.Value()+1)
			}
			cues[i].Length = measure.Of[measure.DurationKind](math.Round(long*1000) / 1000)
		}
		end = far
	}
	return cues, length, nil
}

func (n *notation) time(x piece) (measure.Duration, error) {
	d, err := measure.Parse[measure.DurationKind](x.text)
	if err != nil || d.Value() <= 0 {
		return d, n.bad(x, "is no time; write such as 0.9s, 12 s or 5 min")
	}
	return d, nil
}

var share = regexp.MustCompile(`^(\d{1,3})\s?%$`)

// cue reads glow flicker 70% 4s at 1s, begun so many seconds into its scene.
func (n *notation) cue(x piece, begin float64) (c plan.Cue, bare bool, err error) {
	body, at := x, 0.0
	low := strings.ToLower(x.text)
	if i := strings.LastIndex(low, " at "); i > 0 {
		tail := piece{x.text[i+4:], x.at + i + 4}.trim()
		if strings.HasSuffix(tail.text, "%") { // at 70%
			body.text = x.text[:i] + " " + x.text[i+4:]
		} else {
			d, err := measure.Parse[measure.DurationKind](tail.text)
			if err != nil || d.Value() < 0 {
				return c, false, n.bad(tail, "is no time; write such as at 0.3s")
			}
			at, body = d.Value(), piece{x.text[:i], x.at}.trim()
		}
	}
	words, bare, err := n.ends(&c, x, strings.Fields(body.text))
	if err != nil {
		return c, false, err
	}
	name := strings.Join(words, " ")
	id, e := channelOf(n.p, name)
	if e != nil {
		return c, false, n.bad(piece{name, x.at}, "%s", e)
	}
	c.Channel = id
	c.Start = measure.Of[measure.DurationKind](math.Round((begin+at)*1000) / 1000)
	return c, bare, nil
}

// ends takes a cue's level, length and shape from the end of its words; bare is one whose
// length is not said.
func (n *notation) ends(c *plan.Cue, x piece, words []string) (left []string, bare bool, err error) {
	bare = true
	for len(words) > 1 {
		last := words[len(words)-1]
		two := strings.Join(words[max(0, len(words)-2):], " ")
		if m := share.FindStringSubmatch(last); m != nil {
			if c.Level, _ = strconv.Atoi(m[1]); c.Level < 1 || c.Level > 100 {
				return nil, false, n.bad(x, "%s cannot be; write 1%% to 100%%", last)
			}
			words = words[:len(words)-1]
			continue
		}
		if d, err := measure.Parse[measure.DurationKind](last); err == nil &&
			strings.ContainsAny(last, "0123456789") &&
			bare {
			if d.Value() <= 0 {
				return nil, false, n.bad(x, "lasts no time; write such as 0.8s")
			}
			c.Length, bare = d, false
			words = words[:len(words)-1]
			continue
		}
		if d, err := measure.Parse[measure.DurationKind](two); len(words) > 2 && err == nil && d.Value() > 0 &&
			bare &&
			strings.ContainsAny(words[len(words)-2], "0123456789") {
			c.Length, bare = d, false
			words = words[:len(words)-2]
			continue
		}
		if w := strings.ToLower(last); shapeWord(w) && c.Shape == "" {
			if c.Shape = w; w == "embers" {
				c.Shape = string(show.Flicker)
			}
			words = words[:len(words)-1]
			continue
		}
		break
	}
	return words, bare, nil
}

// channelOf is the switch that a name means: its own, that of what it feeds, or the
// only one whose name has it.
func channelOf(p *plan.Plan, name string) (string, error) {
	var part []string
	for i := range p.Devices() {
		d := &p.Devices()[i]
		if !d.Driven {
			continue
		}
		if sameName(d.Name, name) || strings.EqualFold(d.ID, name) {
			return d.ID, nil
		}
		if containsFold(d.Name, name) {
			part = append(part, d.ID)
		}
	}
	if len(part) == 1 {
		return part[0], nil
	}
	for i := range p.Devices() {
		if d := &p.Devices()[i]; sameName(d.Name, name) || strings.EqualFold(d.ID, name) {
			for up := d; up != nil; up = p.Device(up.From) {
				if up.Driven {
					return up.ID, nil
				}
			}
		}
	}
	if id := feeding(p, name); id != "" && len(part) == 0 {
		return id, nil
	}
	var names []string
	for i := range p.Devices() {
		if d := &p.Devices()[i]; d.Driven {
			names = append(names, d.Name)
		}
	}
	switch {
	case len(part) > 1:
		for i, id := range part {
			part[i] = p.Device(id).Name
		}
		return "", fmt.Errorf("could be %s; say which", strings.Join(part, " or "))
	case len(names) == 0:
		return "", fmt.Errorf("nothing is driven by scenes yet: hang it behind a driven switch in the Loom")
	}
	return "", fmt.Errorf("is no switch that scenes drive; there are %s", strings.Join(names, ", "))
}

// feeding is the one switch that feeds what has a name in its own or its product's; "" when
// there is none, or more than one.
func feeding(p *plan.Plan, name string) string {
	lib, found := p.Own(), ""
	for i := range p.Devices() {
		d := &p.Devices()[i]
		if !d.Is(wiring.Load) || !containsFold(d.Name+" "+lib.Lamps[d.Product].Name+" "+d.Product, name) {
			continue
		}
		for up := p.Device(d.From); up != nil; up = p.Device(up.From) {
			if !up.Driven {
				continue
			}
			if found != "" && found != up.ID {
				return ""
			}
			found = up.ID
			break
		}
	}
	return found
}

func containsFold(all, part string) bool {
	return part != "" && strings.Contains(strings.ToLower(all), strings.ToLower(part))
}

// input finds or makes what starts it.
func (n *notation) input(word string, x piece) (string, error) {
	for _, tail := range []string{" runs", " is pressed", " is worked", " is stepped on", " closes", " sees somebody"} {
		if t := len(x.text) - len(tail); t > 0 && strings.EqualFold(x.text[t:], tail) {
			x.text = x.text[:t]
		}
	}
	low := strings.ToLower(x.text)
	if word == "every" || word == "after" {
		return n.clock(word, x)
	}
	if low == "power" || low == "power comes on" {
		return n.own(plan.Input{Kind: "power", Name: "Power"}), nil
	}
	for _, end := range []string{"begins", "ends"} {
		if name, ok := strings.CutSuffix(low, " "+end); ok {
			for i := range n.p.Scenes() {
				if s := &n.p.Scenes()[i]; sameName(s.Name, name) || strings.EqualFold(s.ID, name) {
					return n.own(plan.Input{Kind: "scene " + end, Name: s.Name + " " + end, Scene: s.ID}), nil
				}
			}
			return "", n.bad(x, "there is no scene of that name yet; say what it does first")
		}
	}
	var part []string
	for i := range n.p.Inputs() {
		in := &n.p.Inputs()[i]
		if in.Prop == n.prop && (sameName(in.Name, x.text) || strings.EqualFold(in.ID, x.text)) {
			return in.ID, nil
		}
		if in.Prop == n.prop && in.Wired() && (containsFold(in.Name, x.text) || in.Kind == low) {
			part = append(part, in.ID)
		}
	}
	if len(part) == 1 {
		return part[0], nil
	}
	if len(part) > 1 {
		for i, id := range part {
			part[i] = n.p.Input(id).Name
		}
		return "", n.bad(x, "could be %s; say which", strings.Join(part, " or "))
	}
	kind := low[strings.LastIndex(low, " ")+1:] // the last word: top switch
	if k := slices.Index(plan.InputKinds, kind); k < 0 || k >= slices.Index(plan.InputKinds, "timer") {
		return "", n.bad(x, "is no input of this prop; end its name with button, mat, beam, motion, switch, remote, "+
			"sound or knob to make one")
	}
	return n.own(plan.Input{Kind: kind, Name: measure.Capital(x.text),
		MinPulse: measure.Must[measure.DurationKind]("30 ms")}), nil
}

// own is an input of this prop: the one that is there already, or a new one.
func (n *notation) own(x plan.Input) string {
	x.Prop = n.prop
	for i := range n.p.Inputs() {
		in := &n.p.Inputs()[i]
		if !x.Wired() && in.Prop == x.Prop && in.Kind == x.Kind && in.Every.Value() == x.Every.Value() &&
			in.State == x.State && in.Scene == x.Scene {
			return in.ID
		}
	}
	x.ID = n.p.FreshID("input", n.prop+"-"+x.Name)
	n.p.Doc().Inputs = append(n.p.Inputs(), x)
	return x.ID
}

// trigger puts what a sentence says into the plan.
func (n *notation) trigger(t plan.Trigger, run, head piece, cues []plan.Cue, length measure.Duration) error {
	var old *plan.Trigger // the one of this input not spoken of yet, of that scene if it can be
	for i := range n.p.Triggers() {
		q := &n.p.Triggers()[i]
		s := n.p.Scene(q.Scene)
		if q.Input != t.Input || n.taken[q.ID] {
			continue
		}
		if old == nil || run.text != "" && s != nil && sameName(s.Name, run.text) {
			old = q
		}
	}
	var scene *plan.Scene
	if run.text != "" {
		for i := range n.p.Scenes() {
			if s := &n.p.Scenes()[i]; sameName(s.Name, run.text) || strings.EqualFold(s.ID, run.text) {
				scene = s
				break
			}
		}
	} else if old != nil {
		scene = n.p.Scene(old.Scene)
	}
	if scene == nil {
		if len(cues) == 0 {
			return n.bad(head, "say what happens, such as : glow 5s")
		}
		name := run.text
		if name == "" {
			name = n.p.Input(t.Input).Name + " scene"
		}
		n.p.Doc().Scenes = append(n.p.Scenes(), plan.Scene{ID: n.p.FreshID("scene", name), Prop: n.prop, Name: name})
		scene = &n.p.Scenes()[len(n.p.Scenes())-1]
	}
	if len(cues) > 0 {
		if !sameCues(scene.Cues, cues) {
			scene.Cues, scene.Made = cues, false
		}
		if length.Value() != scene.Length.Value() {
			scene.Length = length
		}
	} else if len(scene.Cues) == 0 && t.Latch != "reset" {
		return n.bad(head, "%s has no cues yet; say what happens, such as : glow 5s", scene.Name)
	}
	t.Scene = scene.ID
	if old == nil {
		t.ID = n.p.FreshID("trigger", t.Input+" "+t.Scene)
		n.p.Doc().Triggers = append(n.p.Triggers(), t)
	} else {
		t.ID = old.ID
		if t.Rest.Value() == old.Rest.Value() {
			t.Rest = old.Rest
		}
		*old = t
	}
	n.taken[t.ID] = true
	return nil
}

// sameCues is whether two lists of cues do the same, in whatever order they stand.
func sameCues(a, b []plan.Cue) bool {
	words := func(cs []plan.Cue) []string {
		var out []string
		for _, c := range cs {
			level := c.Level
			if level == 0 {
				level = 100
			}
			out = append(
				out,
				fmt.Sprintf("%s %.3f %.3f %s %d", c.Channel, c.Start.Value(), c.Length.Value(), c.Shape, level),
			)
		}
		sort.Strings(out)
		return out
	}
	return slices.Equal(words(a), words(b))
}

func (n *notation) always(x piece) error {
	if _, err := n.p.Promise("", x.text); err != nil {
		return n.bad(x, "%s", strings.TrimPrefix(err.Error(), "says: "))
	}
	for i := range n.p.Promises() {
		if q := &n.p.Promises()[i]; q.Prop == n.prop && sameName(q.Says, x.text) {
			n.said[q.ID] = true
			return nil
		}
	}
	id := n.p.FreshID("promise", n.prop+"-promise")
	n.p.Doc().Promises = append(n.p.Promises(), plan.Promise{ID: id, Prop: n.prop, Says: x.text})
	n.said[id] = true
	return nil
}

// ---- on the quick line

// when adds one sentence to what the open prop does.
func (r *reader) when() (*Reading, error) {
	line := strings.ReplaceAll(strings.Join(r.words, " "), " , ", ", ")
	n := &notation{p: r.p.Clone(), prop: r.prop, text: line, taken: map[string]bool{}, said: map[string]bool{}}
	if r.p.Prop(r.prop) == nil {
		return nil, fmt.Errorf("open a prop first: behaviour belongs to one")
	}
	if err := n.sentence(piece{line, 0}); err != nil {
		return nil, err
	}
	changes := difference(r.p, n.p)
	sel := ""
	for _, c := range changes {
		if c.Kind == "trigger" || c.Kind == "promise" {
			sel = c.Kind + ":" + c.ID
		}
	}
	text := measure.Capital(line)
	for i := range n.p.Triggers() { // as it would be written: what was understood
		if t := &n.p.Triggers()[i]; n.taken[t.ID] {
			text = sentenceOf(n.p, t, n.p.Input(t.Input), n.p.Scene(t.Scene), t.Latch != "reset")
		}
	}
	return &Reading{Text: text, Edit: plan.Edit{Changes: changes}, Select: sel}, nil
}

// mechanism adds one: mechanism lid Cover 2 kg on K5 motor L9.
func (r *reader) mechanism() (*Reading, error) {
	words := r.words[1:]
	if len(words) < 2 || !slices.Contains(plan.MechanismKinds, strings.ToLower(words[0])) {
		return nil, fmt.Errorf("say which of %s, and its name", strings.Join(plan.MechanismKinds, ", "))
	}
	x := plan.Mechanism{Prop: r.prop, Kind: strings.ToLower(words[0])}
	rest := words[1:]
	if head, tail, ok := parted(rest, "motor"); ok {
		d := r.device(strings.Join(tail, " "))
		if d == nil || !d.Is(wiring.Load) {
			return nil, fmt.Errorf("there is no motor %q", strings.Join(tail, " "))
		}
		x.Motor, rest = d.ID, head
		for up := r.device(d.From); up != nil; up = r.device(up.From) {
			if up.Driven {
				x.Up = up.ID
				break
			}
		}
	}
	if n := len(rest); n > 2 {
		if m, err := measure.Parse[measure.MassKind](strings.Join(rest[n-2:], " ")); err == nil && m.Value() > 0 {
			x.Mass, rest = m, rest[:n-2]
		}
	}
	x.Name = measure.Capital(asTyped(rest))
	x.ID = r.p.FreshID("mechanism", r.prop+"-"+x.Name)
	x = Sensible(x, r.p.Metric())
	return r.put(fmt.Sprintf("%s, a %s", x.Name, x.Kind), "mechanism", x.ID, x)
}

// Sensible gives a new mechanism sizes to begin from.
func Sensible(x plan.Mechanism, metric bool) plan.Mechanism {
	l := func(in, mm string) measure.Length {
		if metric {
			return measure.Must[measure.LengthKind](mm)
		}
		return measure.Must[measure.LengthKind](in)
	}
	a := measure.Must[measure.AngleKind]
	if x.Mass.IsZero() {
		x.Mass = measure.Must[measure.MassKind]("2 lb")
		if metric {
			x.Mass = measure.Must[measure.MassKind]("1 kg")
		}
	}
	switch x.Kind {
	case "lid":
		x.Crank, x.Link, x.Arm = l("2 in", "50 mm"), l("8 in", "200 mm"), l("6 in", "150 mm")
		x.PivotX, x.PivotY = l("6 in", "150 mm"), l("-7 in", "-180 mm")
		x.From, x.To, x.Reach, x.Tip = a("-90"), a("60"), l("9 in", "230 mm"), l("18 in", "460 mm")
	case "slide":
		x.Crank, x.Link, x.From, x.To = l("4 in", "100 mm"), l("10 in", "250 mm"), a("-90"), a("90")
	case "winch":
		x.Drum, x.Travel = l("1 1/2 in", "40 mm"), l("24 in", "600 mm")
	case "turntable":
		x.From, x.To, x.Reach = a("0"), a("360"), l("4 in", "100 mm")
	default:
		x.From, x.To, x.Reach, x.Tip = a("0"), a("60"), l("3 in", "75 mm"), l("6 in", "150 mm")
	}
	return x
}

// clock is a timer: every 10 min, or after 30s in open.
func (n *notation) clock(word string, x piece) (string, error) {
	if word == "every" {
		d, err := n.time(x)
		if err != nil {
			return "", err
		}
		return n.own(plan.Input{Kind: "timer", Name: "Every " + d.String(), Every: d}), nil
	}
	i := strings.LastIndex(strings.ToLower(x.text), " in ")
	if i < 0 {
		return "", n.bad(x, "say after how long in which state, such as after 30s in open")
	}
	d, err := n.time(piece{x.text[:i], x.at}.trim())
	if err != nil {
		return "", err
	}
	state := strings.TrimSpace(x.text[i+4:])
	return n.own(
		plan.Input{Kind: "timer", Name: "After " + d.String() + " in " + state, Every: d, State: state},
	), nil
}
