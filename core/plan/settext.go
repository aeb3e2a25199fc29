package plan

import (
	"reflect"
	"strconv"
	"strings"

	"zapbarn/core/measure"
)

// SetText sets one of an element's fields by its name in files to what was
// written: a quantity as written, a bare length in the plan's units, a whole
// number, on or off, or a text. An empty text empties it. The error names the
// field; a field that holds a list cannot be set so.
func SetText(element any, name, text string, metric bool) error {
	f, _, keep, ok := At(element, name)
	if !ok {
		return measure.Bad(name, "is no field of this")
	}
	text = strings.TrimSpace(text)
	switch f.Interface().(type) {
	case bool:
		switch strings.ToLower(text) {
		case "on", "yes", "true":
			f.SetBool(true)
		case "off", "no", "false", "":
			f.SetBool(false)
		default:
			return measure.Bad(name, "%q is not understood; write on or off", text)
		}
	case int:
		n := 0
		if text != "" {
			var err error
			if n, err = strconv.Atoi(strings.TrimSuffix(text, "%")); err != nil || n < 0 || n > 1_000_000 {
				return measure.Bad(name, "%q is not a whole number", text)
			}
		}
		f.SetInt(int64(n))
	case string:
		f.SetString(text)
	case measure.Length:
		l := measure.Length{}
		if text != "" {
			bare := "in"
			if metric {
				bare = "mm"
			}
			var err error
			if l, err = measure.ParseLengthIn(text, bare); err != nil {
				return measure.Bad(name, "%s", err)
			}
		}
		f.Set(reflect.ValueOf(l))
	default: // the other quantities
		u, ok := f.Addr().Interface().(interface{ UnmarshalText([]byte) error })
		if !ok {
			return measure.Bad(name, "holds a list; change it on the ticket")
		}
		if err := u.UnmarshalText([]byte(text)); err != nil {
			return measure.Bad(name, "%s", err)
		}
	}
	keep()
	return nil
}
