package shorthand

import (
	"errors"
	"fmt"
	"slices"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
)

// relations are the words that place a solid by another: cap on body, ring
// around pole at 4 ft, lamp box in hive, left arm beside body.
var relations = []string{
	"on",
	"in",
	"inside",
	"around",
	"beside",
	"behind",
	"before",
	"hangs",
	"centred",
	"centered",
	"floor",
}

// place moves a solid by its relation to another; sizes are those of both as
// they stand.
func (r *reader) place(t thing, words []string) (*Reading, error) {
	s, ok := t.value.(*plan.Solid)
	if !ok {
		return nil, fmt.Errorf("only solids are placed so; %s is none", plan.NameOf(t.value))
	}
	next := *s
	how := strings.ToLower(words[0])
	line := r.phrase(words[1:])
	at := line.After("at")
	if _, err := s.Shape(r.lib); err != nil {
		return nil, fmt.Errorf("%s: %w", s.Name, err)
	}
	if how == "centred" || how == "centered" || how == "floor" || how == "hangs" {
		return r.alone(s, how, at)
	}
	side := line.OneOf("right", "left", "right")
	other, rest, ok := r.named(line.List)
	o, solid := other.value.(*plan.Solid)
	if !ok || !solid || o.ID == s.ID {
		return nil, r.what(line.List)
	}
	if err := wantNone(rest); err != nil {
		return nil, err
	}
	if _, err := o.Shape(r.lib); err != nil {
		return nil, fmt.Errorf("%s: %w", o.Name, err)
	}
	text := fmt.Sprintf("%s %s %s", s.Name, how, o.Name)
	next.By, next.How, next.ByAt = o.ID, how, measure.Length{}
	switch how {
	case "inside":
		next.How = "in"
	case "beside":
		next.How = "beside " + side
		text += ", on its " + side
	}
	if next.How == "in" || next.How == "around" {
		next.ByAt = at
	}
	next, err := r.p.Stood(next, r.lib)
	var refused *measure.FieldError
	if errors.As(err, &refused) {
		return nil, errors.New(refused.Why)
	}
	if err != nil {
		return nil, err
	}
	switch {
	case how == "on":
		text += ", " + w(r, next.Z) + " up"
	case !next.ByAt.IsZero():
		text += ", " + w(r, at) + " up it"
	}
	return r.put(text, "solid", s.ID, next)
}

// known reads a phrase that begins with the name of a thing: what is set on it,
// or where it goes. It is meant so when a field or a relation follows the name.
func (r *reader) known() (got *Reading, meant bool, err error) {
	t, rest, ok := r.named(r.words)
	if !ok || r.makes(rest) {
		return nil, false, nil
	}
	if len(rest) > 0 && slices.Contains(relations, strings.ToLower(rest[0])) {
		got, err = r.place(t, rest)
		return got, true, err
	}
	if len(rest) > 0 {
		_, meant = fieldOf(t.value, rest[0])
	}
	got, err = r.change(t, rest)
	return got, meant, err
}

// makes is whether a line that begins with the name of a thing, of several words or with a
// number in it, makes another all the same: its first word is a verb that reads the whole of
// it, or the name ends in the first number of sizes, as of a thing called Box 2 in box 2 x 4.
func (r *reader) makes(rest []string) bool {
	name := r.words[:len(r.words)-len(rest)]
	if len(name) < 2 && !strings.ContainsAny(name[0], "0123456789") {
		return false
	}
	again := *r
	again.words = slices.Clone(r.words)
	verb, v, ok := again.verb()
	if !ok {
		return false
	}
	if len(rest) > 0 && bareNumber(name[len(name)-1]) && (strings.EqualFold(rest[0], "x") || rest[0] == "×") {
		return true
	}
	_, err := again.attempt(verb, v)
	return err == nil
}

// alone places a solid by nothing else: in the middle of its prop, on the floor, or hung.
func (r *reader) alone(s *plan.Solid, how string, at measure.Length) (*Reading, error) {
	next := *s
	next.By, next.How = "", ""
	switch how {
	case "floor":
		next.Z = measure.Length{}
		return r.put(s.Name+" on the floor", "solid", s.ID, next)
	case "hangs":
		if at.IsZero() {
			return nil, fmt.Errorf("say at what height, such as %s hangs at 6 ft", s.Name)
		}
		next.Z = at
		return r.put(fmt.Sprintf("%s hangs, its foot at %s", s.Name, w(r, at)), "solid", s.ID, next)
	}
	next.X, next.Y = measure.Length{}, measure.Length{}
	return r.put(s.Name+" to the middle of its prop", "solid", s.ID, next)
}
