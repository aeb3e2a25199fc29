package web

import (
	"fmt"
	"strings"

	"zapbarn/core/plan"
	"zapbarn/core/shorthand"
	"zapbarn/core/stock"

	"github.com/gin-gonic/gin"
)

// Parts are what two parts of a joint may be: every part of the open prop, and
// its solids whole.
func (p *benchView) JoinParts() []Option { return partsOf(p.Work, p.Prop) }

// PropSolids are the solids of the open prop.
func (p *benchView) PropSolids() (out []Option) {
	for _, s := range p.Plan.Solids() {
		if s.Prop == p.Prop {
			out = append(out, Option{Value: s.ID, Text: s.Name})
		}
	}
	return out
}

// CoatChoices are the coats of the shop.
func (p *benchView) CoatChoices() (out []Option) {
	for _, id := range stock.IDs(p.Work.Lib.Coats) {
		out = append(out, Option{Value: id, Text: p.Work.Lib.Coats[id].Name})
	}
	return out
}

// join makes a joint or a coat of what was chosen from lists: the phrase that says
// the same is read as if it had been typed.
func (s *Server) join(c *gin.Context) {
	line := ""
	switch a, b := c.PostForm("a"), c.PostForm("b"); {
	case c.PostForm("coat") != "":
		line = fmt.Sprintf("coat %s %s", c.PostForm("solid"), c.PostForm("coat"))
	case a == b && !strings.Contains(a, "/"):
		line = fmt.Sprintf("glue %s with %s", a, c.PostForm("glue"))
	default:
		line = fmt.Sprintf("glue %s to %s with %s", a, b, c.PostForm("glue"))
	}
	prop, r := c.PostForm("prop"), &shorthand.Reading{}
	_, err := s.store.Edit(c.Request.Context(), c.Param("plan"), editor(c), func(p *plan.Plan) (plan.Edit, error) {
		read, err := shorthand.Read(p, s.lib, prop, line)
		if err != nil {
			return plan.Edit{}, err
		}
		r = read
		return r.Edit, nil
	})
	if r.Select == "" && err != nil {
		s.refused(c, over{err: err.Error()})
		return
	}
	s.applied(c, err, over{}, "")
}
