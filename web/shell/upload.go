package shell

import (
	"errors"
	"io"
	"mime/multipart"
	"net/http"

	"zapbarn/core/measure"

	"github.com/gin-gonic/gin"
)

// Oversize refuses a file for its size alone.
type Oversize struct{ Err error }

func (o Oversize) Error() string { return o.Err.Error() }

// Unwrap is the refusal that names the field.
func (o Oversize) Unwrap() error { return o.Err }

// CodeOf is the status of a refused file.
func CodeOf(err error) int {
	if _, ok := errors.AsType[Oversize](err); ok {
		return http.StatusRequestEntityTooLarge
	}
	return http.StatusUnprocessableEntity
}

// Reason is an error without the field it names.
func Reason(err error) string {
	if f, ok := errors.AsType[*measure.FieldError](err); ok {
		return "the " + f.Field + " " + f.Why
	}
	return err.Error()
}

// Opened is a file of a form, of up to most bytes; the caller closes it.
func Opened(c *gin.Context, field string, most int64) (name string, in multipart.File, err error) {
	large := Oversize{measure.Bad("file", "is too large; at most %d MB", most>>20)}
	f, err := c.FormFile(field)
	if err != nil {
		if _, big := errors.AsType[*http.MaxBytesError](err); big {
			return "", nil, large
		}
		return "", nil, measure.Bad("file", "is missing; choose one")
	}
	if f.Size > most {
		return "", nil, large
	}
	in, err = f.Open()
	if err != nil {
		return "", nil, measure.Bad("file", "could not be read; choose it again")
	}
	return f.Filename, in, nil
}

// Upload reads a file of a form, up to most bytes.
func Upload(c *gin.Context, field string, most int64) (name string, data []byte, err error) {
	name, in, err := Opened(c, field, most)
	if err != nil {
		return "", nil, err
	}
	defer in.Close()
	data, err = io.ReadAll(io.LimitReader(in, most+1))
	if err != nil {
		return "", nil, measure.Bad("file", "could not be read; choose it again")
	}
	return name, data, nil
}
