package shorthand

import (
	"fmt"
	"reflect"
	"slices"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/words"
)

// thing is an element that a phrase names.
type thing struct {
	kind, id string
	value    any // pointer to its struct
}

// named finds the element that a phrase begins with, those of the open prop
// first, the longest name first; rest are the words behind it.
func (r *reader) named(words []string) (t thing, rest []string, ok bool) {
	best := 0
	try := func(kind, id, name, prop string, v any) {
		for _, called := range []string{name, id} {
			n := len(nameWords(called))
			if n == 0 || n > len(words) || !sameName(strings.Join(words[:n], " "), called) {
				continue
			}
			score := 2 * n
			if prop == r.prop && prop != "" {
				score++
			}
			if score > best {
				best, t, rest, ok = score, thing{kind, id, v}, words[n:], true
			}
		}
	}
	for _, kind := range []string{"solid", "device", "prop", "input", "scene", "outlet", "plug", "person", "delivery",
		"wall", "walkway", "fixture", "cord", "viewpoint"} {
		for _, e := range r.p.Elements(kind) {
			try(kind, e.ID, plan.NameOf(e.Value), r.p.Belongs(e.Value), e.Value)
		}
	}
	return t, rest, ok
}

// what refuses a phrase that names nothing there is, and lists what there is.
func (r *reader) what(words []string) error {
	var have []string
	for _, kind := range []string{"solid", "device"} {
		for _, e := range r.p.Elements(kind) {
			if r.p.Belongs(e.Value) == r.prop && len(have) < 8 {
				have = append(have, plan.NameOf(e.Value))
			}
		}
	}
	if len(have) == 0 {
		return fmt.Errorf("nothing here is called %q", strings.Join(words, " "))
	}
	return fmt.Errorf("nothing here is called %q; there is %s", strings.Join(words, " "), strings.Join(have, ", "))
}

// fieldWords are what people call a field, by what they say; the first that the
// thing has is meant.
var fieldWords = map[string][]string{
	"width": {
		"w",
		"low",
		"wide",
	}, "wide": {"w", "low", "wide"}, "wider": {"w", "low"}, "narrower": {"w", "low"}, "across": {"w", "low"},
	"diameter": {"w", "low"},
	"height": {
		"h",
	}, "tall": {"h"}, "taller": {"h"}, "high": {"h"}, "higher": {"z"}, "lower": {"z"}, "shorter": {"h", "length"},
	"rise": {"h"},
	"depth": {
		"d",
		"depth",
	}, "deep": {"d", "depth"}, "deeper": {"d"}, "shallower": {"d"}, "longer": {"length", "h"}, "long": {"length"},
	"bottom": {
		"low",
		"bottom",
	}, "top": {"high", "top"}, "gores": {"sides"}, "right": {"x"}, "left": {"x"}, "back": {"y"}, "forward": {"y"},
	"up":   {"z"},
	"hole": {"bore"}, "product": {"product"}, "fuse": {"rating"}, "called": {"name"},
}

// less are the words that take away.
var less = []string{"narrower", "shorter", "shallower", "lower", "left", "forward"}

// fieldOf is the field a word means on an element: by its name in files, its
// label on the ticket, or what people say.
func fieldOf(v any, word string) (string, bool) {
	word = strings.ToLower(word)
	for _, f := range append([]string{word}, fieldWords[word]...) {
		if _, _, _, ok := plan.At(v, f); ok && f != "id" && f != "prop" && f != "kind" {
			return f, true
		}
	}
	s, ok := v.(*plan.Solid)
	if !ok || s.Form == nil {
		return "", false
	}
	t := reflect.TypeOf(s.Form)
	for i := range t.NumField() {
		label := strings.ToLower(t.Field(i).Tag.Get("label"))
		if first, _, _ := strings.Cut(label, ","); label == word || first == word {
			name, _, _ := strings.Cut(t.Field(i).Tag.Get("json"), ",")
			return name, true
		}
	}
	return "", false
}

// change sets a field of a thing that is named: box height 30, front wider by
// 2 in, K2 rating 5a.
func (r *reader) change(t thing, words []string) (*Reading, error) {
	if len(words) == 0 {
		return nil, fmt.Errorf("say what of it, such as %s height 30", plan.NameOf(t.value))
	}
	word := strings.ToLower(words[0])
	next := reflect.New(reflect.TypeOf(t.value).Elem())
	next.Elem().Set(reflect.ValueOf(t.value).Elem())
	v := next.Interface()
	field, ok := fieldOf(v, word)
	if !ok {
		return nil, fmt.Errorf("%s has no %q", plan.NameOf(t.value), words[0])
	}
	value := words[1:]
	if len(value) > 0 && (strings.EqualFold(value[0], "to") || value[0] == "=") {
		value = value[1:]
	}
	text := strings.ReplaceAll(strings.Join(value, " "), " , ", ",")
	by := len(value) > 0 && strings.EqualFold(value[0], "by") ||
		slices.Contains(
			[]string{"wider", "narrower", "taller", "shorter", "deeper", "shallower", "longer", "higher", "lower"},
			word,
		)
	f, _, _, _ := plan.At(v, field)
	was := said(f) // it is changed in place
	if l, length := f.Interface().(measure.Length); by && length {
		more, err := measure.ParseLengthIn(strings.TrimSpace(strings.TrimPrefix(strings.ToLower(text), "by")), r.bare())
		if err != nil {
			return nil, err
		}
		mm := more.Value()
		if slices.Contains(less, word) {
			mm = -mm
		}
		text = measure.Tape(l.Value()+mm, r.p.Metric())
	} else if f.Kind() == reflect.Bool && text == "" {
		text = "on"
	} else if length && slices.Contains([]string{"left", "forward"}, word) && text != "" {
		text = "-" + text
	}
	if text == "" {
		return nil, fmt.Errorf("say the new %s", words[0])
	}
	if err := plan.SetText(v, field, text, r.p.Metric()); err != nil {
		return nil, err
	}
	now, _, _, _ := plan.At(v, field)
	return r.put(fmt.Sprintf("%s: %s %v, was %v", plan.NameOf(t.value), words[0], said(now), was), t.kind, t.id, v)
}

// said writes a field's value; nothing is nothing.
func said(v reflect.Value) string {
	switch x := v.Interface().(type) {
	case bool:
		return map[bool]string{true: "on", false: "off"}[x]
	default:
		if s := fmt.Sprint(x); s != "" {
			return s
		}
	}
	return "not said"
}

// remove takes a named thing away, with what cannot stand without it.
func (r *reader) remove() (*Reading, error) {
	list := r.words[1:]
	t, rest, ok := r.named(list)
	if !ok {
		return nil, r.what(list)
	}
	if err := wantNone(rest); err != nil {
		return nil, err
	}
	e := r.p.Without(t.kind, t.id)
	text := "take away " + plan.NameOf(t.value)
	if n := len(e.Changes) - 1; n > 0 {
		text += ", and " + words.Count(n, "thing") + " on it"
	}
	sel := "prop:" + r.prop
	if t.kind == "prop" {
		sel = ""
	}
	return &Reading{Text: text, Edit: e, Select: sel}, nil
}

// parted parts words at one of them.
func parted(words []string, at ...string) (before, after []string, ok bool) {
	for i, w := range words {
		for _, a := range at {
			if strings.EqualFold(w, a) && i > 0 && i < len(words)-1 {
				return words[:i], words[i+1:], true
			}
		}
	}
	return words, nil, false
}

// rename gives a thing another name.
func (r *reader) rename() (*Reading, error) {
	before, after, ok := parted(r.words[1:], "to", "as")
	if !ok {
		return nil, fmt.Errorf("say what, then to, then its new name")
	}
	t, rest, ok := r.named(before)
	if !ok || len(rest) > 0 {
		return nil, r.what(before)
	}
	name := strings.Join(after, " ")
	return r.change(t, []string{"name", name})
}

// copy makes a solid or a whole prop once more; mirror makes a solid's mirror
// image.
func (r *reader) copy() (*Reading, error) {
	mirrored := strings.EqualFold(r.words[0], "mirror")
	words := r.words[1:]
	kinds := []string{"solid", "prop"}
	if len(words) > 1 && strings.EqualFold(words[0], "prop") {
		words, kinds = words[1:], []string{"prop"}
	}
	before, after, ok := parted(words, "as")
	if !ok {
		return nil, fmt.Errorf("say what, then as, then the copy's name")
	}
	t, rest, ok := r.named(before)
	if ok && kinds[0] == "prop" && t.kind != "prop" { // a prop may be called as one of its solids
		for i := range r.p.Props() {
			if x := &r.p.Props()[i]; sameName(x.Name, strings.Join(before, " ")) ||
				x.ID == strings.Join(before, " ") {
				t, rest = thing{"prop", x.ID, x}, nil
			}
		}
	}
	if !ok || len(rest) > 0 || !slices.Contains(kinds, t.kind) {
		return nil, r.what(before)
	}
	name := strings.Join(after, " ")
	var e plan.Edit
	var id string
	var err error
	if t.kind == "prop" {
		if mirrored {
			return nil, fmt.Errorf("a whole prop is copied, not mirrored; mirror its solids")
		}
		e, id, err = r.p.CopyProp(t.id, name)
	} else {
		e, id, err = r.p.CopySolid(t.id, name, mirrored)
	}
	if err != nil {
		return nil, err
	}
	return &Reading{Text: e.Label, Edit: e, Select: t.kind + ":" + id}, nil
}
