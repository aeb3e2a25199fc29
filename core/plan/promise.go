package plan

import (
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/show"
	"zapbarn/core/wiring"
)

// Promise is a rule of the builder's own that the show must keep, in plain words:
// lamp is on while lid is open; horn never longer than 8s; up and down never together.
type Promise struct {
	ID   string `json:"id"`
	Prop string `json:"prop" ref:"prop,needed"`
	Says string `json:"says" max:"200" label:"It says" wide:"true"`
}

var promiseKind = listed(kind{name: "promise", most: 200, again: func(v any, c *copying) string {
	x := v.(*Promise)
	x.ID = c.fresh("promise", c.prop+"-promise")
	return x.ID
}}, func(p *Plan) *[]Promise { return &p.doc.Promises })

func (x *Promise) Key() string    { return x.ID }
func (x *Promise) Called() string { return x.Says }

func (x *Promise) valid(checks) error {
	if strings.TrimSpace(x.Says) == "" {
		return measure.Bad("says", "is empty; write such as lamp is on while lid is open")
	}
	return nil
}

// Promise reads a rule in plain words: A is on while B is open, A never longer than 8 s,
// A and B never together. A and B are names of switches that scenes drive, of what such
// a switch feeds, of mechanisms or of scenes.
func (p *Plan) Promise(id, says string) (show.Promise, error) {
	text := strings.TrimSpace(strings.TrimSuffix(strings.TrimSpace(says), "."))
	out := show.Promise{ID: id, Why: text}
	var err error
	term := func(name string) (t show.Term) {
		t, e := p.term(name)
		if err == nil {
			err = e
		}
		return t
	}
	low := strings.ToLower(text)
	cut := func(sep string) (a, b string, ok bool) {
		if i := strings.Index(low, sep); i > 0 {
			return text[:i], text[i+len(sep):], true
		}
		return "", "", false
	}
	if a, b, ok := cut(" while "); ok {
		out.Kind, out.A, out.B, out.For = show.OnWhile, term(a), term(b), show.Grace
		return out, err
	}
	for _, sep := range []string{" never longer than ", " at most ", " no longer than "} {
		if a, b, ok := cut(sep); ok {
			d, e := measure.Parse[measure.DurationKind](b)
			if e != nil || d.Value() <= 0 {
				return out, measure.Bad("says", "%q is no time; write such as 8 s", strings.TrimSpace(b))
			}
			out.Kind, out.A, out.For = show.Longest, term(a), int(d.Value()*1000)
			return out, err
		}
	}
	for _, sep := range []string{" never together", " never both", " are never on together"} {
		if strings.HasSuffix(low, sep) {
			a, b, ok := strings.Cut(text[:len(text)-len(sep)], " and ")
			if ok {
				out.Kind, out.A, out.B = show.Never, term(a), term(b)
				return out, err
			}
		}
	}
	if a, b, ok := cut(" never with "); ok {
		out.Kind, out.A, out.B = show.Never, term(a), term(b)
		return out, err
	}
	return out, measure.Bad(
		"says",
		"%q is not understood; write such as lamp is on while lid is open, horn never longer than 8s, "+
			"or up and down never together",
		text,
	)
}

// term is what a name of a promise means.
func (p *Plan) term(text string) (show.Term, error) {
	name := strings.TrimSpace(text)
	for _, tail := range []string{" is on", " is open", " is up", " is running", " runs", " plays", " is lit", " are on",
		" are up", " are open", " is out", " are out", " is closed", " is pressed", " on", " open", " closed", " pressed"} {
		if strings.HasSuffix(strings.ToLower(name), tail) {
			name = strings.TrimSpace(name[:len(name)-len(tail)])
			break
		}
	}
	for _, lead := range []string{"the ", "The "} {
		name = strings.TrimPrefix(name, lead)
	}
	same := func(a string) bool { return strings.EqualFold(strings.TrimSpace(a), name) }
	for i := range p.Mechanisms() {
		if m := &p.Mechanisms()[i]; same(m.Name) || same(m.ID) {
			return show.Term{Kind: "mover", ID: m.ID}, nil
		}
	}
	for i := range p.Devices() {
		if d := &p.Devices()[i]; d.Driven && (same(d.Name) || same(d.ID)) {
			return show.Term{Kind: "channel", ID: d.ID}, nil
		}
	}
	for i := range p.Devices() { // what a driven switch feeds
		if d := &p.Devices()[i]; same(d.Name) || same(d.ID) {
			for up := d; up != nil; up = p.Device(up.From) {
				if up.Driven {
					return show.Term{Kind: "channel", ID: up.ID}, nil
				}
			}
		}
	}
	for i := range p.Scenes() {
		if s := &p.Scenes()[i]; same(s.Name) || same(s.ID) {
			return show.Term{Kind: "scene", ID: s.ID}, nil
		}
	}
	if found, err := p.partly(name); found != "" || err != nil {
		return show.Term{Kind: "channel", ID: found}, err
	}
	for i := range p.Inputs() {
		if x := &p.Inputs()[i]; x.Wired() && (same(x.Name) || same(x.ID)) {
			return show.Term{Kind: "input", ID: x.ID}, nil
		}
	}
	return show.Term{}, measure.Bad("says", "nothing here is called %q; name a switch that scenes drive, what it "+
		"feeds, a mechanism, a scene or a contact", name)
}

// PromiseOf is the promise with that ID, or nil.
func (p *Plan) PromiseOf(id string) *Promise {
	return find(p.Promises(), id, func(x *Promise) string { return x.ID })
}

// partly is the switch that feeds a lamp part of whose name this is, where all such have
// the one switch.
func (p *Plan) partly(name string) (found string, err error) {
	for i := range p.Devices() {
		d := &p.Devices()[i]
		if !d.Is(wiring.Load) || name == "" || !strings.Contains(strings.ToLower(d.Name), strings.ToLower(name)) {
			continue
		}
		for up := p.Device(d.From); up != nil; up = p.Device(up.From) {
			if up.Driven {
				if found != "" && found != up.ID {
					return "", measure.Bad("says", "%q could be several; say which", name)
				}
				found = up.ID
				break
			}
		}
	}
	return found, nil
}
