package shell

import (
	"encoding/base64"
	"errors"
	"net/http"
	"path/filepath"
	"strings"
	"unicode/utf8"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/formats"
	"zapbarn/store"

	"github.com/gin-gonic/gin"
)

// PictureSide is the longer side a picture is kept at, in pixels; it is squared
// up to as many.
const PictureSide = 1100

// Kept marks an answer with what it holds, and is true where the browser has
// that already.
func Kept(c *gin.Context, sum string) bool {
	c.Header("Cache-Control", "private, max-age=3600")
	c.Header("ETag", `"`+sum+`"`)
	if c.GetHeader("If-None-Match") != `"`+sum+`"` {
		return false
	}
	c.Status(http.StatusNotModified)
	return true
}

// brought is a picture that was brought in: made small, packed, with a name of its own.
type brought struct {
	Photo      *plan.Photo
	Title      string
	Wide, Tall int
}

// PhotoIn takes a picture of a form.
func PhotoIn(c *gin.Context, p *plan.Plan, called string) (b brought, err error) {
	name, data, err := Upload(c, "file", plan.MaxFile)
	if err != nil {
		return b, err
	}
	small, err := formats.Picture(c.Request.Context(), data, PictureSide)
	if err != nil {
		return b, err
	}
	kept, err := formats.PackPicture(small, base64.StdEncoding.DecodedLen(plan.MaxPhoto))
	if err != nil {
		return b, err
	}
	b.Title = strings.TrimSpace(
		strings.NewReplacer("-", " ", "_", " ").Replace(strings.TrimSuffix(filepath.Base(name), filepath.Ext(name))),
	)
	if b.Title == "" || utf8.RuneCountInString(b.Title) > 60 {
		b.Title = called
	}
	b.Photo = &plan.Photo{ID: p.FreshID("photo", called), Data: base64.StdEncoding.EncodeToString(kept)}
	b.Wide, b.Tall = small.Bounds().Dx(), small.Bounds().Dy()
	return b, nil
}

// Photo sends a picture's data by its sum: what an address gives never changes.
func (s *Site) Photo(c *gin.Context) {
	sum := c.Param("sum")
	data, err := s.Store.Photo(c.Request.Context(), c.Param("plan"), sum)
	if errors.Is(err, store.ErrPhotoGone) {
		s.Trouble(c, http.StatusNotFound, "No such picture", "It was taken away. Go back and look again.")
		return
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	if Kept(c, sum) {
		return
	}
	c.Header("Cache-Control", "private, max-age=31536000, immutable")
	c.Data(http.StatusOK, "image/jpeg", data)
}

// FormPhoto is the picture that a form sent, small enough to keep; nil where it sent none.
func FormPhoto(c *gin.Context) ([]byte, error) {
	_, header, err := c.Request.FormFile("file")
	switch {
	case err == nil && header.Filename != "":
		return smallPhoto(c)
	case err != nil && !errors.Is(err, http.ErrMissingFile) && !errors.Is(err, http.ErrNotMultipart):
		return nil, measure.Bad("file", "could not be read; choose a photo of 8 MB at most")
	}
	return nil, nil
}

// smallPhoto is the picture of a form, small enough to keep, as a JPEG.
func smallPhoto(c *gin.Context) ([]byte, error) {
	_, data, err := Upload(c, "file", plan.MaxFile)
	if err != nil {
		return nil, err
	}
	img, err := formats.Picture(c.Request.Context(), data, PictureSide)
	if err != nil {
		return nil, err
	}
	return formats.PackPicture(img, base64.StdEncoding.DecodedLen(plan.MaxPhoto))
}
