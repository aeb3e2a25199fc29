package web

import (
	"bytes"
	"image"
	"image/png"
	"mime/multipart"
	"net/http"
	"regexp"
	"strings"
	"testing"

	"zapbarn/core/plan"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A note with a photo is put on a device: the ticket shows both, the search finds
// it, the photo has an address that never changes; taken away, all of it goes.
func TestANoteWithAPhoto(t *testing.T) {
	srv, st := barn(t)
	send := func(fields map[string]string, photo []byte) (int, string) {
		var b bytes.Buffer
		m := multipart.NewWriter(&b)
		for k, v := range fields {
			require.NoError(t, m.WriteField(k, v))
		}
		w, err := m.CreateFormFile("file", map[bool]string{true: "wet joint.png"}[photo != nil])
		require.NoError(t, err)
		_, err = w.Write(photo)
		require.NoError(t, err)
		require.NoError(t, m.Close())
		c := http.Client{CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse }}
		r, err := c.Post(srv.URL+apiary+"/note", m.FormDataContentType(), &b)
		require.NoError(t, err)
		defer r.Body.Close()
		var page bytes.Buffer
		_, _ = page.ReadFrom(r.Body)
		return r.StatusCode, page.String()
	}
	var img bytes.Buffer
	require.NoError(t, png.Encode(&img, image.NewGray(image.Rect(0, 0, 80, 60))))
	code, page := send(
		map[string]string{"on": "device:W1", "text": "Soldered cold, do it again", "by": "Ola"},
		img.Bytes(),
	)
	require.Equal(t, http.StatusSeeOther, code, regexp.MustCompile(`(?s)role="alert">[^<]*`).FindString(page))
	p, _, err := st.Load(t.Context(), "midnight-apiary")
	require.NoError(t, err)
	notes := p.NotesOn("device:W1")
	require.Len(t, notes, 1)
	assert.Equal(t, "2026-09-20", notes[0].Date)
	ph, _ := p.Get("photo", notes[0].Photo)
	address := apiary + "/photo/" + ph.(*plan.Photo).Sum
	_, page, _ = got(t, srv, apiary+"/loom?prop=shelf&sel=device:W1")
	assert.Contains(t, page, "Soldered cold, do it again")
	assert.Contains(t, page, "Ola 2026-09-20")
	assert.Contains(t, page, address)
	code, jpeg, head := got(t, srv, address)
	assert.Equal(t, http.StatusOK, code)
	assert.True(t, strings.HasPrefix(jpeg, "\xff\xd8"))
	assert.Contains(t, head.Get("Cache-Control"), "immutable")
	_, page, _ = got(t, srv, apiary+"/walkdown?way=find&find=soldered+cold")
	assert.Contains(t, page, "sel=device%3AW1")

	for _, bad := range []map[string]string{{"on": "device:W1"}, {"on": "device:none", "text": "so"}, {"text": "so"}} {
		code, page = send(bad, nil)
		assert.Equal(t, http.StatusUnprocessableEntity, code, "%v", bad)
		assert.Contains(t, page, `role="alert"`)
	}
	code, page = send(map[string]string{"on": "device:W1", "text": "so"}, []byte("no picture"))
	assert.Equal(t, http.StatusUnprocessableEntity, code)
	assert.Contains(t, page, "No note was made")

	code, _ = post(t, srv, apiary+"/remove", map[string][]string{"kind": {"note"}, "id": {notes[0].ID}})
	require.Equal(t, http.StatusSeeOther, code)
	p, _, err = st.Load(t.Context(), "midnight-apiary")
	require.NoError(t, err)
	assert.Empty(t, p.NotesOn("device:W1"))
	ph, _ = p.Get("photo", notes[0].Photo)
	assert.Nil(t, ph)
}
