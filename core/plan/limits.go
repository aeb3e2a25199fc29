package plan

import (
	"fmt"
	"reflect"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"

	"zapbarn/core/measure"
)

// most is how many elements of each kind a plan may hold: some twenty times
// the largest display that is known, and little enough to be worked out.
var most = map[string]int{"display": 1, "prop": 400, "solid": 4000, "joint": 4000, "finish": 4000, "device": 5000, "input": 400, "scene": 400, "trigger": 1000,
	"lot": 1000, "waiver": 2000, "reading": 5000, "offcut": 1000, "layout": 200, "photo": 400, "picture": 400, "outlet": 200, "good": 400, "plug": 1000}

// Most is how many elements of a kind a plan may hold.
func Most(kind string) int { return most[kind] }

// Letters is how many letters a text field may have: its max tag, or what a
// name may have. Web forms and the schema take it from here.
func Letters(f reflect.StructField) int {
	if n, err := strconv.Atoi(f.Tag.Get("max")); err == nil {
		return n
	}
	return 120
}

// entries is how many entries a list within an element may have: its max tag.
func entries(f reflect.StructField) int {
	if n, err := strconv.Atoi(f.Tag.Get("max")); err == nil {
		return n
	}
	return 200
}

// texts checks every text of an element: its length in letters, and that each
// letter can be stored and printed.
func texts(v any) error { return textsOf(reflect.ValueOf(v).Elem()) }

var stringer = reflect.TypeFor[fmt.Stringer]()

func textsOf(v reflect.Value) error {
	t := v.Type()
	for i := range t.NumField() {
		f := t.Field(i)
		name, _, _ := strings.Cut(f.Tag.Get("json"), ",")
		switch x := v.Field(i); {
		case x.Kind() == reflect.String:
			if err := text(name, x.String(), Letters(f)); err != nil {
				return err
			}
		case f.Type.Implements(stringer): // a quantity, as written
			if err := text(name, x.Interface().(fmt.Stringer).String(), 60); err != nil {
				return err
			}
		case x.Kind() == reflect.Interface && !x.IsNil(): // a solid's form
			if err := textsOf(x.Elem()); err != nil {
				return err
			}
		case x.Kind() == reflect.Struct:
			if err := textsOf(x); err != nil {
				return err
			}
		case x.Kind() == reflect.Slice:
			if n := entries(f); x.Len() > n {
				return measure.Bad(name, "has %d entries; %d at most", x.Len(), n)
			}
			for k := range x.Len() {
				if err := textsOf(x.Index(k)); err != nil {
					return err
				}
			}
		}
	}
	return nil
}

// text checks one text.
func text(field, s string, letters int) error {
	if len(s) > letters && utf8.RuneCountInString(s) > letters {
		return measure.Bad(field, "has %d letters; %d at most", utf8.RuneCountInString(s), letters)
	}
	if !utf8.ValidString(s) {
		return measure.Bad(field, "holds bytes that are no letters; write it again")
	}
	for _, r := range s {
		if unicode.IsControl(r) && r != '\n' && r != '\t' && r != '\r' {
			return measure.Bad(field, "holds a sign that cannot be printed (U+%04X); take it out", r)
		}
	}
	return nil
}

// needs checks the references that must be given.
func needs(v any) error {
	for _, r := range required(v) {
		if r.ID == "" {
			return measure.Bad(r.Field, "is empty; name the %s it belongs to", r.Kind)
		}
	}
	return nil
}

// required lists the references an element cannot do without.
func required(v any) []ref {
	switch x := v.(type) {
	case *Solid:
		return []ref{{"prop", x.Prop, "prop"}}
	case *Joint:
		return []ref{{"prop", x.Prop, "prop"}}
	case *Finish:
		return []ref{{"solid", x.Solid, "solid"}}
	case *Device:
		return []ref{{"prop", x.Prop, "prop"}}
	case *Input:
		return []ref{{"prop", x.Prop, "prop"}}
	case *Scene:
		return []ref{{"prop", x.Prop, "prop"}}
	case *Plug:
		return []ref{{"outlet", x.Outlet, "outlet"}}
	case *Picture:
		return []ref{{"prop", x.Prop, "prop"}, {"photo", x.Photo, "photo"}}
	case *Reading:
		return []ref{{"device", x.Device, "device"}}
	case *Trigger:
		return []ref{{"input", x.Input, "input"}, {"scene", x.Scene, "scene"}}
	}
	return nil
}
