package plan

import (
	"fmt"
	"reflect"
	"strconv"
	"strings"
	"sync"
	"unicode"
	"unicode/utf8"

	"zapbarn/core/measure"
)

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

// textField is a field of an element's that holds text, and how much it may hold.
type textField struct {
	at       int
	name     string
	letters  int
	entries  int
	quantity bool
}

var textFields sync.Map // of reflect.Type: []textField, read off its tags once

func textFieldsOf(t reflect.Type) []textField {
	if got, ok := textFields.Load(t); ok {
		return got.([]textField)
	}
	var out []textField
	for i := range t.NumField() {
		f := t.Field(i)
		x := textField{at: i, quantity: f.Type.Implements(stringer) && f.Type.Kind() != reflect.String}
		x.name, _, _ = strings.Cut(f.Tag.Get("json"), ",")
		switch f.Type.Kind() {
		case reflect.String:
			x.letters = Letters(f)
		case reflect.Slice:
			x.entries = entries(f)
		case reflect.Struct, reflect.Interface:
		default:
			if !x.quantity {
				continue
			}
		}
		out = append(out, x)
	}
	textFields.Store(t, out)
	return out
}

func textsOf(v reflect.Value) error {
	for _, f := range textFieldsOf(v.Type()) {
		x := v.Field(f.at)
		if err := f.check(x); err != nil {
			return err
		}
	}
	return nil
}

func (f textField) check(x reflect.Value) error {
	switch {
	case x.Kind() == reflect.String:
		return text(f.name, x.String(), f.letters)
	case f.quantity: // as written
		if x.IsZero() {
			return nil
		}
		return text(f.name, x.Interface().(fmt.Stringer).String(), 60)
	case x.Kind() == reflect.Interface: // a solid's form
		if x.IsNil() {
			return nil
		}
		return textsOf(x.Elem())
	case x.Kind() == reflect.Struct:
		return textsOf(x)
	case x.Len() > f.entries:
		return measure.Bad(f.name, "has %d entries; %d at most", x.Len(), f.entries)
	}
	for k := range x.Len() {
		if err := textsOf(x.Index(k)); err != nil {
			return err
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
