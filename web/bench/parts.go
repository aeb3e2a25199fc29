package bench

import (
	"html/template"
	"strings"

	"zapbarn/web/shell"

	"zapbarn/core/check"
	"zapbarn/web/draw"

	"github.com/gin-gonic/gin"
)

func (s Room) partsWay() shell.Way {
	return shell.Way{
		ID:    "parts",
		Title: "Parts",
		Fill: shell.Showing(newView, func(_ *gin.Context, p *view, _ []check.Snag) error {
			p.parts()
			return nil
		}),
	}
}

// parts draws the part selected, or the first of the solid or the prop.
func (p *view) parts() {
	w := p.Work
	kind, id, _ := strings.Cut(p.Sel, ":")
	part := p.partOf()
	for _, q := range w.Parts() {
		if part == nil && q.Solid.Prop == p.Prop && (kind != "solid" || q.Solid.ID == id) {
			part, p.Sel = q, "part:"+q.Ref
		}
	}
	if part != nil {
		p.Draw = template.HTML(draw.Parts(w, part, p.Here))
	} else {
		p.whole()
	}
	p.ticket(part)
	p.order()
}
