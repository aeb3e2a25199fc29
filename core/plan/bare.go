package plan

import (
	"reflect"

	"zapbarn/core/form"
	"zapbarn/core/measure"
)

// inUnits gives every length of a plan file that has no unit that of the file: a bare number
// means what its display's units say.
func (p *Plan) inUnits() {
	bare := p.Display.Units
	var walk func(v reflect.Value)
	walk = func(v reflect.Value) {
		switch {
		case v.Type() == reflect.TypeFor[measure.Length]():
			if v.CanSet() {
				v.Set(reflect.ValueOf(measure.Unit(v.Interface().(measure.Length), bare)))
			}
		case v.Kind() == reflect.Slice:
			for i := range v.Len() {
				walk(v.Index(i))
			}
		case v.Type() == reflect.TypeFor[form.Form]() && !v.IsNil():
			f := reflect.New(v.Elem().Type()).Elem()
			f.Set(v.Elem())
			walk(f)
			v.Set(f)
		case v.Kind() == reflect.Struct:
			for i := range v.NumField() {
				if v.Type().Field(i).IsExported() {
					walk(v.Field(i))
				}
			}
		}
	}
	walk(reflect.ValueOf(p).Elem())
}
