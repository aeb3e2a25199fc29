package shell

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

// notesOn are the notes on a thing, the newest first.
func (p *Page) notesOn(key string) (out []NoteView) {
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

// AddNote puts words, a photo, or both on a thing.
func (s *Site) AddNote(c *gin.Context) {
	var in struct {
		On   string `form:"on"`
		Text string `form:"text"`
	}
	if !s.Bind(c, &in) {
		return
	}
	photo, err := FormPhoto(c)
	if err != nil {
		_, msg := FieldErrors(err)
		s.Refused(c, Over{Err: "No note was made. " + measure.Capital(msg), Code: CodeOf(err)})
		return
	}
	n := plan.Note{
		On:   in.On,
		Text: strings.TrimSpace(in.Text),
		By:   SayWho(c, "by"),
		Date: s.Now().Format(time.DateOnly),
	}
	err = s.ChangeBy(c, n.By, func(p *plan.Plan) (plan.Edit, error) {
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
	s.Applied(c, err, Over{}, "")
}
