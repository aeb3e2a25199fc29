package shell

import (
	"net/http"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"

	"github.com/gin-gonic/gin"
)

// Plain is a plan that could not be worked out in its time: what it holds, and
// what can be done about it.
type Plain struct {
	Title, Theme, Back, PlanID string
	Plan                       *plan.Plan
	Heavy                      *work.TooHeavy
	What                       string
	First                      *PlainRow
	Groups                     []PlainGroup
	Undo                       string
}

// PlainGroup is the elements of one kind; More are not shown.
type PlainGroup struct {
	Kind string
	N    int
	Rows []PlainRow
	More int
}

// PlainRow is one element that can be taken away.
type PlainRow struct{ Kind, ID, Name string }

// plainRows is how many elements of a kind the plain view lists.
const plainRows = 60

// plain shows a plan that is too heavy to work out: which element took most,
// with undo, export and taking away, none of which works the plan out.
func (s *Site) plain(c *gin.Context, heavy *work.TooHeavy) {
	id := c.Param("plan")
	p, _, err := s.Store.Load(c.Request.Context(), id)
	if err != nil {
		s.Fail(c, err)
		return
	}
	steps, err := s.Store.Steps(c.Request.Context(), id, Editor(c))
	if err != nil {
		s.Fail(c, err)
		return
	}
	v := Plain{
		Title:  p.Display().Name,
		Theme:  ThemeOf(c),
		Back:   "/p/" + id,
		PlanID: id,
		Plan:   p,
		Heavy:  heavy,
		What:   measure.Capital(heavy.Error()) + ".",
		Undo:   steps.Undo,
	}
	for _, kind := range plan.Kinds() {
		all := p.Elements(kind)
		if kind == "display" || len(all) == 0 {
			continue
		}
		g := PlainGroup{Kind: kind, N: len(all), More: max(0, len(all)-plainRows)}
		for i, e := range all {
			row := PlainRow{kind, e.ID, plan.NameOf(e.Value)}
			if kind == heavy.Kind && e.ID == heavy.ID {
				v.First = &row
			}
			if i < plainRows {
				g.Rows = append(g.Rows, row)
			}
		}
		v.Groups = append(v.Groups, g)
	}
	c.Status(http.StatusUnprocessableEntity)
	c.Header("Content-Type", "text/html; charset=utf-8")
	_ = s.pages.ExecuteTemplate(c.Writer, "plain.html", v)
}
