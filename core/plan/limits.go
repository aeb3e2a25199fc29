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
