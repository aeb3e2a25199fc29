package web

import (
	"errors"
	"io"
	"mime/multipart"
	"net/http"

	"zapbarn/core/measure"

	"github.com/gin-gonic/gin"
)

// oversize refuses a file for its size alone.
type oversize struct{ error }

// codeOf is the status of a refused file.
func codeOf(err error) int {
	if _, ok := errors.AsType[oversize](err); ok {
		return http.StatusRequestEntityTooLarge
	}
	return http.StatusUnprocessableEntity
}

// reason is an error without the field it names.
func reason(err error) string {
	if f, ok := errors.AsType[*measure.FieldError](err); ok {
		return "the " + f.Field + " " + f.Why
	}
	return err.Error()
}

// opened is a file of a form, of up to most bytes; the caller closes it.
func opened(c *gin.Context, field string, most int64) (name string, in multipart.File, err error) {
	large := oversize{measure.Bad("file", "is too large; at most %d MB", most>>20)}
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

// upload reads a file of a form, up to most bytes.
func upload(c *gin.Context, field string, most int64) (name string, data []byte, err error) {
	name, in, err := opened(c, field, most)
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
