package bench

import (
	"fmt"
	"strings"

	"zapbarn/web/shell"

	"zapbarn/core/plan"
	"zapbarn/core/shorthand"
	"zapbarn/core/stock"

	"github.com/gin-gonic/gin"
)

// Parts are what two parts of a joint may be: every part of the open prop, and
// its solids whole.
func (p *view) JoinParts() []shell.Option { return shell.PartsOf(p.Work, p.Prop) }

// PropSolids are the solids of the open prop.
func (p *view) PropSolids() (out []shell.Option) {
	for _, s := range p.Plan.Solids() {
		if s.Prop == p.Prop {
			out = append(out, shell.Option{Value: s.ID, Text: s.Name})
		}
	}
	return out
}

// CoatChoices are the coats of the shop.
func (p *view) CoatChoices() (out []shell.Option) {
	for _, id := range stock.IDs(p.Work.Lib.Coats) {
		out = append(out, shell.Option{Value: id, Text: p.Work.Lib.Coats[id].Name})
	}
	return out
}

// Join makes a joint or a coat of what was chosen from lists: the phrase that says
// the same is read as if it had been typed.
func (s Room) Join(c *gin.Context) {
	var in struct {
		A     string `form:"a"`
		B     string `form:"b"`
		Coat  string `form:"coat"`
		Solid string `form:"solid"`
		Glue  string `form:"glue"`
		Prop  string `form:"prop"`
	}
	if !s.Bind(c, &in) {
		return
	}
	line := ""
	switch a, b := in.A, in.B; {
	case in.Coat != "":
		line = fmt.Sprintf("coat %s %s", in.Solid, in.Coat)
	case a == b && !strings.Contains(a, "/"):
		line = fmt.Sprintf("glue %s with %s", a, in.Glue)
	default:
		line = fmt.Sprintf("glue %s to %s with %s", a, b, in.Glue)
	}
	prop, r := in.Prop, &shorthand.Reading{}
	err := s.Change(c, func(p *plan.Plan) (plan.Edit, error) {
		read, err := shorthand.Read(p, s.Lib, prop, line)
		if err != nil {
			return plan.Edit{}, err
		}
		r = read
		return r.Edit, nil
	})
	if r.Select == "" && err != nil {
		s.Refused(c, shell.Over{Err: err.Error()})
		return
	}
	s.Applied(c, err, shell.Over{}, "")
}
