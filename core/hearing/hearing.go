package hearing

import (
	"strings"

	"zapbarn/core/plan"
	"zapbarn/core/shorthand"
	"zapbarn/core/stock"
)

// Answers are what a line can come to.
const (
	Done    = "done"    // understood, all of it
	Offered = "offered" // a line that comes near, with the words that nothing was made of
	Refused = "refused" // not understood; it can be kept as a note
)

// Heard is what a line came to.
type Heard struct {
	Line    string             `json:"line"`
	Answer  string             `json:"answer"`
	As      string             `json:"as,omitempty"`      // the quick line's own words for it, where they are others
	Says    string             `json:"reading,omitempty"` // said back
	Assumed []string           `json:"assumed,omitempty"` // what was not said and was taken
	Left    []string           `json:"left,omitempty"`    // the words that nothing was made of
	Why     string             `json:"why,omitempty"`     // it was refused
	Note    string             `json:"note,omitempty"`    // a line that keeps it as it was said
	Reading *shorthand.Reading `json:"-"`
	Err     error              `json:"-"` // of the line as it stands
}

// Hear reads a line onto a plan: as the quick line has it, else in a builder's own words. It makes
// nothing of a line of which a word is left over; that is offered.
func Hear(p *plan.Plan, lib *stock.Library, prop, text string) Heard {
	h := Heard{Line: text}
	r, err := shorthand.Read(p, lib, prop, text)
	if err == nil {
		h.Answer, h.Says, h.Reading = Done, r.Text, r
		return h
	}
	h.Answer, h.Why, h.Err = Refused, err.Error(), err
	if x := p.Prop(prop); x != nil {
		h.Note = "note " + x.Name + ": " + strings.TrimSpace(text)
	}
	if len(text) > 300 {
		return h
	}
	best := Heard{}
	for _, f := range frames {
		l := &line{p: p, lib: p.Shop(lib), prop: prop, words: words(text)}
		as := f(l)
		if as == "" {
			continue
		}
		r, err := shorthand.Read(p, lib, prop, as)
		if err != nil {
			continue
		}
		left := l.left()
		if best.As == "" || len(left) < len(best.Left) {
			best = Heard{As: as, Says: r.Text, Assumed: l.assumed, Left: left, Reading: r}
		}
	}
	if best.As == "" {
		return h
	}
	h.As, h.Says, h.Assumed, h.Left = best.As, best.Says, best.Assumed, best.Left
	h.Answer = Offered
	if len(best.Left) == 0 {
		h.Answer, h.Reading, h.Why, h.Note = Done, best.Reading, "", ""
	}
	return h
}

// Text is what is said back: what it makes, and what was not said and was taken.
func (h Heard) Text() string {
	if len(h.Assumed) == 0 {
		return h.Says
	}
	return h.Says + "; assumed: " + strings.Join(h.Assumed, ", ")
}

// Trouble is why it was not done; "" where it was.
func (h Heard) Trouble() string {
	if h.Answer == Offered {
		return "nothing was made of “" + strings.Join(h.Left, " ") + "”; take it without, or say it otherwise"
	}
	return h.Why
}

// left are the words that nothing was made of, fillers left out.
func (l *line) left() (out []string) {
	for _, w := range l.words {
		if !w.used && !fillers[w.text] {
			out = append(out, w.text)
		}
	}
	return out
}
