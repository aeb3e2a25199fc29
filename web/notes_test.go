package web

import (
	"bytes"
	"context"
	"image"
	"image/png"
	"io"
	"mime/multipart"
	"net/http"
	"regexp"
	"strings"
	"testing"

	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/testkit"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A note with a photo is put on a device: the ticket shows both, the search finds
// it, the photo has an address that never changes; taken away, all of it goes.
func TestANoteWithAPhoto(t *testing.T) {
	srv, st := opened(t)
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
		c := testkit.Page()
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

// A card that was tried keeps a photo of what was seen; said again without one, it keeps the
// one it had; not tried, the photo goes with it.
func TestACardKeepsItsPhoto(t *testing.T) {
	srv, st := opened(t)
	load := func() *plan.Plan {
		p, _, err := st.Load(context.Background(), "midnight-apiary")
		require.NoError(t, err)
		return p
	}
	card := work.Do(load(), shop.Kept, today).Trials("")[0]
	send := func(photo []byte, more map[string]string) (int, string) {
		var b bytes.Buffer
		m := multipart.NewWriter(&b)
		for k, v := range map[string]string{"kind": "tried", "n.at": card.At, "n.what": card.What, "n.by": "Ola",
			"n.on": "2026-09-20", "n.measured": "11.9 V", "n.passed": "on", "back": apiary + "/walkdown?way=cards"} {
			require.NoError(t, m.WriteField(k, v))
		}
		for k, v := range more {
			require.NoError(t, m.WriteField(k, v))
		}
		w, err := m.CreateFormFile("file", map[bool]string{true: "seen.png"}[photo != nil])
		require.NoError(t, err)
		_, err = w.Write(photo)
		require.NoError(t, err)
		require.NoError(t, m.Close())
		r, err := testkit.Following().Post(srv.URL+apiary+"/book", m.FormDataContentType(), &b)
		require.NoError(t, err)
		defer r.Body.Close()
		body, err := io.ReadAll(r.Body)
		require.NoError(t, err)
		return r.StatusCode, string(body)
	}
	var pic bytes.Buffer
	require.NoError(t, png.Encode(&pic, image.NewRGBA(image.Rect(0, 0, 80, 60))))
	code, body := send(pic.Bytes(), nil)
	require.Equal(t, 200, code, body)
	done := load().TriedAs(card.At, card.What)
	require.NotEmpty(t, done.Photo)
	assert.Contains(t, body, `class="proofphoto"`)
	code, _ = send(nil, map[string]string{"n.measured": "12 V"})
	require.Equal(t, 200, code)
	again := load().TriedAs(card.At, card.What)
	assert.Equal(t, done.Photo, again.Photo)
	assert.Equal(t, "12 V", again.Measured)
	code, _ = send([]byte("no picture"), nil)
	assert.GreaterOrEqual(t, code, 400)
	assert.Equal(t, "12 V", load().TriedAs(card.At, card.What).Measured, "nothing was changed")
}
