package rehearsal

import (
	"errors"
	"strings"

	"zapbarn/web/shell"

	"zapbarn/core/plan"
	"zapbarn/core/shorthand"

	"github.com/gin-gonic/gin"
)

// Notation is a prop's behaviour as text.
type Notation struct {
	Prop    string
	Text    string
	Error   string
	Pre     string // the text up to the word that is wrong, the word, and the rest
	Word    string
	Post    string
	Rows    int
	Example string
}

// notation is the open prop's behaviour, or what was typed and could not be read.
func (p *view) notation() Notation {
	n := Notation{Prop: p.Prop, Text: shorthand.WriteBehaviour(p.Plan, p.Prop)}
	if typed, ok := p.Laid.(*typing); ok && typed.prop == p.Prop {
		n = *typed.said()
	}
	n.Rows = max(3, min(14, 1+strings.Count(n.Text, "\n")+len(n.Text)/110))
	n.Example = "when mat, if ready: glow flicker 5s, fog 2s at 0.5s; rest 12s"
	return n
}

// typing is a text of behaviour that was refused.
type typing struct {
	prop, text string
	err        error
}

func (t *typing) said() *Notation {
	n := &Notation{Prop: t.prop, Text: t.text, Error: t.err.Error()}
	var e *shorthand.NotationError
	if errors.As(t.err, &e) {
		n.Error = e.Why
		if e.At+e.Long <= len(t.text) {
			n.Pre, n.Word, n.Post = t.text[:e.At], t.text[e.At:e.At+e.Long], t.text[e.At+e.Long:]
		}
	}
	return n
}

// Behave makes a prop behave as a text says.
func (s Room) Behave(c *gin.Context) {
	var in struct {
		Prop string `form:"prop"`
		Text string `form:"text"`
	}
	if !s.Bind(c, &in) {
		return
	}
	prop, text := in.Prop, strings.ReplaceAll(in.Text, "\r\n", "\n")
	var refused error
	err := s.Change(c, func(p *plan.Plan) (plan.Edit, error) {
		e, err := shorthand.ReadBehaviour(p, prop, text)
		refused = err
		return e, err
	})
	o := shell.Over{}
	if refused != nil {
		o.Laid = &typing{prop, text, refused}
		o.Err = "The behaviour is not understood: " + refused.Error() + "."
		s.Refused(c, o)
		return
	}
	s.Applied(c, err, o, "")
}

// ReadBehaviour tells what is wrong in a text of behaviour, and where.
func (s Room) ReadBehaviour(c *gin.Context) {
	var in struct {
		Prop string `form:"prop"`
		Text string `form:"text"`
	}
	if !s.Bind(c, &in) {
		return
	}
	w, _, err := s.Work(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.Answered(c, err)
		return
	}
	e, err := shorthand.ReadBehaviour(
		w.Plan,
		in.Prop,
		strings.ReplaceAll(in.Text, "\r\n", "\n"),
	)
	var bad *shorthand.NotationError
	switch {
	case errors.As(err, &bad):
		c.JSON(200, gin.H{"why": bad.Why, "word": bad.Word, "at": bad.At, "long": bad.Long, "line": bad.Line})
	case err != nil:
		c.JSON(200, gin.H{"why": err.Error()})
	default:
		if _, err := w.Plan.Apply(e); err != nil {
			c.JSON(200, gin.H{"why": err.Error()})
			return
		}
		c.JSON(200, gin.H{"changes": len(e.Changes)})
	}
}
