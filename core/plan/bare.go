package plan

import (
	"reflect"

	"zapbarn/core/form"
	"zapbarn/core/measure"
)

// inUnits gives every length that has no unit a bare unit, in or mm. In a plan file a bare number
// means what its display's units say; in a plan at hand it is inches, as it was entered. What
// others may hold as well is copied.
func (p *Plan) inUnits(bare string) {
	var walk func(v reflect.Value)
	walk = func(v reflect.Value) {
		switch {
		case v.Type() == reflect.TypeFor[measure.Length]():
			if v.CanSet() {
				v.Set(reflect.ValueOf(measure.Unit(v.Interface().(measure.Length), bare)))
			}
		case v.Kind() == reflect.Slice:
			if v.Len() == 0 || v.Type().Elem().Kind() == reflect.Uint8 {
				return
			}
			own := reflect.MakeSlice(v.Type(), v.Len(), v.Len())
			reflect.Copy(own, v)
			for i := range own.Len() {
				walk(own.Index(i))
			}
			v.Set(own)
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
	walk(reflect.ValueOf(&p.doc).Elem())
}
