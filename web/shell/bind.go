package shell

import (
	"errors"
	"fmt"
	"net/http"
	"reflect"
	"strconv"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/work"

	"github.com/gin-gonic/gin"
	"github.com/gin-gonic/gin/binding"
	"github.com/go-playground/validator/v10"
)

func init() { // errors name a field as its form does
	if v, ok := binding.Validator.Engine().(*validator.Validate); ok {
		v.RegisterTagNameFunc(func(f reflect.StructField) string { return f.Tag.Get("form") })
	}
}

// beside is what a form may hold beside its file.
const beside = 1 << 16

// Bind reads a form into the fields of a struct by their form tags, and checks what their binding
// tags ask of them. What cannot be taken is refused here, by the field and what would be accepted;
// then it is false.
func (s *Site) Bind(c *gin.Context, into any) bool {
	err := c.ShouldBind(into)
	if err == nil {
		return true
	}
	code := http.StatusUnprocessableEntity
	if large, ok := errors.AsType[*http.MaxBytesError](err); ok {
		code = http.StatusRequestEntityTooLarge
		err = measure.Bad("file", "is too large; at most %d MB", (large.Limit-beside)>>20)
	}
	errs, msg := FieldErrors(unbound(c, into, err))
	s.Refused(c, Over{Err: measure.Capital(msg) + ".", errors: errs, Code: code})
	return false
}

// OpenWith is Bind and then Open.
func (s *Site) OpenWith(c *gin.Context, into any) (w *work.Work, ok bool) {
	if !s.Bind(c, into) {
		return nil, false
	}
	return s.Open(c)
}

// unbound is why a form was not taken, with the field it is about.
func unbound(c *gin.Context, into any, err error) error {
	if list, ok := errors.AsType[validator.ValidationErrors](err); ok && len(list) > 0 {
		f := list[0]
		switch f.Tag() {
		case "required":
			return measure.Bad(f.Field(), "is empty")
		case "oneof":
			return measure.Bad(f.Field(), "%q is none of %s", fmt.Sprint(f.Value()), strings.ReplaceAll(f.Param(), " ", ", "))
		case "min", "gte":
			return measure.Bad(f.Field(), "is too small; at least %s", f.Param())
		case "max", "lte":
			return measure.Bad(f.Field(), "is too large; at most %s", f.Param())
		}
		return measure.Bad(f.Field(), "cannot be taken: %s %s", f.Tag(), f.Param())
	}
	t := reflect.TypeOf(into).Elem()
	for i := range t.NumField() { // a number that is none names no field by itself
		name := t.Field(i).Tag.Get("form")
		text := c.Request.Form.Get(name)
		var e error
		switch t.Field(i).Type.Kind() {
		case reflect.Int, reflect.Int64:
			_, e = strconv.ParseInt(text, 10, 64)
		case reflect.Float64:
			_, e = strconv.ParseFloat(text, 64)
		default:
			continue
		}
		if e != nil && text != "" {
			return measure.Bad(name, "%q is no number", text)
		}
	}
	return err
}
