package plan

import (
	"strings"

	"zapbarn/core/measure"
)

// Note is what somebody wants remembered of a thing: words, a photo, or both.
type Note struct {
	ID    string `json:"id"`
	On    string `json:"on" ref:"any,needed"` // what it is about, kind:id
	Text  string `json:"text,omitempty" max:"2000" label:"Note" wide:"true"`
	Photo string `json:"photo,omitempty" ref:"photo"`
	By    string `json:"by,omitempty" max:"40" label:"By"`
	Date  string `json:"date,omitempty" label:"On"`
}

var noteKind = listed(kind{name: "note", most: 2000, again: func(v any, c *copying) string {
	x := v.(*Note)
	x.ID = c.fresh("note", x.ID)
	return x.ID
}}, func(p *Plan) *[]Note { return &p.doc.Notes })

func (x *Note) Key() string { return x.ID }

// called is a note's first words.
func (x *Note) Called() string {
	const most = 40
	words := strings.Join(strings.Fields(x.Text), " ")
	if words == "" {
		return "photo"
	}
	if r := []rune(words); len(r) > most {
		return string(r[:most]) + "..."
	}
	return words
}

func (x *Note) valid(checks) error {
	if strings.TrimSpace(x.Text) == "" && x.Photo == "" {
		return measure.Bad("text", "is empty; write what is to be remembered, or bring a photo")
	}
	return date("date", x.Date)
}

// NotesOn lists the notes on a thing, by its key kind:id, the oldest first.
func (p *Plan) NotesOn(key string) (out []*Note) {
	for i := range p.Notes() {
		if p.Notes()[i].On == key {
			out = append(out, &p.Notes()[i])
		}
	}
	return out
}
