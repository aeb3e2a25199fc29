package shorthand

import (
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
	tape := func(mm float64) measure.Length { return measure.OnTape(mm, r.p.Metric()) }

	line := r.phrase(words[1:])
	at := line.After("at")
	own, err := s.Shape(r.lib)
	if err != nil {
		return nil, fmt.Errorf("%s: %w", s.Name, err)
	}
	switch how {
	case "centred", "centered":
		next.X, next.Y = measure.Length{}, measure.Length{}
		return r.put(s.Name+" to the middle of its prop", "solid", s.ID, next)
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
	side := line.OneOf("right", "left", "right")
	other, rest, ok := r.named(line.List)
	o, solid := other.value.(*plan.Solid)
	if !ok || !solid || o.ID == s.ID {
		return nil, r.what(line.List)
	}
	if err := wantNone(rest); err != nil {
		return nil, err
	}
	that, err := o.Shape(r.lib)
	if err != nil {
		return nil, fmt.Errorf("%s: %w", o.Name, err)
	}
	next.X, next.Y = o.X, o.Y
	text := fmt.Sprintf("%s %s %s", s.Name, how, o.Name)
	switch how {
	case "on":
		up := o.Z.Value() + that.Size.Z
		next.Z = tape(up)
		text += ", " + w(r, next.Z) + " up"
	case "in", "inside", "around":
		up := o.Z.Value() + at.Value()
		if next.Z = tape(up); up == 0 {
			next.Z = measure.Length{}
		}
		inner, outer, names := own, that, s.Name
		if how == "around" {
			inner, outer, names = that, own, o.Name
		}
		if inner.Size.X > outer.Size.X+.5 || inner.Size.Y > outer.Size.Y+.5 {
			return nil, fmt.Errorf(
				"%s is larger than what should be round it: %s by %s against %s by %s",
				names,
				measure.Tape(
					inner.Size.X,
					r.p.Metric(),
				),
				measure.Tape(inner.Size.Y, r.p.Metric()),
				measure.Tape(outer.Size.X, r.p.Metric()),
				measure.Tape(outer.Size.Y, r.p.Metric()),
			)
		}
		if !at.IsZero() {
			text += ", " + w(r, at) + " up it"
		}
	case "beside":
		off := (that.Size.X + own.Size.X) / 2
		if side == "left" {
			off = -off
		}
		next.X, next.Z = tape(o.X.Value()+off), o.Z
		text += ", on its " + side
	case "behind", "before":
		off := (that.Size.Y + own.Size.Y) / 2
		if how == "before" {
			off = -off
		}
		next.Y, next.Z = tape(o.Y.Value()+off), o.Z
	}
	return r.put(text, "solid", s.ID, next)
}

// known reads a phrase that begins with the name of a thing: what is set on it,
// or where it goes. It is meant so when a field or a relation follows the name.
func (r *reader) known() (got *Reading, meant bool, err error) {
	t, rest, ok := r.named(r.words)
	if !ok {
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
