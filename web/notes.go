package web

import (
	"encoding/base64"
	"slices"
	"strings"
	"time"

	"zapbarn/core/measure"
	"zapbarn/core/plan"

	"github.com/gin-gonic/gin"
)

// NoteView is a note on a thing as its ticket shows it.
type NoteView struct{ ID, Text, From, Photo string }

// notes are the notes on a thing, the newest first.
func (p *Page) notes(key string) (out []NoteView) {
	for _, n := range p.Plan.NotesOn(key) {
		v := NoteView{ID: n.ID, Text: n.Text, From: strings.TrimSpace(n.By + " " + n.Date)}
		if x, _ := p.Plan.Get("photo", n.Photo); n.Photo != "" && x != nil {
			v.Photo = "/p/" + p.PlanID + "/photo/" + x.(*plan.Photo).Sum
		}
		out = append(out, v)
	}
	slices.Reverse(out)
	return out
}

// addNote puts words, a photo, or both on a thing.
func (s *Server) addNote(c *gin.Context) {
	photo, err := formPhoto(c)
	if err != nil {
		_, msg := fieldErrors(err)
		s.refused(c, over{err: "No note was made. " + measure.Capital(msg), code: codeOf(err)})
		return
	}
	n := plan.Note{
		On:   c.PostForm("on"),
		Text: strings.TrimSpace(c.PostForm("text")),
		By:   sayWho(c, "by"),
		Date: s.now().Format(time.DateOnly),
	}
	_, err = s.store.Edit(c.Request.Context(), c.Param("plan"), editorNamed(c, n.By),
		func(p *plan.Plan) (plan.Edit, error) {
			kind, id, _ := strings.Cut(n.On, ":")
			of, _ := p.Get(kind, id)
			if of == nil {
				return plan.Edit{}, measure.Bad("on", "what it is about was taken away meanwhile")
			}
			e := plan.Edit{Label: "note on " + plan.NameOf(of)}
			n.ID = p.FreshID("note", id)
			if photo != nil {
				n.Photo = p.FreshID("photo", id)
				ph := plan.Photo{ID: n.Photo, Data: base64.StdEncoding.EncodeToString(photo)}
				e.Changes = append(e.Changes, p.Put("photo", ph.ID, ph))
			}
			e.Changes = append(e.Changes, p.Put("note", n.ID, n))
			return e, nil
		})
	s.applied(c, err, over{}, "")
}
